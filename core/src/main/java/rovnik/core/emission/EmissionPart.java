package rovnik.core.emission;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.List;
import rovnik.core.limits.Limit;
import rovnik.core.path.PathCorrection;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.result.Series;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.ReadingMaker;
import rovnik.core.spectrum.SpectrumResult;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.spectrum.Trace;
import rovnik.core.uncertainty.UncertaintyBudget;
import rovnik.core.units.Frequency;

/**
 * What is read beside a spectrum shares this: the spectrum, how it was made, and what was found so
 * far.
 */
class EmissionPart {
  final SpectrumResult base;
  final Trace trace;
  final SpectrumSettings settings;
  final ReadingMaker maker;
  final MeasurementContext context;
  final PathCorrection correction;
  final List<Reading> readings;
  final List<ResultTable> tables;
  final List<Series> lines;

  EmissionPart(SpectrumResult base, SpectrumSettings settings, MeasurementContext context) {
    this.base = base;
    this.trace = base.trace();
    this.settings = settings;
    this.context = context;
    this.correction = trace.calibrated() ? context.correction() : null;
    this.maker = new ReadingMaker(trace, settings, correction, context);
    this.readings = new ArrayList<>(base.readings());
    this.tables = new ArrayList<>();
    this.lines = new ArrayList<>();
  }

  /** A part that adds to the same findings. */
  EmissionPart(EmissionPart look) {
    this.base = look.base;
    this.trace = look.trace;
    this.settings = look.settings;
    this.context = look.context;
    this.correction = look.correction;
    this.maker = look.maker;
    this.readings = look.readings;
    this.tables = look.tables;
    this.lines = look.lines;
  }

  /** Nominal frequency at the plane if it is in view, the strongest line, or the centre. */
  final double carrierHz() {
    double source = context.limits().nominalHz();
    double nominal =
        correction == null || Double.isNaN(source) ? source : correction.sourceToPlaneHz(source);
    if (nominal >= trace.startHz() && nominal <= trace.stopHz()) {
      return nominal;
    }
    return settings.centreHz();
  }

  static String offsetWords(double hz) {
    return (hz < 0 ? "\u2212" : "+") + rounded(Math.abs(hz));
  }

  /** Few digits: it only tells which one is meant. */
  static Frequency rounded(double hz) {
    return Frequency.ofHertz(new BigDecimal(hz).round(new MathContext(5)).doubleValue());
  }

  final Reading unread(String id, String label, String unit, String why) {
    return maker.reading(
        id, label, Double.NaN, unit, new UncertaintyBudget(), Limit.NONE, List.of(why));
  }
}
