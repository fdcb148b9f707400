package rovnik.core.modulation.analog;

import java.util.Optional;

/**
 * A tone below speech that opens squelches.
 *
 * @param nominalHz the one of the list that it is
 * @param measuredHz as it is
 * @param amplitude its peak, in the unit of the signal
 * @param standardHz how the measured frequency scatters where what else is there is like noise
 */
public record ToneSquelch(
    double nominalHz, double measuredHz, double amplitude, double standardHz) {
  /** TIA-603, from memory. */
  private static final double[] LIST = {
    67.0, 69.3, 71.9, 74.4, 77.0, 79.7, 82.5, 85.4, 88.5, 91.5, 94.8, 97.4, 100.0, 103.5, 107.2,
    110.9, 114.8, 118.8, 123.0, 127.3, 131.8, 136.5, 141.3, 146.2, 151.4, 156.7, 162.2, 167.9,
    173.8, 179.9, 186.2, 192.8, 203.5, 206.5, 210.7, 218.1, 225.7, 229.1, 233.6, 241.8, 250.3, 254.1
  };

  /** How far from the list a tone may be (common practice). */
  private static final double TOLERANCE = 0.005;

  /** Above the highest and below the lowest, as it is looked for. */
  private static final double LOWEST_HZ = 65;

  private static final double HIGHEST_HZ = 258;

  /** The tone of the list that is nearest. */
  public static double nearest(double hz) {
    double best = LIST[0];
    for (double tone : LIST) {
      best = Math.abs(tone - hz) < Math.abs(best - hz) ? tone : best;
    }
    return best;
  }

  /** All tones of the list. */
  public static double[] list() {
    return LIST.clone();
  }

  /** Looks for it in a signal without filters. */
  public static Optional<ToneSquelch> in(double[] signal, double rateHz, double voiceHz) {
    double periods = signal.length / rateHz * LIST[0];
    if (periods < 6 || voiceHz > 0 && voiceHz < HIGHEST_HZ) {
      return Optional.empty();
    }
    SineFit fit = SineFit.of(signal, rateHz, LOWEST_HZ, HIGHEST_HZ, HIGHEST_HZ);
    if (!fit.found()) {
      return Optional.empty();
    }
    double amplitude = fit.amplitude()[0];
    double seconds = signal.length / rateHz;
    // Cramer and Rao's bound for the frequency of a sine in white noise.
    double standard =
        Math.sqrt(24 * fit.restPower())
            / (2 * Math.PI * amplitude * seconds * Math.sqrt(signal.length));
    for (double hz : LIST) {
      if (Math.abs(fit.rateHz() / hz - 1) < TOLERANCE) {
        return Optional.of(new ToneSquelch(hz, fit.rateHz(), amplitude, standard));
      }
    }
    return Optional.empty();
  }
}
