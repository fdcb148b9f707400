package rovnik.core.modulation.analysis;

import java.util.function.DoubleUnaryOperator;
import rovnik.core.modulation.PhasePulse;
import rovnik.core.modulation.PulseShape;
import rovnik.core.modulation.SingleCarrier;
import rovnik.core.signal.BandTaker;
import rovnik.core.signal.ComplexFft;
import rovnik.core.signal.Transforms;

/**
 * Holds a keyed carrier to the one that its symbols make: level, phase, frequency, deviation,
 * instant and clock by least squares over all samples, with the carrier that it is held to behind
 * the same filter. Time is in samples of the band.
 */
final class KeyedFit {
  private static final int ROUNDS = 8;
  private static final double SETTLED = 1e-7;
  private static final double SETTLED_SHARE = 0.02;

  private final SingleCarrier carrier;
  private final PhasePulse pulse;
  private final BandTaker.Band band;
  private final float[] response;
  private final double wide;

  /** Angle that the data have turned the carrier by, at a deviation of one symbol rate. */
  private final double[] turned;

  /** Whether the frequency jumps, so that samples are means. */
  private final boolean jumps;

  private final double[] mean = new double[2];

  double first;
  double symbol;
  double deviation;
  double cyclesPerSample;
  double gainRe;
  double gainIm;
  double deviationStandard;

  /** Measured, and where it should be, both with gain, phase and frequency taken off. */
  final float[][] measured;

  final float[][] ideal;

  /** How the ideal one changes, a symbol. */
  final float[][] slope;

  /**
   * @param response of the band's filter over frequency
   * @param widthHz that it lets through
   */
  KeyedFit(
      SingleCarrier carrier, BandTaker.Band band, DoubleUnaryOperator response, double widthHz) {
    this.carrier = carrier;
    this.pulse = new PhasePulse(carrier.filter());
    this.band = band;
    this.jumps = pulse.reach() == 0.5 && carrier.filter().kind() != PulseShape.Kind.HALF_SINE;
    int length = band.re().length;
    this.response = new float[length];
    for (int k = 0; k < length; k++) {
      int bin = k <= length / 2 ? k : k - length;
      double x = Math.PI * bin / length;
      // A mean over one sample is a filter of its own, which is made good here.
      double mend = jumps && bin != 0 ? x / Math.sin(x) : 1;
      double h = response.applyAsDouble(bin * band.rateHz() / length);
      this.response[k] = (float) (h * mend / length);
    }
    this.wide = band.rateHz() / widthHz;
    this.turned = new double[length];
    this.measured = new float[2][length];
    this.ideal = new float[2][length];
    this.slope = new float[2][length];
  }

  /** Begins where decisions by phase have come to. */
  void start(KeyedPhase.Start s) {
    first = s.first();
    symbol = s.symbol();
    deviation = s.deviation();
    cyclesPerSample = s.cyclesPerSample();
  }

  KeyedPhase.Start start() {
    return new KeyedPhase.Start(first, symbol, deviation, cyclesPerSample);
  }

  private double phase(double[] turns, double time, int from, int to) {
    return KeyedPhase.turned(pulse, turns, time, from, to);
  }

  /** The same from symbols on that turn the carrier otherwise: level and phase are not known. */
  void anew(int[] values, int edge) {
    gainRe = 0;
    gainIm = 0;
    fit(values, edge);
  }

  /**
   * Fits everything.
   *
   * @param values of all symbols, from the first on
   * @param edge symbols at each end that only serve the filter
   */
  void fit(int[] values, int edge) {
    double[] turns = KeyedPhase.turns(carrier, values);
    int symbols = values.length;
    for (int round = 0; round < ROUNDS; round++) {
      int from = Math.max(0, (int) Math.ceil(first + (edge - 0.5) * symbol));
      int to =
          Math.min(band.samples() - 1, (int) Math.floor(first + (symbols - edge - 0.5) * symbol));
      float[][] plain = build(turns);
      project(from, to);
      double middle = (from + to) / 2.0;
      double half = (to - from) / 2.0;
      Trend trend = Trend.of(turned, from, to);
      float[][] bend = bend(plain, trend);
      LeastSquares sum = new LeastSquares(6);
      double[] re = new double[6];
      double[] im = new double[6];
      for (int n = from; n <= to; n++) {
        double x = (n - middle) / half;
        double a = ideal[0][n];
        double b = ideal[1][n];
        set(re, im, 0, a, b);
        set(re, im, 1, -b, a);
        set(re, im, 2, -b * x, a * x);
        set(re, im, 3, -slope[0][n], -slope[1][n]);
        set(re, im, 4, -slope[0][n] * x, -slope[1][n] * x);
        set(re, im, 5, bend[0][n], bend[1][n]);
        sum.add(re, measured[0][n] - a);
        sum.add(im, measured[1][n] - b);
      }
      LeastSquares.Solution v = sum.solve();
      double[] f = v.factor();
      double gain = Math.max(0.2, 1 + f[0]);
      double late = Math.max(-0.25, Math.min(0.25, f[3]));
      double clock = Math.max(-0.25, Math.min(0.25, f[4]));
      double place = first - middle;
      // More deviation turns by the data's own trend as well, which the column is without.
      double turn = f[1] + f[2] * place / half - f[5] * (trend.mean() + trend.slope() * place);
      cyclesPerSample += (f[2] / half - f[5] * trend.slope()) / (2 * Math.PI);
      double move = (late + clock * place / half) * symbol;
      rotate(gain, turn + 2 * Math.PI * cyclesPerSample * move);
      first += move;
      symbol *= 1 + clock * symbol / half;
      deviation += f[5];
      // Neighbouring samples of the noise are alike as far as the filter makes them.
      deviationStandard = v.standard()[5] * Math.sqrt(wide);
      if (settled(v)) {
        break;
      }
    }
    build(turns);
    project(0, band.samples() - 1);
  }

  /** What was changed is small beside what it is uncertain by. */
  private static boolean settled(LeastSquares.Solution v) {
    for (int a = 0; a < v.factor().length; a++) {
      if (Math.abs(v.factor()[a]) > Math.max(SETTLED, SETTLED_SHARE * v.standard()[a])) {
        return false;
      }
    }
    return true;
  }

  private static void set(double[] re, double[] im, int column, double x, double y) {
    re[column] = x;
    im[column] = y;
  }

  private void rotate(double gain, double turn) {
    double c = gain * Math.cos(turn);
    double s = gain * Math.sin(turn);
    double re = gainRe * c - gainIm * s;
    gainIm = gainRe * s + gainIm * c;
    gainRe = re;
  }

  /** A straight line through values between two places: its middle and its slope. */
  private record Trend(double mean, double slope, double middle) {
    static Trend of(double[] y, int from, int to) {
      double middle = (from + to) / 2.0;
      double mean = 0;
      double moment = 0;
      double squares = 0;
      for (int n = from; n <= to; n++) {
        mean += y[n] / (to - from + 1);
        moment += (n - middle) * y[n];
        squares += (n - middle) * (n - middle);
      }
      return new Trend(mean, moment / squares, middle);
    }

    double without(double y, int n) {
      return y - mean - slope * (n - middle);
    }
  }

  /**
   * Makes the carrier of the symbols, and how it changes, behind the filter.
   *
   * @return the same before the filter
   */
  private float[][] build(double[] turns) {
    for (float[] part : new float[][] {ideal[0], ideal[1], slope[0], slope[1]}) {
      java.util.Arrays.fill(part, 0);
    }
    int reach = (int) Math.ceil(pulse.reach());
    int begin = Math.max(0, (int) Math.ceil(first - 0.5 * symbol));
    int end = Math.min(band.samples() - 1, (int) Math.floor(first + (turns.length - 0.5) * symbol));
    double done = 0;
    int next = 0;
    for (int n = begin; n <= end; n++) {
      double t = (n - first) / symbol;
      int here = (int) Math.floor(t);
      while (next < here - reach && next < turns.length) {
        done += turns[next++];
      }
      int last = here + reach + 1;
      double cycles = done + phase(turns, t, next, last);
      double frequency =
          pulse.growth(turns, t, Math.max(0, next), Math.min(turns.length - 1, last));
      double angle = 2 * Math.PI * (deviation * cycles + cyclesPerSample * (n - first));
      double w = 2 * Math.PI * deviation * frequency;
      if (jumps) {
        mean(turns, n, done, next, last);
        ideal[0][n] = (float) mean[0];
        ideal[1][n] = (float) mean[1];
      } else {
        ideal[0][n] = (float) Math.cos(angle);
        ideal[1][n] = (float) Math.sin(angle);
      }
      slope[0][n] = (float) (-w * Math.sin(angle));
      slope[1][n] = (float) (w * Math.cos(angle));
      turned[n] = 2 * Math.PI * cycles;
    }
    float[][] plain = {ideal[0].clone(), ideal[1].clone()};
    filter(ideal);
    filter(slope);
    return plain;
  }

  /**
   * The mean over one sample of a carrier whose frequency jumps, in closed form on both sides of
   * the jump: points alone would fold what lies beyond half of the sample rate.
   */
  private void mean(double[] turns, int n, double done, int next, int last) {
    double from = (n - 0.5 - first) / symbol;
    double to = (n + 0.5 - first) / symbol;
    double jump = Math.max(from, Math.min(to, Math.floor(to + 0.5) - 0.5));
    mean[0] = 0;
    mean[1] = 0;
    for (int part = 0; part < 2; part++) {
      double a = part == 0 ? from : jump;
      double b = part == 0 ? jump : to;
      if (b - a < 1e-12) {
        continue;
      }
      double half = (b - a) / 2;
      double t = (a + b) / 2;
      double middle = turnsAt(turns, t, done, next, last);
      double grows = (turnsAt(turns, b, done, next, last) - middle) * 2 * Math.PI;
      double sinc = Math.abs(grows) < 1e-9 ? 1 : Math.sin(grows) / grows;
      double weight = sinc * 2 * half * symbol;
      mean[0] += weight * Math.cos(2 * Math.PI * middle);
      mean[1] += weight * Math.sin(2 * Math.PI * middle);
    }
  }

  /** Cycles that the carrier has turned by. */
  private double turnsAt(double[] turns, double time, double done, int next, int last) {
    return deviation * (done + phase(turns, time, next, last)) + cyclesPerSample * symbol * time;
  }

  /** What a little more deviation does, without the trend that is a frequency. */
  private float[][] bend(float[][] plain, Trend trend) {
    for (int n = 0; n < turned.length; n++) {
      double p = trend.without(turned[n], n);
      float re = (float) (-p * plain[1][n]);
      plain[1][n] = (float) (p * plain[0][n]);
      plain[0][n] = re;
    }
    filter(plain);
    derotate(plain);
    return plain;
  }

  private void filter(float[][] z) {
    int length = z[0].length;
    ComplexFft fft = Transforms.ofLength(length);
    fft.forward(z[0], z[1]);
    for (int k = 0; k < length; k++) {
      float re = response[k] * z[0][k];
      // The inverse is a forward transform with the parts exchanged, before and after.
      z[0][k] = response[k] * z[1][k];
      z[1][k] = re;
    }
    fft.forward(z[0], z[1]);
    float[] swapped = z[0];
    z[0] = z[1];
    z[1] = swapped;
  }

  /** Takes the carrier's frequency off. */
  private void derotate(float[][] z) {
    Turner turner =
        new Turner(2 * Math.PI * cyclesPerSample * first, -2 * Math.PI * cyclesPerSample, 1);
    for (int n = 0; n < z[0].length; n++) {
      float re = (float) (z[0][n] * turner.cos - z[1][n] * turner.sin);
      z[1][n] = (float) (z[0][n] * turner.sin + z[1][n] * turner.cos);
      z[0][n] = re;
      turner.next();
    }
  }

  /** Takes gain, phase and frequency off what was measured; the first time it finds the gain. */
  private void project(int from, int to) {
    derotate(ideal);
    derotate(slope);
    System.arraycopy(band.re(), 0, measured[0], 0, measured[0].length);
    System.arraycopy(band.im(), 0, measured[1], 0, measured[1].length);
    derotate(measured);
    if (gainRe == 0 && gainIm == 0) {
      double power = 1e-300;
      for (int n = from; n <= to; n++) {
        double a = ideal[0][n];
        double b = ideal[1][n];
        gainRe += measured[0][n] * a + measured[1][n] * b;
        gainIm += measured[1][n] * a - measured[0][n] * b;
        power += a * a + b * b;
      }
      gainRe /= power;
      gainIm /= power;
    }
    double square = gainRe * gainRe + gainIm * gainIm;
    float c = (float) (gainRe / square);
    float s = (float) (-gainIm / square);
    for (int n = 0; n < measured[0].length; n++) {
      float re = measured[0][n] * c - measured[1][n] * s;
      measured[1][n] = measured[0][n] * s + measured[1][n] * c;
      measured[0][n] = re;
    }
  }
}
