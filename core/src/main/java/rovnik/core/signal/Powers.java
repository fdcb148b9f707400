package rovnik.core.signal;

/** Powers of samples, and of each {@link #TOGETHER} of them the highest, the lowest and the sum. */
public abstract class Powers {
  /** Samples that are summed up together. */
  public static final int TOGETHER = 64;

  private static final Powers FASTEST =
      ComplexFft.vectors() ? new VectorPowers() : new PlainPowers();

  public static Powers fastest() {
    return FASTEST;
  }

  /**
   * Of I and Q in turns.
   *
   * @param from first sample
   * @param power as many as samples
   * @param highest one for each {@link #TOGETHER}, the last of what is left
   * @param lowest likewise
   * @param sum likewise
   */
  public abstract void of(
      float[] iq,
      int from,
      int samples,
      float[] power,
      float[] highest,
      float[] lowest,
      float[] sum);

  /**
   * Gathers powers of points: each into its sum, its lowest and its highest so far.
   *
   * @param first place of the first point's highest
   * @return the highest of these powers
   */
  public abstract float gather(
      float[] power, int points, float[] sum, float[] lowest, float[] highest, int first);

  /** The same of points from one on. */
  static float gather(
      float[] power,
      int from,
      int points,
      float[] sum,
      float[] lowest,
      float[] highest,
      int first) {
    float most = 0;
    for (int i = from; i < points; i++) {
      float p = power[i];
      most = Math.max(most, p);
      sum[i] += p;
      lowest[i] = Math.min(lowest[i], p);
      highest[first + i] = Math.max(highest[first + i], p);
    }
    return most;
  }

  /** What the powers of a block amount to. */
  static void block(
      float[] power, int from, int to, int block, float[] highest, float[] lowest, float[] sum) {
    float high = power[from];
    float low = high;
    float all = 0;
    for (int i = from; i < to; i++) {
      float p = power[i];
      high = p > high ? p : high;
      low = p < low ? p : low;
      all += p;
    }
    highest[block] = high;
    lowest[block] = low;
    sum[block] = all;
  }

  /** Of powers that are there. */
  public static void blocks(
      float[] power, int samples, float[] highest, float[] lowest, float[] sum) {
    for (int b = 0, from = 0; from < samples; b++, from += TOGETHER) {
      block(power, from, Math.min(samples, from + TOGETHER), b, highest, lowest, sum);
    }
  }
}
