package rovnik.core.modulation.ofdm;

import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import java.util.function.IntToDoubleFunction;
import java.util.stream.IntStream;

/** What each tone of a frame passes, learned from what is known of it. */
final class ToneChannel {
  /** Known tones so near to one another show how delay turns them. */
  private static final int NEIGHBOURS = 4;

  private final int[] tones;
  private final int[] units;

  /** By how much the early window turns, from tone to tone. */
  private final double turn;

  /** Samples of delay for a turn of 1 rad from tone to tone. */
  private final double perTurn;

  private final double[] re;
  private final double[] im;
  private final double[] weight;

  ToneChannel(FramePlan plan) {
    this.tones = plan.tones();
    this.units = plan.units();
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
   * Tones that nothing is known of lie on the curve through the two nearest on each side, or on the
   * line between two if others are far; a little outside of all on the line through the nearest
   * two, farther out as the nearest. What the early window and the mean delay turn is taken out for
   * that.
   */
  private void fillGaps() {
    double slope = slope();
    between(
        weight,
        (k, from, shares) -> {
          double x = 0;
          double y = 0;
          for (int i = 0; i < from.length; i++) {
            double[] p = turned(from[i], slope * (tones[k] - tones[from[i]]));
            x += shares[i] * p[0];
            y += shares[i] * p[1];
          }
          re[k] = x;
          im[k] = y;
        });
  }

  /** A tone that nothing is known of: which others it is made of, and how much of each. */
  @FunctionalInterface
  private interface Gap {
    void between(int tone, int[] from, double[] shares);
  }

  /** Tones of one unit say nothing of those of another. */
  private void between(double[] known, Gap gap) {
    for (int unit : Arrays.stream(units).distinct().toArray()) {
      between(known, unit, gap);
    }
  }

  private void between(double[] known, int unit, Gap gap) {
    int[] of =
        IntStream.range(0, tones.length).filter(k -> units[k] == unit && known[k] > 0).toArray();
    int above = 0; // of those, the first above
    for (int k = 0; k < tones.length && of.length > 0; k++) {
      if (units[k] != unit) {
        continue;
      }
      if (known[k] > 0) {
        above++;
        continue;
      }
      int[] from = Arrays.copyOfRange(of, Math.max(0, above - 2), Math.min(of.length, above + 2));
      boolean inside = above > 0 && above < of.length;
      if (!even(from) || !inside && from.length < 2) {
        from = inside ? new int[] {of[above - 1], of[above]} : nearest(of, above);
      } else if (!inside && Math.abs(tones[k] - tones[nearest(of, above)[0]]) > step(from)) {
        from = nearest(of, above);
      }
      gap.between(k, from, shares(tones[k], from));
    }
  }

  private static int[] nearest(int[] of, int above) {
    return new int[] {above == 0 ? of[0] : of[above - 1]};
  }

  private int step(int[] from) {
    return tones[from[1]] - tones[from[0]];
  }

  /** They are so evenly apart that a curve through them does not swing between. */
  private boolean even(int[] from) {
    int least = Integer.MAX_VALUE;
    int most = 0;
    for (int i = 1; i < from.length; i++) {
      least = Math.min(least, tones[from[i]] - tones[from[i - 1]]);
      most = Math.max(most, tones[from[i]] - tones[from[i - 1]]);
    }
    return most <= 2 * (long) least;
  }

  /** What each of some tones is worth for another on the curve through them (Lagrange). */
  private double[] shares(int tone, int[] from) {
    double[] out = new double[from.length];
    for (int i = 0; i < from.length; i++) {
      out[i] = 1;
      for (int j = 0; j < from.length; j++) {
        if (j != i) {
          out[i] *= (double) (tone - tones[from[j]]) / (tones[from[i]] - tones[from[j]]);
        }
      }
    }
    return out;
  }

  /**
   * How much noise the training of a plan leaves in what a tone passes, over that of a value: one
   * symbol of power 1 all of it, two a half, a tone between others by its shares of theirs.
   */
  static double[] noiseOf(FramePlan plan) {
    return noise(plan, (k, from, shares) -> {});
  }

  private static double[] noise(FramePlan plan, Gap each) {
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
      if (known[k] > 0) {
        each.between(k, new int[] {k}, new double[] {1});
      }
    }
    of.between(
        known,
        (k, from, shares) -> {
          for (int i = 0; i < from.length; i++) {
            noise[k] += shares[i] * shares[i] * noise[from[i]];
          }
          each.between(k, from, shares);
        });
    return noise;
  }

  /**
   * How many tones of independent noise have as much scatter as all of them, over how many there
   * are: 1 if all are known, less if tones are made of others, which have their noise in common.
   */
  static double independence(FramePlan plan) {
    int count = plan.tones().length;
    // How much two known tones count together, over all tones that are made of both.
    Map<Long, Double> together = new HashMap<>();
    double[] noise =
        noise(
            plan,
            (k, from, shares) -> {
              for (int i = 0; i < from.length; i++) {
                for (int j = 0; j < from.length; j++) {
                  together.merge(
                      (long) from[i] * count + from[j], shares[i] * shares[j], Double::sum);
                }
              }
            });
    double squares = 0;
    for (Map.Entry<Long, Double> e : together.entrySet()) {
      int i = (int) (e.getKey() / count);
      int j = (int) (e.getKey() % count);
      squares += e.getValue() * e.getValue() * noise[i] * noise[j];
    }
    double sum = Arrays.stream(noise).sum();
    return sum == 0 ? 1 : sum * sum / squares / count;
  }

  /** By how much neighbouring tones are turned on the whole, from one tone to the next. */
  private double slope() {
    int gap = NEIGHBOURS;
    int before = -1;
    for (int k = 0; k < tones.length; k++) {
      if (weight[k] > 0) {
        gap = before < 0 ? gap : Math.min(gap, tones[k] - tones[before]);
        before = k;
      }
    }
    double x = 0;
    double y = 0;
    before = -1;
    for (int k = 0; k < tones.length; k++) {
      if (weight[k] > 0) {
        if (before >= 0 && tones[k] - tones[before] == gap) {
          double[] p = turned(before, turn * gap);
          x += re[k] * p[0] + im[k] * p[1];
          y += im[k] * p[0] - re[k] * p[1];
        }
        before = k;
      }
    }
    return turn + Math.atan2(y, x) / gap;
  }

  private double[] turned(int k, double angle) {
    double c = Math.cos(angle);
    double s = Math.sin(angle);
    return new double[] {re[k] * c - im[k] * s, im[k] * c + re[k] * s};
  }

  /**
   * By how many samples what was transformed began earlier than it should have.
   *
   * @param signed the signs of its tones are known; if not, each change counts twice
   */
  double laterBy(boolean signed) {
    int step = Integer.MAX_VALUE;
    for (int k = 1; k < tones.length; k++) {
      step = Math.min(step, tones[k] - tones[k - 1]);
    }
    double x = 0;
    double y = 0;
    for (int k = 1; k < tones.length; k++) {
      if (tones[k] - tones[k - 1] == step) {
        double p = re[k] * re[k - 1] + im[k] * im[k - 1];
        double q = im[k] * re[k - 1] - re[k] * im[k - 1];
        x += signed ? p : p * p - q * q;
        y += signed ? q : 2 * p * q;
      }
    }
    double times = signed ? step : 2.0 * step;
    double off = turn * times - Math.atan2(y, x);
    return Math.IEEEremainder(off, 2 * Math.PI) / times * perTurn;
  }
}
