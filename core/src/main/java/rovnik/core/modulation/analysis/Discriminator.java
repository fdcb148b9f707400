package rovnik.core.modulation.analysis;

import java.util.function.DoubleUnaryOperator;
import rovnik.core.signal.ComplexFft;
import rovnik.core.signal.SincSampler;
import rovnik.core.signal.Transforms;

/** Frequency over time of a carrier, behind a filter; in symbol rates, time in samples. */
final class Discriminator {
  private final float[] y;
  private final int samples;

  /**
   * @param samplesPerSymbol of the carrier
   * @param filter response over frequency in symbol rates
   */
  Discriminator(
      float[] re, float[] im, int samples, double samplesPerSymbol, DoubleUnaryOperator filter) {
    this.samples = samples - 1;
    int length = Math.max(64, Integer.highestOneBit(2 * samples - 1));
    this.y = new float[length];
    float[] other = new float[length];
    double toRate = samplesPerSymbol / (2 * Math.PI);
    double sum = 0;
    for (int n = 0; n < this.samples; n++) {
      double c = re[n + 1] * (double) re[n] + im[n + 1] * (double) im[n];
      double s = im[n + 1] * (double) re[n] - re[n + 1] * (double) im[n];
      y[n] = (float) (toRate * Math.atan2(s, c));
      sum += y[n];
    }
    java.util.Arrays.fill(y, this.samples, length, (float) (sum / this.samples));
    ComplexFft fft = Transforms.ofLength(length);
    fft.forward(y, other);
    for (int k = 0; k < length; k++) {
      int bin = k <= length / 2 ? k : k - length;
      float h = (float) (filter.applyAsDouble(bin * samplesPerSymbol / length) / length);
      // The inverse is a forward transform with the parts exchanged, before and after.
      float swap = h * y[k];
      y[k] = h * other[k];
      other[k] = swap;
    }
    fft.forward(y, other);
    System.arraycopy(other, 0, y, 0, length);
  }

  float[] values() {
    return y;
  }

  int samples() {
    return samples;
  }

  /** The frequency at an instant; each step of the phase lies between two samples. */
  double at(double sample) {
    double edge = samples - SincSampler.REACH - 1.0;
    return SincSampler.at(y, Math.max(SincSampler.REACH, Math.min(edge, sample - 0.5)));
  }
}
