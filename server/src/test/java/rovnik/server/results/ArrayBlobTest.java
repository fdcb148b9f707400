package rovnik.server.results;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.expectThrows;

import org.testng.annotations.Test;

public class ArrayBlobTest {
  /** Levels that were floats are stored as such; what would lose digits is not. */
  @Test
  public void nothingIsLost() {
    double[] levels = {-26.4f, Double.NaN, 0, Float.MAX_VALUE};
    ArrayBlob narrow = ArrayBlob.of(levels);
    assertEquals(narrow.type(), "f32");
    assertEquals(narrow.doubles(), levels);
    double[] hertz = {458_525_870.9375, 1.0 / 3};
    ArrayBlob wide = ArrayBlob.of(hertz);
    assertEquals(wide.type(), "f64");
    assertEquals(wide.doubles(), hertz);
    assertEquals(ArrayBlob.of(new float[] {1, 2}).floats(), new float[] {1, 2});
    assertEquals(ArrayBlob.of(new double[0]).doubles().length, 0);
  }

  @Test
  public void aDamagedBlobIsNoticed() {
    ArrayBlob whole = ArrayBlob.of(new double[] {1, 2, 3, 4});
    ArrayBlob other =
        new ArrayBlob(
            whole.type(), 4, ArrayBlob.of(new double[] {1, 2, 3, 5}).crc32(), whole.deflated());
    expectThrows(IllegalStateException.class, other::doubles);
    byte[] cut = java.util.Arrays.copyOf(whole.deflated(), whole.deflated().length / 2);
    expectThrows(
        IllegalStateException.class,
        () -> new ArrayBlob(whole.type(), 4, whole.crc32(), cut).doubles());
  }
}
