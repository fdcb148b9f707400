package rovnik.core.signal;

/**
 * What is heard.
 *
 * @param samples full scale 1
 * @param rateHz samples a second
 */
public record Sound(float[] samples, double rateHz) {
  /** What sound devices and files take. */
  public static final int USUAL_HZ = 48_000;

  /** The loudest is this share of full scale. */
  private static final double LOUDEST = 0.7;

  /** The same at a rate that sound devices take, at a volume that fits. */
  public Sound forEars() {
    float loudest = 0;
    for (float v : samples) {
      loudest = Math.max(loudest, Math.abs(v));
    }
    float scale = loudest > 0 ? (float) (LOUDEST / loudest) : 0;
    int reach = SincSampler.REACH;
    float[] wide = new float[samples.length + 2 * reach];
    for (int i = 0; i < samples.length; i++) {
      wide[i + reach] = scale * samples[i];
    }
    int n = (int) Math.floor(samples.length / rateHz * USUAL_HZ);
    float[] out = new float[n];
    for (int i = 0; i < n; i++) {
      out[i] = (float) SincSampler.at(wide, reach + i * rateHz / USUAL_HZ);
    }
    return new Sound(out, USUAL_HZ);
  }
}
