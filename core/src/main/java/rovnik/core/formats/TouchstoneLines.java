package rovnik.core.formats;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/**
 * The lines of a Touchstone file, one at a time, from a stream: only one line is ever held. Numbers
 * are read straight from the bytes.
 */
final class TouchstoneLines {
  /** Longer lines are no Touchstone file. */
  static final int LONGEST_LINE = 1 << 20;

  private static final double[] TEN = new double[23];

  static {
    TEN[0] = 1;
    for (int i = 1; i < TEN.length; i++) {
      TEN[i] = Double.parseDouble("1e" + i);
    }
  }

  private final InputStream in;
  private final byte[] buffer = new byte[1 << 16];
  private int at;
  private int end;
  private boolean skipLineFeed;
  private byte[] line = new byte[256];
  private int length;
  private long number;
  private double[] numbers = new double[16];
  private int count;

  TouchstoneLines(InputStream in) {
    this.in = in;
  }

  /**
   * Goes to the next line; false at the end of the file. A byte order mark at its begin is none.
   */
  boolean next() throws IOException {
    boolean any = read();
    if (number == 1
        && length >= 3
        && line[0] == (byte) 0xEF
        && line[1] == (byte) 0xBB
        && line[2] == (byte) 0xBF) {
      length -= 3;
      System.arraycopy(line, 3, line, 0, length);
    }
    return any;
  }

  private boolean read() throws IOException {
    length = 0;
    number++;
    boolean any = false;
    while (true) {
      if (at == end) {
        end = in.read(buffer);
        at = 0;
        if (end <= 0) {
          end = 0;
          number -= any ? 0 : 1;
          return any;
        }
      }
      byte b = buffer[at++];
      if (skipLineFeed) {
        skipLineFeed = false;
        if (b == '\n') {
          continue;
        }
      }
      if (b == '\n' || b == '\r') {
        skipLineFeed = b == '\r';
        return true;
      }
      any = true;
      if (length == line.length) {
        if (length >= LONGEST_LINE) {
          throw TouchstoneReader.refuse(number, "the line is endless: this is no Touchstone file");
        }
        line = Arrays.copyOf(line, 2 * length);
      }
      line[length++] = b;
    }
  }

  /** Number of the line, from 1. */
  long number() {
    return number;
  }

  /** Takes the comment off the line and returns it, or null if there is none. */
  String cutComment() {
    for (int i = 0; i < length; i++) {
      if (line[i] == '!') {
        String comment = new String(line, i + 1, length - i - 1, StandardCharsets.UTF_8).strip();
        length = i;
        return comment;
      }
    }
    return null;
  }

  /** First byte that is not white space, or 0 for an empty line. */
  byte first() {
    for (int i = 0; i < length; i++) {
      if (line[i] > ' ' || line[i] < 0) {
        return line[i];
      }
    }
    return 0;
  }

  String text() {
    return new String(line, 0, length, StandardCharsets.UTF_8).strip();
  }

  /** Reads all numbers of the line; how many there are is the answer. */
  int readNumbers() {
    count = 0;
    int i = 0;
    while (i < length) {
      if (line[i] >= 0 && line[i] <= ' ') {
        i++;
        continue;
      }
      int from = i;
      while (i < length && (line[i] < 0 || line[i] > ' ')) {
        i++;
      }
      if (count == numbers.length) {
        numbers = Arrays.copyOf(numbers, 2 * count);
      }
      numbers[count++] = value(from, i);
    }
    return count;
  }

  double number(int i) {
    return numbers[i];
  }

  /**
   * The number in some bytes. Up to 18 digits and a small power of ten go the short way, which is
   * exact if the digits fit in 53 bits (Clinger, PLDI 1990); all others the library's way.
   */
  private double value(int from, int to) {
    int i = from;
    boolean negative = line[i] == '-';
    if (negative || line[i] == '+') {
      i++;
    }
    long digits = 0;
    int significant = 0;
    int shift = 0;
    boolean point = false;
    boolean seen = false;
    for (; i < to; i++) {
      byte b = line[i];
      if (b >= '0' && b <= '9') {
        seen = true;
        if (significant < 18) {
          digits = 10 * digits + (b - '0');
          significant += digits == 0 ? 0 : 1;
          shift -= point ? 1 : 0;
        } else {
          return slow(from, to);
        }
      } else if (b == '.' && !point) {
        point = true;
      } else {
        break;
      }
    }
    if (!seen) {
      throw notANumber(from, to);
    }
    if (i < to) {
      if ((line[i] | 0x20) != 'e') {
        throw notANumber(from, to);
      }
      i++;
      boolean down = i < to && line[i] == '-';
      if (i < to && (line[i] == '-' || line[i] == '+')) {
        i++;
      }
      int power = 0;
      int powerDigits = 0;
      for (; i < to && line[i] >= '0' && line[i] <= '9'; i++, powerDigits++) {
        power = Math.min(10 * power + (line[i] - '0'), 100_000);
      }
      if (i < to || powerDigits == 0) {
        throw notANumber(from, to);
      }
      shift += down ? -power : power;
    }
    if (digits >= 1L << 53 || Math.abs(shift) >= TEN.length) {
      return slow(from, to);
    }
    double v = shift < 0 ? digits / TEN[-shift] : digits * TEN[shift];
    return negative ? -v : v;
  }

  private double slow(int from, int to) {
    String text = new String(line, from, to - from, StandardCharsets.UTF_8);
    // Double.parseDouble knows more than decimal numbers: "NaN", "1d", "0x1p3".
    if (!text.matches("[+-]?(\\d+\\.?\\d*|\\.\\d+)([eE][+-]?\\d+)?")) {
      throw notANumber(from, to);
    }
    double v = Double.parseDouble(text);
    if (Double.isInfinite(v)) {
      throw TouchstoneReader.refuse(number, "\"" + text + "\" is too large");
    }
    return v;
  }

  private RuntimeException notANumber(int from, int to) {
    String text = new String(line, from, Math.min(to - from, 30), StandardCharsets.UTF_8);
    return TouchstoneReader.refuse(
        number, "\"" + text.replaceAll("\\p{Cntrl}", "?") + "\" is not a number");
  }
}
