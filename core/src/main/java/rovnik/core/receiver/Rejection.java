package rovnik.core.receiver;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.path.SignalPath;
import rovnik.core.result.Axis;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.result.ResultTable.Cell;
import rovnik.core.result.ResultTable.Column;
import rovnik.core.result.ResultTable.Row;
import rovnik.core.result.Series;
import rovnik.core.uncertainty.UncertaintyBudget;
import rovnik.core.units.Frequency;

/** How much stronger than the wanted signal another one may be, at some distances from it. */
public final class Rejection {
  public static final String KIND = "rejection";
  public static final String TITLE = "Rejection of another signal";

  private Rejection() {}

  /**
   * One distance.
   *
   * @param offsetHz of the other signal
   * @param other its level at the receiver at which quality is just reached
   * @param trouble why there is none, "" if there is
   */
  public record Place(double offsetHz, LevelEstimate other, String trouble) {}

  /**
   * What is known of these places.
   *
   * @param wantedDbm level of the wanted signal at the receiver
   */
  public static Outcome of(
      Criterion criterion, double wantedDbm, List<Place> places, LevelAtReceiver at) {
    List<Reading> readings = new ArrayList<>();
    List<Row> rows = new ArrayList<>();
    List<double[]> curve = new ArrayList<>();
    for (Place p : places) {
      boolean known = p.other().known();
      double ratio = p.other().dbm() - wantedDbm;
      UncertaintyBudget budget = known ? budget(at, p.other().standardDb()) : null;
      if (known) {
        readings.add(
            new Reading(
                id(p.offsetHz()),
                label(p.offsetHz()),
                ratio,
                "dB",
                at.plane(),
                budget.expanded(),
                budget.contributions(),
                Limit.NONE,
                Verdict.NONE,
                List.of()));
        curve.add(new double[] {p.offsetHz(), ratio});
      }
      rows.add(
          new Row(
              List.of(
                  Cell.of(p.offsetHz()),
                  Cell.of(p.other().dbm()),
                  Cell.of(known ? ratio : Double.NaN),
                  Cell.of(known ? budget.expanded() : Double.NaN),
                  Cell.of(p.trouble())),
              Verdict.NONE));
    }
    curve.sort((a, b) -> Double.compare(a[0], b[0]));
    List<Series> series =
        curve.isEmpty()
            ? List.of()
            : List.of(
                Series.curve(
                        "rejection",
                        TITLE,
                        Axis.own("Offset", "Hz", curve.stream().mapToDouble(v -> v[0]).toArray()),
                        curve.stream().mapToDouble(v -> v[1]).toArray(),
                        "dB")
                    .of("Over the wanted signal"));
    String words =
        String.format(
            Locale.ROOT,
            "Wanted signal at %.1f dBm; the other is raised until only %s is left.",
            wantedDbm,
            criterion.words());
    return new Outcome(
        KIND,
        TITLE,
        words,
        series,
        List.of(
            new ResultTable(
                KIND,
                TITLE,
                List.of(
                    new Column("Offset", "Hz"),
                    new Column("Other at the receiver", "dBm"),
                    new Column("Over the wanted signal", "dB"),
                    new Column("±", "dB"),
                    new Column("", "")),
                rows)),
        readings,
        List.of(),
        List.of());
  }

  /** Both generators' accuracies, and what is not common to both ways. */
  private static UncertaintyBudget budget(LevelAtReceiver at, double standardDb) {
    SignalPath path = at.path();
    UncertaintyBudget b =
        new UncertaintyBudget()
            .rectangular("level of the wanted signal", at.source().levelDb())
            .rectangular("level of the other signal", at.source().levelDb());
    for (int i = 1; i < path.planes(); i++) {
      b.rectangular(
          path.elements().get(i).name() + " tolerance", path.elements().get(i).toleranceDb());
      if (!Double.isNaN(path.elements().get(i).sideGainDb())) {
        break; // what comes behind the combiner is the same for both
      }
    }
    return b.normal("chance", standardDb);
  }

  private static String id(double offsetHz) {
    return offsetHz == 0 ? "coChannel" : String.format(Locale.ROOT, "rejection%+.0f", offsetHz);
  }

  private static String label(double offsetHz) {
    return offsetHz == 0
        ? "Co-channel rejection"
        : "Rejection at " + (offsetHz > 0 ? "+" : "") + Frequency.ofHertz(offsetHz);
  }
}
