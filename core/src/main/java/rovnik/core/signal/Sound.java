package rovnik.core.signal;

import java.util.Arrays;
import org.hipparchus.util.KthSelector;

/**
 * What is heard.
 *
 * @param samples full scale 1
 * @param rateHz samples a second
 */
public record Sound(float[] samples, double rateHz) {
  /** What sound devices and files take. */
  public static final int USUAL_HZ = 48_000;

  /** All but some clicks stay within this share of full scale. */
  private static final double LOUD = 0.7;

  /** Share of what is no silence that may be louder. */
  private static final double CLICKS = 1e-3;

  private double loud() {
    double[] size = new double[samples.length];
    int n = 0;
    for (float v : samples) {
      if (v != 0) {
        size[n++] = Math.abs(v);
      }
    }
    return n == 0
        ? 0
        : new KthSelector().select(Arrays.copyOf(size, n), null, (int) ((1 - CLICKS) * (n - 1)));
  }

  /** The same at a rate that sound devices take, at a volume that fits. */
  public Sound forEars() {
    double loud = loud();
    float scale = loud > 0 ? (float) (LOUD / loud) : 0;
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
