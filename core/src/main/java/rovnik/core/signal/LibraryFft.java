package rovnik.core.signal;

import org.jtransforms.fft.FloatFFT_1D;
import org.visnow.jlargearrays.ConcurrencyUtils;

/** JTransforms behind {@link ComplexFft}: any length, any Java. */
final class LibraryFft implements ComplexFft {
  static {
    oneThread();
  }

  private final FloatFFT_1D fft;
  private final float[] interleaved;

  LibraryFft(int length) {
    fft = new FloatFFT_1D(length);
    interleaved = new float[2 * length];
  }

  /** Callers run their own parallel loops; the library's threads would fight them. */
  static void oneThread() {
    ConcurrencyUtils.setNumberOfThreads(1);
  }

  @Override
  public int placeOf(int bin) {
    return bin;
  }

  @Override
  public void addPower(float[] iq, int at, float[] window, float[] sum) {
    float[] x = interleaved;
    int samples = Math.min(window.length, iq.length / 2 - at);
    for (int i = 0, a = 2 * at; i < samples; i++, a += 2) {
      x[2 * i] = iq[a] * window[i];
      x[2 * i + 1] = iq[a + 1] * window[i];
    }
    java.util.Arrays.fill(x, 2 * samples, x.length, 0f);
    fft.complexForward(x);
    for (int i = 0; i < sum.length; i++) {
      sum[i] += x[2 * i] * x[2 * i] + x[2 * i + 1] * x[2 * i + 1];
    }
  }

  @Override
  public void forward(float[] re, float[] im) {
    float[] x = interleaved;
    int n = x.length / 2;
    for (int i = 0; i < n; i++) {
      x[2 * i] = re[i];
      x[2 * i + 1] = im[i];
    }
    fft.complexForward(x);
    for (int i = 0; i < n; i++) {
      re[i] = x[2 * i];
      im[i] = x[2 * i + 1];
    }
  }
}
