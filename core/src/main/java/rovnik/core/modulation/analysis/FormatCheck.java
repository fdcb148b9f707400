package rovnik.core.modulation.analysis;

import java.util.Random;
import rovnik.core.Refusal;
import rovnik.core.modulation.Constellation;
import rovnik.core.modulation.Format;
import rovnik.core.modulation.SingleCarrier;

/**
 * Whether recovered symbols are of the format at all: a wrong one, a lock on something else, or
 * noise must never be shown as a result.
 */
final class FormatCheck {
  /**
   * Error, as a share of what a signal without any points leaves, beyond which there is no lock.
   */
  private static final double UNLOCKED = 0.5;

  /** Whatever the format: with errors of half of the signal's power no decision means anything. */
  private static final double HOPELESS = 0.5;

  /** From this share on the shape of the errors and other formats are looked at, too. */
  private static final double DOUBTFUL = 0.08;

  /** Errors of few kinds instead of noise have a lower fourth moment than its 2. */
  private static final double FEW_KINDS = 1.4;

  /** Another format is the right one if it leaves so much less of its own idle error. */
  private static final double BETTER = 0.3;

  /** Farther from the middle of its spectrum no carrier of random data is. */
  private static final double OFF_CENTRE = 0.07;

  /** Share of the power that is the same in all symbols. */
  private static final double ONE_PLACE = 0.8;

  /** Share of the error of phases anywhere, from which on they are suspected to be that. */
  private static final double CIRCLE = 0.25;

  /** Noise is as strong along the carrier as across it. */
  private static final double STEADY = 0.45;

  private static final double NOISE_LIKE = 0.12;
  private static final int TRIALS = 6000;
  private static final int LOOKED_AT = 1500;
  private static final double DEGREES = 15;

  private FormatCheck() {}

  /**
   * Mean square error, of ideal power 1, of decisions about what has no points at all: the less of
   * noise and of points all over a disk.
   */
  static double idle(Constellation points) {
    Random random = new Random(1);
    double[][] noise = new double[2][TRIALS];
    double[][] disk = new double[2][TRIALS];
    for (int i = 0; i < TRIALS; i++) {
      noise[0][i] = random.nextGaussian();
      noise[1][i] = random.nextGaussian();
      double radius = Math.sqrt(random.nextDouble());
      double angle = 2 * Math.PI * random.nextDouble();
      disk[0][i] = radius * Math.cos(angle);
      disk[1][i] = radius * Math.sin(angle);
    }
    return Math.min(error(points, noise[0], noise[1], 0), error(points, disk[0], disk[1], 0));
  }

  /** Mean square error of decisions at the best gain, of an ideal power of 1. */
  private static double error(Constellation points, double[] x, double[] y, double angle) {
    double c = Math.cos(angle);
    double s = Math.sin(angle);
    double power = 0;
    for (int i = 0; i < x.length; i++) {
      power += x[i] * x[i] + y[i] * y[i];
    }
    double gain = Math.sqrt(power / x.length);
    double error = 0;
    for (int round = 0; round < 4; round++) {
      double cross = 0;
      double ideal = 1e-300;
      error = 0;
      for (int i = 0; i < x.length; i++) {
        double re = (x[i] * c - y[i] * s) / gain;
        double im = (x[i] * s + y[i] * c) / gain;
        int v = points.decide(re, im);
        double u = points.re(v);
        double w = points.im(v);
        cross += re * u + im * w;
        ideal += u * u + w * w;
        error += (re - u) * (re - u) + (im - w) * (im - w);
      }
      error /= ideal;
      gain *= cross / ideal;
    }
    return error;
  }

  /** Refuses symbols that do not fit, with what is seen instead. */
  static void check(SingleCarrier c, Symbols s, double idle) {
    Constellation points = c.constellation();
    if (c.format() != Format.OOK && plain(s)) {
      throw new Refusal(
          "format",
          "This is a plain carrier without data: its points stand on one place. Switch the data on,"
              + " or look at it in Spectrum.");
    }
    double ideal = 0;
    for (int k = 0; k < s.count(); k++) {
      ideal += Math.pow(s.ideal().i()[k], 2) + Math.pow(s.ideal().q()[k], 2);
    }
    ideal /= s.count();
    double v = s.fit().left() / Math.max(ideal, 1e-9);
    double moment = s.fourthMoment();
    double scatter = 6 / Math.sqrt(s.count());
    if (!(v <= Math.min(HOPELESS, UNLOCKED * idle))) {
      throw new Refusal(
          "format",
          Math.abs(moment - 2) < NOISE_LIKE + scatter / 4
              ? "There is only noise, or a signal of another kind: no symbols of "
                  + c.words()
                  + " were found. Check the frequency, the level and the symbol rate."
              : c.words()
                  + " does not fit. Check the symbol rate and the filter, or choose another format.");
    }
    if (circling(c.format(), s, v)) {
      throw new Refusal(
          "format",
          "Its envelope is steady and its phase stands nowhere: this is FM, PM or a format of such"
              + " a kind. Measure it as FM, or ask what it is.");
    }
    boolean doubtful = v > DOUBTFUL * idle;
    double own = points.fourthMoment();
    double spread = (own + 4 * v + 2 * v * v) / ((1 + v) * (1 + v));
    boolean unlike =
        Math.abs(ideal - 1) > 0.12 + scatter / 3
            || Math.abs(moment - spread) > 0.06 + scatter / 3
            || unused(points, s.values())
            || alternating(c.format(), s.values())
            || Math.abs(s.offCentre()) > OFF_CENTRE + scatter / 4
            || doubtful && errorMoment(s) < FEW_KINDS;
    Format better = unlike || doubtful ? better(c, s, v / idle) : null;
    if (unlike || better != null) {
      throw new Refusal(
          "format",
          c.format().label()
              + " does not fit: the points stand on other places than it has. "
              + (better == null ? "Choose another format." : better.label() + " fits better."));
    }
  }

  /** All points stand on one place. */
  private static boolean plain(Symbols s) {
    double re = 0;
    double im = 0;
    double power = 1e-300;
    for (int k = 0; k < s.count(); k++) {
      re += s.re()[k];
      im += s.im()[k];
      power += s.re()[k] * s.re()[k] + s.im()[k] * s.im()[k];
    }
    return (re * re + im * im) / s.count() > ONE_PLACE * power;
  }

  /** On a circle but nowhere in particular: decisions among phases are always near something. */
  private static boolean circling(Format format, Symbols s, double v) {
    int phases =
        switch (format) {
          case BPSK -> 2;
          case QPSK, OFFSET_QPSK, PI4_DQPSK -> 4;
          case PSK8, D8PSK -> 8;
          default -> 0;
        };
    if (phases == 0 || v < CIRCLE * Math.pow(Math.PI / phases, 2) / 3) {
      return false;
    }
    SymbolErrors e = SymbolErrors.of(s);
    double along = 0;
    double across = 0;
    for (int k = 0; k < s.count(); k++) {
      along += e.magnitude()[k] * e.magnitude()[k];
      across += Math.pow(e.reference()[k] * e.angle()[k], 2);
    }
    return along < STEADY * across;
  }

  /** Points that no symbol fell on, where chance leaves none of them out. */
  private static boolean unused(Constellation points, int[] values) {
    int size = points.size();
    if (values.length < 4 * size) {
      return false;
    }
    boolean[] used = new boolean[size];
    for (int v : values) {
      used[v] = true;
    }
    int unused = 0;
    for (boolean b : used) {
      unused += b ? 0 : 1;
    }
    return unused > size * (0.1 + Math.exp(-(double) values.length / size));
  }

  /** Eight phases of which each second symbol has the even ones are four that turn. */
  private static boolean alternating(Format format, int[] values) {
    if (format != Format.PSK8 && format != Format.D8PSK) {
      return false;
    }
    // Gray's code: a step to the next phase changes one bit, so the parity tells even from odd.
    int changes = 0;
    for (int k = 1; k < values.length; k++) {
      changes += Integer.bitCount(values[k] ^ values[k - 1]) & 1;
    }
    double share = (double) changes / (values.length - 1);
    return share > 0.9 || share < 0.1;
  }

  /** A format whose points the symbols stand on much better, or null. */
  private static Format better(SingleCarrier c, Symbols s, double share) {
    int n = Math.min(LOOKED_AT, s.count());
    double[] x = java.util.Arrays.copyOf(s.re(), n);
    double[] y = java.util.Arrays.copyOf(s.im(), n);
    Format best = null;
    double least = BETTER * share;
    for (Format f : Format.values()) {
      // Of what is mostly still, on and off keying is always near.
      if (f == c.format() || f == Format.OOK || !f.plainPoints() || f.differential()) {
        continue;
      }
      Constellation points = f.constellation();
      double idle = idle(points);
      for (double degrees = 0; degrees < 360.0 / f.symmetry(); degrees += DEGREES) {
        double left = error(points, x, y, Math.toRadians(degrees)) / idle;
        if (left < least) {
          least = left;
          best = f;
        }
      }
    }
    return best;
  }

  private static double errorMoment(Symbols s) {
    double two = 0;
    double four = 0;
    for (int k = 0; k < s.count(); k++) {
      double x = s.re()[k] - s.ideal().i()[k];
      double y = s.im()[k] - s.ideal().q()[k];
      double p = x * x + y * y;
      two += p;
      four += p * p;
    }
    return four * s.count() / (two * two);
  }
}
