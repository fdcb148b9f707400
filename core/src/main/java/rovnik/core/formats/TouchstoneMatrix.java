package rovnik.core.formats;

import java.util.Arrays;
import java.util.Locale;
import rovnik.core.Refusal;
import rovnik.core.network.NetworkConversion;
import rovnik.core.network.NetworkConversion.Kind;
import rovnik.core.network.NetworkData;

/** The network part of a file: collects numbers line by line and turns them into S-parameters. */
final class TouchstoneMatrix {
  /** Which elements of a matrix the file writes. */
  enum Shape {
    FULL,
    LOWER,
    UPPER;

    static Shape parse(String text, long line) {
      for (Shape s : values()) {
        if (s.name().equals(text.toUpperCase(Locale.ROOT))) {
          return s;
        }
      }
      throw TouchstoneReader.refuse(line, "[Matrix Format] is Full, Lower or Upper");
    }
  }

  /** A point of the most ports in one array must stay within what Java can index. */
  private static final int MOST_NUMBERS = Integer.MAX_VALUE - 16;

  static final int COUNT = -1;

  private final TouchstoneOptions options;
  private final Shape shape;
  private int ports;
  private int perPoint; // frequency and pairs; 0 while the number of ports is not known
  private final int expected; // points, 0 if that is not known
  private final boolean counting;
  private double[] hertz = new double[256]; // in the file's unit
  private double[] raw = new double[1024]; // pairs, point after point
  private int size;
  private int fill; // numbers of the point being read
  private int points;
  private double lastHz = Double.NEGATIVE_INFINITY;
  private long pointLine;

  /**
   * Numbers to be read.
   *
   * @param room how many points there are; a network of that many takes its room once. 0 if it is
   *     not known, COUNT if points are counted only and nothing is kept
   */
  TouchstoneMatrix(TouchstoneOptions options, int ports, Shape shape, int room) {
    this.options = options;
    this.shape = shape;
    this.expected = Math.max(0, room);
    this.counting = room == COUNT;
    setPorts(ports);
  }

  private void setPorts(int n) {
    ports = n;
    perPoint = n == 0 ? 0 : 1 + (shape == Shape.FULL ? 2 * n * n : n * (n + 1));
  }

  int points() {
    return points;
  }

  int ports() {
    return ports;
  }

  /** In a 1.x two-port file a frequency that does not rise begins the noise data. */
  boolean beginsNoise(TouchstoneLines lines) {
    return ports == 2 && fill == 0 && points > 0 && lines.number(0) * options.unitHz() <= lastHz;
  }

  void line(TouchstoneLines lines, int count) {
    boolean begins = count % 2 == 1;
    if (perPoint == 0 && begins && fill > 0) {
      infer(lines.number());
    }
    if (fill == 0 && !begins) {
      throw TouchstoneReader.refuse(
          lines.number(),
          "a new frequency must begin here, followed by whole pairs; this line has "
              + count
              + " numbers"
              + expected());
    }
    if (fill > 0 && begins) {
      throw TouchstoneReader.refuse(
          lines.number(),
          "the point that began at line "
              + pointLine
              + " has "
              + fill
              + " of its "
              + perPoint
              + " numbers, and this line has "
              + count
              + ", which are not whole pairs");
    }
    if (fill == 0) {
      frequency(lines);
    }
    if (perPoint > 0 && fill + count > perPoint) {
      throw TouchstoneReader.refuse(
          lines.number(),
          (fill + count) + " numbers at one frequency; there must be " + perPoint + expected());
    }
    append(lines, count);
    if (fill == perPoint) {
      fill = 0;
      points++;
    }
  }

  private String expected() {
    return ports > 0 ? " (a file of " + ports + (ports == 1 ? " port)" : " ports)") : "";
  }

  private void frequency(TouchstoneLines lines) {
    double hz = lines.number(0) * options.unitHz();
    if (hz < 0) {
      throw TouchstoneReader.refuse(lines.number(), "the frequency is negative");
    }
    if (!(hz > lastHz)) {
      throw TouchstoneReader.refuse(
          lines.number(), "the frequencies must rise from point to point");
    }
    lastHz = hz;
    pointLine = lines.number();
  }

  private void append(TouchstoneLines lines, int count) {
    if (!counting) {
      if (size > MOST_NUMBERS - count) {
        throw TouchstoneReader.refuse(lines.number(), "the file has too many numbers to hold");
      }
      int from = 0;
      if (fill == 0) {
        hertz = withRoom(hertz, points + 1, expected);
        hertz[points] = lines.number(0);
        from = 1;
      }
      raw = withRoom(raw, size + count, (long) expected * (perPoint - 1));
      for (int i = from; i < count; i++) {
        raw[size++] = lines.number(i);
      }
    }
    fill += count;
  }

  private static double[] withRoom(double[] a, int needed, long expected) {
    if (needed <= a.length) {
      return a;
    }
    long wanted = needed <= expected ? expected : Math.max(a.length + (a.length >> 1), needed);
    return Arrays.copyOf(a, (int) Math.min(wanted, MOST_NUMBERS));
  }

  /** The first point is whole: its numbers say how many ports there are. */
  private void infer(long line) {
    int n = (int) Math.round(Math.sqrt((fill - 1) / 2.0));
    if (1 + 2 * n * n != fill || n > NetworkData.MOST_PORTS) {
      throw TouchstoneReader.refuse(
          line,
          "the first frequency has "
              + fill
              + " numbers, which fit no number of ports (1 port has 3, 2 have 9, 3 have 19)");
    }
    setPorts(n);
    fill = 0;
    points = 1;
  }

  void finish(long line) {
    if (perPoint == 0 && fill > 0) {
      infer(line);
    }
    if (fill > 0) {
      throw TouchstoneReader.refuse(
          line,
          "the file ends inside the point that began at line "
              + pointLine
              + ": "
              + fill
              + " of "
              + perPoint
              + " numbers");
    }
    if (points == 0) {
      throw TouchstoneReader.refuse(line, "the file has no data");
    }
  }

  /**
   * The network.
   *
   * @param swapped whether a two-port's columns are 11 21 12 22
   * @param normalOhm what 1.x files divided impedances by, 1 if nothing
   */
  NetworkData toNetwork(double[] referenceOhm, boolean swapped, double normalOhm) {
    int n = ports;
    double[] frequency = hertz.length == points ? hertz : Arrays.copyOf(hertz, points);
    double[] m = new double[2 * n * n];
    // A large file's numbers are turned where they lie: there may be no room for them twice.
    boolean inPlace = shape == Shape.FULL && raw.length == m.length * points;
    double[] s = inPlace ? raw : new double[m.length * points];
    int from = 0;
    for (int p = 0; p < points; p++) {
      frequency[p] *= options.unitHz();
      for (int r = 0; r < n; r++) {
        int first = shape == Shape.UPPER ? r : 0;
        int last = shape == Shape.LOWER ? r : n - 1;
        for (int c = first; c <= last; c++) {
          boolean turn = swapped && shape == Shape.FULL;
          pair(from, m, turn ? 2 * (c * n + r) : 2 * (r * n + c));
          if (shape != Shape.FULL) {
            pair(from, m, 2 * (c * n + r));
          }
          from += 2;
        }
      }
      if (options.kind() != Kind.S) {
        if (normalOhm != 1) {
          denormalise(m, normalOhm);
        }
        convert(m, referenceOhm, frequency[p]);
      }
      System.arraycopy(m, 0, s, p * m.length, m.length);
    }
    return new NetworkData(n, referenceOhm, frequency, s);
  }

  private void pair(int from, double[] m, int to) {
    double a = raw[from];
    double b = raw[from + 1];
    if (options.format() == TouchstoneOptions.Format.RI) {
      m[to] = a;
      m[to + 1] = b;
      return;
    }
    double magnitude = options.format() == TouchstoneOptions.Format.DB ? Math.pow(10, a / 20) : a;
    double angle = Math.toRadians(b);
    m[to] = magnitude * Math.cos(angle);
    m[to + 1] = magnitude * Math.sin(angle);
  }

  /** Undoes the normalisation of 1.x files: Z, h11, g22 times R; Y, h22, g11 divided by it. */
  private void denormalise(double[] m, double ohm) {
    double first =
        switch (options.kind()) {
          case Z, H -> ohm;
          default -> 1 / ohm;
        };
    double last =
        switch (options.kind()) {
          case Z, G -> ohm;
          default -> 1 / ohm;
        };
    boolean hybrid = options.kind() == Kind.H || options.kind() == Kind.G;
    for (int i = 0; i < m.length; i++) {
      boolean cross = hybrid && i >= 2 && i < m.length - 2;
      m[i] *= cross ? 1 : i < m.length / 2 ? first : last;
    }
  }

  private void convert(double[] m, double[] referenceOhm, double hz) {
    try {
      NetworkConversion.toS(options.kind(), m, referenceOhm);
    } catch (Refusal none) {
      throw new Refusal("file", "At " + hz + " Hz: " + none.getMessage());
    }
  }
}
