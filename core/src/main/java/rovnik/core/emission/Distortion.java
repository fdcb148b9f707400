package rovnik.core.emission;

import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.units.Decibels;

/** Numbers that follow from the levels of a few lines. */
public final class Distortion {
  private Distortion() {}

  /** Total harmonic distortion with its standard uncertainty, both in percent. */
  public record Harmonics(double percent, double standardPercent) {}

  /**
   * Total harmonic distortion in percent: root of the sum of the harmonics' powers over the
   * fundamental's (IEC 60268-3, relative to the fundamental; from memory).
   *
   * @param fundamental level in dB
   * @param fundamentalDb what it scatters by, standard
   * @param levels of the 2nd and higher harmonics in the same unit
   * @param scatterDb what each of them scatters by, standard
   * @param commonDb what path and instrument do to another band than the fundamental's, standard;
   *     the same for all, as they are often next to one another
   */
  public static Harmonics harmonics(
      double fundamental,
      double fundamentalDb,
      List<Double> levels,
      List<Double> scatterDb,
      double commonDb) {
    double sum = 0;
    double squares = 0;
    for (int i = 0; i < levels.size(); i++) {
      double power = Decibels.toPowerRatio(levels.get(i) - fundamental);
      sum += power;
      squares += power * power * scatterDb.get(i) * scatterDb.get(i);
    }
    double percent = 100 * Math.sqrt(sum);
    double db =
        Math.sqrt(
            commonDb * commonDb
                + fundamentalDb * fundamentalDb
                + (sum > 0 ? squares / sum / sum : 0));
    return new Harmonics(percent, Math.log(10) / 20 * db * percent);
  }

  /**
   * Third-order products of two tones.
   *
   * @param toneDbm mean level of both tones
   * @param lowerDbm level at 2 f1 - f2
   * @param upperDbm level at 2 f2 - f1
   * @param interceptDbm output intercept by the stronger product, P + delta / 2 (Pozar, Microwave
   *     Engineering, from memory)
   */
  public record ThirdOrder(
      double lowerHz,
      double upperHz,
      double toneDbm,
      double lowerDbm,
      double upperDbm,
      double interceptDbm) {

    /** Distance of the stronger product from the tones, positive dB. */
    public double distanceDb() {
      return toneDbm - Math.max(lowerDbm, upperDbm);
    }
  }

  /**
   * Third-order intercept from two tones and the two products beside them. The product at 2 f1 - f2
   * grows by 2 dB with the first tone and by 1 dB with the second (common practice), so that
   * unequal tones give the same intercept from either product; the lower of the two is returned.
   */
  public static ThirdOrder thirdOrder(
      double firstHz,
      double secondHz,
      double firstDbm,
      double secondDbm,
      double lowerDbm,
      double upperDbm) {
    double low = Math.min(firstHz, secondHz);
    double high = Math.max(firstHz, secondHz);
    double lowDbm = firstHz < secondHz ? firstDbm : secondDbm;
    double highDbm = firstHz < secondHz ? secondDbm : firstDbm;
    double fromLower = (2 * lowDbm + highDbm - lowerDbm) / 2;
    double fromUpper = (2 * highDbm + lowDbm - upperDbm) / 2;
    return new ThirdOrder(
        2 * low - high,
        2 * high - low,
        (firstDbm + secondDbm) / 2,
        lowerDbm,
        upperDbm,
        Math.min(fromLower, fromUpper));
  }

  /**
   * Depth of sinusoidal AM in percent from a carrier and its side lines: m = 2 x side / carrier.
   *
   * @throws Refusal if the side lines differ too much to be AM alone
   */
  public static double amPercent(double carrier, double lowerSide, double upperSide) {
    if (Math.abs(lowerSide - upperSide) > 3) {
      throw new Refusal("amDepth", "the side lines differ by more than 3 dB: not AM alone");
    }
    double side = (Decibels.toAmplitudeRatio(lowerSide) + Decibels.toAmplitudeRatio(upperSide)) / 2;
    return 200 * side / Decibels.toAmplitudeRatio(carrier);
  }
}
