package rovnik.core.modulation.ofdm;

import java.util.List;
import java.util.function.IntFunction;

/** Whether the known tones of a frame are where it may be, and by how many tones they are off. */
final class KnownTones {
  /** Trainings of one frame differ by less in what they pass. */
  private static final double EVEN = 0.5;

  /** A shift by one tone is so much less alike, if signs are not known. */
  private static final double NEARLY = 0.7;

  private final int transform;
  private final boolean signed;
  private final List<Training> trainings;

  /**
   * What one training has.
   *
   * @param at where it is
   * @param low lower tone of each pair of neighbours
   * @param high the other
   * @param re what the change from the one to the other is to be turned by, so that all are alike
   * @param expected power of all
   */
  private record Training(
      int at, int[] low, int[] high, double[] re, double[] im, double expected) {
    static Training of(SymbolPlan s, FramePlan plan, int times) {
      int n = s.usedTones() - 1;
      int[] low = new int[n];
      int[] high = new int[n];
      double[] re = new double[n];
      double[] im = new double[n];
      double expected = 0;
      int before = -1;
      int i = 0;
      for (int k = 0; k < plan.tones().length; k++) {
        if (!s.used(k)) {
          continue;
        }
        expected += s.power(k);
        if (before >= 0) {
          low[i] = plan.tones()[before];
          high[i] = plan.tones()[k];
          // The early window turns tone by tone, and what is sent has its own change.
          double angle =
              2 * Math.PI * (high[i] - low[i]) * plan.early() / plan.transform()
                  + Math.atan2(s.im()[before], s.re()[before])
                  - Math.atan2(s.im()[k], s.re()[k]);
          re[i] = Math.cos(times * angle);
          im[i++] = Math.sin(times * angle);
        }
        before = k;
      }
      return new Training(s.at(), low, high, re, im, expected);
    }
  }

  /**
   * @param signed the signs of the tones are known; if not, each change counts twice, which half a
   *     turn does not show
   */
  KnownTones(FramePlan plan, boolean signed) {
    this.transform = plan.transform();
    this.signed = signed;
    this.trainings =
        plan.training().stream().map(s -> Training.of(s, plan, signed ? 1 : 2)).toList();
  }

  /** Changes from tone to tone in all trainings. */
  int pairs() {
    return trainings.stream().mapToInt(t -> t.low().length).sum();
  }

  /**
   * The best of some shifts.
   *
   * @param tones by which the known ones are higher than they should be
   * @param alike how well they fit, from 0 to 1
   */
  record Shift(int tones, double alike) {}

  /**
   * How well the change from one known tone to the next is what it should be, whatever the phase;
   * that of the training where it is least. All tones count alike: a line that leaks into some must
   * not decide. Nothing fits if one training is much weaker than another.
   *
   * @param spectra by place of a training: its tones from 0 on, real parts, then others
   * @param most tones to look up and down
   */
  Shift best(IntFunction<float[][]> spectra, int most) {
    List<float[][]> all = trainings.stream().map(t -> spectra.apply(t.at())).toList();
    Shift best = new Shift(0, 0);
    double strongest = 0;
    for (int q = -most; q <= most; q++) {
      double least = 1;
      double quietest = Double.POSITIVE_INFINITY;
      double loudest = 0;
      double power = 0;
      for (int t = 0; t < trainings.size() && (least > best.alike() || !signed); t++) {
        Training of = trainings.get(t);
        double[] fits = fits(of, all.get(t), q);
        least = Math.min(least, fits[0]);
        quietest = Math.min(quietest, fits[1]);
        loudest = Math.max(loudest, fits[1]);
        power += fits[1];
      }
      // Without signs tones are nearly as alike one farther; but there one of them is empty.
      boolean better =
          signed ? least > best.alike() : least > NEARLY * best.alike() && power > strongest;
      if (better && quietest >= EVEN * loudest) {
        best = new Shift(q, least);
        strongest = power;
      }
    }
    return best;
  }

  /** How alike, and the power of the tones over what is expected. */
  private double[] fits(Training of, float[][] spectrum, int shift) {
    float[] re = spectrum[0];
    float[] im = spectrum[1];
    double x = 0;
    double y = 0;
    double power = 0;
    for (int i = 0; i < of.low().length; i++) {
      int a = binOf(of.low()[i] + shift);
      int b = binOf(of.high()[i] + shift);
      double p = re[b] * re[a] + im[b] * im[a];
      double q = im[b] * re[a] - re[b] * im[a];
      double length = Math.sqrt(p * p + q * q) + 1e-300;
      if (!signed) {
        double twice = 2 * p * q / length;
        p = (p * p - q * q) / length;
        q = twice;
      }
      x += (p * of.re()[i] - q * of.im()[i]) / length;
      y += (p * of.im()[i] + q * of.re()[i]) / length;
      power += re[a] * re[a] + im[a] * im[a];
    }
    return new double[] {Math.sqrt(x * x + y * y) / of.low().length, power / of.expected()};
  }

  private int binOf(int tone) {
    return tone < 0 ? tone + transform : tone;
  }
}
