package rovnik.core.modulation.analysis;

import rovnik.core.Refusal;
import rovnik.core.modulation.Constellation;
import rovnik.core.modulation.Format;
import rovnik.core.modulation.PulseShape;
import rovnik.core.modulation.SingleCarrier;
import rovnik.core.signal.BandTaker;
import rovnik.core.signal.SincSampler;
import rovnik.core.signal.Transforms;

/**
 * From samples of unknown timing, phase, frequency and level to symbols. Timing and its clock come
 * from the line that |y|^2 has at the symbol rate (Oerder and Meyr 1988), the carrier from the line
 * that a power of the symbols has (Viterbi and Viterbi 1983, over frequency); then decisions and
 * least squares over all symbols take turns.
 */
final class SymbolRecovery implements Recovered {
  /** Symbols at each end whose filters see the record's edge. */
  static int guard(PulseShape sent, PulseShape measured) {
    if (measured.bandLimited()) {
      return (int) Math.min(200, Math.max(20, Math.ceil(8 / measured.parameter())));
    }
    return sent.bandLimited() ? 24 : 6;
  }

  /** A coarse frequency is this good, in symbol rates. */
  private static final double COARSE = 0.08;

  /** Residual offsets are worth another filtering from here on, in symbol rates. */
  private static final double WORTH_AGAIN = 5e-4;

  /** And from here on, the timing and the carrier are looked for anew behind it. */
  private static final double FAR_OFF = 0.06;

  /** Lines of a power of the symbols that may be the carrier's: data that repeat have others. */
  private static final int CANDIDATES = 6;

  /** Phases that are tried where a power of the symbols is a poor guide. */
  private static final int PHASES = 6;

  /** Share of the error of points anywhere between others, beyond which another line is tried. */
  private static final double POOR = 0.4;

  private static final int ROUNDS = 12;

  /** How often an equalizer is trained anew by better decisions. */
  private static final int TRAININGS = 4;

  private static final double SETTLED = 1e-7;
  private static final double SETTLED_SHARE = 0.02;

  private final SingleCarrier carrier;
  private final Constellation points;
  private final PulseShape measured;
  private final BandTaker taker;
  private final double samplesSeconds;
  private final ReferenceShape reference;

  private BandTaker.Band band;
  private double firstSample;
  private double samplesPerSymbol;
  private double turnPerSymbol;
  private double phase;
  private double gain;
  private double centreHz;
  private int count;

  /** How far the filter was moved since candidates were found. */
  private double movedHz;

  /** Radians a symbol, the likeliest first; symbols at gain 1 that they were found with. */
  private double[] candidates = new double[0];

  /** Angle that was followed, by symbol; null if none was. */
  private double[] followed;

  private double[] rawRe;
  private double[] rawIm;

  SymbolRecovery(
      SingleCarrier carrier, PulseShape measured, BandTaker taker, int samples, double rateHz) {
    this.carrier = carrier;
    this.points = carrier.constellation();
    this.measured = measured;
    this.taker = taker;
    this.samplesSeconds = samples / rateHz;
    this.reference =
        ReferenceShape.of(carrier.filter(), measured, rateHz / 2 / carrier.symbolRateHz());
  }

  /**
   * Recovers symbols.
   *
   * @param nearHz where the carrier is expected
   * @param reachHz how far it may be from there
   * @param most symbols that are wanted
   */
  Symbols recover(double nearHz, double reachHz, int most) {
    double rate = carrier.symbolRateHz();
    centreHz = CarrierBand.centreHz(taker, carrier.filter(), rate, nearHz, reachHz);
    start(centreHz, most);
    double residual = turnPerSymbol / 2 / Math.PI * rate;
    if (Math.abs(residual) > FAR_OFF * rate) {
      start(band.offsetHz() + residual, most);
    } else if (Math.abs(residual) > WORTH_AGAIN * rate) {
      move(band.offsetHz() + residual);
    }
    Start first = new Start(firstSample, samplesPerSymbol, gain);
    Symbols best = turned(1);
    for (int i = 0; i < candidates.length && poor(best); i++) {
      firstSample = first.firstSample();
      samplesPerSymbol = first.samplesPerSymbol();
      gain = first.gain();
      aim(candidates[i]);
      Symbols other = turned(PHASES);
      best = other.meanSquare() < best.meanSquare() ? other : best;
    }
    double off = best.frequencyHz() - band.offsetHz();
    return Math.abs(off) > WORTH_AGAIN * rate ? centred(best) : best;
  }

  /** The same symbols behind a filter that is in the middle of the carrier. */
  private Symbols centred(Symbols s) {
    restore(s);
    move(s.frequencyHz());
    return settle(ROUNDS, null);
  }

  /** Puts the filter elsewhere; what is known of the carrier stays. */
  private void move(double offsetHz) {
    double before = band.offsetHz();
    band = CarrierBand.take(taker, offsetHz, measured, carrier.filter(), carrier.symbolRateHz());
    double moved = band.offsetHz() - before;
    double turn = 2 * Math.PI * moved / band.rateHz();
    phase -= turn * firstSample;
    turnPerSymbol -= turn * samplesPerSymbol;
    movedHz += moved;
  }

  /** Where the search for the carrier begins. */
  private record Start(double firstSample, double samplesPerSymbol, double gain) {}

  /** Points anywhere between others leave a sixth of the square of their distance. */
  private boolean poor(Symbols s) {
    return s.fit().left() > POOR * points.leastStep() * points.leastStep() / 6;
  }

  /**
   * Settles at each phase that the power leaves open, and keeps the best.
   *
   * @param finer phases between two of them: few points of many say little about the phase
   */
  private Symbols turned(int finer) {
    Format f = carrier.format();
    int tries = finer * Math.max(1, f.power() / f.symmetry());
    double found = phase;
    Start first = new Start(firstSample, samplesPerSymbol, gain);
    double turn = turnPerSymbol;
    Symbols best = null;
    for (int t = 0; t < tries; t++) {
      firstSample = first.firstSample();
      samplesPerSymbol = first.samplesPerSymbol();
      gain = first.gain();
      turnPerSymbol = turn;
      phase = found + 2 * Math.PI * t / (f.power() * finer);
      Symbols s = settle(tries > 1 ? 2 : ROUNDS, null);
      if (best == null || s.meanSquare() < best.meanSquare()) {
        best = s;
      }
    }
    if (tries > 1) {
      restore(best);
      best = settle(ROUNDS, null);
    }
    return best;
  }

  /**
   * The same behind an equalizer, which is trained by what the symbols should be unless it is
   * given. Where its weights change decisions it is trained again.
   */
  Equalized equalized(Symbols s, Equalizer e) {
    Symbols now = s;
    Weights w = null;
    int rounds = e.mode() == Equalizer.Mode.TRAINED ? TRAININGS : 1;
    BandTaker.Band bare = band;
    for (int round = 0; round < rounds; round++) {
      band = bare;
      w = e.mode() == Equalizer.Mode.HELD ? Weights.of(e.taps()) : trained(now, e.reach());
      band = CarrierBand.through(bare, w, now.frequencyHz(), now.symbolRateHz());
      restore(now);
      int[] before = now.values();
      now = settle(ROUNDS, null);
      if (java.util.Arrays.equals(before, now.values())) {
        break;
      }
    }
    return new Equalized(now, w);
  }

  /** Symbols behind an equalizer. */
  record Equalized(Symbols symbols, Weights weights) {}

  private Weights trained(Symbols s, int reach) {
    return Weights.trained(path(s, -reach, s.count() + 2 * reach, 2), s.ideal(), reach);
  }

  /**
   * The same with the phase followed: at each symbol the mean of the errors of those around it is
   * taken off.
   */
  Symbols tracked(Symbols s, int over) {
    int n = s.count();
    double[] re = new double[n + 1];
    double[] im = new double[n + 1];
    for (int k = 0; k < n; k++) {
      double u = s.ideal().i()[k];
      double v = s.ideal().q()[k];
      re[k + 1] = re[k] + s.re()[k] * u + s.im()[k] * v;
      im[k + 1] = im[k] + s.im()[k] * u - s.re()[k] * v;
    }
    double[] angle = new double[n];
    for (int k = 0; k < n; k++) {
      int from = Math.max(0, k - over / 2);
      int to = Math.min(n, k + over / 2 + 1);
      angle[k] = Math.atan2(im[to] - im[from], re[to] - re[from]);
    }
    restore(s);
    followed = angle;
    return settle(ROUNDS, null);
  }

  /** The same with symbols that are known, turned so that they fit. */
  Symbols withKnown(Symbols s, int[] values, double turn) {
    restore(s);
    phase += turn;
    return settle(ROUNDS, values);
  }

  /** The same decisions, all turned: they are where they were, and are not read again. */
  Symbols turned(Symbols s, int[] values, double turn) {
    if (java.util.Arrays.equals(values, s.values())) {
      return s;
    }
    int n = s.count();
    double[] re = new double[n];
    double[] im = new double[n];
    double c = Math.cos(turn);
    double d = Math.sin(turn);
    for (int k = 0; k < n; k++) {
      re[k] = s.re()[k] * c + s.im()[k] * d;
      im[k] = s.im()[k] * c - s.re()[k] * d;
    }
    ErrorModel model = new ErrorModel(ideal(values));
    double[] eRe = new double[n];
    double[] eIm = new double[n];
    miss(re, im, model, eRe, eIm);
    return new Symbols(
        re,
        im,
        values,
        model,
        model.fit(eRe, eIm, ErrorModel.ALL),
        s.frequencyHz(),
        s.phase() + turn,
        s.firstSeconds(),
        s.symbolRateHz(),
        s.gain(),
        s.offCentre());
  }

  @Override
  public double power(Symbols s) {
    // Few symbols of many points have not quite the mean power of all of them.
    double sum = 0;
    for (int v : s.values()) {
      sum += points.re(v) * points.re(v) + points.im(v) * points.im(v);
    }
    return s.gain() * s.gain() * reference.powerOfGain() * sum / s.count();
  }

  @Override
  public double[][] path(Symbols s, int firstSymbol, int symbols, int per) {
    restore(s);
    int points = symbols * per + 1;
    double[][] out = new double[2][points];
    double edge = Math.min(band.samples(), band.re().length) - SincSampler.REACH - 1.0;
    double turn = turnPerSymbol + carrier.format().turn();
    Turner turner = new Turner(-(phase + turn * firstSymbol), -turn / per, 1 / gain);
    double[] z = new double[2];
    for (int i = 0; i < points; i++) {
      double k = firstSymbol + (double) i / per;
      SincSampler.both(band.re(), band.im(), clamp(firstSample + k * samplesPerSymbol, edge), z);
      out[0][i] = z[0] * turner.cos - z[1] * turner.sin;
      out[1][i] = z[0] * turner.sin + z[1] * turner.cos;
      turner.next();
      if (followed != null) {
        double angle = followedAt(k);
        double c = Math.cos(angle);
        double d = Math.sin(angle);
        double x = out[0][i] * c + out[1][i] * d;
        out[1][i] = out[1][i] * c - out[0][i] * d;
        out[0][i] = x;
      }
    }
    return out;
  }

  @Override
  public BandTaker.Band filtered(BandTaker other, Symbols s) {
    return CarrierBand.take(
        other, s.frequencyHz(), measured, carrier.filter(), carrier.symbolRateHz());
  }

  private double followedAt(double symbol) {
    double at = Math.max(0, Math.min(followed.length - 1.0, symbol));
    int k = (int) Math.min(followed.length - 2.0, at);
    return followed[k] + (at - k) * Math.IEEEremainder(followed[k + 1] - followed[k], 2 * Math.PI);
  }

  private void restore(Symbols s) {
    firstSample = s.firstSeconds() * band.rateHz();
    samplesPerSymbol = band.rateHz() / s.symbolRateHz();
    turnPerSymbol =
        2 * Math.PI * (s.frequencyHz() - band.offsetHz()) / band.rateHz() * samplesPerSymbol;
    phase = s.phase();
    gain = s.gain();
    count = s.count();
  }

  private void start(double offsetHz, int most) {
    double rate = carrier.symbolRateHz();
    band = CarrierBand.take(taker, offsetHz, measured, carrier.filter(), rate);
    samplesPerSymbol = band.rateHz() / rate;
    int guard = guard(carrier.filter(), measured);
    int there = (int) Math.floor(samplesSeconds * rate) - 2 * guard - 1;
    count = Math.min(most, there);
    if (count < 16) {
      throw new Refusal(
          "symbols",
          String.format(
              java.util.Locale.ROOT,
              "The record holds %d symbols, of which %d at each end are lost to the filter. Take %.3g s"
                  + " or more.",
              (int) (samplesSeconds * rate),
              guard,
              (2 * guard + 65) / rate));
    }
    candidates = new double[0];
    movedHz = 0;
    if (carrier.format().offset()) {
      offsetStart(guard);
    } else {
      SymbolTiming t =
          SymbolTiming.of(band.re(), band.im(), band.samples(), samplesPerSymbol, guard, count);
      firstSample = t.firstSample();
      samplesPerSymbol = t.samplesPerSymbol();
      findCarrier();
    }
  }

  /** Frequency and phase from the line that a power of the symbols has. */
  private void findCarrier() {
    double[] re = new double[count];
    double[] im = new double[count];
    turnPerSymbol = 0;
    phase = 0;
    gain = 1;
    read(re, im);
    double power = 0;
    for (int k = 0; k < count; k++) {
      power += re[k] * re[k] + im[k] * im[k];
    }
    gain = Math.sqrt(power / count);
    int p = carrier.format().power();
    int length = Integer.highestOneBit(4 * count - 1);
    float[] x = new float[length];
    float[] y = new float[length];
    for (int k = 0; k < count; k++) {
      double a = re[k] / gain;
      double b = im[k] / gain;
      double pr = a;
      double pi = b;
      for (int i = 1; i < p; i++) {
        double t = pr * a - pi * b;
        pi = pr * b + pi * a;
        pr = t;
      }
      x[k] = (float) pr;
      y[k] = (float) pi;
    }
    Transforms.ofLength(length).forward(x, y);
    int reach = (int) Math.min(length / 2.0 - 2, COARSE * p * length);
    double[] most = new double[CANDIDATES];
    int[] place = new int[CANDIDATES];
    int found = 0;
    double before = 0;
    double here = magnitude(x, y, -reach, length);
    for (int k = -reach; k <= reach; k++) {
      double next = magnitude(x, y, k + 1, length);
      if (here >= before && here >= next) {
        int at = found;
        while (at > 0 && most[at - 1] < here) {
          at--;
        }
        if (at < CANDIDATES) {
          System.arraycopy(most, at, most, at + 1, CANDIDATES - at - 1);
          System.arraycopy(place, at, place, at + 1, CANDIDATES - at - 1);
          most[at] = here;
          place[at] = k;
          found = Math.min(CANDIDATES, found + 1);
        }
      }
      before = here;
      here = next;
    }
    rawRe = re;
    rawIm = im;
    candidates = new double[Math.max(1, found)];
    for (int i = 0; i < found; i++) {
      double cycles = (place[i] + fine(x, y, place[i], length)) / length;
      candidates[i] = 2 * Math.PI * cycles / p;
    }
    aim(candidates[0]);
  }

  /** Takes a frequency, and the phase that goes with it. */
  private void aim(double turnOfSymbol) {
    turnPerSymbol = turnOfSymbol;
    int p = carrier.format().power();
    // The phase at the middle of the record, where the frequency's own error does not count.
    double re0 = 0;
    double im0 = 0;
    Turner turner = new Turner(0, -turnPerSymbol, 1 / gain);
    for (int k = 0; k < count; k++) {
      double ar = rawRe[k] * turner.cos - rawIm[k] * turner.sin;
      double ai = rawRe[k] * turner.sin + rawIm[k] * turner.cos;
      turner.next();
      double pr = ar;
      double pi = ai;
      for (int i = 1; i < p; i++) {
        double t = pr * ar - pi * ai;
        pi = pr * ai + pi * ar;
        pr = t;
      }
      re0 += pr;
      im0 += pi;
    }
    double[] mean = points.mean(p);
    double turn = 2 * Math.PI * movedHz / band.rateHz();
    phase = (Math.atan2(im0, re0) - Math.atan2(mean[1], mean[0])) / p - turn * firstSample;
    turnPerSymbol -= turn * samplesPerSymbol;
  }

  /** Where between bins a line lies, by a parabola through the magnitudes. */
  private static double fine(float[] x, float[] y, int k, int length) {
    double a = magnitude(x, y, k - 1, length);
    double b = magnitude(x, y, k, length);
    double c = magnitude(x, y, k + 1, length);
    double curve = a - 2 * b + c;
    return curve < 0 ? Math.max(-0.5, Math.min(0.5, (a - c) / 2 / curve)) : 0;
  }

  private static double magnitude(float[] x, float[] y, int k, int length) {
    int i = Math.floorMod(k, length);
    return Math.sqrt(x[i] * (double) x[i] + y[i] * (double) y[i]);
  }

  /**
   * An offset format: its square has lines one symbol rate to both sides of twice the carrier,
   * whose phases tell the instant by their difference and the carrier by their sum.
   */
  private void offsetStart(int guard) {
    int n = band.samples();
    int length = Integer.highestOneBit(2 * n - 1);
    float[] x = new float[length];
    float[] y = new float[length];
    for (int i = 0; i < n; i++) {
      double a = band.re()[i];
      double b = band.im()[i];
      x[i] = (float) (a * a - b * b);
      y[i] = (float) (2 * a * b);
    }
    Transforms.ofLength(length).forward(x, y);
    double rateBins = length / samplesPerSymbol;
    int reach = (int) (2 * COARSE * rateBins);
    int best = 0;
    double most = -1;
    for (int k = -reach; k <= reach; k++) {
      double v = magnitude(x, y, (int) Math.rint(k + rateBins), length);
      v += magnitude(x, y, (int) Math.rint(k - rateBins), length);
      if (v > most) {
        most = v;
        best = k;
      }
    }
    int high = (int) Math.rint(best + rateBins);
    int low = (int) Math.rint(best - rateBins);
    double twice = (high + fine(x, y, high, length) + low + fine(x, y, low, length)) / 2.0 / length;
    double perSample = 2 * Math.PI * twice / 2;
    // Both lines at their own places, summed from the first symbol that counts on.
    double start = guard * samplesPerSymbol;
    int from = (int) Math.ceil(start);
    int to = (int) Math.min(n, start + count * samplesPerSymbol);
    double[] plus = new double[2];
    double[] minus = new double[2];
    double symbol = 2 * Math.PI / samplesPerSymbol;
    for (int i = from; i < to; i++) {
      double a = band.re()[i];
      double b = band.im()[i];
      double re = a * a - b * b;
      double im = 2 * a * b;
      add(plus, re, im, -(2 * perSample + symbol) * i);
      add(minus, re, im, -(2 * perSample - symbol) * i);
    }
    double anglePlus = Math.atan2(plus[1], plus[0]);
    double angleMinus = Math.atan2(minus[1], minus[0]);
    double instant = (angleMinus - anglePlus) / 2 / (2 * Math.PI);
    double carrierPhase = (angleMinus + anglePlus) / 4;
    firstSample = (guard + instant - Math.floor(instant)) * samplesPerSymbol;
    turnPerSymbol = perSample * samplesPerSymbol;
    phase = carrierPhase + perSample * firstSample;
    gain = 1;
    double power = 0;
    for (int i = from; i < to; i++) {
      power += band.re()[i] * band.re()[i] + band.im()[i] * band.im()[i];
    }
    gain = Math.sqrt(power / Math.max(1, to - from));
  }

  private static void add(double[] sum, double re, double im, double angle) {
    double c = Math.cos(angle);
    double s = Math.sin(angle);
    sum[0] += re * c - im * s;
    sum[1] += re * s + im * c;
  }

  /** Symbols with the carrier's turn, phase and gain taken off; each axis at its own instants. */
  private void read(double[] re, double[] im) {
    float[] x = band.re();
    float[] y = band.im();
    boolean offset = carrier.format().offset();
    double turn = turnPerSymbol + carrier.format().turn();
    double edge = Math.min(band.samples(), x.length) - SincSampler.REACH - 1.0;
    Turner turner = new Turner(-phase, -turn, 1 / gain);
    // Half a symbol later the carrier has turned on; the format's own turn stays with the symbol.
    double lateCos = Math.cos(turnPerSymbol / 2);
    double lateSin = -Math.sin(turnPerSymbol / 2);
    double[] z = new double[2];
    for (int k = 0; k < count; k++) {
      double at = clamp(firstSample + k * samplesPerSymbol, edge);
      double c = turner.cos;
      double s = turner.sin;
      SincSampler.both(x, y, at, z);
      re[k] = z[0] * c - z[1] * s;
      if (offset) {
        SincSampler.both(x, y, clamp(at + samplesPerSymbol / 2, edge), z);
        double later = c * lateCos - s * lateSin;
        s = c * lateSin + s * lateCos;
        c = later;
      }
      im[k] = z[0] * s + z[1] * c;
      turner.next();
    }
    if (followed != null) {
      for (int k = 0; k < count; k++) {
        double c = Math.cos(followed[k]);
        double s = Math.sin(followed[k]);
        double a = re[k] * c + im[k] * s;
        im[k] = im[k] * c - re[k] * s;
        re[k] = a;
      }
    }
  }

  private static double clamp(double at, double edge) {
    // Of no number at all this is the beginning.
    return at > SincSampler.REACH ? Math.min(edge, at) : SincSampler.REACH;
  }

  private Symbols settle(int rounds, int[] known) {
    double[] re = new double[count];
    double[] im = new double[count];
    int[] values = known == null ? new int[count] : known.clone();
    double[] eRe = new double[count];
    double[] eIm = new double[count];
    ErrorModel.Fit fit = null;
    ErrorModel model = null;
    int[] before = null;
    boolean settled = false;
    for (int round = 0; round < rounds && !settled; round++) {
      read(re, im);
      if (known == null) {
        System.arraycopy(re, 0, eRe, 0, count);
        System.arraycopy(im, 0, eIm, 0, count);
        if (model != null) {
          // What is known of the causes does not stand in a decision's way.
          model.takeOff(fit.value(), ErrorModel.FOLLOWED, ErrorModel.ALL, eRe, eIm);
        }
        for (int k = 0; k < count; k++) {
          values[k] = points.decide(eRe[k], eIm[k]);
        }
      }
      if (!java.util.Arrays.equals(values, before)) {
        model = new ErrorModel(ideal(values));
        before = values.clone();
      }
      miss(re, im, model, eRe, eIm);
      // Instants and the finer causes wait until gain and phase have come near, as after one round.
      int causes = round == 0 && rounds > 1 ? ErrorModel.LATE : ErrorModel.ALL;
      fit = padded(model.fit(eRe, eIm, causes));
      follow(fit.value());
      settled = causes == ErrorModel.ALL && settled(fit);
    }
    if (settled) {
      // So little was followed that the symbols need not be read again.
      model.takeOff(fit.value(), 0, ErrorModel.FOLLOWED, re, im);
      fit = fit.without(ErrorModel.FOLLOWED);
    } else {
      read(re, im);
      miss(re, im, model, eRe, eIm);
      fit = model.fit(eRe, eIm, ErrorModel.ALL);
    }
    double frequencyHz =
        band.offsetHz() + turnPerSymbol / 2 / Math.PI * band.rateHz() / samplesPerSymbol;
    return new Symbols(
        re,
        im,
        values,
        model,
        fit,
        frequencyHz,
        phase,
        firstSample / band.rateHz(),
        band.rateHz() / samplesPerSymbol,
        gain,
        (frequencyHz - centreHz) / carrier.symbolRateHz());
  }

  private void miss(double[] re, double[] im, ErrorModel model, double[] eRe, double[] eIm) {
    ErrorModel.Ideal ideal = model.ideal();
    for (int k = 0; k < count; k++) {
      eRe[k] = re[k] - ideal.i()[k];
      eIm[k] = im[k] - ideal.q()[k];
    }
  }

  /** What was followed is small beside what it is uncertain by. */
  private static boolean settled(ErrorModel.Fit fit) {
    for (int a = 0; a < ErrorModel.FOLLOWED; a++) {
      if (Math.abs(fit.value()[a]) > Math.max(SETTLED, SETTLED_SHARE * fit.standard()[a])) {
        return false;
      }
    }
    return true;
  }

  private static ErrorModel.Fit padded(ErrorModel.Fit f) {
    return new ErrorModel.Fit(
        java.util.Arrays.copyOf(f.value(), ErrorModel.ALL),
        java.util.Arrays.copyOf(f.standard(), ErrorModel.ALL),
        f.left());
  }

  /** Takes what was found of gain, phase, frequency, instant and clock into the reading. */
  private void follow(double[] v) {
    double half = Math.max(1, count - 1) / 2.0;
    double turn = v[ErrorModel.FREQUENCY] / half;
    double late = bounded(v[ErrorModel.LATE]);
    double clock = bounded(v[ErrorModel.CLOCK]) / half;
    gain *= 1 + Math.max(-0.5, Math.min(0.5, v[ErrorModel.GAIN]));
    phase += v[ErrorModel.PHASE] - turn * half + (late - clock * half) * turnPerSymbol;
    turnPerSymbol += turn + clock * turnPerSymbol;
    firstSample += (late - clock * half) * samplesPerSymbol;
    samplesPerSymbol *= 1 + clock;
  }

  private static double bounded(double symbols) {
    return Math.max(-0.25, Math.min(0.25, symbols));
  }

  private ErrorModel.Ideal ideal(int[] values) {
    double[] i = new double[count];
    double[] q = new double[count];
    double turn = carrier.format().turn();
    for (int k = 0; k < count; k++) {
      i[k] = points.re(values[k]);
      q[k] = points.im(values[k]);
    }
    double[] iOwn = reference.atSymbols(i);
    double[] qOwn = reference.atSymbols(q);
    boolean offset = carrier.format().offset();
    return new ErrorModel.Ideal(
        iOwn,
        qOwn,
        offset ? reference.after(i) : iOwn,
        offset ? reference.before(q) : qOwn,
        reference.slopeAtSymbols(i),
        reference.slopeAtSymbols(q));
  }
}
