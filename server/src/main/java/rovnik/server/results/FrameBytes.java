package rovnik.server.results;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import rovnik.core.result.Outcome;
import tools.jackson.databind.json.JsonMapper;

/**
 * The one form of a binary frame, all little-endian: the length of the header as int32, the header
 * as JSON padded with spaces so that what follows begins at a multiple of eight, then the arrays.
 * The header's "arrays" names each: its type (f32 or f64), the offset of its first byte behind the
 * header, and how many numbers it has. One array may have several names.
 *
 * <p>Places on an axis are f64, values are f32: a screen shows no more digits.
 */
public final class FrameBytes {
  /** Where an array lies. */
  public record ArrayHead(String name, String type, int offset, int length) {}

  private final List<ArrayHead> heads = new ArrayList<>();
  private final List<Object> doubles = new ArrayList<>();
  private final List<Object> floats = new ArrayList<>();
  private final Map<Object, ArrayHead> known = new IdentityHashMap<>();
  private int bytes;

  private FrameBytes() {}

  /**
   * A frame of an outcome.
   *
   * @param header makes the JSON header from the list of arrays
   */
  public static byte[] of(
      JsonMapper json, Outcome outcome, Function<List<ArrayHead>, Object> header) {
    FrameBytes frame = new FrameBytes();
    // Eight bytes each come first, so that all of them begin at a multiple of eight.
    outcome.series().forEach(s -> OutcomeDto.forEachArray(s, frame::place));
    outcome.series().forEach(s -> OutcomeDto.forEachArray(s, frame::value));
    return frame.write(json.writeValueAsBytes(header.apply(frame.heads)));
  }

  /**
   * A frame of one array of values.
   *
   * @param header makes the JSON header from the list of arrays
   */
  public static byte[] of(
      JsonMapper json, String name, float[] values, Function<List<ArrayHead>, Object> header) {
    FrameBytes frame = new FrameBytes();
    frame.value(name, values);
    return frame.write(json.writeValueAsBytes(header.apply(frame.heads)));
  }

  private static boolean isPlace(String name) {
    return name.endsWith(".x");
  }

  private void place(String name, Object array) {
    if (isPlace(name)) {
      add(name, array, "f64", 8, ((double[]) array).length, doubles);
    }
  }

  private void value(String name, Object array) {
    if (!isPlace(name)) {
      int length = array instanceof double[] d ? d.length : ((float[]) array).length;
      add(name, array, "f32", 4, length, floats);
    }
  }

  private void add(
      String name, Object array, String type, int size, int length, List<Object> arrays) {
    ArrayHead before = known.get(array);
    ArrayHead head =
        before == null
            ? new ArrayHead(name, type, bytes, length)
            : new ArrayHead(name, before.type(), before.offset(), length);
    heads.add(head);
    if (before == null) {
      known.put(array, head);
      arrays.add(array);
      bytes += size * length;
    }
  }

  private byte[] write(byte[] text) {
    int padded = (text.length + 4 + 7) / 8 * 8 - 4;
    ByteBuffer b = ByteBuffer.allocate(4 + padded + bytes).order(ByteOrder.LITTLE_ENDIAN);
    b.putInt(padded).put(text);
    while (b.position() < 4 + padded) {
      b.put((byte) ' ');
    }
    for (Object array : doubles) {
      for (double v : (double[]) array) {
        b.putDouble(v);
      }
    }
    for (Object array : floats) {
      if (array instanceof double[] d) {
        for (double v : d) {
          b.putFloat((float) v);
        }
      } else {
        for (float v : (float[]) array) {
          b.putFloat(v);
        }
      }
    }
    return b.array();
  }
}
