package rovnik.core.modulation.ofdm;

import java.util.Arrays;
import java.util.function.IntToDoubleFunction;

/** What each tone of a frame passes, learned from what is known of it. */
final class ToneChannel {
  private final int[] tones;

  /** By how much the early window turns, from tone to tone. */
  private final double turn;

  /** Samples of delay for a turn of 1 rad from tone to tone. */
  private final double perTurn;

  private final double[] re;
  private final double[] im;
  private final double[] weight;

  ToneChannel(FramePlan plan) {
    this.tones = plan.tones();
    this.turn = -2 * Math.PI * plan.early() / plan.transform();
    this.perTurn = plan.transform() / (2 * Math.PI);
    this.re = new double[tones.length];
    this.im = new double[tones.length];
    this.weight = new double[tones.length];
  }

  double re(int k) {
    return re[k];
  }

  double im(int k) {
    return im[k];
  }

  double[] allRe() {
    return re.clone();
  }

  double[] allIm() {
    return im.clone();
  }

  /** Power that a tone passes. */
  double passes(int k) {
    return re[k] * re[k] + im[k] * im[k];
  }

  /** Of all tones: how sure a bit is must not depend on the level. */
  double meanPower() {
    double sum = 0;
    for (int k = 0; k < tones.length; k++) {
      sum += passes(k);
    }
    return Math.max(1e-300, sum / tones.length);
  }

  /** Nothing is known yet. */
  void begin() {
    Arrays.fill(re, 0);
    Arrays.fill(im, 0);
    Arrays.fill(weight, 0);
  }

  /** What is known counts as so many symbols, and more will come. */
  void goOn(double symbols) {
    for (int k = 0; k < tones.length; k++) {
      re[k] *= symbols;
      im[k] *= symbols;
      weight[k] = symbols;
    }
  }

  /**
   * Learns from a training.
   *
   * @param x what each tone was received as, real part
   * @param y imaginary part
   * @param turnFirst it may be turned from those before it, which is taken out
   */
  void add(SymbolPlan s, IntToDoubleFunction x, IntToDoubleFunction y, boolean turnFirst) {
    double phase = turnFirst ? phaseOf(s, x, y) : 0;
    double[] knownRe = new double[tones.length];
    double[] knownIm = new double[tones.length];
    for (int k = 0; k < tones.length; k++) {
      knownRe[k] = s.used(k) ? s.re()[k] : 0;
      knownIm[k] = s.used(k) ? s.im()[k] : 0;
    }
    add(knownRe, knownIm, phase, x, y);
  }

  /** Learns from a symbol with these values, all of it turned by a phase. */
  void add(
      double[] sentRe,
      double[] sentIm,
      double phase,
      IntToDoubleFunction x,
      IntToDoubleFunction y) {
    double c = Math.cos(phase);
    double d = Math.sin(phase);
    for (int k = 0; k < tones.length; k++) {
      double p = sentRe[k];
      double q = sentIm[k];
      double a = x.applyAsDouble(k) * c + y.applyAsDouble(k) * d;
      double b = y.applyAsDouble(k) * c - x.applyAsDouble(k) * d;
      re[k] += a * p + b * q;
      im[k] += b * p - a * q;
      weight[k] += p * p + q * q;
    }
  }

  /** By how much a training is turned from those before it, on the tones that both have. */
  private double phaseOf(SymbolPlan s, IntToDoubleFunction x, IntToDoubleFunction y) {
    double sumRe = 0;
    double sumIm = 0;
    for (int k = 0; k < tones.length; k++) {
      if (s.used(k) && weight[k] > 0) {
        double ownRe = x.applyAsDouble(k) * s.re()[k] + y.applyAsDouble(k) * s.im()[k];
        double ownIm = y.applyAsDouble(k) * s.re()[k] - x.applyAsDouble(k) * s.im()[k];
        sumRe += ownRe * re[k] + ownIm * im[k];
        sumIm += ownIm * re[k] - ownRe * im[k];
      }
    }
    return Math.atan2(sumIm, sumRe);
  }

  /** All has come that there is. */
  void end() {
    for (int k = 0; k < tones.length; k++) {
      if (weight[k] > 0) {
        re[k] /= weight[k];
        im[k] /= weight[k];
      }
    }
    fillGaps();
  }

  /**
   * Tones that nothing is known of have what lies on the line between the nearest ones; outside of
   * them the nearest. What the early window turns is taken out for that.
   */
  private void fillGaps() {
    between(
        weight,
        (k, a, b, share) -> {
          double[] p = turned(a, tones[k] - tones[a]);
          double[] q = turned(b, tones[k] - tones[b]);
          re[k] = p[0] + share * (q[0] - p[0]);
          im[k] = p[1] + share * (q[1] - p[1]);
        });
  }

  /** A tone that nothing is known of: the nearest that are known, and how far it is on the way. */
  @FunctionalInterface
  private interface Gap {
    void between(int tone, int below, int above, double share);
  }

  private void between(double[] known, Gap gap) {
    int before = -1;
    for (int k = 0; k < tones.length; k++) {
      if (known[k] > 0) {
        before = k;
        continue;
      }
      int after = k;
      while (after < tones.length && known[after] == 0) {
        after++;
      }
      int a = before < 0 ? after : before;
      int b = after == tones.length ? before : after;
      gap.between(k, a, b, a == b ? 0 : (double) (tones[k] - tones[a]) / (tones[b] - tones[a]));
    }
  }

  /**
   * How much noise the training of a plan leaves in what a tone passes, over that of a value: one
   * symbol of power 1 all of it, two a half, the middle between two tones half of theirs.
   */
  static double[] noiseOf(FramePlan plan) {
    ToneChannel of = new ToneChannel(plan);
    double[] known = new double[plan.tones().length];
    for (SymbolPlan s : plan.training()) {
      for (int k = 0; k < known.length; k++) {
        known[k] += s.used(k) ? s.power(k) / s.parts() : 0;
      }
    }
    double[] noise = new double[known.length];
    for (int k = 0; k < known.length; k++) {
      noise[k] = known[k] > 0 ? 1 / known[k] : 0;
    }
    of.between(
        known,
        (k, a, b, share) ->
            noise[k] =
                a == b
                    ? noise[a]
                    : (1 - share) * (1 - share) * noise[a] + share * share * noise[b]);
    return noise;
  }

  /** What a tone passes, turned as the early window turns one that is so far from it. */
  private double[] turned(int k, int tonesAway) {
    double c = Math.cos(turn * tonesAway);
    double s = Math.sin(turn * tonesAway);
    return new double[] {re[k] * c - im[k] * s, im[k] * c + re[k] * s};
  }

  /** By how many samples what was transformed began earlier than it should have. */
  double laterBy() {
    int step = Integer.MAX_VALUE;
    for (int k = 1; k < tones.length; k++) {
      step = Math.min(step, tones[k] - tones[k - 1]);
    }
    double x = 0;
    double y = 0;
    for (int k = 1; k < tones.length; k++) {
      if (tones[k] - tones[k - 1] == step) {
        x += re[k] * re[k - 1] + im[k] * im[k - 1];
        y += im[k] * re[k - 1] - re[k] * im[k - 1];
      }
    }
    return (turn - Math.atan2(y, x) / step) * perTurn;
  }
}
