package rovnik.core.signal;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** JTransforms is the second opinion on the vector transform, and a direct sum on both. */
public class FftTest {
  @DataProvider
  public Object[][] lengths() {
    return new Object[][] {{1024}, {2048}, {4096}, {8192}, {16384}, {65536}, {1 << 19}};
  }

  @Test(dataProvider = "lengths")
  public void vectorTransformAgreesWithTheLibrary(int n) {
    float[][] a = noise(n);
    float[][] b = {a[0].clone(), a[1].clone()};
    new VectorFft(n).forward(a[0], a[1]);
    new LibraryFft(n).forward(b[0], b[1]);
    double scale = Math.sqrt(n);
    for (int i = 0; i < n; i++) {
      assertEquals(a[0][i], b[0][i], 5e-6 * scale, "re " + i);
      assertEquals(a[1][i], b[1][i], 5e-6 * scale, "im " + i);
    }
  }

  @Test
  public void bothAgreeWithTheDefinition() {
    int n = 1024;
    float[][] x = noise(n);
    double[] re = new double[n];
    double[] im = new double[n];
    for (int k = 0; k < n; k += 37) {
      for (int i = 0; i < n; i++) {
        double t = -2 * Math.PI * ((long) k * i % n) / n;
        re[k] += x[0][i] * Math.cos(t) - x[1][i] * Math.sin(t);
        im[k] += x[0][i] * Math.sin(t) + x[1][i] * Math.cos(t);
      }
    }
    for (ComplexFft fft : new ComplexFft[] {new VectorFft(n), new LibraryFft(n)}) {
      float[] r = x[0].clone();
      float[] m = x[1].clone();
      fft.forward(r, m);
      for (int k = 0; k < n; k += 37) {
        assertEquals(r[k], re[k], 1e-4);
        assertEquals(m[k], im[k], 1e-4);
      }
    }
  }

  /** Powers of windowed samples, each at its place; where the samples end there are zeros. */
  @Test
  public void powersOfWindowedSamplesAreAddedUp() {
    Random random = new Random(5);
    for (int n : new int[] {1024, 2048, 4096}) {
      float[] iq = new float[2 * (n + 100)];
      for (int i = 0; i < iq.length; i++) {
        iq[i] = (float) random.nextGaussian();
      }
      for (int length : new int[] {n, n - 1, n / 2 + 1, 5}) {
        float[] window = new float[n];
        for (int i = 0; i < length; i++) {
          window[i] = random.nextFloat();
        }
        for (int at : new int[] {0, 1, 33, 100, 133}) {
          double[][] expected = straight(iq, at, window, n);
          for (ComplexFft fft : new ComplexFft[] {new VectorFft(n), new LibraryFft(n)}) {
            float[] sum = new float[n];
            java.util.Arrays.fill(sum, 1);
            fft.addPower(iq, at, window, sum);
            for (int k = 0; k < n; k += 61) {
              String where = fft.getClass().getSimpleName() + " " + length + " " + at + " " + k;
              double power = Math.pow(expected[0][k], 2) + Math.pow(expected[1][k], 2);
              assertEquals(sum[fft.placeOf(k)] - 1, power, 2e-5 * (power + n), where);
            }
          }
        }
      }
    }
  }

  @Test(dataProvider = "lengths")
  public void everyBinHasAplaceOfItsOwn(int n) {
    VectorFft fft = new VectorFft(n);
    java.util.BitSet taken = new java.util.BitSet(n);
    for (int k = 0; k < n; k++) {
      taken.set(fft.placeOf(k));
    }
    assertEquals(taken.cardinality(), n);
  }

  private static double[][] straight(float[] iq, int at, float[] window, int n) {
    double[][] x = new double[2][n];
    for (int k = 0; k < n; k += 61) {
      for (int i = 0; i < Math.min(window.length, iq.length / 2 - at); i++) {
        double t = -2 * Math.PI * ((long) k * i % n) / n;
        double re = (double) iq[2 * (at + i)] * window[i];
        double im = (double) iq[2 * (at + i) + 1] * window[i];
        x[0][k] += re * Math.cos(t) - im * Math.sin(t);
        x[1][k] += re * Math.sin(t) + im * Math.cos(t);
      }
    }
    return x;
  }

  /** What was transformed before must leave nothing behind. */
  @Test
  public void transformsDoNotRememberOneAnother() {
    int n = 4096;
    VectorFft used = new VectorFft(n);
    float[][] first = noise(n);
    used.forward(first[0].clone(), first[1].clone());
    float[] impulse = new float[n];
    impulse[0] = 1;
    float[] im = new float[n];
    used.forward(impulse, im);
    for (int k = 0; k < n; k++) {
      assertEquals(impulse[k], 1, 1e-6);
      assertEquals(im[k], 0, 1e-6);
    }
  }

  @Test
  public void shortLengthsUseTheLibrary() {
    assertTrue(ComplexFft.of(64) instanceof LibraryFft);
    assertTrue(ComplexFft.of(4096) instanceof VectorFft, "tests run with the vector module");
  }

  private static float[][] noise(int n) {
    Random random = new Random(n);
    float[][] x = new float[2][n];
    for (int i = 0; i < n; i++) {
      x[0][i] = (float) random.nextGaussian();
      x[1][i] = (float) random.nextGaussian();
    }
    return x;
  }
}
