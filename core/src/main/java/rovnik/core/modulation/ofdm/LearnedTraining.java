package rovnik.core.modulation.ofdm;

import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;

/**
 * Learns a training of which only the levels are known: each of its tones has one of two signs, and
 * what passes tones changes little from one to the next. Pilots of the data then confirm stretches
 * between them, and say the sign of all. A tone whose sign is wrong all the same has its points
 * turned half around, which the error of a square constellation does not show.
 */
final class LearnedTraining {
  /** How much of what came before counts for the next tone. */
  private static final double MEMORY = 0.6;

  /** So many symbols are looked at: a clock that is off does not yet turn them apart. */
  private static final int SYMBOLS = 8;

  private final SymbolReader reader;
  private final FramePlan plan;
  private final SymbolPlan training;
  private final int[] tones;
  private final int[] used;
  private final double[] re;
  private final double[] im;
  private final int[] sign;

  /**
   * @param begun has begun the frame, its training taken as its levels
   */
  LearnedTraining(SymbolReader begun, FramePlan plan) {
    this.reader = begun;
    this.plan = plan;
    this.training = plan.training().get(0);
    this.tones = plan.tones();
    this.used = IntStream.range(0, tones.length).filter(training::used).toArray();
    this.re = begun.channel().allRe();
    this.im = begun.channel().allIm();
    this.sign = new int[tones.length];
  }

  /** The frame with the training that was learned, of a packet whose tones are of one level. */
  FramePlan ofOneLevel() {
    learn();
    double[] known = new double[tones.length];
    double level = level();
    for (int k : used) {
      known[k] = level * sign[k];
    }
    return plan.withTraining(List.of(training.with(known)));
  }

  /** The same with levels as they were told. */
  FramePlan asTold() {
    learn();
    return plan.withTraining(plan.training().stream().map(this::signed).toList());
  }

  private SymbolPlan signed(SymbolPlan s) {
    double[] known = s.re().clone();
    for (int k : used) {
      known[k] *= sign[k];
    }
    return s.with(known);
  }

  private void learn() {
    flatten();
    int strongest = used[0];
    for (int k : used) {
      strongest = power(k) > power(strongest) ? k : strongest;
    }
    walk(strongest, 1);
    walk(strongest, -1);
    byPilots();
  }

  /**
   * How strong its tones were sent: fewer tones have the power of all, in which units that were
   * sent stronger count as they came.
   */
  private double level() {
    int units = Arrays.stream(plan.units()).max().orElse(0) + 1;
    double[] power = new double[units];
    int[] known = new int[units];
    int[] all = new int[units];
    for (int k = 0; k < tones.length; k++) {
      int unit = plan.units()[k];
      all[unit]++;
      if (training.used(k)) {
        power[unit] += power(k);
        known[unit]++;
      }
    }
    double sumAll = 0;
    double sumKnown = 1e-300;
    for (int u = 0; u < units; u++) {
      sumAll += power[u] / Math.max(1, known[u]) * all[u];
      sumKnown += power[u];
    }
    return Math.sqrt(sumAll / sumKnown);
  }

  private double power(int k) {
    return re[k] * re[k] + im[k] * im[k];
  }

  /**
   * Takes out what a delay turns from tone to tone; half a turn of it stays open but for the
   * window.
   */
  private void flatten() {
    int step = tones[used[1]] - tones[used[0]];
    double x = 0;
    double y = 0;
    for (int i = 1; i < used.length; i++) {
      int a = used[i - 1];
      int b = used[i];
      if (tones[b] - tones[a] == step) {
        double p = re[b] * re[a] + im[b] * im[a];
        double q = im[b] * re[a] - re[b] * im[a];
        x += p * p - q * q;
        y += 2 * p * q;
      }
    }
    double turn = Math.atan2(y, x) / 2;
    double expected = -2 * Math.PI * plan.early() / plan.transform() * step;
    turn += Math.PI * Math.rint((expected - turn) / Math.PI);
    for (int k : used) {
      double c = Math.cos(turn * tones[k] / step);
      double s = Math.sin(turn * tones[k] / step);
      double p = re[k] * c + im[k] * s;
      im[k] = im[k] * c - re[k] * s;
      re[k] = p;
    }
  }

  private void walk(int from, int way) {
    double x = 0;
    double y = 0;
    for (int k = from; k >= 0 && k < tones.length; k += way) {
      if (!training.used(k)) {
        continue;
      }
      sign[k] = re[k] * x + im[k] * y >= 0 ? 1 : -1;
      x = MEMORY * x + sign[k] * re[k];
      y = MEMORY * y + sign[k] * im[k];
    }
  }

  /**
   * Where two neighbouring pilots do not agree, all beyond the weakest tone between is turned, or
   * the next unit.
   */
  private void byPilots() {
    List<SymbolPlan> data = plan.data().subList(0, Math.min(SYMBOLS, plan.data().size()));
    int[] pilots =
        IntStream.range(0, tones.length)
            .filter(k -> data.get(0).roles()[k] == SymbolPlan.Role.PILOT)
            .toArray();
    double[][] x = new double[data.size()][pilots.length];
    double[][] y = new double[data.size()][pilots.length];
    for (int s = 0; s < data.size(); s++) {
      reader.transform(data.get(s).at());
      for (int p = 0; p < pilots.length; p++) {
        int k = pilots[p];
        int near = nearest(k);
        double known = data.get(s).re()[k] * sign[near];
        double a = reader.channel().re(near);
        double b = reader.channel().im(near);
        x[s][p] = known * (reader.re(k) * a + reader.im(k) * b);
        y[s][p] = known * (reader.im(k) * a - reader.re(k) * b);
      }
    }
    for (int p = 1; p < pilots.length; p++) {
      double agree = 0;
      for (int s = 0; s < data.size(); s++) {
        agree += x[s][p] * x[s][p - 1] + y[s][p] * y[s][p - 1];
      }
      if (agree < 0) {
        turnBeyond(weakest(pilots[p - 1], pilots[p]));
        for (int s = 0; s < data.size(); s++) {
          for (int q = p; q < pilots.length; q++) {
            x[s][q] = -x[s][q];
            y[s][q] = -y[s][q];
          }
        }
      }
    }
    double all = 0;
    for (int p = 0; p < pilots.length; p++) {
      all += x[0][p];
    }
    if (all < 0) {
      turnBeyond(0);
    }
  }

  /** The nearest tone that the training has. */
  private int nearest(int tone) {
    if (training.used(tone)) {
      return tone;
    }
    int best = used[0];
    for (int k : used) {
      best = Math.abs(tones[k] - tones[tone]) < Math.abs(tones[best] - tones[tone]) ? k : best;
    }
    return best;
  }

  /** Between two tones: where another unit begins, or the weakest. */
  private int weakest(int from, int to) {
    int best = -1;
    for (int k = from + 1; k <= to; k++) {
      if (plan.units()[k] != plan.units()[k - 1]) {
        return k;
      }
      if (training.used(k) && (best < 0 || power(k) < power(best))) {
        best = k;
      }
    }
    return best < 0 ? to : best;
  }

  private void turnBeyond(int from) {
    for (int k = from; k < tones.length; k++) {
      sign[k] = -sign[k];
    }
  }
}
