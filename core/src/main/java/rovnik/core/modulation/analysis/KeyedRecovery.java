package rovnik.core.modulation.analysis;

import java.util.Arrays;
import java.util.Locale;
import java.util.function.DoubleUnaryOperator;
import rovnik.core.Refusal;
import rovnik.core.modulation.PulseShape;
import rovnik.core.modulation.SingleCarrier;
import rovnik.core.signal.BandTaker;
import rovnik.core.signal.SincSampler;

/**
 * Symbols of a carrier whose frequency is keyed. Decisions begin with the frequency behind a
 * filter, are gone over with the phase in mind, and the carrier that they make is held against the
 * measured one: both behind the same filter, so that errors are errors of the carrier alone. The
 * point of a symbol is where the carrier stands at its end, which of MSK are four.
 */
final class KeyedRecovery implements Recovered {
  /** Symbols at each end that only serve the filters; more of shapes that go on for long. */
  private static final int EDGE = 16;

  private static final int LONG_EDGE = 40;

  /** And those that not even a decision is made about. */
  private static final int BLIND = 4;

  /** Samples a symbol; more where the frequency jumps, which reaches far. */
  private static final double FINE = 8;

  private static final double FINEST = 32;

  /** The band is let through to here beyond the deviation, and fades out there, symbol rates. */
  private static final double PASSES = 0.6;

  private static final double STOPS = 1.0;

  /** Mean square error of levels, as a share of that of levels anywhere, beyond which none fit. */
  private static final double NO_LEVELS = 0.45;

  /** Power of the error as a share of the carrier's, beyond which its phase is another. */
  private static final double NO_PHASE = 0.3;

  /** An envelope that varies by more than its noise by so much is no keyed frequency's. */
  private static final double OWN_ENVELOPE = 0.12;

  /** The found middle lies so far from the band's, in symbol rates, that it is taken anew. */
  private static final double WORTH_AGAIN = 0.01;

  /** Errors of this share are a phase that slipped, if they are not those of noise. */
  private static final double SLIPPED = 0.1;

  /** And with this much noise many decisions are wrong. */
  private static final double MANY_WRONG = 0.45;

  /** Decisions and the carrier that they make take turns so often in noise. */
  private static final int ROUNDS = 3;

  /** With less than this share of signal no carrier is told from noise: Eb/N0 of 4 dB. */
  private static final double STILL_ONE_PIECE = 0.57;

  /** Noise leaves twice the mean square in all of what it leaves along the carrier. */
  private static final double LEAST_RATIO = 1.8;

  private static final double MOST_RATIO = 2.4;

  /** Error against what decisions found beside the carrier. */
  private static final double MOST_BESIDE = 1.3;

  private static final double EARLIER = 0.25;

  /** Points so near to one line tell gain from imbalance no more. */
  private static final double ON_A_LINE = 0.9;

  /** A format of least shift is keyed by a quarter of the rate, within this share. */
  private static final double LEAST_SHIFT = 0.3;

  private final SingleCarrier carrier;
  private final DoubleUnaryOperator filter;
  private final BandTaker taker;
  private final double seconds;
  private final int edge;
  private final int guard;
  private BandTaker.Band band;
  private KeyedPhase phase;
  private KeyedFit fit;
  private double centreHz;
  private int count;

  /** Symbols that the point of every other symbol is taken before its end. */
  private double everyOther;

  /** Whether what is left is noise. */
  private boolean inNoise;

  /** All symbols, with those at the ends. */
  private int[] all;

  static int guard(SingleCarrier carrier) {
    return edge(carrier) + BLIND;
  }

  private static int edge(SingleCarrier carrier) {
    return carrier.filter().bandLimited() ? LONG_EDGE : EDGE;
  }

  KeyedRecovery(
      SingleCarrier carrier, PulseShape measured, BandTaker taker, int samples, double rateHz) {
    this.carrier = carrier;
    this.filter = measured::response;
    this.taker = taker;
    this.seconds = samples / rateHz;
    this.edge = edge(carrier);
    this.guard = guard(carrier);
  }

  Symbols recover(double nearHz, double reachHz, int most) {
    double rate = carrier.symbolRateHz();
    count = Math.min(most, (int) Math.floor(seconds * rate) - 2 * guard - 1);
    if (count < 16) {
      throw new Refusal(
          "symbols",
          String.format(
              Locale.ROOT,
              "The record holds %d symbols, of which %d at each end are lost to the filter. Take %.3g s"
                  + " or more.",
              (int) (seconds * rate),
              guard,
              (2 * guard + 65) / rate));
    }
    double width = 2 * (carrier.deviationHz() + PASSES / 2 * rate);
    centreHz = taker.middleOfPowerHz(width, nearHz, reachHz);
    KeyedLevels levels = levels(centreHz);
    double middle = band.offsetHz() + levels.middle() * rate;
    if (Math.abs(levels.middle()) > WORTH_AGAIN && Math.abs(middle - nearHz) < reachHz + rate) {
      levels = levels(middle);
    }
    checkUse(levels.values());
    phase = new KeyedPhase(carrier, band);
    all = phase.decide(levels);
    fit = newFit();
    fit.start(phase.start());
    fit.fit(all, edge);
    boolean noisy = !phase.ofOnePiece();
    for (int i = 0; i < ROUNDS && noisy; i++) {
      int[] before = all;
      all = phase.again(fit.start(), all);
      noisy = !Arrays.equals(all, before);
      if (noisy) {
        fit.start(phase.start());
        fit.anew(all, edge);
      }
    }
    Symbols s = symbols();
    check(levels, s);
    return s;
  }

  /** The same with symbols that are known. */
  Symbols withKnown(Symbols s, int[] values) {
    if (Arrays.equals(values, s.values())) {
      return s;
    }
    System.arraycopy(values, 0, all, edge, count);
    fit.anew(all, edge);
    return symbols();
  }

  private KeyedFit newFit() {
    double rate = carrier.symbolRateHz();
    return new KeyedFit(carrier, band, this::response, 2 * (carrier.deviationHz() + PASSES * rate));
  }

  private double fine() {
    boolean smooth =
        carrier.filter().bandLimited() || carrier.filter().kind() == PulseShape.Kind.GAUSSIAN;
    return smooth ? FINE : FINEST;
  }

  private double response(double hz) {
    double beyond = (Math.abs(hz) - carrier.deviationHz()) / carrier.symbolRateHz() - PASSES;
    return beyond <= 0
        ? 1
        : beyond >= STOPS - PASSES ? 0 : (1 + Math.cos(Math.PI * beyond / (STOPS - PASSES))) / 2;
  }

  private KeyedLevels levels(double offsetHz) {
    double rate = carrier.symbolRateHz();
    band = taken(taker, offsetHz);
    double symbol = band.rateHz() / rate;
    Discriminator frequency =
        new Discriminator(band.re(), band.im(), band.samples(), symbol, filter);
    float[] y = frequency.values().clone();
    double mean = 0;
    for (int n = 0; n < frequency.samples(); n++) {
      mean += y[n] / frequency.samples();
    }
    for (int n = 0; n < y.length; n++) {
      y[n] -= (float) mean;
    }
    SymbolTiming t =
        SymbolTiming.of(y, new float[y.length], frequency.samples(), symbol, guard, count);
    // Steps of the phase lie between samples.
    double first = t.firstSample() + 0.5 - edge * t.samplesPerSymbol();
    return new KeyedLevels(
        carrier, filter, frequency, first, t.samplesPerSymbol(), count + 2 * edge);
  }

  private BandTaker.Band taken(BandTaker from, double offsetHz) {
    double half = carrier.deviationHz() + STOPS * carrier.symbolRateHz();
    double least = Math.max(fine() * carrier.symbolRateHz(), 4 * half);
    return from.take(offsetHz, half, least, this::response);
  }

  @Override
  public BandTaker.Band filtered(BandTaker other, Symbols s) {
    return taken(other, s.frequencyHz());
  }

  private void checkUse(int[] values) {
    int size = carrier.constellation().size();
    boolean[] used = new boolean[size];
    int different = 0;
    for (int v : values) {
      different += used[v] ? 0 : 1;
      used[v] = true;
    }
    if (different < size && values.length > 16 * size) {
      throw new Refusal(
          "format",
          carrier.format().label()
              + " does not fit: only "
              + different
              + " of its "
              + size
              + " levels are used. Choose one with "
              + (different < 3 ? "2" : "4")
              + ".");
    }
  }

  private void check(KeyedLevels levels, Symbols s) {
    double error = s.meanSquare();
    double along = 0;
    for (int k = 0; k < s.count(); k++) {
      double r = Math.hypot(s.re()[k], s.im()[k]) - Math.hypot(s.ideal().i()[k], s.ideal().q()[k]);
      along += r * r / s.count();
    }
    inNoise = inNoise(error, along);
    if (!(levels.share() < NO_LEVELS) && !inNoise) {
      throw new Refusal(
          "format",
          carrier.words()
              + " does not fit: the frequency stands on no levels. There may be only noise or a signal"
              + " of another kind; check symbol rate, deviation and format.");
    }
    double shift = fit.deviation / carrier.deviation();
    if (carrier.format().minimumShift() && Math.abs(shift - 1) > LEAST_SHIFT) {
      throw new Refusal(
          "format",
          String.format(
              Locale.ROOT,
              "%s does not fit: the frequency moves by %.3g times a quarter of the symbol rate. Choose"
                  + " 2-FSK, or correct the symbol rate.",
              carrier.format().label(),
              shift));
    }
    // Noise moves the magnitude by half of its power.
    double noise = Math.max(0, error - along);
    if (along - noise <= OWN_ENVELOPE && error > NO_PHASE && !inNoise) {
      throw new Refusal(
          "format",
          carrier.words()
              + " does not fit: the phase goes another way than the symbols say. Raise the level, or"
              + " check deviation, filter and symbol rate.");
    }
    if (along - noise > OWN_ENVELOPE) {
      throw new Refusal(
          "format",
          carrier.format().label()
              + " does not fit: the level comes and goes with the symbols. Choose a format with points"
              + " in the plane.");
    }
  }

  /**
   * Whether the error is what noise alone would leave: the same along the carrier and across, and
   * as much of it as the decisions found beside the carrier.
   */
  private boolean inNoise(double error, double along) {
    double beside = (1 - phase.coherence()) / phase.coherence();
    return phase.coherence() > STILL_ONE_PIECE
        && error > LEAST_RATIO * along
        && error < MOST_RATIO * along
        && error < MOST_BESIDE * beside;
  }

  /** Whether the phase went another way than the symbols say. */
  boolean slipped(Symbols s) {
    return s.meanSquare() > (inNoise ? MANY_WRONG : SLIPPED);
  }

  /**
   * At the symbols' ends; where all ends lie on one line, as of whole turns, every other one is
   * taken a quarter earlier, since there an imbalance is no gain (and at the ends it is no delay).
   */
  private Symbols symbols() {
    everyOther = 0;
    Symbols ends = symbolsThere();
    double re = 0;
    double im = 0;
    double power = 0;
    for (int k = 0; k < count; k++) {
      double i = ends.ideal().i()[k];
      double q = ends.ideal().q()[k];
      re += i * i - q * q;
      im += 2 * i * q;
      power += i * i + q * q;
    }
    if (Math.hypot(re, im) < ON_A_LINE * power) {
      return ends;
    }
    everyOther = EARLIER;
    return symbolsThere();
  }

  private Symbols symbolsThere() {
    double[] re = new double[count];
    double[] im = new double[count];
    double[] i = new double[count];
    double[] q = new double[count];
    double[] di = new double[count];
    double[] dq = new double[count];
    for (int k = 0; k < count; k++) {
      double at = end(k - (k % 2 == 1 ? everyOther : 0));
      re[k] = read(fit.measured[0], at);
      im[k] = read(fit.measured[1], at);
      i[k] = read(fit.ideal[0], at);
      q[k] = read(fit.ideal[1], at);
      di[k] = read(fit.slope[0], at);
      dq[k] = read(fit.slope[1], at);
    }
    ErrorModel model = new ErrorModel(new ErrorModel.Ideal(i, q, i, q, () -> di, () -> dq));
    double[] eRe = new double[count];
    double[] eIm = new double[count];
    for (int k = 0; k < count; k++) {
      eRe[k] = re[k] - i[k];
      eIm[k] = im[k] - q[k];
    }
    double frequencyHz = band.offsetHz() + fit.cyclesPerSample * band.rateHz();
    return new Symbols(
        re,
        im,
        Arrays.copyOfRange(all, edge, edge + count),
        model,
        model.fit(eRe, eIm, ErrorModel.ALL),
        frequencyHz,
        Math.atan2(fit.gainIm, fit.gainRe),
        (fit.first + edge * fit.symbol) / band.rateHz(),
        band.rateHz() / fit.symbol,
        Math.hypot(fit.gainRe, fit.gainIm),
        (frequencyHz - centreHz) / carrier.symbolRateHz());
  }

  /** Sample at the end of a symbol. */
  private double end(double k) {
    return fit.first + (edge + k + 0.5) * fit.symbol;
  }

  private double read(float[] x, double at) {
    double edge = band.samples() - SincSampler.REACH - 1.0;
    return SincSampler.at(x, Math.max(SincSampler.REACH, Math.min(edge, at)));
  }

  @Override
  public double power(Symbols s) {
    return s.gain() * s.gain();
  }

  @Override
  public double[][] path(Symbols s, int firstSymbol, int symbols, int per) {
    double[][] out = new double[2][symbols * per + 1];
    for (int i = 0; i < out[0].length; i++) {
      double at = end(firstSymbol + (double) i / per);
      out[0][i] = read(fit.measured[0], at);
      out[1][i] = read(fit.measured[1], at);
    }
    return out;
  }

  /**
   * What the frequency does.
   *
   * @param symbols of the way
   * @param per points a symbol
   */
  Keying keying(int symbols, int per) {
    double rate = band.rateHz() / fit.symbol;
    Discriminator measured = frequency(fit.measured);
    Discriminator ideal = frequency(fit.ideal);
    double[] level = new double[count];
    double[] should = new double[count];
    for (int k = 0; k < count; k++) {
      double at = fit.first + (edge + k) * fit.symbol;
      level[k] = rate * measured.at(at);
      should[k] = rate * ideal.at(at);
    }
    double[] way = new double[symbols * per + 1];
    for (int i = 0; i < way.length; i++) {
      way[i] = rate * measured.at(fit.first + (edge + (double) i / per) * fit.symbol);
    }
    return new Keying(level, should, way, per, rate * fit.deviation, rate * fit.deviationStandard);
  }

  private Discriminator frequency(float[][] z) {
    return new Discriminator(z[0], z[1], band.samples(), fit.symbol, filter);
  }
}
