package rovnik.core.signal;

import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.VectorSpecies;

/**
 * A transform whose inner loops run over whole vector registers.
 *
 * <p>The length is split in two, N = R C, as in the four-step method (D. H. Bailey, "FFTs in
 * external or hierarchical memory", J. Supercomputing 4, 1990): transforms down the columns of an R
 * by C matrix, twiddle factors, transposition, transforms down the columns again. Transforms down
 * columns keep neighbouring columns in one register; they are Stockham's self-sorting radix-4
 * steps, with one radix-2 step where the length asks for it.
 */
final class VectorFft implements ComplexFft {
  private static final VectorSpecies<Float> SPECIES = FloatVector.SPECIES_PREFERRED;
  private static final int LANES = SPECIES.length();

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
    stride = new int[LANES];
    for (int i = 0; i < LANES; i++) {
      stride[i] = i * columns;
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
    boolean swapped = down(re, im, otherRe, otherIm, rows, columns, rowCos, rowSin);
    float[] fromRe = swapped ? otherRe : re;
    float[] fromIm = swapped ? otherIm : im;
    float[] toRe = swapped ? re : otherRe;
    float[] toIm = swapped ? im : otherIm;
    twiddle(fromRe, fromIm);
    transpose(fromRe, toRe);
    transpose(fromIm, toIm);
    boolean swappedAgain = down(toRe, toIm, fromRe, fromIm, columns, rows, columnCos, columnSin);
    float[] endRe = swappedAgain ? fromRe : toRe;
    if (endRe != re) {
      System.arraycopy(endRe, 0, re, 0, rows * columns);
      System.arraycopy(swappedAgain ? fromIm : toIm, 0, im, 0, rows * columns);
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

  private void twiddle(float[] re, float[] im) {
    for (int i = 0; i < rows * columns; i += LANES) {
      FloatVector a = FloatVector.fromArray(SPECIES, re, i);
      FloatVector b = FloatVector.fromArray(SPECIES, im, i);
      FloatVector c = FloatVector.fromArray(SPECIES, twiddleRe, i);
      FloatVector s = FloatVector.fromArray(SPECIES, twiddleIm, i);
      a.mul(c).sub(b.mul(s)).intoArray(re, i);
      a.mul(s).add(b.mul(c)).intoArray(im, i);
    }
  }

  private void transpose(float[] from, float[] to) {
    for (int r = 0; r < rows; r += LANES) {
      for (int c = 0; c < columns; c++) {
        FloatVector.fromArray(SPECIES, from, r * columns + c, stride, 0)
            .intoArray(to, c * rows + r);
      }
    }
  }
}
