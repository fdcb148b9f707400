package rovnik.core.modulation;

/** Makes carriers whose frequency is keyed: the phase is the sum of what all symbols turn it by. */
final class FrequencyKeying {
  /** A phase that is back after so many rounds or fewer makes no seam. */
  private static final int MOST_ROUNDS = 64;

  private static final double CLOSED = 1e-9;

  /** Samples a symbol between which a jump of the frequency no longer folds. */
  private static final double FINE = 128;

  /** Longest waveform that is made finer first, samples. */
  private static final long MOST_FINE = 1L << 26;

  /** Samples to each side that the low-pass reaches, and its corner in sample rates. */
  private static final int SIDE = 12;

  private static final double PASSES = 0.4;

  private final double[] cycles;
  private final PhasePulse pulse;

  FrequencyKeying(SingleCarrier carrier, int[] values) {
    this.cycles = cycles(carrier, values);
    this.pulse = new PhasePulse(carrier.filter());
  }

  /** Cycles that each symbol turns the phase by. */
  private static double[] cycles(SingleCarrier carrier, int[] values) {
    Constellation levels = carrier.constellation();
    double[] out = new double[values.length];
    for (int k = 0; k < out.length; k++) {
      out[k] = carrier.deviation() * levels.re(values[k]) / levels.largest();
    }
    return out;
  }

  /** How often these symbols are sent until the phase is where it began; 0 if it never is. */
  static int closes(SingleCarrier carrier, int[] values) {
    double sum = 0;
    for (double c : cycles(carrier, values)) {
      sum += c;
    }
    for (int times = 1; times <= MOST_ROUNDS; times++) {
      double all = times * sum;
      if (Math.abs(all - Math.rint(all)) < CLOSED * Math.max(1, times * (double) values.length)) {
        return times;
      }
    }
    return 0;
  }

  /**
   * Interleaved samples of amplitude 1; the first symbol follows the last. Where the frequency
   * jumps, the spectrum reaches far: such a carrier is made finer and filtered to the band that the
   * samples can hold.
   */
  float[] make(int samples, double samplesPerSymbol) {
    boolean jumps = pulse.reach() == 0.5;
    int finer = jumps ? (int) Math.max(2, Math.ceil(FINE / samplesPerSymbol)) : 1;
    if ((long) samples * finer > MOST_FINE) {
      finer = 1;
    }
    float[] iq = points(samples * finer, samplesPerSymbol * finer);
    return finer == 1 ? iq : decimated(iq, finer);
  }

  /** Every so many-th sample behind a low-pass (a sinc under a Blackman-Harris window). */
  private static float[] decimated(float[] iq, int step) {
    int half = SIDE * step;
    float[] h = new float[2 * half + 1];
    double sum = 0;
    for (int i = -half; i <= half; i++) {
      double x = 2 * PASSES * i / step;
      double w = Math.PI * i / half;
      double window =
          0.35875 + 0.48829 * Math.cos(w) + 0.14128 * Math.cos(2 * w) + 0.01168 * Math.cos(3 * w);
      h[i + half] = (float) (window * (i == 0 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x)));
      sum += h[i + half];
    }
    int fine = iq.length / 2;
    float[] out = new float[iq.length / step];
    for (int m = 0; m < out.length / 2; m++) {
      float re = 0;
      float im = 0;
      for (int i = -half; i <= half; i++) {
        int at = Math.floorMod(m * step + i, fine);
        re += h[i + half] * iq[2 * at];
        im += h[i + half] * iq[2 * at + 1];
      }
      out[2 * m] = (float) (re / sum);
      out[2 * m + 1] = (float) (im / sum);
    }
    return out;
  }

  private float[] points(int samples, double samplesPerSymbol) {
    int symbols = cycles.length;
    int reach = (int) Math.ceil(pulse.reach());
    float[] iq = new float[2 * samples];
    double done = 0;
    int next = -reach;
    for (int m = 0; m < samples; m++) {
      double t = m / samplesPerSymbol;
      int here = (int) Math.floor(t);
      while (next < here - reach) {
        done += cycles[Math.floorMod(next, symbols)];
        done -= Math.rint(done);
        next++;
      }
      double phase = done;
      for (int k = next; k <= here + reach + 1; k++) {
        phase += cycles[Math.floorMod(k, symbols)] * pulse.at(t - k);
      }
      iq[2 * m] = (float) Math.cos(2 * Math.PI * phase);
      iq[2 * m + 1] = (float) Math.sin(2 * Math.PI * phase);
    }
    return iq;
  }
}
