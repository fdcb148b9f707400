package rovnik.core.modulation.analysis;

import java.util.Arrays;
import java.util.Locale;
import rovnik.core.Refusal;
import rovnik.core.modulation.Constellation;
import rovnik.core.modulation.Format;
import rovnik.core.modulation.PulseShape;
import rovnik.core.modulation.SingleCarrier;
import rovnik.core.signal.BandTaker;

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

  /** Residual offsets are worth another filtering from here on, in symbol rates. */
  private static final double WORTH_AGAIN = 5e-4;

  /** And from here on, the timing and the carrier are looked for anew behind it. */
  private static final double FAR_OFF = 0.06;

  /** Phases that are tried where a power of the symbols is a poor guide. */
  private static final int PHASES = 6;

  /** Share of the error of points anywhere between others, beyond which another line is tried. */
  private static final double POOR = 0.4;

  private static final int ROUNDS = 12;

  /** How often an equalizer is trained anew by better decisions. */
  private static final int TRAININGS = 4;

  /** What is followed is of first order: its square, 80 dB down, is what is left of it. */
  private static final double SETTLED = 1e-4;

  private static final double SETTLED_SHARE = 0.02;

  private final SingleCarrier carrier;
  private final Constellation points;
  private final PulseShape measured;
  private final BandTaker taker;
  private final double samplesSeconds;
  private final ReferenceShape reference;
  private final SymbolGrid grid;
  private final CarrierSearch search;
  private double centreHz;

  SymbolRecovery(
      SingleCarrier carrier, PulseShape measured, BandTaker taker, int samples, double rateHz) {
    this.carrier = carrier;
    this.points = carrier.constellation();
    this.measured = measured;
    this.taker = taker;
    this.samplesSeconds = samples / rateHz;
    this.grid = new SymbolGrid(carrier.format());
    this.search = new CarrierSearch(carrier.format(), points.mean(carrier.format().power()), grid);
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
    double residual = grid.turnPerSymbol / 2 / Math.PI * rate;
    if (Math.abs(residual) > FAR_OFF * rate) {
      start(grid.band().offsetHz() + residual, most);
    } else if (Math.abs(residual) > WORTH_AGAIN * rate) {
      move(grid.band().offsetHz() + residual);
    }
    Start first = start();
    Symbols best = turned(1);
    for (int i = 0; i < search.candidates() && poor(best); i++) {
      go(first);
      search.aim(i);
      Symbols other = turned(PHASES);
      best = other.meanSquare() < best.meanSquare() ? other : best;
    }
    double off = best.frequencyHz() - grid.band().offsetHz();
    return Math.abs(off) > WORTH_AGAIN * rate ? centred(best) : best;
  }

  /** The same symbols behind a filter that is in the middle of the carrier. */
  private Symbols centred(Symbols s) {
    grid.restore(s);
    move(s.frequencyHz());
    return settle(ROUNDS, null);
  }

  /** Puts the filter elsewhere; what is known of the carrier stays. */
  private void move(double offsetHz) {
    search.moved(grid.moveTo(taken(taker, offsetHz)));
  }

  private BandTaker.Band taken(BandTaker from, double offsetHz) {
    return CarrierBand.take(from, offsetHz, measured, carrier.filter(), carrier.symbolRateHz());
  }

  /** Where the search for the carrier begins. */
  private record Start(double firstSample, double samplesPerSymbol, double gain) {}

  private Start start() {
    return new Start(grid.firstSample, grid.samplesPerSymbol, grid.gain);
  }

  private void go(Start to) {
    grid.firstSample = to.firstSample();
    grid.samplesPerSymbol = to.samplesPerSymbol();
    grid.gain = to.gain();
  }

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
    double found = grid.phase;
    Start first = start();
    double turn = grid.turnPerSymbol;
    Symbols best = null;
    for (int t = 0; t < tries; t++) {
      go(first);
      grid.turnPerSymbol = turn;
      grid.phase = found + 2 * Math.PI * t / (f.power() * finer);
      Symbols s = settle(tries > 1 ? 2 : ROUNDS, null);
      if (best == null || s.meanSquare() < best.meanSquare()) {
        best = s;
      }
    }
    if (tries > 1) {
      grid.restore(best);
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
    BandTaker.Band bare = grid.band();
    for (int round = 0; round < rounds; round++) {
      grid.in(bare);
      w = e.mode() == Equalizer.Mode.HELD ? Weights.of(e.taps()) : trained(now, e.reach());
      grid.in(CarrierBand.through(bare, w, now.frequencyHz(), now.symbolRateHz()));
      grid.restore(now);
      int[] before = now.values();
      now = settle(ROUNDS, null);
      if (Arrays.equals(before, now.values())) {
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
    grid.restore(s);
    grid.followed = angle;
    return settle(ROUNDS, null);
  }

  /** The same with symbols that are known, turned so that they fit. */
  Symbols withKnown(Symbols s, int[] values, double turn) {
    grid.restore(s);
    grid.phase += turn;
    return settle(ROUNDS, values);
  }

  /** The same decisions, all turned: they are where they were, and are not read again. */
  Symbols turned(Symbols s, int[] values, double turn) {
    if (Arrays.equals(values, s.values())) {
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
    grid.restore(s);
    return grid.path(firstSymbol, symbols, per);
  }

  @Override
  public BandTaker.Band filtered(BandTaker other, Symbols s) {
    return taken(other, s.frequencyHz());
  }

  private void start(double offsetHz, int most) {
    double rate = carrier.symbolRateHz();
    BandTaker.Band band = taken(taker, offsetHz);
    grid.in(band);
    grid.samplesPerSymbol = band.rateHz() / rate;
    int guard = guard(carrier.filter(), measured);
    int there = (int) Math.floor(samplesSeconds * rate) - 2 * guard - 1;
    grid.count = Math.min(most, there);
    if (grid.count < 16) {
      throw new Refusal(
          "symbols",
          String.format(
              Locale.ROOT,
              "The record holds %d symbols, of which %d at each end are lost to the filter. Take %.3g s"
                  + " or more.",
              (int) (samplesSeconds * rate),
              guard,
              (2 * guard + 65) / rate));
    }
    if (carrier.format().offset()) {
      search.findOffset(guard);
    } else {
      SymbolTiming t =
          SymbolTiming.of(
              band.re(), band.im(), band.samples(), grid.samplesPerSymbol, guard, grid.count);
      grid.firstSample = t.firstSample();
      grid.samplesPerSymbol = t.samplesPerSymbol();
      search.find();
    }
  }

  private Symbols settle(int rounds, int[] known) {
    int count = grid.count;
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
      grid.read(re, im);
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
      if (!Arrays.equals(values, before)) {
        model = new ErrorModel(ideal(values));
        before = values.clone();
      }
      miss(re, im, model, eRe, eIm);
      // Instants and the finer causes wait until gain and phase have come near, as after one round.
      int causes = round == 0 && rounds > 1 ? ErrorModel.LATE : ErrorModel.ALL;
      fit = padded(model.fit(eRe, eIm, causes));
      grid.follow(fit.value());
      settled = causes == ErrorModel.ALL && settled(fit);
    }
    if (settled) {
      // So little was followed that the symbols need not be read again.
      model.takeOff(fit.value(), 0, ErrorModel.FOLLOWED, re, im);
      fit = fit.without(ErrorModel.FOLLOWED);
    } else {
      grid.read(re, im);
      miss(re, im, model, eRe, eIm);
      fit = model.fit(eRe, eIm, ErrorModel.ALL);
    }
    double frequencyHz = grid.frequencyHz();
    return new Symbols(
        re,
        im,
        values,
        model,
        fit,
        frequencyHz,
        grid.phase,
        grid.firstSample / grid.band().rateHz(),
        grid.band().rateHz() / grid.samplesPerSymbol,
        grid.gain,
        (frequencyHz - centreHz) / carrier.symbolRateHz());
  }

  private void miss(double[] re, double[] im, ErrorModel model, double[] eRe, double[] eIm) {
    ErrorModel.Ideal ideal = model.ideal();
    for (int k = 0; k < re.length; k++) {
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
        Arrays.copyOf(f.value(), ErrorModel.ALL),
        Arrays.copyOf(f.standard(), ErrorModel.ALL),
        f.left());
  }

  private ErrorModel.Ideal ideal(int[] values) {
    int count = values.length;
    double[] i = new double[count];
    double[] q = new double[count];
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
        () -> reference.slopeAtSymbols(i),
        () -> reference.slopeAtSymbols(q));
  }
}
