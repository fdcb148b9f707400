package rovnik.core.modulation.ofdm;

import java.util.Arrays;
import java.util.zip.CRC32;

/**
 * The check sequence at the end of a frame (IEEE 802.11-2020, 9.2.4.8), and several frames in one
 * packet, each behind a delimiter (9.7.1).
 */
public final class FrameCheck {
  /** At the end of each frame. */
  public static final int BYTES = 4;

  private static final int DELIMITER = 4;

  /** Where among the bits of a delimiter its check is; its order from memory. */
  private static final int CHECK_OF_DELIMITER = 16;

  private static final byte SIGNATURE = 0x4e;

  private FrameCheck() {}

  /** Puts the check of all bytes before it at the end. */
  public static void seal(byte[] frame) {
    long sum = sum(frame, 0, frame.length - BYTES);
    for (int i = 0; i < BYTES; i++) {
      frame[frame.length - BYTES + i] = (byte) (sum >> 8 * i);
    }
  }

  private static long sum(byte[] bytes, int from, int count) {
    CRC32 sum = new CRC32();
    sum.update(bytes, from, count);
    return sum.getValue();
  }

  /** True if the check of a frame fits, or if it is too short for one. */
  static boolean fits(byte[] bytes, int from, int count) {
    int data = count - BYTES;
    if (data <= 0) {
      return true;
    }
    long sum = sum(bytes, from, data);
    for (int i = 0; i < BYTES; i++) {
      if (bytes[from + data + i] != (byte) (sum >> 8 * i)) {
        return false;
      }
    }
    return true;
  }

  /**
   * Frames behind delimiters.
   *
   * @param found frames
   * @param good those of them whose check fits
   */
  record Several(int found, int good) {
    static Several in(byte[] bytes) {
      int found = 0;
      int good = 0;
      int at = 0;
      while (at + DELIMITER <= bytes.length) {
        int low = (bytes[at] & 0xff) >> 4 | (bytes[at + 1] & 0xff) << 4;
        int length = low | (bytes[at] >> 2 & 3) << 12;
        boolean is = isDelimiter(bytes, at) && length > BYTES;
        int end = at + DELIMITER + length;
        if (is && end <= bytes.length) {
          found++;
          good += fits(bytes, at + DELIMITER, length) ? 1 : 0;
          at = (end + DELIMITER - 1) / DELIMITER * DELIMITER;
        } else {
          at += DELIMITER;
        }
      }
      return new Several(found, good);
    }

    /** "" if all fit that were found. */
    String wrong() {
      return good < found ? words() : "";
    }

    /** "2 of 2 MPDUs have a check that fits". */
    String words() {
      return found == 0
          ? "no MPDUs are seen in it"
          : good
              + " of "
              + found
              + (found == 1 ? " MPDU has" : " MPDUs have")
              + " a check that fits";
    }
  }

  /** With its signature, and with a check of its own that fits: other data seldom look so. */
  private static boolean isDelimiter(byte[] bytes, int at) {
    byte[] own = Arrays.copyOfRange(bytes, at, at + DELIMITER);
    return own[3] == SIGNATURE
        && new HeaderBits("", LegacyBits.bitsOf(own)).fits(CHECK_OF_DELIMITER, 8);
  }

  /** One frame behind a delimiter, and delimiters of nothing to the end. */
  static byte[] alone(byte[] frame, int bytes) {
    byte[] out = new byte[bytes];
    delimiter(out, 0, frame.length);
    System.arraycopy(frame, 0, out, DELIMITER, frame.length);
    int at = (DELIMITER + frame.length + DELIMITER - 1) / DELIMITER * DELIMITER;
    for (; at + DELIMITER <= bytes; at += DELIMITER) {
      delimiter(out, at, 0);
    }
    return out;
  }

  /** Of a packet's only frame, or of none. */
  private static void delimiter(byte[] out, int at, int length) {
    byte[] bits = HeaderBits.bitsOf(1, 1, 0, 1, length >> 12, 2, length, 12, 0, 8);
    HeaderBits.seal(bits, CHECK_OF_DELIMITER);
    for (int i = 0; i < bits.length; i++) {
      out[at + i / 8] |= (byte) (bits[i] << i % 8);
    }
    out[at + 3] = SIGNATURE;
  }
}
