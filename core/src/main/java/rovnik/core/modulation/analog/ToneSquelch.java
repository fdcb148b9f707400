package rovnik.core.modulation.analog;

import java.util.Optional;

/**
 * A tone below speech that opens squelches.
 *
 * @param nominalHz the one of the list that it is
 * @param measuredHz as it is
 * @param amplitude its peak, in the unit of the signal
 */
record ToneSquelch(double nominalHz, double measuredHz, double amplitude) {
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

  /** Looks for it in a signal without filters. */
  static Optional<ToneSquelch> in(double[] signal, double rateHz, double voiceHz) {
    double periods = signal.length / rateHz * LIST[0];
    if (periods < 6 || voiceHz > 0 && voiceHz < HIGHEST_HZ) {
      return Optional.empty();
    }
    SineFit fit = SineFit.of(signal, rateHz, LOWEST_HZ, HIGHEST_HZ, HIGHEST_HZ);
    if (!fit.found()) {
      return Optional.empty();
    }
    for (double hz : LIST) {
      if (Math.abs(fit.rateHz() / hz - 1) < TOLERANCE) {
        return Optional.of(new ToneSquelch(hz, fit.rateHz(), fit.amplitude()[0]));
      }
    }
    return Optional.empty();
  }
}
