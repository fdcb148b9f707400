package rovnik.instruments.iq;

import rovnik.core.Refusal;
import rovnik.core.units.Frequency;
import rovnik.core.units.Seconds;

/**
 * How a receiver must be set for records of one carrier. Where its rate allows, it is tuned beside
 * the carrier, so that what it makes of its own tuning (dc spike, image) falls outside.
 */
public final class CarrierPlan {
  /** Distance of the tuned frequency from the carrier, in bands of the carrier. */
  private static final double ASIDE = 0.6;

  private CarrierPlan() {}

  /**
   * @param centreHz of the carrier, at the receiver's port
   * @param bandHz that must be seen around it
   * @param bandField setting that it follows from
   * @param seconds length of a record
   * @param referenceLevelDbm highest level at the port
   * @throws Refusal if the receiver cannot
   */
  public static IqSetup of(
      double centreHz,
      double bandHz,
      String bandField,
      double seconds,
      double referenceLevelDbm,
      IqCapabilities able) {
    if (bandHz > able.widestSpanHz() * (1 + 1e-9)) {
      throw new Refusal(
          bandField,
          "This receiver sees at most "
              + Frequency.ofHertz(able.widestSpanHz())
              + " at once; with what lies beside it this takes "
              + Frequency.ofHertz(bandHz)
              + ". Choose a narrower one, or a faster receiver.");
    }
    if (centreHz - bandHz / 2 < able.lowestHz() || centreHz + bandHz / 2 > able.highestHz()) {
      throw new Refusal(
          "centreHz",
          "The receiver tunes from "
              + Frequency.ofHertz(able.lowestHz())
              + " to "
              + Frequency.ofHertz(able.highestHz())
              + "; this carrier at "
              + Frequency.ofHertz(centreHz)
              + " at its port leaves that range.");
    }
    double usable = able.usableShare();
    double asideBand = 2 * (ASIDE + 0.5) * bandHz;
    boolean aside =
        asideBand <= able.widestSpanHz() && centreHz - ASIDE * bandHz >= able.lowestHz();
    double narrow = AcquisitionPlan.rateFor(bandHz / usable, able);
    double rate = aside ? AcquisitionPlan.rateFor(asideBand / usable, able) : narrow;
    // What is too long at the higher rate may fit with the spike in the middle.
    if (seconds * rate > able.mostSamples()) {
      aside = false;
      rate = narrow;
    }
    double samples = Math.ceil(seconds * rate);
    if (samples > able.mostSamples()) {
      throw new Refusal(
          "seconds",
          String.format(
              java.util.Locale.ROOT,
              "That needs a record of %.0f samples; the receiver takes at most %d, here %s. Take a"
                  + " shorter result, or fewer symbols.",
              samples,
              able.mostSamples(),
              Seconds.words(able.mostSamples() / rate)));
    }
    return new IqSetup(
        aside ? centreHz - ASIDE * bandHz : centreHz,
        rate,
        (int) samples,
        able.attenuationFor(referenceLevelDbm));
  }
}
