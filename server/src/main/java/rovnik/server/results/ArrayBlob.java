package rovnik.server.results;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.zip.CRC32;
import java.util.zip.DataFormatException;
import java.util.zip.Deflater;
import java.util.zip.DeflaterOutputStream;
import java.util.zip.Inflater;

/**
 * Numbers as a compressed little-endian blob with a checksum of the plain bytes. They are stored as
 * 32-bit floats where none of them loses anything by it, else as 64-bit ones.
 *
 * @param type "f32" or "f64"
 */
public record ArrayBlob(String type, int points, long crc32, byte[] deflated) {
  private static final String F32 = "f32";
  private static final String F64 = "f64";

  /** A {@code double[]} or a {@code float[]}. */
  public static ArrayBlob of(Object array) {
    double[] values = array instanceof float[] f ? widened(f) : (double[]) array;
    boolean narrow = true;
    for (int i = 0; i < values.length && narrow; i++) {
      narrow = (float) values[i] == values[i] || Double.isNaN(values[i]);
    }
    ByteBuffer b =
        ByteBuffer.allocate((narrow ? 4 : 8) * values.length).order(ByteOrder.LITTLE_ENDIAN);
    for (double v : values) {
      if (narrow) {
        b.putFloat((float) v);
      } else {
        b.putDouble(v);
      }
    }
    byte[] plain = b.array();
    ByteArrayOutputStream out = new ByteArrayOutputStream(plain.length / 2 + 64);
    try (DeflaterOutputStream deflate =
        new DeflaterOutputStream(out, new Deflater(Deflater.BEST_SPEED))) {
      deflate.write(plain);
    } catch (IOException impossible) {
      throw new UncheckedIOException(impossible);
    }
    return new ArrayBlob(narrow ? F32 : F64, values.length, crc(plain), out.toByteArray());
  }

  private static double[] widened(float[] values) {
    double[] wide = new double[values.length];
    for (int i = 0; i < wide.length; i++) {
      wide[i] = values[i];
    }
    return wide;
  }

  /**
   * The numbers.
   *
   * @throws IllegalStateException if the blob is damaged
   */
  public double[] doubles() {
    boolean narrow = type.equals(F32);
    ByteBuffer b = ByteBuffer.wrap(plain((narrow ? 4 : 8) * points)).order(ByteOrder.LITTLE_ENDIAN);
    double[] values = new double[points];
    for (int i = 0; i < points; i++) {
      values[i] = narrow ? b.getFloat() : b.getDouble();
    }
    return values;
  }

  public float[] floats() {
    double[] wide = doubles();
    float[] values = new float[wide.length];
    for (int i = 0; i < wide.length; i++) {
      values[i] = (float) wide[i];
    }
    return values;
  }

  private byte[] plain(int length) {
    byte[] plain = new byte[length];
    Inflater inflater = new Inflater();
    try {
      inflater.setInput(deflated);
      int got = 0;
      int n;
      while (got < length && (n = inflater.inflate(plain, got, length - got)) > 0) {
        got += n;
      }
      if (got != length || crc(plain) != crc32) {
        throw new IllegalStateException("the stored series is damaged: its checksum differs");
      }
    } catch (DataFormatException e) {
      throw new IllegalStateException("the stored series is damaged", e);
    } finally {
      inflater.end();
    }
    return plain;
  }

  private static long crc(byte[] plain) {
    CRC32 crc = new CRC32();
    crc.update(plain);
    return crc.getValue();
  }
}
