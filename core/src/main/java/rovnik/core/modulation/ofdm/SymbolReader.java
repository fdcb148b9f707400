package rovnik.core.modulation.ofdm;

import java.util.Arrays;
import rovnik.core.modulation.ofdm.SymbolPlan.Role;
import rovnik.core.signal.ComplexFft;
import rovnik.core.signal.Transforms;

/**
 * Reads the symbols of one frame: carrier, clock and channel are found by its training and its
 * pilots, then from all that was decided, until nothing is left to be turned.
 */
final class SymbolReader {
  private static final int ROUNDS = 4;

  /** The first of them, in which points far out may be taken for others. */
  private static final int COARSE = 2;

  /** Over a frame, in radians and samples: far below what can be seen. */
  private static final double NOTHING = 1e-5;

  /** After so many samples the turn is worked out anew. */
  private static final int EXACT = 256;

  /** How quickly the timing of the first round follows, and its change from symbol to symbol. */
  private static final double FOLLOW = 0.5;

  private static final double FOLLOW_CHANGE = 0.1;

  /**
   * So many pilots tell the timing of the first rounds better than points that may be wrong: while
   * a clock is off, tones far out smear into each other.
   */
  private static final int MANY_PILOTS = 16;

  private final ChannelSamples samples;
  private final OfdmSettings settings;
  private final double rateHz;
  private final ComplexFft fft;
  private final int transform;
  private final int[] tones;
  private final int[] bins;
  private final float[] fftRe;
  private final float[] fftIm;
  private final ToneChannel channel;

  // Of the frame that is read
  private FramePlan plan;
  private double first;
  private double offset;
  private double clock;
  private Taken taken;
  private double[] re;
  private double[] im;
  private double midRe;
  private double midIm;

  /**
   * @param plan what is read; frames with other data but the same tones can be read later
   */
  SymbolReader(ChannelSamples samples, OfdmSettings settings, FramePlan plan) {
    this.samples = samples;
    this.settings = settings;
    this.rateHz = samples.rateHz();
    this.plan = plan;
    this.transform = plan.transform();
    this.tones = plan.tones();
    this.fft = Transforms.ofLength(transform);
    this.fftRe = new float[transform];
    this.fftIm = new float[transform];
    this.channel = new ToneChannel(plan);
    this.bins = new int[tones.length];
    Arrays.setAll(bins, k -> Math.floorMod(tones[k], transform));
  }

  /** What samples were taken; the same are not taken twice. */
  private record Taken(double first, double offset, double clock, int head, int length) {}

  /** One round over all symbols. */
  static final class Round {
    final OfdmPacket.Grid values;
    final OfdmPacket.Grid ideal;
    final double[] phase;
    final double[] slope;
    final double[] midRe;
    final double[] midIm;

    Round(int symbols, int tones) {
      values = OfdmPacket.Grid.of(symbols, tones);
      ideal = OfdmPacket.Grid.of(symbols, tones);
      phase = new double[symbols];
      slope = new double[symbols];
      midRe = new double[symbols];
      midIm = new double[symbols];
    }
  }

  /** Takes the preamble of a frame, and what its tones pass from there. */
  void begin(FramePlan preamble, PacketFinder.Found found, int length) {
    plan = preamble;
    first = found.training();
    offset = found.offset();
    clock = 0;
    take(length);
    train();
  }

  /** The same samples with a training that was learned. */
  void trainAgain(FramePlan known) {
    plan = known;
    train();
  }

  /**
   * By how many samples the frame begins later than it was taken for, by its channel.
   *
   * @param signed the signs of its training are known
   */
  double later(boolean signed) {
    return channel.laterBy(signed);
  }

  /** Reads the data of a frame that has begun. */
  Round data(FramePlan whole) {
    plan = whole;
    int length = plan.length();
    Round round = new Round(0, tones.length);
    for (int r = 0; r < ROUNDS; r++) {
      take(length);
      train();
      round = round(r);
      if (r < ROUNDS - 1 && !correct(round, length) && r > 0) {
        break; // nothing is left to be turned
      }
    }
    if (settings.estimate() == OfdmSettings.Estimate.TRAINING_AND_DATA) {
      trainByData(round);
      round = round(ROUNDS);
    }
    return round;
  }

  double first() {
    return first;
  }

  double clock() {
    return clock;
  }

  /** Where the carrier is, from the centre of the record. */
  double carrierHz() {
    return samples.offsetHz() + offset * rateHz / (2 * Math.PI);
  }

  /** When the frame begins, from the first sample that counts. */
  double beginsSeconds() {
    return samples.seconds(first - plan.head());
  }

  ToneChannel channel() {
    return channel;
  }

  /** What a tone is in the symbol that was transformed last. */
  double re(int k) {
    return fftRe[bins[k]];
  }

  double im(int k) {
    return fftIm[bins[k]];
  }

  /** Power of any tone there. */
  double powerOf(int tone) {
    int bin = Math.floorMod(tone, transform);
    return (double) fftRe[bin] * fftRe[bin] + (double) fftIm[bin] * fftIm[bin];
  }

  /** Takes the samples of the frame anew, at its clock and without its offset. */
  private void take(int length) {
    int head = plan.head();
    Taken wanted = new Taken(first, offset, clock, head, length);
    if (wanted.equals(taken)) {
      return;
    }
    taken = wanted;
    re = new double[head + length];
    im = new double[head + length];
    double step = 1 + clock;
    samples.read(first - head * step, clock, re, im);
    double turnRe = Math.cos(offset * step);
    double turnIm = Math.sin(offset * step);
    for (int from = 0; from < re.length; from += EXACT) {
      double angle = offset * (from - head) * step;
      double c = Math.cos(angle);
      double s = Math.sin(angle);
      for (int n = from; n < Math.min(re.length, from + EXACT); n++) {
        double x = re[n] * c + im[n] * s;
        im[n] = im[n] * c - re[n] * s;
        re[n] = x;
        double next = c * turnRe - s * turnIm;
        s = c * turnIm + s * turnRe;
        c = next;
      }
    }
  }

  /** Transforms the symbol at a place. */
  void transform(int at) {
    transform(at, transform);
  }

  private void transform(int at, int period) {
    int from = plan.head() + at - plan.early();
    for (int n = 0; n < period; n++) {
      fftRe[n] = (float) re[from + n];
      fftIm[n] = (float) im[from + n];
    }
    for (int n = period; n < transform; n++) {
      fftRe[n] = fftRe[n - period];
      fftIm[n] = fftIm[n - period];
    }
    fft.forward(fftRe, fftIm);
  }

  /** The channel from the training. */
  private void train() {
    channel.begin();
    midRe = 0;
    midIm = 0;
    for (SymbolPlan s : plan.training()) {
      transform(s.at(), transform / s.parts());
      channel.add(s, this::re, this::im, !plan.adjacent());
      midRe += fftRe[0];
      midIm += fftIm[0];
    }
    channel.end();
  }

  /** And from all that was decided besides. */
  private void trainByData(Round round) {
    channel.goOn(plan.training().size());
    for (int s = 0; s < round.phase.length; s++) {
      transform(plan.data().get(s).at());
      channel.add(round.ideal.re()[s], round.ideal.im()[s], round.phase[s], this::re, this::im);
    }
    channel.end();
  }

  private Round round(int number) {
    boolean following = number == 0;
    int symbols = plan.data().size();
    Round out = new Round(symbols, tones.length);
    double slope = 0;
    double change = 0;
    double before = 0;
    double[] x = new double[tones.length];
    double[] y = new double[tones.length];
    for (int s = 0; s < symbols; s++) {
      SymbolPlan symbol = plan.data().get(s);
      transform(symbol.at());
      out.midRe[s] = fftRe[0];
      out.midIm[s] = fftIm[0];
      for (int k = 0; k < tones.length; k++) {
        double h = channel.passes(k);
        double a = channel.re(k);
        double b = channel.im(k);
        x[k] = (re(k) * a + im(k) * b) / h;
        y[k] = (im(k) * a - re(k) * b) / h;
      }
      slope += change;
      turnBySlope(x, y, slope);
      double common = common(symbol, x, y, before);
      before = common;
      double tracked = following || settings.trackPhase() ? common : 0;
      turn(x, y, -tracked);
      double gain = settings.trackLevel() ? levelOfPilots(symbol, x, y) : 1;
      double[] outRe = out.values.re()[s];
      double[] outIm = out.values.im()[s];
      double[] idealRe = out.ideal.re()[s];
      double[] idealIm = out.ideal.im()[s];
      for (int k = 0; k < tones.length; k++) {
        outRe[k] = x[k] / gain;
        outIm[k] = y[k] / gain;
      }
      symbol.decide(outRe, outIm, idealRe, idealIm);
      boolean byPilots = number < COARSE && pilots(symbol) >= MANY_PILOTS;
      double left = slopeLeft(symbol, byPilots, outRe, outIm, idealRe, idealIm);
      out.slope[s] = slope + left;
      midTurn(out, s, common);
      out.phase[s] = common;
      slope += following ? (byPilots ? 1 : FOLLOW) * left : 0;
      change += following ? FOLLOW_CHANGE * left : 0;
    }
    return out;
  }

  private void turnBySlope(double[] x, double[] y, double slope) {
    for (int k = 0; k < x.length && slope != 0; k++) {
      double c = Math.cos(slope * tones[k]);
      double s = Math.sin(slope * tones[k]);
      double p = x[k] * c + y[k] * s;
      y[k] = y[k] * c - x[k] * s;
      x[k] = p;
    }
  }

  private static void midTurn(Round out, int s, double angle) {
    double c = Math.cos(angle);
    double d = Math.sin(angle);
    double x = out.midRe[s] * c + out.midIm[s] * d;
    out.midIm[s] = out.midIm[s] * c - out.midRe[s] * d;
    out.midRe[s] = x;
  }

  private static void turn(double[] x, double[] y, double angle) {
    double c = Math.cos(angle);
    double s = Math.sin(angle);
    for (int k = 0; k < x.length; k++) {
      double p = x[k] * c - y[k] * s;
      y[k] = x[k] * s + y[k] * c;
      x[k] = p;
    }
  }

  /**
   * The phase that all tones of a symbol have in common, by its pilots; each counts as the channel
   * lets it through. Without any by what its data are taken for, from the phase before it.
   */
  private double common(SymbolPlan symbol, double[] x, double[] y, double before) {
    double sumRe = 0;
    double sumIm = 0;
    for (int k = 0; k < tones.length; k++) {
      if (symbol.roles()[k] == Role.PILOT) {
        double weight = channel.passes(k);
        sumRe += weight * (x[k] * symbol.re()[k] + y[k] * symbol.im()[k]);
        sumIm += weight * (y[k] * symbol.re()[k] - x[k] * symbol.im()[k]);
      }
    }
    if (sumRe != 0 || sumIm != 0) {
      return Math.atan2(sumIm, sumRe);
    }
    double[] p = x.clone();
    double[] q = y.clone();
    turn(p, q, -before);
    double[] idealRe = new double[tones.length];
    double[] idealIm = new double[tones.length];
    symbol.decide(p, q, idealRe, idealIm);
    for (int k = 0; k < tones.length; k++) {
      double weight = channel.passes(k);
      sumRe += weight * (p[k] * idealRe[k] + q[k] * idealIm[k]);
      sumIm += weight * (q[k] * idealRe[k] - p[k] * idealIm[k]);
    }
    return before + Math.atan2(sumIm, sumRe);
  }

  private double levelOfPilots(SymbolPlan symbol, double[] x, double[] y) {
    double sum = 0;
    double all = 0;
    for (int k = 0; k < tones.length; k++) {
      if (symbol.roles()[k] == Role.PILOT) {
        sum += channel.passes(k) * (x[k] * symbol.re()[k] + y[k] * symbol.im()[k]);
        all += channel.passes(k) * symbol.power(k);
      }
    }
    return all == 0 ? 1 : Math.max(1e-3, sum / all);
  }

  /**
   * What is left of the phase that grows with the tone, whatever all have in common: tones may be
   * far from the middle.
   *
   * @param byPilots by them alone, which no wrong decision can turn
   */
  private double slopeLeft(
      SymbolPlan symbol, boolean byPilots, double[] x, double[] y, double[] re, double[] im) {
    double weights = 1e-300;
    double middle = 0;
    for (int k = 0; k < tones.length; k++) {
      if (byPilots ? symbol.roles()[k] == Role.PILOT : symbol.used(k)) {
        double weight = channel.passes(k) * (re[k] * re[k] + im[k] * im[k]);
        weights += weight;
        middle += weight * tones[k];
      }
    }
    middle /= weights;
    double squares = 1e-300;
    double moment = 0;
    for (int k = 0; k < tones.length; k++) {
      if (byPilots ? symbol.roles()[k] == Role.PILOT : symbol.used(k)) {
        double h = channel.passes(k);
        double off = tones[k] - middle;
        squares += h * (re[k] * re[k] + im[k] * im[k]) * off * off;
        moment += h * (y[k] * re[k] - x[k] * im[k]) * off;
      }
    }
    return moment / squares;
  }

  private static int pilots(SymbolPlan s) {
    int count = 0;
    for (Role r : s.roles()) {
      count += r == Role.PILOT ? 1 : 0;
    }
    return count;
  }

  private double middleOf(SymbolPlan s) {
    return s.at() - plan.early() + transform / 2.0;
  }

  /**
   * What still turns from symbol to symbol is taken into offset and clock; false if that is
   * nothing.
   */
  private boolean correct(Round round, int length) {
    int n = round.phase.length;
    // The training has neither phase nor slope; its mean is where its middle is.
    double[] time = new double[n + 1];
    double[] phase = new double[n + 1];
    double[] slope = new double[n + 1];
    time[0] = plan.training().stream().mapToDouble(this::middleOf).average().orElse(0);
    int later = 0;
    for (int s = 0; s < n; s++) {
      time[s + 1] = middleOf(plan.data().get(s));
      slope[s + 1] = round.slope[s];
      later += time[s + 1] < time[0] ? 1 : 0;
    }
    double before = 0;
    for (int s = later; s < n; s++) {
      before = nearest(round.phase[s], before);
      phase[s + 1] = before;
    }
    before = 0;
    for (int s = later - 1; s >= 0; s--) {
      before = nearest(round.phase[s], before);
      phase[s + 1] = before;
    }
    double weight = plan.training().size();
    double turn = rise(time, phase, weight) / (1 + clock);
    // A slope of 2 pi / N is a sample.
    double stretch = rise(time, slope, weight) * transform / (2 * Math.PI);
    if (Math.abs(turn) * length < NOTHING && Math.abs(stretch) * length < NOTHING) {
      return false;
    }
    offset += turn;
    clock -= stretch;
    return true;
  }

  /** The same angle, within half a turn of another. */
  private static double nearest(double angle, double to) {
    return angle + 2 * Math.PI * Math.rint((to - angle) / 2 / Math.PI);
  }

  /** Steepness of a straight line through points, the first of its own weight. */
  private static double rise(double[] t, double[] y, double firstWeight) {
    double weights = firstWeight - 1;
    double meanT = weights * t[0];
    double meanY = weights * y[0];
    for (int i = 0; i < t.length; i++) {
      weights++;
      meanT += t[i];
      meanY += y[i];
    }
    meanT /= weights;
    meanY /= weights;
    double cross = (firstWeight - 1) * (t[0] - meanT) * (y[0] - meanY);
    double square = (firstWeight - 1) * (t[0] - meanT) * (t[0] - meanT);
    for (int i = 0; i < t.length; i++) {
      cross += (t[i] - meanT) * (y[i] - meanY);
      square += (t[i] - meanT) * (t[i] - meanT);
    }
    return cross / Math.max(1e-300, square);
  }

  /**
   * Mean of the tone in the middle over the root of the others' power, and its scatter; not a
   * number if it carries something itself.
   */
  double[] middle(Round round) {
    if (plan.indexOf(0) >= 0) {
      return new double[] {Double.NaN, Double.NaN, Double.NaN};
    }
    int n = round.midRe.length;
    int trainings = plan.training().size();
    double power = 1e-300;
    for (SymbolPlan s : plan.data()) {
      for (int k = 0; k < tones.length; k++) {
        power += s.used(k) ? channel.passes(k) * s.power(k) / plan.data().size() : 0;
      }
    }
    double root = Math.sqrt(power);
    double x = midRe;
    double y = midIm;
    for (int s = 0; s < n; s++) {
      x += round.midRe[s];
      y += round.midIm[s];
    }
    x /= n + trainings;
    y /= n + trainings;
    double rest = 0;
    for (int s = 0; s < n; s++) {
      rest += square(round.midRe[s] - x) + square(round.midIm[s] - y);
    }
    // Of Student's distribution with twice n - 1 degrees of freedom.
    double scatter = n < 3 ? Double.NaN : Math.sqrt(rest / 2 / (n - 2) / (n + trainings)) / root;
    return new double[] {x / root, y / root, scatter};
  }

  private static double square(double x) {
    return x * x;
  }

  /**
   * Mean power of a stretch, from and to places of the frame, as far as it was read; not a number
   * if none of it was.
   */
  double power(int from, int to) {
    double sum = 0;
    int end = Math.min(plan.head() + to, re.length);
    for (int n = plan.head() + from; n < end; n++) {
      sum += re[n] * re[n] + im[n] * im[n];
    }
    int count = end - plan.head() - from;
    return count > 0 ? sum / count : Double.NaN;
  }
}
