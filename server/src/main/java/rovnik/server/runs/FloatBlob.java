package rovnik.server.runs;

import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.zip.CRC32;
import java.util.zip.DataFormatException;
import java.util.zip.Deflater;
import java.util.zip.DeflaterOutputStream;
import java.util.zip.Inflater;

/** Floats as a compressed little-endian blob with a checksum of the plain bytes. */
record FloatBlob(byte[] deflated, long crc32) {
  static FloatBlob of(float[] values) {
    byte[] plain = bytes(values);
    ByteArrayOutputStream out = new ByteArrayOutputStream(plain.length);
    try (DeflaterOutputStream deflate =
        new DeflaterOutputStream(out, new Deflater(Deflater.BEST_SPEED))) {
      deflate.write(plain);
    } catch (java.io.IOException impossible) {
      throw new java.io.UncheckedIOException(impossible);
    }
    return new FloatBlob(out.toByteArray(), crc(plain));
  }

  /**
   * The floats.
   *
   * @throws IllegalStateException if the blob is damaged
   */
  float[] floats(int count) {
    byte[] plain = new byte[4 * count];
    Inflater inflater = new Inflater();
    try {
      inflater.setInput(deflated);
      int got = 0;
      while (got < plain.length && !inflater.finished()) {
        int n = inflater.inflate(plain, got, plain.length - got);
        if (n == 0 && inflater.needsInput()) {
          break;
        }
        got += n;
      }
      if (got != plain.length || crc(plain) != crc32) {
        throw new IllegalStateException("the stored trace is damaged: its checksum differs");
      }
    } catch (DataFormatException e) {
      throw new IllegalStateException("the stored trace is damaged", e);
    } finally {
      inflater.end();
    }
    float[] values = new float[count];
    ByteBuffer.wrap(plain).order(ByteOrder.LITTLE_ENDIAN).asFloatBuffer().get(values);
    return values;
  }

  private static byte[] bytes(float[] values) {
    ByteBuffer b = ByteBuffer.allocate(4 * values.length).order(ByteOrder.LITTLE_ENDIAN);
    b.asFloatBuffer().put(values);
    return b.array();
  }

  private static long crc(byte[] plain) {
    CRC32 crc = new CRC32();
    crc.update(plain);
    return crc.getValue();
  }
}
