package rovnik.server.runs;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;

import org.testng.annotations.Test;

public class FloatBlobTest {
  private final float[] values = {1.5f, -0f, Float.MIN_VALUE, -173.975f, Float.MAX_VALUE};

  @Test
  public void everyDigitComesBack() {
    FloatBlob blob = FloatBlob.of(values);
    assertEquals(blob.floats(values.length), values);
  }

  @Test
  public void damageIsNoticed() {
    FloatBlob blob = FloatBlob.of(values);
    byte[] bytes = blob.deflated().clone();
    bytes[bytes.length / 2] ^= 0x10;
    assertThrows(IllegalStateException.class, () -> new FloatBlob(bytes, blob.crc32()).floats(5));
    assertThrows(IllegalStateException.class, () -> new FloatBlob(blob.deflated(), 1).floats(5));
    byte[] cut = java.util.Arrays.copyOf(blob.deflated(), 4);
    assertThrows(IllegalStateException.class, () -> new FloatBlob(cut, blob.crc32()).floats(5));
  }
}
