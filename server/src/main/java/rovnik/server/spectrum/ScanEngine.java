package rovnik.server.spectrum;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import rovnik.core.emission.EmissionMeasurement;
import rovnik.core.result.SpoiledBand;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.SpectrumEstimator;
import rovnik.core.spectrum.SpectrumLayout;
import rovnik.core.spectrum.SpectrumMeasurement;
import rovnik.core.spectrum.SpectrumResult;
import rovnik.core.spectrum.TraceStack;
import rovnik.core.units.Decibels;
import rovnik.instruments.Instrument;
import rovnik.instruments.iq.AcquisitionPlan;
import rovnik.instruments.iq.IqReceiver;
import rovnik.instruments.iq.ScanPlan;

/** A span stitched from steps. What has been measured is shown while the rest is on its way. */
final class ScanEngine implements Engine {
  /** A picture of an unfinished pass is made no more often than this. */
  private static final long PARTIAL_NANOS = 150_000_000;

  /** Samples are taken for this many times as long as a whole trace is measured. */
  private static final int MEASURED_SHARE = 40;

  private final Setting setting;
  private final ScanPlan plan;
  private final double[] stitched;
  private final boolean[] overloaded;
  private int step;
  private final TraceStack stack;
  private final Map<SpectrumLayout, SpectrumEstimator> estimators = new HashMap<>();
  private boolean passed;
  private long beganNanos = System.nanoTime();
  private long shownNanos;
  private long lookNanos;
  private boolean shownWhole;

  ScanEngine(Setting setting, ScanPlan plan) {
    this.setting = setting;
    this.plan = plan;
    this.stitched = new double[plan.layout().points()];
    this.overloaded = new boolean[plan.steps().size()];
    this.stack = Rows.stack(setting, stitched.length, null);
  }

  @Override
  public SpectrumLook next(Instrument instrument) {
    IqReceiver receiver = (IqReceiver) instrument;
    AcquisitionPlan one = plan.steps().get(step);
    receiver.configure(one.setup());
    IqRecord record = receiver.acquire();
    // Nearly all steps are cut alike.
    SpectrumEstimator estimator =
        estimators.computeIfAbsent(
            one.layout(), l -> new SpectrumEstimator(l, setting.settings().detector()));
    estimator.reset();
    estimator.accumulate(record.iq(), 0, record.sampleCount());
    double[] power = new double[one.layout().points()];
    estimator.powerInto(power);
    double milliwatts = Decibels.toPowerRatio(record.fullScaleDbm());
    for (int i = 0; i < power.length; i++) {
      power[i] *= milliwatts;
    }
    plan.merge(step, power, stitched);
    overloaded[step] = record.overload();
    int taken = step;
    step = (step + 1) % plan.steps().size();
    passed |= step == 0;
    long now = System.nanoTime();
    if (!passed && now - shownNanos < PARTIAL_NANOS) {
      return null;
    }
    if (passed && step != 0) {
      return null; // later passes are shown whole
    }
    if (passed) {
      stack.take(stitched);
    }
    if (shownWhole && now - shownNanos < MEASURED_SHARE * lookNanos) {
      return null; // a long trace must not be measured more often than it is of use
    }
    shownWhole = passed;
    shownNanos = now;
    List<String> marks = Engine.marks(false, receiver.protectionTripped());
    SpectrumLook look = look(taken, estimator.segments(), marks, one.setup().attenuationDb());
    lookNanos = System.nanoTime() - now;
    return look;
  }

  private SpectrumLook look(int taken, int segments, List<String> marks, double attenuationDb) {
    int points = passed ? stitched.length : plan.pointsAfter(taken);
    SpectrumLayout all = plan.layout();
    SpectrumLayout there =
        new SpectrumLayout(
            all.sampleRateHz(),
            all.window(),
            all.windowLength(),
            all.fftLength(),
            all.firstBin(),
            points);
    List<SpoiledBand> spoiled = spoiled();
    MeasurementContext context = setting.context(marks, spoiled);
    // The stitched powers are milliwatts at the port: a full scale of 0 dBm.
    SpectrumResult base =
        SpectrumMeasurement.of(
            points == stitched.length ? stitched : Arrays.copyOf(stitched, points),
            there,
            List.of(), // the pieces lie beside each other
            plan.originHz(),
            0,
            segments,
            setting.settings(),
            context);
    double progress = passed ? 1 : (taken + 1.0) / plan.steps().size();
    double spent = (System.nanoTime() - beganNanos) / 1e9;
    return new SpectrumLook(
        setting,
        EmissionMeasurement.of(base, setting.settings(), setting.view(), context, null, null),
        passed ? Rows.of(stack, base.trace(), 0, setting.correction()) : List.of(),
        null,
        new SpectrumLook.Facts(
            all.fftLength(),
            all.sampleRateHz(),
            all.windowLength() / all.sampleRateHz(),
            attenuationDb),
        marks,
        spoiled,
        progress,
        passed ? 0 : spent / progress * (1 - progress));
  }

  /** Bands of the steps in which the receiver was overloaded, at the reading plane. */
  private List<SpoiledBand> spoiled() {
    List<SpoiledBand> bands = new ArrayList<>();
    double stepHz = plan.layout().stepHz();
    for (int i = 0; i < overloaded.length; i++) {
      if (overloaded[i]) {
        double from = plan.originHz() + plan.firstPoint().get(i) * stepHz;
        double to = plan.originHz() + (plan.pointsAfter(i) - 1) * stepHz;
        bands.add(
            new SpoiledBand(
                setting.correction().portToPlaneHz(from),
                setting.correction().portToPlaneHz(to),
                "overload"));
      }
    }
    return bands;
  }
}
