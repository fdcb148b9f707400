package rovnik.core.modulation.analysis;

import java.util.ArrayList;
import java.util.List;
import rovnik.core.modulation.PulseShape;
import rovnik.core.modulation.SingleCarrier;
import rovnik.core.signal.ComplexFft;
import rovnik.core.signal.Products;
import rovnik.core.signal.Transforms;

/**
 * What the error vector is made of: what has one form over all symbols (the causes of {@link
 * ErrorModel}), what follows the cube of the waveform, echoes of neighbouring symbols, and lines.
 * Each is fitted to what the others leave, round after round (Gauss-Seidel on the normal equations:
 * the joint least squares without their full matrix). What is left in the end is in {@code re} and
 * {@code im}.
 */
final class CauseFit {
  /** Neighbours to each side whose echoes are looked for. */
  static final int ECHOES = 6;

  /** Rounds after which shares no longer change by a thousandth. */
  private static final int ROUNDS = 3;

  private static final int OVERSAMPLED = 4;

  /** Symbols that are gone through at once: they stay in the nearest memory. */
  private static final int BLOCK = 512;

  /** Symbols at each end whose waveform hangs on symbols beyond it. */
  private static final int EDGE = 8;

  /** A line stands out from noise: fewer than one in a thousand records has one this high. */
  private static final double LINE_OVER_MEAN = 7;

  private static final int MOST_LINES = 3;

  /** A line of less than this share of the error is no cause of it. */
  private static final double LEAST_LINE = 1e-3;

  /** A line in the error. */
  static final class Line {
    final double turn;
    double re;
    double im;

    /**
     * @param turn radians a symbol
     */
    Line(double turn) {
      this.turn = turn;
    }

    double meanSquare() {
      return re * re + im * im;
    }
  }

  private final SingleCarrier carrier;
  private final PulseShape measured;
  private final Symbols s;
  private final int n;
  private final int edge;
  final double[] re;
  final double[] im;

  /** What {@link ErrorModel} finds beside the others. */
  final double[] linear = new double[ErrorModel.ALL];

  double[] standard;

  /** Factor of the cube of the waveform, and the mean square that a factor of 1 would have. */
  final double[] bend = new double[2];

  double bendMeanSquare;

  /** Echo of the symbol so many before, from the middle on. */
  final double[][] echo = new double[2 * ECHOES + 1][2];

  final List<Line> lines = new ArrayList<>();

  CauseFit(SingleCarrier carrier, PulseShape measured, Symbols s) {
    this.carrier = carrier;
    this.measured = measured;
    this.s = s;
    this.n = s.count();
    this.edge = Math.min(EDGE, n / 8);
    this.re = new double[n];
    this.im = new double[n];
    solve();
  }

  private void solve() {
    for (int k = 0; k < n; k++) {
      re[k] = s.re()[k] - s.ideal().i()[k];
      im[k] = s.im()[k] - s.ideal().q()[k];
    }
    ErrorModel model = s.model();
    standard = s.fit().standard();
    follow(model, s.fit().value());
    boolean bends = carrier.format().plainPoints();
    double[][] cube = bends ? bending() : null;
    double[][] like = bends ? likeness() : null;
    for (int round = 0; round < ROUNDS; round++) {
      if (round > 0) {
        ErrorModel.Fit more = model.fit(re, im, ErrorModel.ALL);
        standard = more.standard();
        follow(model, more.value());
      }
      if (cube != null) {
        double[] more = project(re, im, cube[0], cube[1]);
        take(re, im, more, cube[0], cube[1]);
        bend[0] += more[0];
        bend[1] += more[1];
      }
      if (bends) {
        echoes(like);
      }
      if (round == 0) {
        findLines();
      }
      lines.forEach(this::takeLine);
    }
  }

  private void follow(ErrorModel model, double[] more) {
    model.takeOff(more, 0, ErrorModel.ALL, re, im);
    for (int a = 0; a < ErrorModel.ALL; a++) {
      linear[a] += more[a];
    }
  }

  /** The cube of the waveform without what of it is only gain; null if nothing else is in it. */
  private double[][] bending() {
    double[][] w = cube();
    // What came before the record and after it is not known, so the ends are left out.
    take(
        w[0],
        w[1],
        project(w[0], w[1], s.ideal().i(), s.ideal().q()),
        s.ideal().i(),
        s.ideal().q());
    double power = 0;
    for (int k = 0; k < n; k++) {
      if (k < edge || k >= n - edge) {
        w[0][k] = 0;
        w[1][k] = 0;
      }
      power += w[0][k] * w[0][k] + w[1][k] * w[1][k];
    }
    bendMeanSquare = power / (n - 2 * edge);
    return power > 1e-12 * n ? w : null;
  }

  /** The complex factor that takes most of one sequence away with another. */
  private double[] project(double[] x, double[] y, double[] u, double[] v) {
    double a = 0;
    double b = 0;
    double power = 1e-300;
    for (int k = edge; k < n - edge; k++) {
      a += x[k] * u[k] + y[k] * v[k];
      b += y[k] * u[k] - x[k] * v[k];
      power += u[k] * u[k] + v[k] * v[k];
    }
    return new double[] {a / power, b / power};
  }

  private void take(double[] x, double[] y, double[] factor, double[] u, double[] v) {
    for (int k = 0; k < n; k++) {
      x[k] -= factor[0] * u[k] - factor[1] * v[k];
      y[k] -= factor[0] * v[k] + factor[1] * u[k];
    }
  }

  /** Mean square of what is left. */
  double left() {
    double sum = 0;
    for (int k = 0; k < n; k++) {
      sum += re[k] * re[k] + im[k] * im[k];
    }
    return sum / n;
  }

  /** The ideal waveform's third power at the symbols' instants, on a ring of all symbols. */
  private double[][] cube() {
    int ring = Integer.highestOneBit(2 * n - 1);
    float[] a = new float[ring];
    float[] b = new float[ring];
    for (int k = 0; k < n; k++) {
      a[k] = (float) s.ideal().i()[k];
      b[k] = (float) s.ideal().q()[k];
    }
    ComplexFft small = Transforms.ofLength(ring);
    small.forward(a, b);
    int fine = OVERSAMPLED * ring;
    float[] x = new float[fine];
    float[] y = new float[fine];
    // Responses are even, and lengths are powers of two.
    float[] sent = FilterTable.of(carrier.filter(), 1.0 / ring, ring + 1);
    for (int k = 0; k <= ring; k++) {
      float h = sent[k] / ring;
      if (h != 0) {
        int up = k & (ring - 1);
        int down = -k & (ring - 1);
        x[k] = h * b[up];
        y[k] = h * a[up];
        x[-k & (fine - 1)] = h * b[down];
        y[-k & (fine - 1)] = h * a[down];
      }
    }
    ComplexFft large = Transforms.ofLength(fine);
    large.forward(x, y);
    // The parts stand exchanged here: y is the real one.
    for (int i = 0; i < fine; i++) {
      float p = x[i] * x[i] + y[i] * y[i];
      float swap = p * y[i];
      y[i] = p * x[i];
      x[i] = swap;
    }
    large.forward(x, y);
    java.util.Arrays.fill(a, 0);
    java.util.Arrays.fill(b, 0);
    float[] seen = FilterTable.of(measured, 1.0 / ring, 2 * ring);
    for (int k = 0; k < 2 * ring; k++) {
      float h = seen[k] / fine;
      if (h != 0) {
        int up = k & (ring - 1);
        b[up] += h * x[k];
        a[up] += h * y[k];
        if (k > 0) {
          int down = -k & (ring - 1);
          b[down] += h * x[-k & (fine - 1)];
          a[down] += h * y[-k & (fine - 1)];
        }
      }
    }
    small.forward(a, b);
    double[][] out = new double[2][n];
    for (int k = 0; k < n; k++) {
      out[0][k] = b[k];
      out[1][k] = a[k];
    }
    return out;
  }

  /** How much of what was sent so many symbols later is in what was sent: a complex sum. */
  private double[][] likeness() {
    double[] u = s.ideal().i();
    double[] v = s.ideal().q();
    double[][] out = new double[2 * ECHOES + 1][2];
    for (int from = 0; from < n; from += BLOCK) {
      for (int l = 0; l <= 2 * ECHOES; l++) {
        int length = Math.min(n - l, from + BLOCK) - from;
        add(out[l], u, v, from + l, u, v, from, length);
      }
    }
    out[0][0] += 1e-300;
    return out;
  }

  /** Adds the sum of x conj(y) over a stretch; nothing where its length is below 1. */
  private static void add(
      double[] sum, double[] xRe, double[] xIm, int x, double[] yRe, double[] yIm, int y, int of) {
    if (of > 0) {
      sum[0] += Products.sum(xRe, x, yRe, y, of) + Products.sum(xIm, x, yIm, y, of);
      sum[1] += Products.sum(xIm, x, yRe, y, of) - Products.sum(xRe, x, yIm, y, of);
    }
  }

  /**
   * Linear distortion: each neighbour's echo, by correlation with what was sent. What one echo
   * takes from the correlation of the others is known from how like itself the data are.
   */
  private void echoes(double[][] like) {
    double[] u = s.ideal().i();
    double[] v = s.ideal().q();
    int all = 2 * ECHOES + 1;
    double[][] seen = new double[all][2];
    for (int from = 0; from < n; from += BLOCK) {
      int to = Math.min(n, from + BLOCK);
      for (int d = -ECHOES; d <= ECHOES; d++) {
        int first = Math.max(from, d);
        add(seen[d + ECHOES], re, im, first, u, v, first - d, Math.min(to, n + d) - first);
      }
    }
    double[][] found = new double[all][2];
    for (int d = 0; d < all; d++) {
      if (d == ECHOES) {
        continue;
      }
      double a = seen[d][0] / like[0][0];
      double b = seen[d][1] / like[0][0];
      found[d][0] = a;
      found[d][1] = b;
      echo[d][0] += a;
      echo[d][1] += b;
      for (int other = d + 1; other < all; other++) {
        double[] l = like[other - d];
        seen[other][0] -= a * l[0] - b * l[1];
        seen[other][1] -= a * l[1] + b * l[0];
      }
    }
    for (int from = 0; from < n; from += BLOCK) {
      int to = Math.min(n, from + BLOCK);
      for (int d = -ECHOES; d <= ECHOES; d++) {
        double a = found[d + ECHOES][0];
        double b = found[d + ECHOES][1];
        int first = Math.max(from, d);
        int last = d == 0 ? first : Math.min(to, n + d);
        for (int k = first; k < last; k++) {
          re[k] -= a * u[k - d] - b * v[k - d];
          im[k] -= a * v[k - d] + b * u[k - d];
        }
      }
    }
  }

  /** Looks for lines, the strongest first; each is taken off before the next is looked for. */
  private void findLines() {
    int length = Integer.highestOneBit(4 * n - 1);
    double[] x0 = re.clone();
    double[] y0 = im.clone();
    while (lines.size() < MOST_LINES) {
      double near = strongest(length);
      if (Double.isNaN(near)) {
        break;
      }
      Line line = new Line(refined(near));
      takeLine(line);
      if (line.meanSquare() < LEAST_LINE * s.meanSquare()) {
        break;
      }
      lines.add(line);
    }
    System.arraycopy(x0, 0, re, 0, n);
    System.arraycopy(y0, 0, im, 0, n);
    lines.forEach(
        l -> {
          l.re = 0;
          l.im = 0;
        });
  }

  /** Radians a symbol of the strongest line, NaN if none stands out from noise. */
  private double strongest(int length) {
    float[] x = new float[length];
    float[] y = new float[length];
    Turner turner = new Turner(Math.PI / n, 2 * Math.PI / n, 1);
    for (int k = 0; k < n; k++) {
      // A cosine fades both ends, so that one line has no skirts.
      double w = 1 - turner.cos;
      x[k] = (float) (w * re[k]);
      y[k] = (float) (w * im[k]);
      turner.next();
    }
    Transforms.ofLength(length).forward(x, y);
    int best = 0;
    double most = 0;
    double all = 0;
    for (int k = 0; k < length; k++) {
      double p = x[k] * (double) x[k] + y[k] * (double) y[k];
      all += p;
      if (p > most) {
        most = p;
        best = k;
      }
    }
    if (!(most > (Math.log(n) + LINE_OVER_MEAN) * all / length)) {
      return Double.NaN;
    }
    double a = Math.hypot(x[(best + length - 1) % length], y[(best + length - 1) % length]);
    double b = Math.sqrt(most);
    double c = Math.hypot(x[(best + 1) % length], y[(best + 1) % length]);
    return 2 * Math.PI * (best + (a - c) / 2 / (a - 2 * b + c)) / length;
  }

  private void takeLine(Line line) {
    double a = 0;
    double b = 0;
    Turner t = new Turner(0, line.turn, 1);
    for (int k = 0; k < n; k++) {
      a += re[k] * t.cos + im[k] * t.sin;
      b += im[k] * t.cos - re[k] * t.sin;
      t.next();
    }
    a /= n;
    b /= n;
    t = new Turner(0, line.turn, 1);
    for (int k = 0; k < n; k++) {
      re[k] -= a * t.cos - b * t.sin;
      im[k] -= a * t.sin + b * t.cos;
      t.next();
    }
    line.re += a;
    line.im += b;
  }

  /** The angle a symbol at which a line fits best: two steps of least squares from a near one. */
  private double refined(double near) {
    double turn = near;
    double middle = (n - 1) / 2.0;
    for (int round = 0; round < 2; round++) {
      double a = 0;
      double b = 0;
      double p = 0;
      double q = 0;
      Turner turner = new Turner(-middle * turn, turn, 1);
      for (int k = 0; k < n; k++) {
        double t = k - middle;
        double x = re[k] * turner.cos + im[k] * turner.sin;
        double y = im[k] * turner.cos - re[k] * turner.sin;
        turner.next();
        a += x;
        b += y;
        p += t * x;
        q += t * y;
      }
      double squares = n * ((double) n * n - 1) / 12;
      turn += (a * q - b * p) / (a * a + b * b) * n / squares;
    }
    return turn;
  }
}
