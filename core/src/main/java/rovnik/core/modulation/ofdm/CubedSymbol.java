package rovnik.core.modulation.ofdm;

import java.util.Arrays;
import rovnik.core.signal.ComplexFft;
import rovnik.core.signal.Transforms;

/**
 * What an amplifier makes of a symbol whose gain follows its power: x times its power over the
 * mean, seen in the tones.
 */
final class CubedSymbol {
  private final int[] places;
  private final int length;
  private final ComplexFft fft;
  private final float[] x;
  private final float[] y;

  CubedSymbol(FramePlan plan) {
    this.length = plan.transform();
    this.fft = Transforms.ofLength(length);
    this.places = new int[plan.tones().length];
    for (int k = 0; k < places.length; k++) {
      places[k] = Math.floorMod(plan.tones()[k], length);
    }
    this.x = new float[length];
    this.y = new float[length];
  }

  /**
   * @param re of the tones that are sent
   * @param outRe of the tones of the cube, over the mean power of the symbol
   */
  void of(double[] re, double[] im, double[] outRe, double[] outIm) {
    Arrays.fill(x, 0);
    Arrays.fill(y, 0);
    double mean = 1e-300;
    for (int k = 0; k < places.length; k++) {
      // Conjugated, what is transformed forward comes back backward.
      x[places[k]] = (float) re[k];
      y[places[k]] = (float) -im[k];
      mean += re[k] * re[k] + im[k] * im[k];
    }
    fft.forward(x, y);
    for (int n = 0; n < length; n++) {
      float p = (float) ((x[n] * x[n] + y[n] * y[n]) / mean);
      x[n] *= p;
      y[n] *= -p;
    }
    fft.forward(x, y);
    for (int k = 0; k < places.length; k++) {
      outRe[k] = x[places[k]] / length;
      outIm[k] = y[places[k]] / length;
    }
  }
}
