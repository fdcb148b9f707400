package rovnik.server.spectrum;

import rovnik.core.Refusal;
import rovnik.core.emission.SecondInput;
import rovnik.core.spectrum.SpectrumLayout;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.units.Frequency;
import rovnik.instruments.Instrument;
import rovnik.instruments.iq.AcquisitionPlan;
import rovnik.instruments.iq.IqCapabilities;
import rovnik.instruments.iq.ScanPlan;
import rovnik.instruments.sweep.SweepCapabilities;
import rovnik.instruments.sweep.SweepSetup;

/** Turns acquisitions into looks with one setting. Lives on the instrument's own thread. */
interface Engine {
  /** Takes one acquisition; null if there is nothing to show yet. */
  SpectrumLook next(Instrument instrument);

  /** Takes over what a new setting leaves as it is, such as a running average. */
  default void follow(Engine before) {}

  /** How records are cut and transformed, null if there are none. */
  default SpectrumLayout layout() {
    return null;
  }

  /**
   * The engine for a receiver that sends samples: single records, or steps if the span is wider.
   *
   * @throws Refusal if the receiver cannot do what is wanted
   */
  static Engine of(Setting wanted, IqCapabilities able) {
    SpectrumSettings atPort = wanted.atPort();
    SecondInput second = wanted.view().second();
    if (second != null && able.inputs() < 2) {
      throw noSecondInput();
    }
    if (!ScanPlan.needed(atPort.spanHz(), able)) {
      AcquisitionPlan plan = AcquisitionPlan.of(atPort, able);
      return new RecordEngine(
          wanted,
          second == null
              ? plan
              : plan.withSecond(
                  able.attenuationFor(second.referenceLevelDbm() + second.probeGainDb())));
    }
    if (second != null) {
      throw new Refusal(
          "second",
          "Two inputs are looked at in single records. Choose a span of at most "
              + Frequency.ofHertz(able.widestSpanHz())
              + ", or take input 2 away.");
    }
    return new ScanEngine(wanted, ScanPlan.of(atPort, able));
  }

  /** The engine for an analyzer that sends finished sweeps. */
  static Engine of(Setting wanted, SweepCapabilities swept) {
    if (wanted.view().second() != null) {
      throw noSecondInput();
    }
    return new SweptEngine(wanted, SweepSetup.of(wanted.atPort(), swept), swept);
  }

  private static Refusal noSecondInput() {
    return new Refusal(
        "second", "This instrument has one input. Choose one with two, or take input 2 away.");
  }

  /** Lines of marks that a receiver gives. */
  static java.util.List<String> marks(boolean overload, boolean tripped) {
    java.util.List<String> marks = new java.util.ArrayList<>();
    if (overload) {
      marks.add("overload");
    }
    if (tripped) {
      marks.add("input protection tripped");
    }
    return marks;
  }
}
