package rovnik.instruments.iq;

import rovnik.core.Refusal;
import rovnik.core.spectrum.SpectrumLayout;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.units.Frequency;

/**
 * How a receiver must be set to give a wanted spectrum.
 *
 * <p>Where the rate allows, the receiver is tuned beside the span, so that its dc spike and the
 * image of the strongest line fall outside of what is shown.
 *
 * @param setup for the receiver
 * @param layout for the estimator
 */
public record AcquisitionPlan(IqSetup setup, SpectrumLayout layout) {
  /** Distance of the tuned frequency from the middle of the span, in spans. */
  private static final double ASIDE = 0.55;

  /** A block lasts about this long, so that frames follow one another quickly. */
  private static final double BLOCK_SECONDS = 0.02;

  /** Transforms in one block at most: more would not be seen. */
  private static final int MOST_SEGMENTS = 32;

  /**
   * @param atPort settings with centre and reference level at the receiver's port
   * @param receiver what it can do
   * @throws Refusal if the receiver cannot
   */
  public static AcquisitionPlan of(SpectrumSettings atPort, IqCapabilities receiver) {
    double span = atPort.spanHz();
    double centre = atPort.centreHz();
    if (span > receiver.widestSpanHz() * (1 + 1e-9)) {
      throw new Refusal(
          "spanHz",
          "This receiver shows at most "
              + Frequency.ofHertz(receiver.widestSpanHz())
              + " at once. Choose a span up to that.");
    }
    if (centre - span / 2 < receiver.lowestHz() || centre + span / 2 > receiver.highestHz()) {
      throw new Refusal(
          "centreHz",
          "The receiver tunes from "
              + Frequency.ofHertz(receiver.lowestHz())
              + " to "
              + Frequency.ofHertz(receiver.highestHz())
              + "; centre "
              + Frequency.ofHertz(centre)
              + " with this span at its port leaves that range.");
    }
    double usable = receiver.usableShare();
    double asideBand = 2 * (ASIDE + 0.5) * span;
    boolean aside =
        asideBand <= receiver.fastestRateHz() * usable
            && centre - ASIDE * span >= receiver.lowestHz();
    double rate = rateFor((aside ? asideBand : span) / usable, receiver);
    double tuned = aside ? centre - ASIDE * span : centre;
    SpectrumLayout layout =
        SpectrumLayout.plan(rate, centre - tuned, span, atPort.effectiveRbwHz(), atPort.window());
    int segments = 1;
    while (segments < Math.min(atPort.averages(), MOST_SEGMENTS)
        && layout.samplesFor(segments + 1) <= rate * BLOCK_SECONDS) {
      segments++;
    }
    long samples = layout.samplesFor(segments);
    if (samples > receiver.mostSamples()) {
      throw new Refusal(
          "rbwHz",
          "This RBW needs a record of "
              + samples
              + " samples; the receiver takes at most "
              + receiver.mostSamples()
              + ". Choose a coarser RBW.");
    }
    double attenuation = receiver.attenuationFor(atPort.referenceLevelDbm());
    return new AcquisitionPlan(new IqSetup(tuned, rate, (int) samples, attenuation), layout);
  }

  private static double rateFor(double neededHz, IqCapabilities receiver) {
    int halvings = receiver.rateHalvings();
    while (halvings > 0
        && receiver.fastestRateHz() / Math.pow(2, halvings) < neededHz * (1 - 1e-9)) {
      halvings--;
    }
    return receiver.fastestRateHz() / Math.pow(2, halvings);
  }
}
