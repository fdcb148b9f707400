package rovnik.core.network;

import java.util.Arrays;
import java.util.Locale;
import rovnik.core.units.Frequency;

/**
 * Noise parameters of a two-port over frequency.
 *
 * @param frequencyHz rising frequencies
 * @param minimumFigureDb lowest noise figure
 * @param sourceReflection real and imaginary part, in turns, of the source reflection that gives it
 * @param resistance effective noise resistance over the reference impedance, as the file has it
 */
public record NoiseParameters(
    double[] frequencyHz,
    double[] minimumFigureDb,
    double[] sourceReflection,
    double[] resistance) {

  /** With the resistance over a reference impedance, from one in ohm. */
  public NoiseParameters over(double ohm) {
    return new NoiseParameters(
        frequencyHz,
        minimumFigureDb,
        sourceReflection,
        Arrays.stream(resistance).map(r -> r / ohm).toArray());
  }

  /** "Noise parameters at 3 frequencies, lowest noise figure 0.45 dB at 1 GHz." */
  public String words() {
    int best = 0;
    for (int i = 1; i < frequencyHz.length; i++) {
      best = minimumFigureDb[i] < minimumFigureDb[best] ? i : best;
    }
    double size = Math.hypot(sourceReflection[2 * best], sourceReflection[2 * best + 1]);
    double degrees =
        Math.toDegrees(Math.atan2(sourceReflection[2 * best + 1], sourceReflection[2 * best]));
    return String.format(
        Locale.ROOT,
        "Noise parameters at %d frequencies: lowest noise figure %.3g dB at %s, for a source"
            + " reflection of %.3f at %.1f degrees; noise resistance %.3g of the reference.",
        frequencyHz.length,
        minimumFigureDb[best],
        Frequency.ofHertz(frequencyHz[best]),
        size,
        degrees,
        resistance[best]);
  }
}
