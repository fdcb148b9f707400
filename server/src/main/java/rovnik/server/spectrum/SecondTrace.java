package rovnik.server.spectrum;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import rovnik.core.emission.EmissionResult;
import rovnik.core.emission.SecondInput;
import rovnik.core.emission.SpectrumOutcome;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.result.Reading;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.OutsideLine;
import rovnik.core.spectrum.Peak;
import rovnik.core.spectrum.PeakSearch;
import rovnik.core.spectrum.RollingSpectrum;
import rovnik.core.spectrum.SpectrumEstimator;
import rovnik.core.spectrum.SpectrumLayout;
import rovnik.core.spectrum.SpectrumResult;
import rovnik.core.spectrum.ToneInterpolator;
import rovnik.core.spectrum.Trace;
import rovnik.core.uncertainty.UncertaintyBudget;
import rovnik.core.units.Decibels;

/**
 * The second input beside the first: the same points, but its own window, level and probe. What is
 * kept of it is the average, its strongest line, and that line against the first input's.
 */
final class SecondTrace {
  private static final String LABEL = "input 2 at ";
  private static final Set<String> OWN = Set.of("secondLevel", "secondOverFirst");

  /** True if a row or reading came from here. */
  static boolean made(SpectrumOutcome.Row row) {
    return row.label().startsWith(LABEL);
  }

  static boolean made(Reading reading) {
    return OWN.contains(reading.id());
  }

  private final SecondInput input;
  private final Setting setting;
  private final SpectrumLayout layout;
  private final SpectrumEstimator estimator;
  private final RollingSpectrum rolling;
  private final double[] power;
  private Trace trace;
  private List<Peak> outside = List.of();
  private boolean overload;

  SecondTrace(Setting setting, SpectrumLayout first) {
    this.input = setting.view().second();
    this.setting = setting;
    this.layout =
        new SpectrumLayout(
            first.sampleRateHz(),
            input.window(),
            first.windowLength(),
            first.fftLength(),
            first.firstBin(),
            first.points());
    this.estimator = new SpectrumEstimator(layout, setting.settings().detector());
    this.rolling =
        new RollingSpectrum(
            setting.settings().detector(), layout.points(), setting.settings().averages());
    this.power = new double[layout.points()];
  }

  boolean alike(SecondTrace other) {
    return input.equals(other.input) && layout.equals(other.layout);
  }

  void take(IqRecord record) {
    estimator.reset();
    estimator.accumulate(record.iq(), 0, record.sampleCount());
    List<OutsideLine> beside = estimator.outside();
    rolling.take(estimator);
    rolling.powerInto(power);
    overload = record.overload();
    float[] level = new float[power.length];
    double offsetDb = record.fullScaleDbm() - input.probeGainDb();
    for (int i = 0; i < level.length; i++) {
      level[i] = (float) (Decibels.fromPowerRatio(power[i]) + offsetDb);
    }
    trace =
        new Trace(
            record.centreHz() + layout.offsetHz(0),
            layout.stepHz(),
            level,
            "dBm",
            input.plane(),
            layout.rbwHz(),
            layout.enbwHz(),
            rolling.segments(),
            input.window().label(),
            setting.settings().detector().label());
    outside = beside.stream().map(o -> o.at(trace.startHz(), trace.stepHz(), offsetDb)).toList();
  }

  /** The trace beside the first one's, on whose frequencies it is drawn. */
  SpectrumOutcome.Row row(Trace first) {
    Trace t = trace;
    return new SpectrumOutcome.Row(
        LABEL + input.plane() + ", " + t.window(),
        new Trace(
            first.startHz(),
            first.stepHz(),
            t.level(),
            t.unit(),
            t.plane(),
            t.rbwHz(),
            t.enbwHz(),
            t.segments(),
            t.window(),
            t.detector()));
  }

  List<String> marks(List<String> marks) {
    if (!overload) {
      return marks;
    }
    List<String> all = new ArrayList<>(marks);
    all.add("overload of input 2");
    return all;
  }

  /** Adds what input 2 says to what was read of input 1. */
  EmissionResult read(EmissionResult result) {
    List<Peak> lines =
        setting
            .settings()
            .lines()
            .over(trace.level())
            .find(trace, ToneInterpolator.of(layout), outside);
    List<String> marks = overload ? List.of("overload of input 2") : List.of();
    List<Reading> readings = new ArrayList<>(result.base().readings());
    Peak top = lines.isEmpty() ? null : lines.get(0);
    double noise = top == null ? 0 : top.level() - PeakSearch.median(trace.level());
    double statisticalDb =
        4.34 * Math.sqrt(2 * Decibels.toPowerRatio(-noise) / Math.max(1, rolling.segments()));
    UncertaintyBudget one =
        new UncertaintyBudget()
            .rectangular("instrument level accuracy", setting.accuracy().levelDb())
            .normal("average", statisticalDb);
    readings.add(
        reading(
            "secondLevel",
            "Strongest line of input 2" + (top == null ? "" : " at " + hertz(top)),
            top == null ? Double.NaN : top.level(),
            "dBm",
            one,
            marks));
    List<Peak> first = result.base().peaks();
    if (top != null && !first.isEmpty()) {
      // Both inputs have their own attenuator and converter: nothing of the accuracy cancels.
      UncertaintyBudget both =
          new UncertaintyBudget()
              .rectangular("level accuracy of input 1", setting.accuracy().levelDb())
              .rectangular("level accuracy of input 2", setting.accuracy().levelDb())
              .normal("average", statisticalDb);
      List<String> either = new ArrayList<>(marks);
      readings.stream()
          .filter(r -> r.id().equals("carrierPower"))
          .forEach(r -> either.addAll(r.marks()));
      readings.add(
          reading(
              "secondOverFirst",
              "Strongest line, input 2 over input 1",
              top.level() - first.get(0).level(),
              "dB",
              both,
              either));
    }
    return new EmissionResult(
        new SpectrumResult(result.base().trace(), result.base().peaks(), readings),
        result.tables(),
        result.limitLines());
  }

  private static String hertz(Peak p) {
    return rovnik.core.units.Frequency.ofHertz(Math.rint(p.frequencyHz())).toString();
  }

  private Reading reading(
      String id,
      String label,
      double value,
      String unit,
      UncertaintyBudget budget,
      List<String> marks) {
    return new Reading(
        id,
        label,
        value,
        unit,
        input.plane(),
        budget.expanded(),
        budget.contributions(),
        Limit.NONE,
        Verdict.NONE,
        marks);
  }
}
