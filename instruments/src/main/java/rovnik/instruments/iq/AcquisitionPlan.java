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
    return of(atPort, receiver, 0);
  }

  /**
   * The same span with the receiver tuned elsewhere: what it makes of its own tuning moves.
   *
   * @param moved how much lower it is tuned, in spans; 0 to 0.2
   */
  public static AcquisitionPlan of(SpectrumSettings atPort, IqCapabilities receiver, double moved) {
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
    double away = ASIDE + moved;
    double asideBand = 2 * (away + 0.5) * span;
    boolean aside =
        asideBand <= receiver.fastestRateHz() * usable
            && centre - away * span >= receiver.lowestHz();
    double rate = rateFor((aside ? asideBand : (1 + 2 * moved) * span) / usable, receiver);
    double tuned = aside ? centre - away * span : centre - moved * span;
    SpectrumLayout layout = layout(atPort, rate, centre - tuned);
    return of(atPort, receiver, tuned, layout);
  }

  private static SpectrumLayout layout(SpectrumSettings atPort, double rateHz, double offsetHz) {
    return atPort.fftLength() > 0
        ? SpectrumLayout.ofLength(
            rateHz, offsetHz, atPort.spanHz(), atPort.window(), atPort.fftLength())
        : SpectrumLayout.plan(
            rateHz, offsetHz, atPort.spanHz(), atPort.effectiveRbwHz(), atPort.window());
  }

  /** Records of a layout, as many segments as are wanted and fit one block. */
  static AcquisitionPlan of(
      SpectrumSettings atPort, IqCapabilities receiver, double tuned, SpectrumLayout layout) {
    double rate = layout.sampleRateHz();
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

  /** The same with the second input's record beside the first's. */
  public AcquisitionPlan withSecond(double attenuationDb) {
    return new AcquisitionPlan(setup.withSecond(attenuationDb), layout);
  }

  /** Slowest rate that is fast enough. */
  static double rateFor(double neededHz, IqCapabilities receiver) {
    int halvings = receiver.rateHalvings();
    while (halvings > 0
        && receiver.fastestRateHz() / Math.pow(2, halvings) < neededHz * (1 - 1e-9)) {
      halvings--;
    }
    return receiver.fastestRateHz() / Math.pow(2, halvings);
  }
}
