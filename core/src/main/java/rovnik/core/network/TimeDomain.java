package rovnik.core.network;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.IntToDoubleFunction;
import org.jtransforms.fft.DoubleFFT_1D;
import rovnik.core.Refusal;

/**
 * A reflection or transmission over time, from its values over an even grid of frequencies, and
 * back through a gate. The windows are Kaiser's (J. F. Kaiser and R. W. Schafer, "On the use of the
 * I0-sinh window for spectrum analysis", IEEE Trans. ASSP 28, 1980).
 */
public final class TimeDomain {
  /** Speed of light in vacuum, m/s, exact (SI 2019). */
  public static final double LIGHT = 299_792_458.0;

  private static final int LEAST_POINTS = 8;

  /** Times finer than the resolution by this. */
  private static final int FINER = 4;

  /** How the transform takes the frequencies. */
  public enum Mode {
    /** Any band; magnitudes only, as the phase at zero frequency is not known. */
    BAND_PASS,
    /** From near zero upwards: signs of reflections, as a pulse would show them. */
    IMPULSE,
    /** The same, summed: the reflection that a step would show. */
    STEP
  }

  /** Trade of side lobes against width. */
  public enum Shape {
    /** No window: narrowest, side lobes at -13 dB. */
    SHARP(0),
    /** Side lobes at about -44 dB. */
    BALANCED(6),
    /** Side lobes at about -90 dB. */
    CLEAN(13);

    private final double beta;

    Shape(double beta) {
      this.beta = beta;
    }

    double[] samples(int n) {
      double[] w = new double[n];
      double below = besselI0(beta);
      for (int i = 0; i <= (n - 1) / 2; i++) {
        double x = n == 1 ? 0 : 2.0 * i / (n - 1) - 1;
        w[i] = besselI0(beta * Math.sqrt(Math.max(0, 1 - x * x))) / below;
        w[n - 1 - i] = w[i];
      }
      return w;
    }
  }

  /**
   * A response over time.
   *
   * @param seconds even steps from before 0 on
   * @param value magnitude for BAND_PASS, signed otherwise
   * @param resolutionSeconds width of one reflection at half its height: two nearer ones are one
   * @param rangeSeconds time after which the response repeats
   */
  public record Response(
      Mode mode, double[] seconds, double[] value, double resolutionSeconds, double rangeSeconds) {

    /** One-way distance of a reflection after {@code seconds}. */
    public static double metres(double seconds, double velocityFactor) {
      return seconds * LIGHT * velocityFactor / 2;
    }
  }

  /**
   * One disturbance on a line.
   *
   * @param seconds there and back
   * @param reflection signed where the mode knows it
   */
  public record Fault(double seconds, double reflection) {
    /** What it would be if it stood alone on a line of {@code z0}. */
    public double impedanceOhm(double z0) {
      return z0 * (1 + reflection) / (1 - reflection);
    }
  }

  private final double[] re;
  private final double[] im;
  private final double startHz;
  private final double stepHz;
  private final boolean harmonic;

  private TimeDomain(double[] re, double[] im, double startHz, double stepHz) {
    this.re = re;
    this.im = im;
    this.startHz = startHz;
    this.stepHz = stepHz;
    this.harmonic = Math.abs(startHz / stepHz - Math.rint(startHz / stepHz)) < 1e-6;
  }

  /**
   * Takes S(row, column) of a network on an even grid.
   *
   * @throws Refusal if the frequencies are not even or too few
   */
  public static TimeDomain of(NetworkData n, int row, int column) {
    int points = n.points();
    if (points < LEAST_POINTS) {
      throw new Refusal("points", "Time domain needs at least " + LEAST_POINTS + " points.");
    }
    double[] f = n.frequencyHz();
    double step = (f[points - 1] - f[0]) / (points - 1);
    double[] re = new double[points];
    double[] im = new double[points];
    for (int i = 0; i < points; i++) {
      if (Math.abs(f[i] - (f[0] + i * step)) > 1e-3 * step) {
        throw new Refusal(
            "frequencyHz",
            "Time domain needs evenly spaced frequencies; point "
                + (i + 1)
                + " is off. Sweep linearly.");
      }
      re[i] = n.re(i, row, column);
      im[i] = n.im(i, row, column);
    }
    return new TimeDomain(re, im, f[0], step);
  }

  /** The response over all times up to the range. */
  public Response response(Mode mode, Shape shape) {
    return mode == Mode.BAND_PASS ? bandPass(shape) : lowPass(mode, shape);
  }

  private Response bandPass(Shape shape) {
    double[] w = shape.samples(re.length);
    int n = length(re.length);
    double sum = Arrays.stream(w).sum();
    double[] h = pulse(re, im, w, n, sum);
    double middle = (w.length - 1) / 2.0;
    return turned(Mode.BAND_PASS, h, widthAtHalf(i -> lone(w, middle, i, n) / sum), stepHz);
  }

  /** Height of a lone reflection at 0, so many steps beside its middle, times the window's sum. */
  private static double lone(double[] w, double middle, int steps, int n) {
    // cos((k + 1) a) = 2 cos(a) cos(k a) - cos((k - 1) a)
    double angle = 2 * Math.PI * steps / n;
    double twice = 2 * Math.cos(angle);
    double before = Math.cos((-middle - 1) * angle);
    double here = Math.cos(-middle * angle);
    double v = 0;
    for (double weight : w) {
      v += weight * here;
      double next = twice * here - before;
      before = here;
      here = next;
    }
    return v;
  }

  private static double[] pulse(double[] re, double[] im, double[] w, int n, double sum) {
    double[] x = new double[2 * n];
    for (int i = 0; i < re.length; i++) {
      x[2 * i] = re[i] * w[i];
      x[2 * i + 1] = im[i] * w[i];
    }
    new DoubleFFT_1D(n).complexInverse(x, false);
    double[] h = new double[n];
    for (int i = 0; i < n; i++) {
      h[i] = Math.hypot(x[2 * i], x[2 * i + 1]) / sum;
    }
    return h;
  }

  private Response lowPass(Mode mode, Shape shape) {
    Grid grid = grid();
    int top = grid.re.length - 1;
    double[] w = Arrays.copyOfRange(shape.samples(2 * top + 1), top, 2 * top + 1);
    int n = length(2 * top + 1);
    double sum = 2 * Arrays.stream(w).sum() - w[0];
    // A pulse is normed to its own height, a step to the area under the pulse.
    double norm = mode == Mode.STEP ? n : sum;
    double[] h = signedPulse(grid.re, grid.im, w, n, norm);
    IntToDoubleFunction lone = i -> (2 * lone(w, 0, i, n) - w[0]) / norm;
    Response r = turned(mode, h, mode == Mode.STEP ? rise(lone) : widthAtHalf(lone), grid.stepHz);
    if (mode == Mode.STEP) {
      double level = 0;
      for (int i = 0; i < r.value().length; i++) {
        level += r.value()[i];
        r.value()[i] = level;
      }
    }
    return r;
  }

  private static double[] signedPulse(double[] re, double[] im, double[] w, int n, double norm) {
    // Half of a spectrum whose other half mirrors it, as the library packs it.
    double[] x = new double[n];
    x[0] = re[0] * w[0];
    for (int k = 1; k < re.length; k++) {
      x[2 * k] = re[k] * w[k];
      x[2 * k + 1] = im[k] * w[k];
    }
    new DoubleFFT_1D(n).realInverse(x, true);
    for (int i = 0; i < n; i++) {
      x[i] *= n / norm;
    }
    return x;
  }

  /** Width in steps at half the height of a pulse that stands at 0. */
  private static double widthAtHalf(IntToDoubleFunction lone) {
    double top = lone.applyAsDouble(0);
    double before = top;
    for (int i = 1; ; i++) {
      double here = lone.applyAsDouble(i);
      if (here <= top / 2) {
        return 2 * (i - 1 + (before - top / 2) / (before - here));
      }
      before = here;
    }
  }

  /** Steps from 10 to 90 % of the sum of a pulse that stands at 0. */
  private static double rise(IntToDoubleFunction lone) {
    // The pulse is even: 10 and 90 % lie as far before as behind its middle.
    double inside = lone.applyAsDouble(0) / 2;
    int i = 0;
    while (inside < 0.4) {
      inside += lone.applyAsDouble(++i);
    }
    return 2.0 * i;
  }

  private record Grid(double[] re, double[] im, double stepHz) {}

  /** The values at 0, step, 2 step ...: the ones there are, or straight lines between them. */
  private Grid grid() {
    double stop = startHz + (re.length - 1) * stepHz;
    if (startHz > 0.1 * stop) {
      throw new Refusal(
          "mode",
          "Impulse and step need frequencies from near zero on: start at a tenth of the stop"
              + " frequency or lower, or take the band-pass mode.");
    }
    int top = harmonic ? (int) Math.rint(stop / stepHz) : re.length;
    double step = stop / top;
    double[] gridRe = new double[top + 1];
    double[] gridIm = new double[top + 1];
    int lowest = (int) Math.ceil(startHz / step - 1e-6);
    for (int k = Math.max(lowest, 1); k <= top; k++) {
      double at = (k * step - startHz) / stepHz;
      int i = (int) Math.min(Math.max(Math.floor(at + 1e-6), 0), re.length - 2.0);
      double share = at - i;
      gridRe[k] = re[i] + share * (re[i + 1] - re[i]);
      gridIm[k] = im[i] + share * (im[i + 1] - im[i]);
    }
    down(gridRe, gridIm, Math.max(lowest, 1));
    return new Grid(gridRe, gridIm, step);
  }

  /** Fills what lies below the first frequency: a real value at zero, straight to it. */
  private static void down(double[] gridRe, double[] gridIm, int first) {
    int next = Math.min(2 * first, gridRe.length - 1);
    // An even function in its real part: through the first two points, flat at zero.
    double slope =
        next == first
            ? 0
            : (gridRe[next] - gridRe[first]) / ((double) next * next - (double) first * first);
    double zero = Math.max(-1, Math.min(1, gridRe[first] - slope * first * first));
    for (int k = 0; k < first; k++) {
      gridRe[k] = zero + (gridRe[first] - zero) * k * k / ((double) first * first);
      gridIm[k] = gridIm[first] * k / first;
    }
  }

  private static int length(int points) {
    return Integer.highestOneBit(points * FINER - 1) << 1;
  }

  /** Puts the last eighth of the times in front, so that what begins at 0 is seen to begin. */
  private static Response turned(Mode mode, double[] h, double widthSteps, double stepHz) {
    int n = h.length;
    int before = n / 8;
    double step = 1 / (n * stepHz);
    double[] seconds = new double[n];
    double[] value = new double[n];
    for (int i = 0; i < n; i++) {
      seconds[i] = (i - before) * step;
      value[i] = h[Math.floorMod(i - before, n)];
    }
    return new Response(mode, seconds, value, widthSteps * step, 1 / stepHz);
  }

  /**
   * The largest disturbances of a response in band-pass or impulse mode, in the order of distance.
   *
   * @param least smallest magnitude that counts
   * @param fromSeconds only what lies behind this
   */
  public static List<Fault> faults(Response r, double least, double fromSeconds) {
    if (r.mode() == Mode.STEP) {
      throw new Refusal("mode", "Faults are listed from the band-pass or the impulse response.");
    }
    List<Fault> all = new ArrayList<>();
    double[] v = r.value();
    double guard = r.resolutionSeconds();
    for (int i = 1; i + 1 < v.length; i++) {
      double m = Math.abs(v[i]);
      boolean top = m >= least && m >= Math.abs(v[i - 1]) && m > Math.abs(v[i + 1]);
      if (!top || r.seconds()[i] < fromSeconds) {
        continue;
      }
      Fault f = new Fault(r.seconds()[i], v[i]);
      Fault last = all.isEmpty() ? null : all.get(all.size() - 1);
      if (last != null && f.seconds() - last.seconds() < guard) {
        if (m > Math.abs(last.reflection())) {
          all.set(all.size() - 1, f);
        }
      } else {
        all.add(f);
      }
    }
    return List.copyOf(all);
  }

  /**
   * The values over frequency of what lies between two times alone. A soft-edged gate is laid over
   * the unwindowed response; the loss at the band's edges is made good for what lies in its middle.
   *
   * @return interleaved real and imaginary parts, one pair a frequency
   */
  public double[] gated(double fromSeconds, double toSeconds) {
    double range = 1 / stepHz;
    if (!(toSeconds > fromSeconds) || toSeconds - fromSeconds > range) {
      throw new Refusal(
          "gate", "The gate must end after it begins, and both edges lie within the range.");
    }
    int n = Integer.highestOneBit(2 * re.length - 1) << 1;
    double middle = (fromSeconds + toSeconds) / 2;
    double[] x = new double[2 * n];
    double[] unit = new double[2 * n];
    for (int i = 0; i < re.length; i++) {
      x[2 * i] = re[i];
      x[2 * i + 1] = im[i];
      double angle = -2 * Math.PI * i * stepHz * middle;
      unit[2 * i] = Math.cos(angle);
      unit[2 * i + 1] = Math.sin(angle);
    }
    DoubleFFT_1D fft = new DoubleFFT_1D(n);
    through(fft, x, n, fromSeconds, toSeconds);
    double[] plain = unit.clone();
    through(fft, unit, n, fromSeconds, toSeconds);
    double[] out = new double[2 * re.length];
    for (int i = 0; i < re.length; i++) {
      // What the gate left of a unit reflection in its middle, as a complex share.
      double lossRe = unit[2 * i] * plain[2 * i] + unit[2 * i + 1] * plain[2 * i + 1];
      double lossIm = unit[2 * i + 1] * plain[2 * i] - unit[2 * i] * plain[2 * i + 1];
      double square = lossRe * lossRe + lossIm * lossIm;
      out[2 * i] = (x[2 * i] * lossRe + x[2 * i + 1] * lossIm) / square;
      out[2 * i + 1] = (x[2 * i + 1] * lossRe - x[2 * i] * lossIm) / square;
    }
    return out;
  }

  private void through(DoubleFFT_1D fft, double[] x, int n, double from, double to) {
    fft.complexInverse(x, true);
    double step = 1 / (n * stepHz);
    double edge = Math.min((to - from) / 4, 1.5 / (re.length * stepHz));
    double range = 1 / stepHz;
    for (int i = 0; i < n; i++) {
      double t = i * step;
      double gate = 0;
      for (int turn = -1; turn <= 1; turn++) {
        gate = Math.max(gate, gate(t + turn * range, from, to, edge));
      }
      x[2 * i] *= gate;
      x[2 * i + 1] *= gate;
    }
    fft.complexForward(x);
  }

  private static double gate(double t, double from, double to, double edge) {
    double inside = Math.min(t - from, to - t);
    if (inside <= -edge) {
      return 0;
    }
    return inside >= edge ? 1 : 0.5 * (1 + Math.sin(Math.PI / 2 * inside / edge));
  }

  /** Modified Bessel function of order zero by its series, to the last digit for x up to 30. */
  static double besselI0(double x) {
    double q = x * x / 4;
    double term = 1;
    double sum = 1;
    for (int k = 1; term > 1e-17 * sum; k++) {
      term *= q / ((double) k * k);
      sum += term;
    }
    return sum;
  }
}
