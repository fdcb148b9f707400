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
    return new Object[][] {{1024}, {2048}, {4096}, {8192}, {65536}, {1 << 19}};
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
