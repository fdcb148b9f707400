package rovnik.core.modulation;

/**
 * Formats of symbols: points in the plane, or levels that the frequency is keyed to. Bits are
 * mapped by Gray's code, each axis on its own for the square ones (IEEE 802.11-2020, 17.3.5.8,
 * continued to more levels; from memory). Crosses are folded from a rectangle (J. G. Smith, Odd-bit
 * quadrature amplitude-shift keying, 1975, from memory), so that a few neighbours differ in two
 * bits; the levels of keyed frequencies are one axis; the rings of the APSK formats are those of
 * DVB-S2 (radii for rates 9/10 and 3/4, from memory) with a Gray code around each ring of our own.
 */
public enum Format {
  OOK("OOK", 1, 1),
  BPSK("BPSK", 2, 2),
  QPSK("QPSK", 4, 4),
  OFFSET_QPSK("offset QPSK", 4, 4),
  PI4_DQPSK("\u03c0/4-DQPSK", 4, 4),
  PSK8("8PSK", 8, 8),
  D8PSK("D8PSK", 8, 8),
  APSK16("16-APSK", 12, 4),
  QAM16("16-QAM", 4, 4),
  APSK32("32-APSK", 16, 4),
  QAM32("32-QAM", 4, 4),
  QAM64("64-QAM", 4, 4),
  QAM128("128-QAM", 4, 4),
  QAM256("256-QAM", 4, 4),
  QAM512("512-QAM", 4, 4),
  QAM1024("1024-QAM", 4, 4),
  QAM4096("4096-QAM", 4, 4),
  FSK2("2-FSK", 1, 1),
  FSK4("4-FSK", 1, 1),
  FSK8("8-FSK", 1, 1),
  MSK("MSK", 1, 1),
  GMSK("GMSK", 1, 1);

  private final String label;
  private final int power;
  private final int symmetry;
  private volatile Constellation points;

  /**
   * @param power of a symbol whose mean is not 0, so that its carrier shows
   * @param symmetry rotations that lead to the same points
   */
  Format(String label, int power, int symmetry) {
    this.label = label;
    this.power = power;
    this.symmetry = symmetry;
  }

  public String label() {
    return label;
  }

  /** Power of a symbol whose mean is not 0, so that its carrier shows as a line. */
  public int power() {
    return power;
  }

  /** Rotations that lead to the same points. */
  public int symmetry() {
    return symmetry;
  }

  /** Bits stand in the change from one symbol to the next. */
  public boolean differential() {
    return this == PI4_DQPSK || this == D8PSK;
  }

  /** Symbols are frequencies; the phase goes on from one to the next. */
  public boolean keyed() {
    return ordinal() >= FSK2.ordinal();
  }

  /** Keyed by a quarter of the symbol rate to each side. */
  public boolean minimumShift() {
    return this == MSK || this == GMSK;
  }

  /** Q comes half a symbol after I. */
  public boolean offset() {
    return this == OFFSET_QPSK;
  }

  /** Both axes are read at one instant, and the carrier is their sum through one filter. */
  public boolean plainPoints() {
    return !offset() && !keyed();
  }

  /** Turn of the ideal points from one symbol to the next, radians. */
  public double turn() {
    return this == PI4_DQPSK ? Math.PI / 4 : 0;
  }

  /** The ideal points; of the differential formats those of one symbol. */
  public Constellation constellation() {
    Constellation known = points;
    if (known == null) {
      known = make();
      points = known;
    }
    return known;
  }

  private Constellation make() {
    return switch (this) {
      case OOK -> new Constellation(new double[] {0, 1}, new double[2]);
      case BPSK -> new Constellation(new double[] {-1, 1}, new double[2]);
      case QPSK, OFFSET_QPSK, PI4_DQPSK -> square(2);
      case PSK8, D8PSK -> rings(new int[] {8}, new double[] {1}, new double[] {0});
      case APSK16 ->
          rings(
              new int[] {4, 12}, new double[] {1, 2.57}, new double[] {Math.PI / 4, Math.PI / 12});
      case APSK32 ->
          rings(
              new int[] {4, 12, 16},
              new double[] {1, 2.84, 5.27},
              new double[] {Math.PI / 4, Math.PI / 12, 0});
      case QAM16 -> square(4);
      case QAM64 -> square(8);
      case QAM256 -> square(16);
      case QAM1024 -> square(32);
      case QAM4096 -> square(64);
      case QAM32 -> cross(8);
      case QAM128 -> cross(16);
      case QAM512 -> cross(32);
      case FSK2, MSK, GMSK -> levels(2);
      case FSK4 -> levels(4);
      case FSK8 -> levels(8);
    };
  }

  private static int gray(int i) {
    return i ^ i >> 1;
  }

  private static Constellation levels(int count) {
    double[] level = new double[count];
    for (int i = 0; i < count; i++) {
      level[gray(i)] = 2 * i - count + 1;
    }
    return new Constellation(level, new double[count]);
  }

  private static Constellation square(int levels) {
    double[] re = new double[levels * levels];
    double[] im = new double[levels * levels];
    int bits = Integer.numberOfTrailingZeros(levels);
    for (int i = 0; i < levels; i++) {
      for (int k = 0; k < levels; k++) {
        int value = gray(i) << bits | gray(k);
        re[value] = 2 * i - levels + 1;
        im[value] = 2 * k - levels + 1;
      }
    }
    return new Constellation(re, im);
  }

  /** A rectangle twice as wide as high, its outer quarters folded to the top and the bottom. */
  private static Constellation cross(int wide) {
    int high = wide / 2;
    double[] re = new double[wide * high];
    double[] im = new double[wide * high];
    int bits = Integer.numberOfTrailingZeros(high);
    for (int i = 0; i < wide; i++) {
      for (int k = 0; k < high; k++) {
        int value = gray(i) << bits | gray(k);
        double x = 2 * i - wide + 1;
        double y = 2 * k - high + 1;
        boolean outside = Math.abs(x) > 0.75 * wide;
        re[value] = outside ? Math.signum(x) * Math.abs(y) : x;
        im[value] = outside ? Math.signum(y) * (Math.abs(x) - 0.25 * wide) : y;
      }
    }
    return new Constellation(re, im);
  }

  private static Constellation rings(int[] counts, double[] radii, double[] first) {
    int n = java.util.Arrays.stream(counts).sum();
    double[] re = new double[n];
    double[] im = new double[n];
    int from = 0;
    for (int ring = 0; ring < counts.length; ring++) {
      for (int i = 0; i < counts[ring]; i++) {
        double angle = first[ring] + 2 * Math.PI * i / counts[ring];
        int value = from + (Integer.bitCount(counts[ring]) == 1 ? gray(i) : i);
        re[value] = radii[ring] * Math.cos(angle);
        im[value] = radii[ring] * Math.sin(angle);
      }
      from += counts[ring];
    }
    return new Constellation(re, im);
  }
}
