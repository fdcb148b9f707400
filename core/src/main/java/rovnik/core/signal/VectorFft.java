package rovnik.core.signal;

import java.util.Arrays;

/**
 * A transform whose inner loops run over whole vector registers.
 *
 * <p>Decimation in frequency in place (W. M. Gentleman and G. Sande, "Fast Fourier transforms for
 * fun and profit", AFIPS 29, 1966), by radix 8 and 4 while the parts are wider than a register, and
 * by radix 2 across its lanes in the end. Nothing is put in order: {@link #placeOf} tells where a
 * bin has come to lie. The window is laid on in the first pass, powers are added up in the last.
 * Parts are finished one after the other, so that they stay in the innermost cache that holds them.
 */
final class VectorFft implements ComplexFft {
  private static final int LANES = VectorPasses.LANES;

  /**
   * A pass by 8 is one third of the way through memory; the compiler of JDK 17 makes it of objects
   * in more than half of all starts.
   */
  private static final boolean BY_EIGHT = Runtime.version().feature() >= 21;

  /** A first pass, a last one and the lanes. */
  static final int SHORTEST = Math.max(1024, 16 * LANES);

  private final int length;
  private final float[] re;
  private final float[] im;
  private final float[] padded;
  private final int[] places;

  /**
   * Of each pass: its radix, and its twiddle factors, a register of each output after the other.
   */
  private final int[] radix;

  private final float[][] cos;
  private final float[][] sin;

  VectorFft(int length) {
    int bits = Integer.numberOfTrailingZeros(length);
    if (length != 1 << bits || length < SHORTEST) {
      throw new IllegalArgumentException(
          "length must be a power of two of " + SHORTEST + " or more");
    }
    this.length = length;
    re = new float[length];
    im = new float[length];
    padded = new float[2 * length];
    radix = radices(bits - Integer.numberOfTrailingZeros(LANES));
    cos = new float[radix.length][];
    sin = new float[radix.length][];
    int part = length;
    for (int pass = 0; pass < radix.length; pass++) {
      twiddle(pass, part);
      part /= radix[pass];
    }
    places = new int[length];
    for (int bin = 0; bin < length; bin++) {
      places[bin] = place(bin);
    }
  }

  /**
   * The last pass is by 4, those before by 8 where that is quicker, and by 4 or 2 as bits are left.
   */
  private static int[] radices(int bits) {
    int[] r = new int[bits];
    int count = 0;
    int left = bits - 2;
    while (left > 0) {
      int taken = BY_EIGHT && left % 3 == 0 ? 3 : Math.min(2, left);
      r[count++] = 1 << taken;
      left -= taken;
    }
    r[count++] = 4;
    return Arrays.copyOf(r, count);
  }

  private void twiddle(int pass, int part) {
    int outputs = radix[pass] - 1;
    int width = part / radix[pass];
    cos[pass] = new float[outputs * width];
    sin[pass] = new float[outputs * width];
    for (int j = 1; j <= outputs; j++) {
      for (int p = 0; p < width; p++) {
        double angle = -2 * Math.PI * ((double) j * p / part);
        int at = (p / LANES * outputs + j - 1) * LANES + p % LANES;
        cos[pass][at] = (float) Math.cos(angle);
        sin[pass][at] = (float) Math.sin(angle);
      }
    }
  }

  private int place(int bin) {
    int at = 0;
    int part = length;
    int left = bin;
    for (int r : radix) {
      part /= r;
      at += left % r * part;
      left /= r;
    }
    for (int apart = LANES / 2; apart > 0; apart /= 2) {
      at += (left & 1) * apart;
      left >>= 1;
    }
    return at;
  }

  @Override
  public int placeOf(int bin) {
    return places[bin];
  }

  @Override
  public void addPower(float[] iq, int at, float[] window, float[] sum) {
    float[] from = iq;
    int first = 2 * at;
    if (first + 2 * length > iq.length) {
      // What lies beyond the samples is nothing.
      System.arraycopy(iq, first, padded, 0, iq.length - first);
      Arrays.fill(padded, iq.length - first, padded.length, 0f);
      from = padded;
      first = 0;
    }
    int width = length / radix[0];
    if (radix[0] == 8) {
      VectorPasses.first8(from, first, window, re, im, width, cos[0], sin[0]);
    } else {
      VectorPasses.first4(from, first, window, re, im, width, cos[0], sin[0]);
    }
    int last = radix.length - 1;
    if (last > 1) {
      for (int part = 0; part < length; part += width) {
        passes(1, last, part, width);
      }
    }
    VectorPasses.lastAndPower(re, im, sum, cos[last], sin[last]);
  }

  @Override
  public void forward(float[] toRe, float[] toIm) {
    System.arraycopy(toRe, 0, re, 0, length);
    System.arraycopy(toIm, 0, im, 0, length);
    passes(0, radix.length, 0, length);
    VectorPasses.acrossLanes(re, im);
    for (int bin = 0; bin < length; bin++) {
      toRe[bin] = re[places[bin]];
      toIm[bin] = im[places[bin]];
    }
  }

  /** All passes before {@code end} over one part, and then over its own. */
  private void passes(int pass, int end, int from, int part) {
    int width = part / radix[pass];
    switch (radix[pass]) {
      case 8 -> VectorPasses.pass8(re, im, from, width, cos[pass], sin[pass]);
      case 4 -> VectorPasses.pass4(re, im, from, width, cos[pass], sin[pass]);
      default -> VectorPasses.pass2(re, im, from, width, cos[pass], sin[pass]);
    }
    if (pass + 1 < end) {
      for (int next = from; next < from + part; next += width) {
        passes(pass + 1, end, next, width);
      }
    }
  }
}
