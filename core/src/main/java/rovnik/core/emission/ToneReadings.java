package rovnik.core.emission;

import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.result.ResultTable.Cell;
import rovnik.core.result.ResultTable.Column;
import rovnik.core.result.ResultTable.Row;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.LeakageCheck;
import rovnik.core.spectrum.Peak;
import rovnik.core.spectrum.PeakSearch;
import rovnik.core.spectrum.SpectrumLayout;
import rovnik.core.uncertainty.UncertaintyBudget;
import rovnik.core.units.Decibels;

/** What lines tell together: products of two, depth of AM, and what a skirt is. */
final class ToneReadings extends EmissionPart {
  ToneReadings(EmissionPart look) {
    super(look);
  }

  void twoTones() {
    List<Peak> peaks = base.peaks();
    if (peaks.size() < 2) {
      readings.add(
          unread("intercept", "Third-order intercept", "dBm", "two tones are needed in the span"));
      return;
    }
    Peak a = peaks.get(0);
    Peak b = peaks.get(1);
    double low = Math.min(a.frequencyHz(), b.frequencyHz());
    double high = Math.max(a.frequencyHz(), b.frequencyHz());
    double lower = highestNear(2 * low - high);
    double upper = highestNear(2 * high - low);
    if (Double.isNaN(lower) || Double.isNaN(upper)) {
      readings.add(
          unread(
              "intercept",
              "Third-order intercept",
              trace.unit(),
              "the products lie outside the span: widen it"));
      return;
    }
    Distortion.ThirdOrder t = Distortion.thirdOrder(low, high, a.level(), b.level(), lower, upper);
    double product = maker.lineDb(Math.max(lower, upper));
    double tones = Math.hypot(maker.lineDb(a.level()), maker.lineDb(b.level()) / 2);
    List<String> marks = maker.marks(t.lowerHz(), t.upperHz());
    double noise = rovnik.core.spectrum.PeakSearch.median(trace.level());
    if (Math.max(lower, upper) < noise + 6) {
      marks.add("the products are not above the noise: this is the lowest it can be");
    }
    readings.add(
        maker.ratio(
            "thirdOrder",
            "Third-order products",
            -t.distanceDb(),
            Math.hypot(product, tones),
            Limit.NONE,
            marks));
    readings.add(
        maker.level(
            "intercept",
            "Third-order intercept",
            t.interceptDbm(),
            trace.unit(),
            Math.hypot(product / 2, tones),
            Limit.NONE,
            marks));
    tables.add(
        new ResultTable(
            "twoTones",
            "Two tones and their third-order products",
            List.of(
                new Column("", ""),
                new Column("Frequency", "Hz"),
                new Column("Level", trace.unit())),
            List.of(
                row("tone", low, low == a.frequencyHz() ? a.level() : b.level()),
                row("tone", high, high == a.frequencyHz() ? a.level() : b.level()),
                row("2 f1 \u2212 f2", t.lowerHz(), lower),
                row("2 f2 \u2212 f1", t.upperHz(), upper))));
  }

  private static Row row(String what, double hz, double level) {
    return new Row(List.of(Cell.of(what), Cell.of(hz), Cell.of(level)), Verdict.NONE);
  }

  /** Interpolated line within one RBW, else the highest point there; NaN outside the trace. */
  private double highestNear(double hz) {
    double reach = Math.max(trace.rbwHz(), trace.stepHz());
    if (hz - reach < trace.startHz() || hz + reach > trace.stopHz()) {
      return Double.NaN;
    }
    for (Peak p : base.peaks()) {
      if (Math.abs(p.frequencyHz() - hz) <= reach) {
        return p.level();
      }
    }
    double highest = Double.NEGATIVE_INFINITY;
    for (double f = hz - reach; f <= hz + reach; f += trace.stepHz()) {
      highest = Math.max(highest, trace.levelAt(f));
    }
    return highest;
  }

  void amDepth(IqRecord record) {
    String why = "a carrier with a line on each side is needed";
    List<Peak> peaks = base.peaks();
    for (Peak side : peaks.subList(Math.min(1, peaks.size()), peaks.size())) {
      Peak carrier = peaks.get(0);
      double other = 2 * carrier.frequencyHz() - side.frequencyHz();
      Peak mirrored =
          peaks.stream()
              .filter(p -> Math.abs(p.frequencyHz() - other) <= trace.rbwHz())
              .findFirst()
              .orElse(null);
      if (mirrored == null) {
        continue;
      }
      try {
        readings.add(
            record == null
                ? amDepthOfLevels(carrier, side, mirrored)
                : amDepthOfPhases(carrier, side, record));
        return;
      } catch (Refusal unlike) {
        why = unlike.getMessage();
      }
    }
    readings.add(unread("amDepth", "AM depth", "%", why));
  }

  /** The phases of the side lines tell AM from phase modulation. */
  private Reading amDepthOfPhases(Peak carrier, Peak side, IqRecord record) {
    double carrierHz = carrier.frequencyHz();
    double portHz = correction == null ? carrierHz : correction.planeToPortHz(carrierHz);
    double away = Math.abs(side.frequencyHz() - carrierHz);
    double noisePerHertz =
        Decibels.toPowerRatio(PeakSearch.median(trace.level()) - carrier.level()) / trace.enbwHz();
    SideLines s = SideLines.of(record, portHz - record.centreHz(), away, noisePerHertz);
    double percent = 100 * s.depth();
    return amDepth(
        percent,
        away,
        new UncertaintyBudget()
            .rectangular("instrument linearity", percent * context.accuracy().linearityShare())
            .normal("noise", 100 * s.standard()),
        maker.marks(carrierHz - away, carrierHz + away));
  }

  /** A sweep has no phases: what is read holds only if nothing but AM is there. */
  private Reading amDepthOfLevels(Peak carrier, Peak side, Peak mirrored) {
    double percent = Distortion.amPercent(carrier.level(), side.level(), mirrored.level());
    double away = Math.abs(side.frequencyHz() - carrier.frequencyHz());
    List<String> marks = maker.marks(carrier.frequencyHz() - away, carrier.frequencyHz() + away);
    marks.add("from levels alone: FM looks the same");
    return amDepth(
        percent,
        away,
        new UncertaintyBudget()
            .normal("average", percent * Math.log(10) / 20 * maker.lineDb(side.level())),
        marks);
  }

  private Reading amDepth(
      double percent, double awayHz, UncertaintyBudget budget, List<String> marks) {
    String label = "AM depth at " + rounded(awayHz);
    return maker.reading("amDepth", label, percent, "%", budget, Limit.NONE, marks);
  }

  void skirt(SpectrumLayout layout) {
    if (base.peaks().isEmpty()) {
      return;
    }
    double tunedHz = trace.startHz() - layout.offsetHz(0);
    Peak top = base.peaks().get(0);
    LeakageCheck.Finding f = LeakageCheck.look(trace, layout, tunedHz, top);
    String advice =
        f.skirt() == LeakageCheck.Skirt.LEAKAGE
            ? "take a Hann or Blackman-Harris window, or a source at the frequency in the last column"
            : "";
    tables.add(
        new ResultTable(
            "skirt",
            "Skirt of the strongest line",
            List.of(
                new Column("Line", "Hz"),
                new Column("It is", ""),
                new Column("Above leakage", "dB"),
                new Column("What to do", ""),
                new Column("Coherent at", "Hz")),
            List.of(
                new Row(
                    List.of(
                        Cell.of(top.frequencyHz()),
                        Cell.of(f.skirt().label()),
                        Cell.of(f.excessDb()),
                        Cell.of(advice),
                        Cell.of(f.nearestCoherentHz())),
                    Verdict.NONE))));
  }
}
