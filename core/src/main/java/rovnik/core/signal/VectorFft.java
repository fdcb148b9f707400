package rovnik.core.signal;

import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.VectorShuffle;
import jdk.incubator.vector.VectorSpecies;

/**
 * A transform whose inner loops run over whole vector registers.
 *
 * <p>The length is split in two, N = R C, as in the four-step method (D. H. Bailey, "FFTs in
 * external or hierarchical memory", J. Supercomputing 4, 1990): transforms down the columns of an R
 * by C matrix, twiddle factors, transposition, transforms down the columns again. Transforms down
 * columns keep neighbouring columns in one register; they are Stockham's self-sorting radix-4
 * steps, with one radix-2 step where the length asks for it. One register's width of columns is
 * taken through all steps before the next, so that it stays in the innermost cache.
 */
final class VectorFft implements ComplexFft {
  private static final VectorSpecies<Float> SPECIES = FloatVector.SPECIES_PREFERRED;
  private static final int LANES = SPECIES.length();

  private static final VectorShuffle<Float> EVEN = VectorShuffle.makeUnzip(SPECIES, 0);
  private static final VectorShuffle<Float> ODD = VectorShuffle.makeUnzip(SPECIES, 1);

  /** Both factors must fill a register. */
  static final int SHORTEST = Math.max(1024, LANES * LANES);

  private final int rows;
  private final int columns;
  private final float[] rowCos;
  private final float[] rowSin;
  private final float[] columnCos;
  private final float[] columnSin;
  private final float[] twiddleRe;
  private final float[] twiddleIm;
  private final float[] otherRe;
  private final float[] otherIm;
  private final int[] stride;
  private final Strip stripA;
  private final Strip stripB;

  /** Values of a few columns, one register a row. */
  private static final class Strip {
    private final float[] re;
    private final float[] im;

    Strip(int rows) {
      re = new float[rows * LANES];
      im = new float[rows * LANES];
    }
  }

  VectorFft(int length) {
    int bits = Integer.numberOfTrailingZeros(length);
    if (length != 1 << bits || length < SHORTEST) {
      throw new IllegalArgumentException(
          "length must be a power of two of " + SHORTEST + " or more");
    }
    rows = 1 << (bits / 2);
    columns = length / rows;
    rowCos = circle(rows, true);
    rowSin = circle(rows, false);
    columnCos = circle(columns, true);
    columnSin = circle(columns, false);
    twiddleRe = new float[length];
    twiddleIm = new float[length];
    for (int k = 0; k < rows; k++) {
      for (int n = 0; n < columns; n++) {
        double angle = -2 * Math.PI * ((double) k * n / length);
        twiddleRe[k * columns + n] = (float) Math.cos(angle);
        twiddleIm[k * columns + n] = (float) Math.sin(angle);
      }
    }
    otherRe = new float[length];
    otherIm = new float[length];
    stripA = new Strip(columns);
    stripB = new Strip(columns);
    stride = new int[LANES];
    for (int i = 0; i < LANES; i++) {
      stride[i] = i * LANES;
    }
  }

  private static float[] circle(int n, boolean cosine) {
    float[] w = new float[n];
    for (int i = 0; i < n; i++) {
      double angle = -2 * Math.PI * i / n;
      w[i] = (float) (cosine ? Math.cos(angle) : Math.sin(angle));
    }
    return w;
  }

  @Override
  public void forward(float[] re, float[] im) {
    for (int c = 0; c < columns; c += LANES) {
      boolean swapped = strip(re, im, c, rows, columns, rowCos, rowSin);
      turnAndTranspose(swapped ? stripB : stripA, c);
    }
    alongRows(re, im);
  }

  private void alongRows(float[] re, float[] im) {
    for (int r = 0; r < rows; r += LANES) {
      boolean swapped = strip(otherRe, otherIm, r, columns, rows, columnCos, columnSin);
      Strip done = swapped ? stripB : stripA;
      for (int k = 0; k < columns; k++) {
        FloatVector.fromArray(SPECIES, done.re, k * LANES).intoArray(re, k * rows + r);
        FloatVector.fromArray(SPECIES, done.im, k * LANES).intoArray(im, k * rows + r);
      }
    }
  }

  /** Transforms down one register's width of columns, held together so that they stay in cache. */
  private boolean strip(
      float[] re, float[] im, int first, int length, int width, float[] cos, float[] sin) {
    for (int k = 0; k < length; k++) {
      FloatVector.fromArray(SPECIES, re, k * width + first).intoArray(stripA.re, k * LANES);
      FloatVector.fromArray(SPECIES, im, k * width + first).intoArray(stripA.im, k * LANES);
    }
    return down(stripA.re, stripA.im, stripB.re, stripB.im, length, LANES, cos, sin);
  }

  @Override
  public void forwardWindowed(float[] iq, int at, float[] window, float[] re, float[] im) {
    for (int c = 0; c < columns; c += LANES) {
      for (int k = 0; k < rows; k++) {
        loadWindowed(iq, at, window, k * columns + c, k * LANES);
      }
      boolean swapped =
          down(stripA.re, stripA.im, stripB.re, stripB.im, rows, LANES, rowCos, rowSin);
      turnAndTranspose(swapped ? stripB : stripA, c);
    }
    alongRows(re, im);
  }

  /** One register's width of interleaved samples, times the window, into the strip. */
  private void loadWindowed(float[] iq, int at, float[] window, int sample, int to) {
    if (sample + LANES <= window.length) {
      FloatVector w = FloatVector.fromArray(SPECIES, window, sample);
      FloatVector a = FloatVector.fromArray(SPECIES, iq, 2 * (at + sample));
      FloatVector b = FloatVector.fromArray(SPECIES, iq, 2 * (at + sample) + LANES);
      a.rearrange(EVEN, b).mul(w).intoArray(stripA.re, to);
      a.rearrange(ODD, b).mul(w).intoArray(stripA.im, to);
      return;
    }
    for (int l = 0; l < LANES; l++) {
      boolean inside = sample + l < window.length;
      stripA.re[to + l] = inside ? iq[2 * (at + sample + l)] * window[sample + l] : 0;
      stripA.im[to + l] = inside ? iq[2 * (at + sample + l) + 1] * window[sample + l] : 0;
    }
  }

  /** Multiplies a strip by its twiddle factors and stores its columns as rows. */
  private void turnAndTranspose(Strip s, int first) {
    for (int k = 0; k < rows; k++) {
      FloatVector a = FloatVector.fromArray(SPECIES, s.re, k * LANES);
      FloatVector b = FloatVector.fromArray(SPECIES, s.im, k * LANES);
      FloatVector c = FloatVector.fromArray(SPECIES, twiddleRe, k * columns + first);
      FloatVector t = FloatVector.fromArray(SPECIES, twiddleIm, k * columns + first);
      a.mul(c).sub(b.mul(t)).intoArray(s.re, k * LANES);
      a.mul(t).add(b.mul(c)).intoArray(s.im, k * LANES);
    }
    for (int l = 0; l < LANES; l++) {
      int to = (first + l) * rows;
      for (int k = 0; k < rows; k += LANES) {
        FloatVector.fromArray(SPECIES, s.re, k * LANES + l, stride, 0).intoArray(otherRe, to + k);
        FloatVector.fromArray(SPECIES, s.im, k * LANES + l, stride, 0).intoArray(otherIm, to + k);
      }
    }
  }

  /** Transforms of the given length down {@code width} columns; true if the result is in y. */
  private static boolean down(
      float[] xr,
      float[] xi,
      float[] yr,
      float[] yi,
      int length,
      int width,
      float[] cos,
      float[] sin) {
    float[] ar = xr;
    float[] ai = xi;
    float[] br = yr;
    float[] bi = yi;
    boolean inY = false;
    int left = length;
    int run = width;
    while (left >= 4) {
      int quarter = left / 4;
      int step = length / left;
      for (int p = 0; p < quarter; p++) {
        int w = p * step;
        radix4(
            ar,
            ai,
            br,
            bi,
            run * p,
            run * quarter,
            run * 4 * p,
            run,
            cos[w],
            sin[w],
            cos[2 * w],
            sin[2 * w],
            cos[3 * w],
            sin[3 * w]);
      }
      float[] t = ar;
      ar = br;
      br = t;
      t = ai;
      ai = bi;
      bi = t;
      inY = !inY;
      left = quarter;
      run *= 4;
    }
    if (left == 2) {
      radix2(ar, br, run);
      radix2(ai, bi, run);
      inY = !inY;
    }
    return inY;
  }

  private static void radix2(float[] x, float[] y, int run) {
    for (int i = 0; i < run; i += LANES) {
      FloatVector a = FloatVector.fromArray(SPECIES, x, i);
      FloatVector b = FloatVector.fromArray(SPECIES, x, i + run);
      a.add(b).intoArray(y, i);
      a.sub(b).intoArray(y, i + run);
    }
  }

  private static void radix4(
      float[] xr,
      float[] xi,
      float[] yr,
      float[] yi,
      int in,
      int inStep,
      int out,
      int run,
      float c1,
      float s1,
      float c2,
      float s2,
      float c3,
      float s3) {
    int end = in + run;
    int o = out;
    for (int i = in; i < end; i += LANES, o += LANES) {
      FloatVector ar = FloatVector.fromArray(SPECIES, xr, i);
      FloatVector ai = FloatVector.fromArray(SPECIES, xi, i);
      FloatVector br = FloatVector.fromArray(SPECIES, xr, i + inStep);
      FloatVector bi = FloatVector.fromArray(SPECIES, xi, i + inStep);
      FloatVector cr = FloatVector.fromArray(SPECIES, xr, i + 2 * inStep);
      FloatVector ci = FloatVector.fromArray(SPECIES, xi, i + 2 * inStep);
      FloatVector dr = FloatVector.fromArray(SPECIES, xr, i + 3 * inStep);
      FloatVector di = FloatVector.fromArray(SPECIES, xi, i + 3 * inStep);
      FloatVector acr = ar.add(cr);
      FloatVector aci = ai.add(ci);
      FloatVector bdr = br.add(dr);
      FloatVector bdi = bi.add(di);
      acr.add(bdr).intoArray(yr, o);
      aci.add(bdi).intoArray(yi, o);
      turn(acr.sub(bdr), aci.sub(bdi), c2, s2, yr, yi, o + 2 * run);
      FloatVector amr = ar.sub(cr);
      FloatVector ami = ai.sub(ci);
      FloatVector bmr = br.sub(dr);
      FloatVector bmi = bi.sub(di);
      turn(amr.add(bmi), ami.sub(bmr), c1, s1, yr, yi, o + run);
      turn(amr.sub(bmi), ami.add(bmr), c3, s3, yr, yi, o + 3 * run);
    }
  }

  /** Stores (re + j im)(c + j s). */
  private static void turn(
      FloatVector re, FloatVector im, float c, float s, float[] yr, float[] yi, int at) {
    FloatVector cos = FloatVector.broadcast(SPECIES, c);
    FloatVector sin = FloatVector.broadcast(SPECIES, s);
    re.fma(cos, im.mul(-s)).intoArray(yr, at);
    re.fma(sin, im.mul(cos)).intoArray(yi, at);
  }

  @Override
  public void addPower(float[] re, float[] im, int from, float[] sum, int to, int count) {
    int whole = count - count % LANES;
    for (int i = 0; i < whole; i += LANES) {
      FloatVector a = FloatVector.fromArray(SPECIES, re, from + i);
      FloatVector b = FloatVector.fromArray(SPECIES, im, from + i);
      FloatVector s = FloatVector.fromArray(SPECIES, sum, to + i);
      a.fma(a, b.fma(b, s)).intoArray(sum, to + i);
    }
    for (int i = whole; i < count; i++) {
      sum[to + i] += re[from + i] * re[from + i] + im[from + i] * im[from + i];
    }
  }
}
