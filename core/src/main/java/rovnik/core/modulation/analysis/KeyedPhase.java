package rovnik.core.modulation.analysis;

import rovnik.core.modulation.Constellation;
import rovnik.core.modulation.PhasePulse;
import rovnik.core.modulation.SingleCarrier;
import rovnik.core.signal.BandTaker;

/**
 * Decides symbols of a keyed carrier by its phase: each by where it and the next would lead to,
 * with the frequency, the deviation and, in strong noise, the instants sought on the way. Time is
 * in samples of the band.
 */
final class KeyedPhase {
  /** Points of a symbol that a decision looks at. */
  private static final int LOOKS = 4;

  /** Share of an error of the phase that the next decision takes into account. */
  private static final double FOLLOWS = 0.15;

  /** A carrier with less noise than this share of signal in all is not tried otherwise. */
  private static final double OF_ONE_PIECE = 0.85;

  /** Decisions that follow a phase pull in a frequency this far away, in symbol rates. */
  private static final double PULLS = 0.012;

  private static final int AROUND = 3;

  private static final int PASSES = 3;

  /** Instants in a symbol that are tried, and symbols that they are tried on. */
  private static final int INSTANTS = 4;

  private static final int STRETCH = 300;

  private final SingleCarrier carrier;
  private final PhasePulse pulse;
  private final BandTaker.Band band;

  // Of one decision: what is measured, and how far this symbol and the next have turned by then.
  private final double[] lookRe = new double[2 * LOOKS];
  private final double[] lookIm = new double[2 * LOOKS];
  private final double[] ofThis = new double[2 * LOOKS];
  private final double[] ofNext = new double[2 * LOOKS];

  private double first;
  private double symbol;
  private double deviation;
  private double cyclesPerSample;

  /** Share of the power that the phase of the decisions went along with, 1 of a clean carrier. */
  private double coherence;

  /**
   * What decisions by phase begin with.
   *
   * @param first sample of the first symbol
   * @param symbol samples long
   * @param deviation in symbol rates
   */
  record Start(double first, double symbol, double deviation, double cyclesPerSample) {}

  Start start() {
    return new Start(first, symbol, deviation, cyclesPerSample);
  }

  private void start(Start s) {
    first = s.first();
    symbol = s.symbol();
    deviation = s.deviation();
    cyclesPerSample = s.cyclesPerSample();
  }

  KeyedPhase(SingleCarrier carrier, BandTaker.Band band) {
    this.carrier = carrier;
    this.pulse = new PhasePulse(carrier.filter());
    this.band = band;
  }

  double coherence() {
    return coherence;
  }

  /** Turns of the phase that each symbol makes, at a deviation of one symbol rate, cycles. */
  static double[] turns(SingleCarrier carrier, int[] values) {
    Constellation levels = carrier.constellation();
    double[] out = new double[values.length];
    for (int k = 0; k < out.length; k++) {
      out[k] = levels.re(values[k]) / levels.largest();
    }
    return out;
  }

  /** Phase at an instant, cycles at a deviation of one symbol rate, of symbols from one on. */
  static double turned(PhasePulse pulse, double[] turns, double time, int from, int to) {
    return pulse.turned(turns, time, Math.max(0, from), Math.min(turns.length - 1, to));
  }

  /** Goes over the decisions with the phase in mind. */
  int[] decide(KeyedLevels levels) {
    first = levels.first();
    symbol = levels.symbol();
    byPhase(levels.values());
    double middle = cyclesPerSample;
    int[] own = followed(levels.values());
    if (ofOnePiece()) {
      return own;
    }
    Start here = start();
    double before = coherence;
    start(found(levels, middle));
    int[] values = levels.values();
    for (int i = 0; i < PASSES; i++) {
      values = followed(values);
    }
    if (coherence >= before) {
      return values;
    }
    start(here);
    coherence = before;
    return own;
  }

  /** Whether so little noise is beside the carrier that nothing else need be tried. */
  boolean ofOnePiece() {
    return coherence > OF_ONE_PIECE;
  }

  /** The same again, from instants and a carrier that are better known now. */
  int[] again(Start better, int[] values) {
    start(better);
    return followed(values);
  }

  /**
   * Where noise is strong, frequency and instants that the levels tell may be far off. Others are
   * tried on a stretch in the middle, with the clock and the deviation that should be; the one is
   * taken that the carrier is most of one piece with.
   */
  private Start found(KeyedLevels levels, double byPhase) {
    int n = levels.values().length;
    int from = Math.max(0, (n - STRETCH) / 2);
    int to = Math.min(n, from + STRETCH);
    double told = band.rateHz() / carrier.symbolRateHz();
    double centre = levels.first() + n / 2 * levels.symbol();
    Start best = null;
    double most = -1;
    for (int t = -1; t < INSTANTS; t++) {
      double symbol = t < 0 ? levels.symbol() : told;
      double first = centre - n / 2 * symbol + Math.max(0, t) * symbol / INSTANTS;
      for (int i = -AROUND - 1; i <= AROUND; i++) {
        double cycles = (levels.middle() + i * PULLS) / levels.symbol();
        start(new Start(first, symbol, carrier.deviation(), i < -AROUND ? byPhase : cycles));
        int[] values = levels.values();
        for (int pass = 0; pass < 2; pass++) {
          values = followed(values, from, to);
        }
        if (coherence > most) {
          most = coherence;
          best = new Start(first, symbol, carrier.deviation(), cyclesPerSample);
        }
      }
    }
    return best;
  }

  /** Angle at the end of each symbol at a deviation of one symbol rate. */
  private double[] angles(double[] turns) {
    int reach = (int) Math.ceil(pulse.reach());
    double[] out = new double[turns.length];
    double done = 0;
    for (int k = 0; k < out.length; k++) {
      int from = k - reach;
      done += from > 0 ? turns[from - 1] : 0;
      out[k] = 2 * Math.PI * (done + turned(pulse, turns, k + 0.5, from, k + reach + 1));
    }
    return out;
  }

  /**
   * Takes frequency and deviation from where the phase has gone over all symbols: what a filter
   * rounds off at each of them does not add up.
   */
  private void byPhase(int[] values) {
    int samples = band.samples();
    double[] angle = new double[samples];
    for (int n = 1; n < samples; n++) {
      double c = band.re()[n] * band.re()[n - 1] + band.im()[n] * band.im()[n - 1];
      double s = band.im()[n] * band.re()[n - 1] - band.re()[n] * band.im()[n - 1];
      angle[n] = angle[n - 1] + Math.atan2(s, c);
    }
    double[] strayed = new double[values.length];
    for (int k = 0; k < strayed.length; k++) {
      double at = Math.max(0, Math.min(samples - 2.0, first + (k + 0.5) * symbol));
      int n = (int) at;
      strayed[k] = angle[n] + (at - n) * (angle[n + 1] - angle[n]);
    }
    cyclesPerSample = 0;
    deviation = 0;
    follow(values, strayed, 0, strayed.length);
  }

  /** Takes into frequency and deviation what the phase strayed by. */
  private void follow(int[] values, double[] strayed, int begin, int end) {
    double[] angles = angles(turns(carrier, values));
    LeastSquares sum = new LeastSquares(3);
    for (int k = begin; k < end; k++) {
      sum.add(new double[] {1, k, angles[k]}, strayed[k]);
    }
    double[] f = sum.solve().factor();
    cyclesPerSample += f[1] / symbol / (2 * Math.PI);
    deviation += f[2];
  }

  /**
   * Decides symbol by symbol by the phase that this one and the next would lead to: what the
   * frequency alone got wrong would turn all that follows. Frequency and deviation follow.
   */
  int[] followed(int[] values) {
    return followed(values, 0, values.length);
  }

  /** The same of the symbols of a stretch. */
  int[] followed(int[] values, int begin, int end) {
    double[] turns = turns(carrier, values);
    Constellation levels = carrier.constellation();
    int[] out = values.clone();
    int size = levels.size();
    int reach = (int) Math.ceil(pulse.reach());
    double done = 0;
    double theta = Double.NaN;
    double[] strayed = new double[turns.length];
    double along = 0;
    double power = 0;
    for (int k = begin; k + 1 < end; k++) {
      double best = Double.NEGATIVE_INFINITY;
      double bestRe = 1;
      double bestIm = 0;
      int bestValue = out[k];
      double next = turns[k + 1];
      int from = k - reach;
      if (from > 0) {
        done += turns[from - 1];
        done -= Math.rint(done * deviation) / deviation;
      }
      turns[k] = 0;
      turns[k + 1] = 0;
      look(k, done, turns, from, reach);
      for (int i = 0; i < LOOKS; i++) {
        power += lookRe[i] * lookRe[i] + lookIm[i] * lookIm[i];
      }
      for (int v = 0; v < size * size; v++) {
        double here = levels.re(v / size) / levels.largest();
        double then = levels.re(v % size) / levels.largest();
        double re = 0;
        double im = 0;
        for (int i = 0; i < 2 * LOOKS; i++) {
          double angle = 2 * Math.PI * deviation * (here * ofThis[i] + then * ofNext[i]);
          double c = Math.cos(angle);
          double s = Math.sin(angle);
          re += lookRe[i] * c + lookIm[i] * s;
          im += lookIm[i] * c - lookRe[i] * s;
        }
        double metric =
            Double.isNaN(theta) ? Math.hypot(re, im) : re * Math.cos(theta) + im * Math.sin(theta);
        if (metric > best) {
          best = metric;
          bestValue = v / size;
          bestRe = re;
          bestIm = im;
        }
      }
      turns[k] = levels.re(bestValue) / levels.largest();
      turns[k + 1] = next;
      out[k] = bestValue;
      double angle = Math.atan2(bestIm, bestRe);
      theta =
          Double.isNaN(theta)
              ? angle
              : theta + FOLLOWS * Math.IEEEremainder(angle - theta, 2 * Math.PI);
      strayed[k] = theta;
      along += best;
    }
    coherence = along * along / (4.0 * LOOKS * (end - begin - 1) * power);
    strayed[end - 1] = theta;
    follow(out, strayed, begin, end);
    return out;
  }

  /** What is measured at the looks of a decision, all that is known of the phase taken off. */
  private void look(int k, double done, double[] turns, int from, int reach) {
    for (int i = 0; i < 2 * LOOKS; i++) {
      double t = k - 0.5 + (i + 0.5) / LOOKS;
      int n = (int) Math.rint(first + t * symbol);
      lookRe[i] = 0;
      lookIm[i] = 0;
      if (n < 0 || n >= band.samples()) {
        continue;
      }
      double at = (n - first) / symbol;
      double cycles =
          deviation * (done + turned(pulse, turns, at, from, k + 1 + (i < LOOKS ? 0 : reach)))
              + cyclesPerSample * (n - first);
      double c = Math.cos(2 * Math.PI * cycles);
      double s = Math.sin(2 * Math.PI * cycles);
      lookRe[i] = band.re()[n] * c + band.im()[n] * s;
      lookIm[i] = band.im()[n] * c - band.re()[n] * s;
      ofThis[i] = pulse.at(at - k);
      ofNext[i] = pulse.at(at - k - 1);
    }
  }
}
