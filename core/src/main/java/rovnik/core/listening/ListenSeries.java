package rovnik.core.listening;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import rovnik.core.limits.Verdict;
import rovnik.core.modulation.analog.AudioSpectrum;
import rovnik.core.result.Axis;
import rovnik.core.result.ResultTable;
import rovnik.core.result.ResultTable.Cell;
import rovnik.core.result.ResultTable.Column;
import rovnik.core.result.ResultTable.Row;
import rovnik.core.result.Series;
import rovnik.core.spectrum.PlacedSeries;

/** What of a sound can be drawn and listed. */
record ListenSeries(
    Heard heard,
    Optional<HeardTone> tone,
    PlacedSeries placed,
    double startSeconds,
    String levelUnit) {
  private static final int MOST_POINTS = 2000;
  private static final int MOST_ROWS = 500;

  ResultTable table() {
    Mode m = heard.settings.mode();
    List<Row> rows = new ArrayList<>();
    for (Gate.Passage p : heard.passages.subList(0, Math.min(MOST_ROWS, heard.passages.size()))) {
      rows.add(
          new Row(
              List.of(
                  Cell.of(startSeconds + p.from() * heard.d.slotSeconds()),
                  Cell.of(p.slots() * heard.d.slotSeconds()),
                  Cell.of(Gate.levelDb(heard.mean(p, heard.d.powers)) + heard.addDb),
                  Cell.of(m.scale() * heard.farthest(p, heard.d.highs, 1))),
              Verdict.NONE));
    }
    return new ResultTable(
        "passages",
        "Passages",
        List.of(
            new Column("Start", "s"),
            new Column("Length", "s"),
            new Column("Level", levelUnit),
            new Column(m.amount() + ", highest", m.unit())),
        rows);
  }

  List<Series> series() {
    List<Series> out = new ArrayList<>();
    Mode m = heard.settings.mode();
    int together = Math.max(1, (2 * heard.sound.length + MOST_POINTS - 1) / MOST_POINTS);
    int n = heard.sound.length / together;
    if (n > 1) {
      // Of each step its lowest and its highest: so drawn, nothing is thinned away.
      boolean whole = together == 1;
      double[] y = new double[whole ? n : 2 * n];
      for (int i = 0; i < n; i++) {
        double most = Double.NEGATIVE_INFINITY;
        double least = Double.POSITIVE_INFINITY;
        for (int k = i * together; k < (i + 1) * together; k++) {
          most = Math.max(most, heard.sound[k]);
          least = Math.min(least, heard.sound[k]);
        }
        if (whole) {
          y[i] = m.scale() * most;
        } else {
          y[2 * i] = m.scale() * least;
          y[2 * i + 1] = m.scale() * most;
        }
      }
      double step = together / heard.d.soundRateHz() / (whole ? 1 : 2);
      Axis time = Axis.even("Time", "s", startSeconds + (whole ? 0 : step / 2), step, y.length);
      // A voltage is that at the port: it is not referred to the plane.
      PlacedSeries of = m.oneSideBand() ? new PlacedSeries("", false, List.of()) : placed;
      out.add(of.curve("sound", "Sound", time, m.amount(), m.unit(), y));
    }
    out.add(slotCurve("level", "Level over time", "Level", levelUnit, true));
    if (heard.settings.mode() == Mode.FM) {
      out.add(slotCurve("quieting", "Quieting over time", "Quieting", "dB", false));
    }
    tone.ifPresent(
        t ->
            out.add(
                AudioSpectrum.of(
                    t.fitted,
                    heard.d.soundRateHz(),
                    heard.settings.highestHz(),
                    t.fit,
                    "Spectrum of what is heard")));
    return out;
  }

  /** A value of each slot; of more than can be drawn the highest. */
  private Series slotCurve(String id, String label, String quantity, String unit, boolean level) {
    int together = Math.max(1, (heard.d.powers.size() + MOST_POINTS - 1) / MOST_POINTS);
    int n = Math.max(1, heard.d.powers.size() / together);
    double[] y = new double[n];
    Arrays.fill(y, -300);
    for (int k = 0; k < Math.min(heard.d.powers.size(), n * together); k++) {
      double v =
          level
              ? Gate.levelDb(heard.d.powers.at(k)) + heard.addDb
              : heard.quietingDb(heard.d.bends.at(k));
      y[k / together] = Math.max(y[k / together], v);
    }
    double step = together * heard.d.slotSeconds();
    return placed.curve(
        id, label, Axis.even("Time", "s", startSeconds + step / 2, step, n), quantity, unit, y);
  }
}
