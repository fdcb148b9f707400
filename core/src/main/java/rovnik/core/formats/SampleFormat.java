package rovnik.core.formats;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import rovnik.core.Refusal;

/**
 * How one sample lies in a SigMF data file: the {@code core:datatype} of the SigMF specification
 * 1.x, such as {@code cf32_le} or {@code ri16_be}.
 *
 * @param complex true for I, Q pairs; false for real samples (Q is then 0)
 * @param component what one number is
 * @param order byte order
 */
public record SampleFormat(boolean complex, Component component, ByteOrder order) {
  /** One number of a sample. */
  public enum Component {
    F32(4),
    F64(8),
    I32(4),
    I16(2),
    I8(1),
    U8(1);

    private final int bytes;

    Component(int bytes) {
      this.bytes = bytes;
    }
  }

  public static final SampleFormat CF32_LE =
      new SampleFormat(true, Component.F32, ByteOrder.LITTLE_ENDIAN);

  /**
   * Reads a {@code core:datatype}.
   *
   * @throws Refusal naming the types that can be read
   */
  public static SampleFormat parse(String datatype) {
    String text = datatype == null ? "" : datatype;
    Refusal unknown =
        new Refusal(
            "core:datatype",
            "The sample type \""
                + text
                + "\" cannot be read. Use cf32, cf64, ci32, ci16, ci8, cu8 or the real types rf32,"
                + " rf64, ri32, ri16, ri8, ru8, with _le or _be where a number has more than one"
                + " byte.");
    if (text.length() < 3 || (text.charAt(0) != 'c' && text.charAt(0) != 'r')) {
      throw unknown;
    }
    boolean complex = text.charAt(0) == 'c';
    String[] parts = text.substring(1).split("_", -1);
    Component component;
    try {
      component = Component.valueOf(parts[0].toUpperCase(java.util.Locale.ROOT));
    } catch (IllegalArgumentException e) {
      throw unknown;
    }
    if (component.bytes == 1 && parts.length == 1) {
      return new SampleFormat(complex, component, ByteOrder.LITTLE_ENDIAN);
    }
    if (parts.length == 2 && parts[1].equals("le")) {
      return new SampleFormat(complex, component, ByteOrder.LITTLE_ENDIAN);
    }
    if (parts.length == 2 && parts[1].equals("be")) {
      return new SampleFormat(complex, component, ByteOrder.BIG_ENDIAN);
    }
    throw unknown;
  }

  public int bytesPerSample() {
    return component.bytes * (complex ? 2 : 1);
  }

  /** The {@code core:datatype} text. */
  public String datatype() {
    String name = (complex ? "c" : "r") + component.name().toLowerCase(java.util.Locale.ROOT);
    return component.bytes == 1 ? name : name + (order == ByteOrder.LITTLE_ENDIAN ? "_le" : "_be");
  }

  /**
   * Decodes whole samples. Integers are scaled so that full scale is 1.0; unsigned bytes are
   * centred on 127.5. Real samples get Q = 0: their spectrum is then symmetric.
   *
   * @param bytes read from its position on
   * @param iq receives interleaved samples from index 0
   * @param samples how many
   */
  public void decode(ByteBuffer bytes, float[] iq, int samples) {
    bytes.order(order);
    if (complex && component == Component.F32) {
      bytes.asFloatBuffer().get(iq, 0, 2 * samples);
      bytes.position(bytes.position() + 8 * samples);
    } else if (complex && component == Component.I16) {
      for (int i = 0; i < 2 * samples; i++) {
        iq[i] = bytes.getShort() * 0x1p-15f;
      }
    } else if (complex) {
      for (int i = 0; i < 2 * samples; i++) {
        iq[i] = next(bytes);
      }
    } else {
      for (int i = 0; i < samples; i++) {
        iq[2 * i] = next(bytes);
        iq[2 * i + 1] = 0;
      }
    }
  }

  private float next(ByteBuffer bytes) {
    return switch (component) {
      case F32 -> bytes.getFloat();
      case F64 -> (float) bytes.getDouble();
      case I32 -> bytes.getInt() * 0x1p-31f;
      case I16 -> bytes.getShort() * 0x1p-15f;
      case I8 -> bytes.get() * 0x1p-7f;
      case U8 -> ((bytes.get() & 0xff) - 127.5f) / 127.5f;
    };
  }

  /** True if a component of the samples stands at the end of an integer range: it clipped. */
  public static boolean clipped(float[] iq, int samples) {
    int atRail = 0;
    for (int i = 0; i < 2 * samples; i++) {
      if (Math.abs(iq[i]) >= 0.99995f) {
        atRail++;
      }
    }
    return atRail > 2 + samples / 10_000;
  }
}
