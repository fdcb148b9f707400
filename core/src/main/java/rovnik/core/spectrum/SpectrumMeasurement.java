package rovnik.core.spectrum;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import rovnik.core.Refusal;
import rovnik.core.limits.Limit;
import rovnik.core.limits.LimitSet;
import rovnik.core.path.PathCorrection;
import rovnik.core.result.Reading;
import rovnik.core.uncertainty.UncertaintyBudget;
import rovnik.core.units.Decibels;
import rovnik.core.units.Frequency;

/** From averaged power to a trace at the reading plane, its lines and its readings. */
public final class SpectrumMeasurement {
  /** Lines listed unless more are asked for. */
  public static final int MOST_PEAKS = 32;

  /** A plain carrier falls at least this far at 1.5 RBW from its peak (Hann falls 30 dB). */
  private static final double PLAIN_CARRIER_FALL_DB = 6;

  /** Places at which leakage is reckoned. */
  private static final int LOOKS_AT_FLOOR = 101;

  /** The strongest lines leak the most. */
  private static final int LEAKING_LINES = 4;

  /** Leakage 10 dB below the floor lifts it by 0.4 dB. */
  private static final double LEAKAGE_WITHIN_DB = 10;

  /** The median of noise scatters so much more than its mean (sqrt(pi / 2) for many averages). */
  private static final double MEDIAN_OVER_MEAN = 1.25;

  private static final Set<String> OWN =
      Set.of(
          "carrierPower",
          "channelPower",
          "carrierFrequency",
          "frequencyError",
          "frequencyErrorPpm",
          "noiseDensity");

  private SpectrumMeasurement() {}

  /** The result without what a view asked for beside: as it came from here. */
  public static SpectrumResult bare(SpectrumResult r) {
    return new SpectrumResult(
        r.trace(), r.peaks(), r.readings().stream().filter(x -> OWN.contains(x.id())).toList());
  }

  /**
   * Turns averaged power into a result.
   *
   * @param power linear power of each point of the layout, 1.0 for a full-scale tone
   * @param layout how it was made
   * @param outside lines beside the shown points
   * @param centreHz of the record, at the instrument's port
   * @param fullScaleDbm of the record, NaN if it is not calibrated
   * @param segments in the average
   * @param settings asked for, in terms of the plane
   * @param context path, accuracy, limits, marks
   */
  public static SpectrumResult of(
      double[] power,
      SpectrumLayout layout,
      List<OutsideLine> outside,
      double centreHz,
      double fullScaleDbm,
      int segments,
      SpectrumSettings settings,
      MeasurementContext context) {
    Trace trace =
        trace(power, layout, centreHz, fullScaleDbm, segments, settings.detector(), context);
    PathCorrection correction = trace.calibrated() ? context.correction() : null;
    List<Peak> beside = new ArrayList<>();
    for (OutsideLine line : outside) {
      Peak peak = line.at(trace.startHz(), layout.stepHz(), trace.calibrated() ? fullScaleDbm : 0);
      float[] one = {(float) peak.level()};
      if (correction != null) {
        correction.applyTo(one, peak.frequencyHz(), layout.stepHz());
      }
      beside.add(new Peak(peak.frequencyHz(), one[0]));
    }
    return of(trace, ToneInterpolator.of(layout), beside, settings, context);
  }

  /**
   * Averaged power as a trace at the reading plane, without looking for lines in it.
   *
   * @param power linear power of each point of the layout, 1.0 for a full-scale tone
   * @param layout how it was made
   * @param centreHz of the record, at the instrument's port
   * @param fullScaleDbm of the record, NaN if it is not calibrated
   * @param segments in the average
   * @param context path of the plane
   */
  public static Trace trace(
      double[] power,
      SpectrumLayout layout,
      double centreHz,
      double fullScaleDbm,
      int segments,
      Detector detector,
      MeasurementContext context) {
    boolean calibrated = !Double.isNaN(fullScaleDbm);
    double offsetDb = calibrated ? fullScaleDbm : 0;
    float[] level = new float[layout.points()];
    for (int i = 0; i < level.length; i++) {
      level[i] = (float) (Decibels.fromPowerRatio(power[i]) + offsetDb);
    }
    double startHz = centreHz + layout.offsetHz(0);
    PathCorrection correction = calibrated ? context.correction() : null;
    String plane = calibrated ? "instrument port" : "record";
    if (correction != null) {
      startHz = correction.portToPlaneHz(startHz);
      correction.applyTo(level, startHz, layout.stepHz());
      plane = correction.planeName();
    }
    return new Trace(
        startHz,
        layout.stepHz(),
        level,
        calibrated ? "dBm" : "dBFS",
        plane,
        layout.rbwHz(),
        layout.enbwHz(),
        segments,
        layout.window().label(),
        detector.label(),
        calibrated);
  }

  /**
   * Lines and readings of a trace that is already at the reading plane.
   *
   * @param interpolator for lines between its points
   * @param outside lines beside the trace that reach into it
   */
  public static SpectrumResult of(
      Trace trace,
      ToneInterpolator interpolator,
      List<Peak> outside,
      SpectrumSettings settings,
      MeasurementContext context) {
    List<Peak> peaks = settings.lines().over(trace.level()).find(trace, interpolator, outside);
    PathCorrection correction = trace.calibrated() ? context.correction() : null;
    return new SpectrumResult(
        trace,
        peaks,
        new Readings(trace, peaks, outside, interpolator, settings, correction, context).all());
  }

  /** Readings of one trace; a class of its own so that the parts share the trace's facts. */
  private static final class Readings {
    private final Trace trace;
    private final List<Peak> peaks;
    private final List<Peak> outside;
    private final ToneInterpolator interpolator;
    private final SpectrumSettings settings;
    private final PathCorrection correction;
    private final MeasurementContext context;
    private final ReadingMaker maker;
    private final LineStatistics lines;
    private LineStatistics.Known known; // of the carrier; null without one

    Readings(
        Trace trace,
        List<Peak> peaks,
        List<Peak> outside,
        ToneInterpolator interpolator,
        SpectrumSettings settings,
        PathCorrection correction,
        MeasurementContext context) {
      this.trace = trace;
      this.peaks = peaks;
      this.outside = outside;
      this.interpolator = interpolator;
      this.settings = settings;
      this.correction = correction;
      this.context = context;
      this.maker = new ReadingMaker(trace, settings, correction, context);
      this.lines = new LineStatistics(trace, interpolator);
    }

    List<Reading> all() {
      List<Reading> readings = new ArrayList<>();
      Peak top = carrier();
      known = top == null ? null : lines.of(top);
      boolean plain = top != null && isPlainCarrier(top);
      double carrierHz = top == null ? settings.centreHz() : top.frequencyHz();
      List<String> carrierMarks = maker.marks(carrierHz, carrierHz);
      if (top == null) {
        carrierMarks.add(noCarrier());
      } else if (!plain) {
        carrierMarks.add("modulated: no plain carrier here");
      }
      Limit levelLimit = levelLimit();
      readings.add(
          carrierPower(top, plain, plain || top == null ? levelLimit : Limit.NONE, carrierMarks));
      readings.add(channelPower(top != null && !plain ? levelLimit : Limit.NONE));
      addFrequency(readings, top, plain, carrierMarks);
      readings.add(noiseDensity());
      return readings;
    }

    /** Nominal frequency at the plane, NaN if there is none or it is not in view. */
    private double nominalInViewHz() {
      double source = context.limits().nominalHz();
      double hz =
          correction == null || Double.isNaN(source) ? source : correction.sourceToPlaneHz(source);
      return hz >= trace.startHz() && hz <= trace.stopHz() ? hz : Double.NaN;
    }

    /** The strongest line, in the channel around the nominal frequency if that is in view. */
    private Peak carrier() {
      double nominal = nominalInViewHz();
      double reach = settings.channelWidthHz() / 2;
      return peaks.stream()
          .filter(p -> Double.isNaN(nominal) || Math.abs(p.frequencyHz() - nominal) <= reach)
          .findFirst()
          .orElse(null);
    }

    private String noCarrier() {
      double nominal = nominalInViewHz();
      return Double.isNaN(nominal)
          ? "no carrier stands above the noise"
          : "no carrier in the channel at " + Frequency.ofHertz(nominal);
    }

    private boolean isPlainCarrier(Peak top) {
      double away = 1.5 * trace.rbwHz();
      double left = trace.levelAt(top.frequencyHz() - away);
      double right = trace.levelAt(top.frequencyHz() + away);
      double wall = top.level() - PLAIN_CARRIER_FALL_DB;
      return !(left > wall) && !(right > wall);
    }

    private Limit levelLimit() {
      LimitSet limits = context.limits();
      boolean elsewhere = !Double.isNaN(limits.nominalHz()) && Double.isNaN(nominalInViewHz());
      if (correction == null || Double.isNaN(limits.nominalLevelDbm()) || elsewhere) {
        return Limit.NONE;
      }
      double sourceHz =
          Double.isNaN(limits.nominalHz())
              ? correction.planeToSourceHz(settings.centreHz())
              : limits.nominalHz();
      return limits.levelAt(correction.gainFromSourceDb(sourceHz));
    }

    private Reading carrierPower(Peak top, boolean plain, Limit limit, List<String> marks) {
      double value = top == null || !plain ? Double.NaN : known.level();
      double statisticalDb =
          top == null ? 0 : Math.hypot(known.levelDb(), known.pullDb() / Math.sqrt(2));
      return maker.levelOfSource(
          "carrierPower", "Carrier power", value, trace.unit(), statisticalDb, limit, marks);
    }

    private Reading channelPower(Limit limit) {
      double half = settings.channelWidthHz() / 2;
      List<String> marks = maker.noiseMarks(settings.centreHz() - half, settings.centreHz() + half);
      double value = Double.NaN;
      try {
        value = ChannelPower.of(trace, settings.centreHz() - half, settings.centreHz() + half);
      } catch (Refusal outside) {
        marks.add("channel wider than the span");
      }
      double statisticalDb =
          lines.bandDb(settings.centreHz() - half, settings.centreHz() + half, peaks);
      return maker.levelOfSource(
          "channelPower", "Channel power", value, trace.unit(), statisticalDb, limit, marks);
    }

    private Reading noiseDensity() {
      double value = lines.floor() - Decibels.fromPowerRatio(trace.enbwHz());
      float[] leakage = leakage();
      double belowDb = lines.floor() - PeakSearch.median(leakage);
      double statisticalDb =
          Math.hypot(
              MEDIAN_OVER_MEAN * maker.noiseDb(trace.stopHz() - trace.startHz() + trace.stepHz()),
              liftDb(leakage) / Math.sqrt(3));
      List<String> marks = maker.noiseMarks(trace.startHz(), trace.stopHz());
      // A floor well below what the lines could make shows that they do not leak, as those on a bin
      // of their own; one well above is noise.
      if (Math.abs(belowDb) < LEAKAGE_WITHIN_DB) {
        marks.add("leakage of a strong line lies on it: choose a window with lower side lobes");
      }
      return maker.level(
          "noiseDensity",
          "Noise floor",
          value,
          trace.unit() + "/Hz",
          statisticalDb,
          Limit.NONE,
          marks);
    }

    /** What the window makes of the strongest lines, over the span; in their own main lobe 1. */
    private float[] leakage() {
      float[] leakage = new float[LOOKS_AT_FLOOR];
      List<Peak> leaking = new ArrayList<>(peaks.subList(0, Math.min(LEAKING_LINES, peaks.size())));
      leaking.addAll(outside);
      for (int i = 0; i < LOOKS_AT_FLOOR; i++) {
        double hertz =
            trace.startHz() + (i + 0.5) / LOOKS_AT_FLOOR * (trace.stopHz() - trace.startHz());
        double amplitude = 0;
        for (Peak line : leaking) {
          double points = Math.abs(hertz - line.frequencyHz()) / trace.stepHz();
          amplitude += Math.pow(10, line.level() / 20) * interpolator.reachesTo(points);
        }
        leakage[i] = (float) (20 * Math.log10(Math.max(1e-15, amplitude)));
      }
      return leakage;
    }

    /** How far the lines may lift the median of the noise, dB. */
    private double liftDb(float[] leakage) {
      // A point far above the noise counts as any other of the upper half.
      double most = MEDIAN_OVER_MEAN * NoiseStatistics.decibels(maker.statistics().point());
      double sum = 0;
      for (float l : leakage) {
        double lift = Decibels.fromPowerRatio(1 + Decibels.toPowerRatio(l - lines.floor()));
        sum += Math.min(lift, most);
      }
      return sum / leakage.length;
    }

    private void addFrequency(List<Reading> readings, Peak top, boolean plain, List<String> marks) {
      double value = plain ? known.hertz() : Double.NaN;
      // An overload does not move a carrier: only what concerns the carrier itself marks it.
      List<String> own = new ArrayList<>(marks);
      own.removeAll(maker.levelMarks());
      context.spoiled().forEach(band -> own.remove(band.why()));
      UncertaintyBudget budget =
          new UncertaintyBudget()
              .rectangular(
                  "instrument reference",
                  Math.abs(settings.centreHz()) * context.accuracy().frequencyRelative())
              .normal("average", known == null ? 0 : known.frequencyHz())
              .ushaped("another line nearby", known == null ? 0 : known.pullHz());
      readings.add(
          maker.reading(
              "carrierFrequency", "Carrier frequency", value, "Hz", budget, Limit.NONE, own));
      double nominalSource = context.limits().nominalHz();
      if (Double.isNaN(nominalSource)) {
        return;
      }
      double nominal =
          correction == null ? nominalSource : correction.sourceToPlaneHz(nominalSource);
      double errorHz = value - nominal;
      // What has no plain carrier has no frequency error to judge; what should have one has.
      // And where the nominal frequency is not in view, the carrier here is another.
      boolean judged = (plain || top == null) && !Double.isNaN(nominalInViewHz());
      Limit limit = judged ? context.limits().frequencyErrorHz() : Limit.NONE;
      readings.add(
          maker.reading("frequencyError", "Frequency error", errorHz, "Hz", budget, limit, own));
      double toPpm = 1e6 / nominalSource;
      UncertaintyBudget ppmBudget = new UncertaintyBudget();
      budget.contributions().forEach(c -> ppmBudget.normal(c.name(), c.standard() * toPpm));
      readings.add(
          maker.reading(
              "frequencyErrorPpm",
              "Frequency error",
              errorHz * toPpm,
              "ppm",
              ppmBudget,
              new Limit(limit.lower() * toPpm, limit.upper() * toPpm),
              own));
    }
  }
}
