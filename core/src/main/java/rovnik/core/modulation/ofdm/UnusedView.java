package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.result.Axis;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.result.ResultTable.Cell;
import rovnik.core.result.ResultTable.Column;
import rovnik.core.result.ResultTable.Row;
import rovnik.core.result.Series;
import rovnik.core.spectrum.PlaneReadings;
import rovnik.core.uncertainty.UncertaintyBudget;

/** What is said and drawn of the tones that nobody was given. */
final class UnusedView {
  /** A margin passes from 0 dB on. */
  private static final Limit MARGIN = new Limit(0, Double.NaN);

  private final List<UnusedTones.Unit> units;
  private final PlaneReadings maker;
  private final List<String> own;

  /**
   * @param own marks of its readings
   */
  UnusedView(List<UnusedTones.Unit> units, PlaneReadings maker, List<String> own) {
    this.units = units;
    this.maker = maker;
    this.own = own;
  }

  List<Reading> readings() {
    return units.stream()
        .min(Comparator.comparingDouble(UnusedTones.Unit::marginDb))
        .map(
            u ->
                maker.reading(
                    "unusedMargin",
                    "Unused tones, worst from " + signed(u.tones()[0]),
                    u.marginDb(),
                    "dB",
                    budget(u),
                    MARGIN,
                    own))
        .stream()
        .toList();
  }

  private static String signed(int tone) {
    return Integer.toString(tone).replace('-', '\u2212');
  }

  private static UncertaintyBudget budget(UnusedTones.Unit u) {
    return new UncertaintyBudget().normal("noise", u.scatterDb());
  }

  List<ResultTable> tables() {
    List<Row> rows = new ArrayList<>();
    for (UnusedTones.Unit u : units) {
      int[] t = u.tones();
      Verdict verdict =
          own.isEmpty() ? MARGIN.judge(u.marginDb(), budget(u).expanded()) : Verdict.INVALID;
      rows.add(
          new Row(
              List.of(
                  Cell.of(u.number()),
                  Cell.of((signed(t[0]) + " to " + signed(t[t.length - 1])).replace(' ', '\u00a0')),
                  Cell.of(u.db()),
                  Cell.of(u.allowedDb()),
                  Cell.of(u.marginDb())),
              verdict));
    }
    return rows.isEmpty()
        ? List.of()
        : List.of(
            new ResultTable(
                "unused",
                "Unused tones, over those in use",
                List.of(
                    new Column("Unit", ""),
                    new Column("Tones", ""),
                    new Column("Level", "dB"),
                    new Column("Allowed", "dB"),
                    new Column("Margin", "dB")),
                rows));
  }

  List<Series> series() {
    if (units.isEmpty()) {
      return List.of();
    }
    int low = units.stream().mapToInt(u -> u.tones()[0]).min().orElse(0);
    int high = units.stream().mapToInt(u -> u.tones()[u.tones().length - 1]).max().orElse(0);
    double[] db = new double[high - low + 1];
    Arrays.fill(db, Double.NaN);
    double[] allowed = db.clone();
    for (UnusedTones.Unit u : units) {
      for (int tone : u.tones()) {
        db[tone - low] = u.db();
        allowed[tone - low] = u.allowedDb();
      }
    }
    Axis tones = Axis.even("Tone", "", low, 1, db.length);
    return List.of(
        Series.curve("unused", "Unused tones", tones, db, "dB").of("Over the tones in use"),
        Series.curve("limit.unused.upper", "Allowed on unused tones", tones, allowed, "dB")
            .as(Series.Role.LIMIT));
  }
}
