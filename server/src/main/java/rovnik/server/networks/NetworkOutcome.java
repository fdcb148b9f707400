package rovnik.server.networks;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.network.NetworkData;
import rovnik.core.result.Axis;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.result.Series;
import rovnik.core.result.SpoiledBand;
import rovnik.core.result.Values;
import rovnik.server.networks.NetworkViewDto.Curve;
import rovnik.server.networks.NetworkViewDto.OutcomeDto;
import rovnik.server.networks.NetworkViewDto.Shown;
import rovnik.server.results.Nulls;

/** A network as it is shown, or whole, in the form that every measurement shares. */
public final class NetworkOutcome {
  public static final String KIND = "network";
  public static final String TITLE = "S-parameters";

  private NetworkOutcome() {}

  /**
   * What the views show: a series a pane ("pane0", ...), the response over distance ("distance"),
   * limits of a fixture; faults as a table; limits and worst values as readings.
   *
   * @param plane that values are referred to
   * @param doubts why single numbers must be doubted, besides the marks of all
   */
  public static Outcome of(Shown s, String plane, List<String> marks, List<String> doubts) {
    List<Series> series = new ArrayList<>();
    Axis hz = Axis.own(Axis.FREQUENCY, "Hz", s.frequencyHz());
    for (int i = 0; i < s.curves().size(); i++) {
      Curve c = s.curves().get(i);
      Values v =
          c.re().length > 0 ? new Values.Complex(c.re(), c.im()) : new Values.Real(numbers(c.y()));
      if (v.points() > 0) {
        series.add(data("pane" + i, c.label(), plane, hz, quantity(c), c.unit(), v));
      }
    }
    List<ResultTable> tables = new ArrayList<>();
    if (s.time() != null) {
      series.add(
          data(
              "distance",
              "reflection over distance",
              plane,
              Axis.own("Distance", "m", s.time().metres()),
              "Reflection",
              "",
              new Values.Real(s.time().value())));
      tables.add(faults(s.time()));
    }
    List<SpoiledBand> spoiled = List.of();
    if (s.window() != null) {
      series.add(
          Series.limit(
              "fixtureLowest", "lowest to trust", s.frequencyHz(), s.window().lowestDb(), "dB"));
      series.add(
          Series.limit(
              "fixtureHighest", "highest to trust", s.frequencyHz(), s.window().highestDb(), "dB"));
      spoiled =
          s.window().near().stream()
              .map(n -> new SpoiledBand(n.fromHz(), n.toHz(), "too near to the fixture itself"))
              .toList();
    }
    return new Outcome(
        KIND,
        TITLE,
        String.join(" ", s.notes()),
        series,
        tables,
        readings(s, plane, doubts),
        marks,
        spoiled);
  }

  /**
   * All S-parameters as magnitudes in dB, S21 first if there is one; then the reflections whole.
   */
  public static Outcome whole(
      NetworkData n, Shown judged, String plane, List<String> marks, List<String> doubts) {
    List<Series> series = new ArrayList<>();
    Axis hz = Axis.own(Axis.FREQUENCY, "Hz", n.frequencyHz());
    for (int row = 1; row <= n.ports(); row++) {
      for (int column = 1; column <= n.ports(); column++) {
        double[] db = new double[n.points()];
        for (int i = 0; i < db.length; i++) {
          db[i] = (float) Math.max(-300, n.magnitudeDb(i, row, column));
        }
        String name = NetworkData.name(row, column);
        Series s =
            data(name, name + " magnitude", plane, hz, "Magnitude", "dB", new Values.Real(db));
        series.add(row == 2 && column == 1 ? 0 : series.size(), s);
      }
    }
    for (int port = 1; port <= n.ports(); port++) {
      series.add(reflection(n, port, plane, hz));
    }
    return new Outcome(
        KIND, TITLE, "", series, List.of(), readings(judged, plane, doubts), marks, List.of());
  }

  /** What a Smith chart of the port shows. */
  private static Series reflection(NetworkData n, int port, String plane, Axis hz) {
    double[] re = new double[n.points()];
    double[] im = new double[n.points()];
    for (int i = 0; i < re.length; i++) {
      re[i] = n.re(i, port, port);
      im[i] = n.im(i, port, port);
    }
    String name = NetworkData.name(port, port);
    return data(
        name + ".reflection", name, plane, hz, "Reflection", "", new Values.Complex(re, im));
  }

  private static Series data(
      String id, String label, String plane, Axis x, String quantity, String unit, Values v) {
    return new Series(id, label, Series.Role.DATA, plane, true, x, quantity, unit, v, List.of());
  }

  private static String quantity(Curve c) {
    String words = c.label().replaceFirst("^S\\S+ ?", "");
    return words.isEmpty()
        ? "Reflection"
        : words.substring(0, 1).toUpperCase() + words.substring(1);
  }

  private static double[] numbers(@Nullable Double[] values) {
    double[] all = new double[values.length];
    for (int i = 0; i < all.length; i++) {
      all[i] = Nulls.orNan(values[i]);
    }
    return all;
  }

  private static ResultTable faults(NetworkViewDto.TimeReply t) {
    return new ResultTable(
        "faults",
        "Faults",
        List.of(
            new ResultTable.Column("Distance", "m"),
            new ResultTable.Column("Reflection", ""),
            new ResultTable.Column("Impedance", "\u03A9"),
            new ResultTable.Column("Kind", "")),
        t.faults().stream()
            .map(
                f ->
                    new ResultTable.Row(
                        List.of(
                            ResultTable.Cell.of(f.metres()),
                            ResultTable.Cell.of(f.reflection()),
                            ResultTable.Cell.of(Nulls.orNan(f.ohm())),
                            ResultTable.Cell.of(f.kind())),
                        Verdict.NONE))
            .toList());
  }

  private static List<Reading> readings(Shown s, String plane, List<String> marks) {
    List<Reading> all = new ArrayList<>();
    for (int i = 0; i < s.outcomes().size(); i++) {
      OutcomeDto o = s.outcomes().get(i);
      if (o.verdict() != Verdict.NONE) {
        double bound = Nulls.orNan(o.bound());
        all.add(
            new Reading(
                "limit" + i,
                o.name(),
                Nulls.orNan(o.worst()),
                o.unit(),
                plane,
                Double.NaN,
                List.of(),
                new Limit(o.upper() ? Double.NaN : bound, o.upper() ? bound : Double.NaN),
                o.verdict(),
                marks));
      }
    }
    s.bands()
        .forEach(
            b ->
                b.readings()
                    .forEach(
                        r ->
                            all.add(
                                new Reading(
                                    b.name().isEmpty() ? r.id() : b.name() + "." + r.id(),
                                    r.label() + (b.name().isEmpty() ? "" : ", " + b.name()),
                                    Nulls.orNan(r.value()),
                                    r.unit(),
                                    plane,
                                    Nulls.orNan(r.uncertainty()),
                                    List.of(),
                                    Limit.NONE,
                                    Verdict.NONE,
                                    marks))));
    if (s.resonance() != null) {
      all.add(plain("resonance.hertz", "Resonance", s.resonance().hertz(), "Hz", plane, marks));
      all.add(plain("resonance.quality", "Q", s.resonance().quality(), "", plane, marks));
      all.add(plain("resonance.henry", "Inductance", s.resonance().henry(), "H", plane, marks));
      all.add(plain("resonance.farad", "Capacitance", s.resonance().farad(), "F", plane, marks));
      all.add(plain("resonance.ohm", "Resistance", s.resonance().ohm(), "\u03A9", plane, marks));
    }
    if (s.cable() != null) {
      all.add(
          plain(
              "cable.velocityFactor",
              "Velocity factor",
              s.cable().velocityFactor(),
              "",
              plane,
              marks));
      all.add(
          plain("cable.lossDbPerMetre", "Loss", s.cable().lossDbPerMetre(), "dB/m", plane, marks));
    }
    return all;
  }

  private static Reading plain(
      String id, String label, double value, String unit, String plane, List<String> marks) {
    return new Reading(
        id, label, value, unit, plane, Double.NaN, List.of(), Limit.NONE, Verdict.NONE, marks);
  }
}
