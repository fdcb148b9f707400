package rovnik.server.spectrum;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.emission.EmissionResult;
import rovnik.core.emission.PhaseNoise;
import rovnik.core.emission.PhaseNoiseOutcome;
import rovnik.core.result.Outcome;
import rovnik.core.spectrum.ReadingMaker;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.spectrum.Trace;
import rovnik.core.units.Frequency;
import rovnik.server.live.Guided;
import rovnik.server.live.GuidedForm;
import rovnik.server.live.Workbench;

/** Phase noise of the strongest line in view: one spectrum a decade of offsets. */
final class PhaseNoiseWork implements Guided<SpectrumBench> {
  /**
   * What it is told.
   *
   * @param toHz farthest offset, 10 kHz to 10 MHz
   */
  @Schema(name = "PhaseNoiseForm")
  record Form(double toHz) implements GuidedForm {
    @Override
    public Guided<?> work() {
      return new PhaseNoiseWork(toHz);
    }
  }

  private final double toHz;

  /**
   * @param toHz farthest offset, 10 kHz to 10 MHz
   */
  PhaseNoiseWork(double toHz) {
    if (!(toHz >= 1e4 && toHz <= 1e7)) {
      throw new Refusal("toHz", "Phase noise is measured out to an offset of 10 kHz to 10 MHz.");
    }
    this.toHz = toHz;
  }

  @Override
  public String id() {
    return "phase-noise";
  }

  @Override
  public String title() {
    return "Phase noise";
  }

  @Override
  public Outcome run(SpectrumBench bench) {
    bench.say("carrier", 0);
    SpectrumLook first = bench.look(bench.settings());
    if (first.result().base().peaks().isEmpty()) {
      throw new Refusal("phaseNoise", "There is no line in view. Frame the carrier first.");
    }
    double f0 = first.result().base().peaks().get(0).frequencyHz();
    List<Trace> traces = new ArrayList<>();
    EmissionResult widest = null;
    SpectrumLook carrier = null;
    for (double reach = toHz; reach >= 0.99e4; reach /= 10) {
      bench.say("offsets to " + Frequency.ofHertz(reach), 0.1 + 0.15 * Math.log10(toHz / reach));
      carrier = bench.look(settings(bench, f0, reach));
      traces.add(carrier.result().base().trace());
      widest = widest == null ? carrier.result() : widest;
      if (!carrier.result().base().peaks().isEmpty()) {
        f0 = carrier.result().base().peaks().get(0).frequencyHz();
      }
    }
    double level = carrier.result().base().peaks().get(0).level();
    List<Trace> without = bench.sourceOn() ? without(bench, f0) : List.of();
    Setting s = bench.setting(bench.settings());
    Trace trace = widest.base().trace();
    ReadingMaker maker =
        new ReadingMaker(
            trace, s.settings(), s.correction(), s.context(carrier.marks(), List.of()));
    return PhaseNoiseOutcome.of(
        PhaseNoise.of(traces, without, f0, level),
        f0,
        level,
        trace,
        maker,
        s.accuracy(),
        carrier.marks());
  }

  /** The same spectra with the source off: what the receiver and the room bring along. */
  private List<Trace> without(SpectrumBench bench, double f0) {
    List<Trace> traces = new ArrayList<>();
    bench.switchSource(false);
    Workbench.Restored onAgain = () -> bench.switchSource(true);
    try (onAgain) {
      for (double reach = toHz; reach >= 0.99e4; reach /= 10) {
        bench.say(
            "with " + bench.sourceName() + " off, to " + Frequency.ofHertz(reach),
            0.6 + 0.3 * Math.log10(toHz / reach) / 3);
        traces.add(bench.look(settings(bench, f0, reach)).result().base().trace());
      }
    }
    return traces;
  }

  private static SpectrumSettings settings(SpectrumBench bench, double f0, double reach) {
    return PhaseNoiseOutcome.settings(bench.settings(), f0, reach);
  }
}
