package rovnik.core.emission;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.result.Axis;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.result.ResultTable.Cell;
import rovnik.core.result.ResultTable.Column;
import rovnik.core.result.ResultTable.Row;
import rovnik.core.result.Series;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.Detector;
import rovnik.core.spectrum.LineSearch;
import rovnik.core.spectrum.ReadingMaker;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.spectrum.Trace;
import rovnik.core.spectrum.TraceSeries;
import rovnik.core.uncertainty.InstrumentAccuracy;
import rovnik.core.uncertainty.UncertaintyBudget;
import rovnik.core.units.Frequency;

/** Phase noise as an outcome: L(f), its decades, spurs, jitter and residual FM. */
public final class PhaseNoiseOutcome {
  public static final String KIND = "phase-noise";
  public static final String TITLE = "Phase noise";

  /** Lowest reach of a spectrum: nearer offsets come from it. */
  public static final double LEAST_REACH_HZ = 1e4;

  private static final double RBWS_A_REACH = 500;
  private static final int AVERAGES = 160;

  private PhaseNoiseOutcome() {}

  /** Settings of the spectrum that shows offsets up to a reach. */
  public static SpectrumSettings settings(SpectrumSettings like, double carrierHz, double reachHz) {
    return new SpectrumSettings(
        carrierHz,
        2.2 * reachHz,
        reachHz / RBWS_A_REACH,
        Window.BLACKMAN_HARRIS,
        Detector.RMS,
        AVERAGES,
        like.referenceLevelDbm(),
        like.channelWidthHz(),
        0,
        LineSearch.AUTO);
  }

  /**
   * The outcome.
   *
   * @param carrierHz as measured
   * @param carrierLevel in the unit of the trace
   * @param widest spectrum that shows the farthest offsets, kept with it
   * @param maker of readings for that spectrum
   */
  public static Outcome of(
      PhaseNoise n,
      double carrierHz,
      double carrierLevel,
      Trace widest,
      ReadingMaker maker,
      InstrumentAccuracy accuracy,
      List<String> marks) {
    double f0 = carrierHz;
    double from = n.offsetHz()[0];
    double reach = n.offsetHz()[n.offsetHz().length - 1];
    double hiddenFrom = n.hiddenFromHz();
    double to = Math.min(reach, hiddenFrom);
    List<Reading> readings = new ArrayList<>();
    List<Row> rows = new ArrayList<>();
    for (double at = 1; at <= reach * 1.05; at *= 10) {
      double dbc = n.at(at);
      if (Double.isNaN(dbc)) {
        continue;
      }
      boolean hidden = n.hiddenAt(at);
      rows.add(
          new Row(
              List.of(
                  Cell.of(at),
                  Cell.of(dbc),
                  Cell.of(n.floorAt(at)),
                  Cell.of(hidden ? "at most: the floor hides it" : "")),
              Verdict.NONE));
      if (Math.abs(at - 1e4) < 1) {
        readings.add(
            maker.reading(
                "phaseNoise10k",
                "Phase noise at 10 kHz",
                dbc,
                "dBc/Hz",
                new UncertaintyBudget()
                    .rectangular("instrument linearity", accuracy.linearityDb())
                    .normal("average", n.standardAt(at)),
                Limit.NONE,
                hidden ? with(marks, "the floor hides it: this is the most it can be") : marks));
      }
    }
    double jitter = n.jitterSeconds(from, to, f0);
    double fm = n.residualFmHz(from, to);
    // An error of the curve goes into the root of its integral with half of its decibels.
    double share = accuracy.linearityShare();
    String band = Frequency.ofHertz(round(from)) + " to " + Frequency.ofHertz(round(to));
    List<String> own =
        to > from ? marks : with(marks, "the floor hides all of it: nothing can be summed");
    readings.add(
        integrated(
            maker, "jitter", "Jitter, " + band, jitter, "s", share, n.phaseShare(from, to), own));
    readings.add(
        integrated(
            maker,
            "residualFm",
            "Residual FM, " + band,
            fm,
            "Hz",
            share,
            n.residualFmShare(from, to),
            own));
    List<ResultTable> tables = new ArrayList<>();
    tables.add(
        new ResultTable(
            "decades",
            "Phase noise by decade",
            List.of(
                new Column("Offset", "Hz"),
                new Column("L", "dBc/Hz"),
                new Column("Floor", "dBc/Hz"),
                new Column("", "")),
            rows));
    if (!n.spurs().isEmpty()) {
      tables.add(
          new ResultTable(
              "spurs",
              "Lines beside the carrier",
              List.of(new Column("Offset", "Hz"), new Column("Level", "dBc")),
              n.spurs().stream()
                  .map(p -> new Row(List.of(Cell.of(p.offsetHz()), Cell.of(p.dbc())), Verdict.NONE))
                  .toList()));
    }
    return new Outcome(
        KIND,
        TITLE,
        String.format(
            Locale.ROOT,
            "Carrier %s, %.1f %s; jitter %.3g ps and residual FM %.3g Hz from %s%s.",
            Frequency.ofHertz(Math.rint(f0)),
            carrierLevel,
            widest.unit(),
            jitter * 1e12,
            fm,
            band,
            hiddenFrom < reach ? ", where the floor begins to hide it" : ""),
        series(n, widest),
        tables,
        readings,
        marks,
        List.of());
  }

  private static List<String> with(List<String> marks, String more) {
    List<String> all = new ArrayList<>(marks);
    all.add(more);
    return List.copyOf(all);
  }

  private static List<Series> series(PhaseNoise n, Trace widest) {
    Axis offsets = Axis.own("Offset", "Hz", n.offsetHz()).overDecades();
    List<Series> all = new ArrayList<>();
    all.add(Series.curve("phaseNoise", "L(f)", offsets, n.dbcPerHz(), "dBc/Hz").of("L(f)"));
    if (!Double.isNaN(n.floorDbcPerHz()[0])) {
      all.add(
          Series.curve("floor", "not the carrier's", offsets, n.floorDbcPerHz(), "dBc/Hz")
              .of("L(f)"));
    }
    all.add(TraceSeries.thin("trace", "the spectrum it goes back to", widest, 1500));
    return all;
  }

  private static double round(double hz) {
    double decade = Math.pow(10, Math.floor(Math.log10(hz)) - 1);
    return Math.rint(hz / decade) * decade;
  }

  private static Reading integrated(
      ReadingMaker maker,
      String id,
      String label,
      double value,
      String unit,
      double share,
      double averageShare,
      List<String> marks) {
    return maker.reading(
        id,
        label,
        value,
        unit,
        new UncertaintyBudget()
            .rectangular("instrument linearity", share * value)
            .normal("average", averageShare * value),
        Limit.NONE,
        marks);
  }
}
