package rovnik.core.network;

import java.util.ArrayList;
import java.util.List;
import org.jtransforms.fft.DoubleFFT_1D;
import rovnik.core.Refusal;
import rovnik.core.signal.DoubleTransforms;

/**
 * A reflection or transmission over time, from its values over an even grid of frequencies, and
 * back through a gate. The windows are Kaiser's (J. F. Kaiser and R. W. Schafer, "On the use of the
 * I0-sinh window for spectrum analysis", IEEE Trans. ASSP 28, 1980).
 */
public final class TimeDomain {
  /** Speed of light in vacuum, m/s, exact (SI 2019). */
  public static final double LIGHT = 299_792_458.0;

  private static final int LEAST_POINTS = 8;
  private static final int MOST_POINTS = 400_001;

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
    if (points > MOST_POINTS) {
      throw new Refusal(
          "frequencyHz", "Time domain takes at most " + MOST_POINTS + " points; there are more.");
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
    TimeWindow w = TimeWindow.of(re.length, shape, false);
    double[] x = new double[2 * w.length];
    for (int i = 0; i < re.length; i++) {
      x[2 * i] = re[i] * w.weights[i];
      x[2 * i + 1] = im[i] * w.weights[i];
    }
    DoubleTransforms.of(w.length).complexInverse(x, false);
    double[] h = new double[w.length];
    for (int i = 0; i < h.length; i++) {
      h[i] = Math.sqrt(x[2 * i] * x[2 * i] + x[2 * i + 1] * x[2 * i + 1]) / w.sum;
    }
    return turned(Mode.BAND_PASS, h, w.widthSteps, stepHz);
  }

  private Response lowPass(Mode mode, Shape shape) {
    Grid grid = grid();
    TimeWindow w = TimeWindow.of(grid.re.length, shape, true);
    Response pulse = turned(Mode.IMPULSE, signedPulse(grid, w), w.widthSteps, grid.stepHz);
    return mode == Mode.IMPULSE ? pulse : summed(pulse, w);
  }

  private static double[] signedPulse(Grid grid, TimeWindow w) {
    // Half of a spectrum whose other half mirrors it, as the library packs it. A pulse is normed to
    // its own height; the mirrored half counts with the library's 1/2.
    double[] x = new double[w.length];
    double norm = 2 / w.sum;
    x[0] = grid.re[0] * w.weights[0] * norm;
    for (int k = 1; k < grid.re.length; k++) {
      x[2 * k] = grid.re[k] * w.weights[k] * norm;
      x[2 * k + 1] = grid.im[k] * w.weights[k] * norm;
    }
    DoubleTransforms.of(w.length).realInverse(x, false);
    return x;
  }

  /** A step is the pulses up to it, each by its share of the area under a lone one. */
  private static Response summed(Response pulse, TimeWindow w) {
    double share = w.sum / w.length;
    double[] v = pulse.value(); // nobody else has it
    double level = 0;
    for (int i = 0; i < v.length; i++) {
      level += share * v[i];
      v[i] = level;
    }
    double step = pulse.seconds()[1] - pulse.seconds()[0];
    return new Response(Mode.STEP, pulse.seconds(), v, w.riseSteps * step, pulse.rangeSeconds());
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

  /** Puts the last eighth of the times in front, so that what begins at 0 is seen to begin. */
  private static Response turned(Mode mode, double[] h, double widthSteps, double stepHz) {
    int n = h.length;
    int before = n / 8;
    double step = 1 / (n * stepHz);
    double[] seconds = new double[n];
    for (int i = 0; i < n; i++) {
      seconds[i] = (i - before) * step;
    }
    double[] value = new double[n];
    System.arraycopy(h, n - before, value, 0, before);
    System.arraycopy(h, 0, value, before, n - before);
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
      Fault f = between(r, i);
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

  /** Top of the parabola through a highest point and its neighbours. */
  private static Fault between(Response r, int top) {
    double[] v = r.value();
    double bend = v[top - 1] - 2 * v[top] + v[top + 1];
    double slope = (v[top + 1] - v[top - 1]) / 2;
    double shift = bend == 0 ? 0 : Math.max(-0.5, Math.min(0.5, -slope / bend));
    double step = r.seconds()[1] - r.seconds()[0];
    return new Fault(
        r.seconds()[top] + shift * step, v[top] + slope * shift + bend * shift * shift / 2);
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
    TimeGate gate = TimeGate.of(re.length, stepHz, fromSeconds, toSeconds);
    double[] x = new double[2 * gate.weights.length];
    for (int i = 0; i < re.length; i++) {
      x[2 * i] = re[i];
      x[2 * i + 1] = im[i];
    }
    DoubleFFT_1D fft = DoubleTransforms.of(gate.weights.length);
    fft.complexInverse(x, true);
    for (int i = 0; i < gate.weights.length; i++) {
      x[2 * i] *= gate.weights[i];
      x[2 * i + 1] *= gate.weights[i];
    }
    fft.complexForward(x);
    double[] out = new double[2 * re.length];
    for (int i = 0; i < out.length; i += 2) {
      out[i] = x[i] * gate.restore[i] - x[i + 1] * gate.restore[i + 1];
      out[i + 1] = x[i + 1] * gate.restore[i] + x[i] * gate.restore[i + 1];
    }
    return out;
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
