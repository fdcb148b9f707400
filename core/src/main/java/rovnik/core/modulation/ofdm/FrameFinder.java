package rovnik.core.modulation.ofdm;

import rovnik.core.signal.Transforms;

/**
 * Finds frames that are described: each guard repeats the end of its symbol, all of them together
 * tell where a frame may begin and how the carrier turns, and what is known of its tones whether it
 * does.
 */
final class FrameFinder {
  /** So alike guards and what they repeat must be: as much noise as signal leaves a half. */
  private static final double ALIKE = 0.35;

  /** Few and short guards need not be more alike: what is known of the tones then decides. */
  private static final double ALIKE_WELL = 0.85;

  /** And what is known and what is received, from tone to tone, at least and at most. */
  private static final double KNOWN = 0.5;

  private static final double KNOWN_WELL = 0.9;

  /** Noise is so alike once in exp(15) times. */
  private static final double KNOWN_BY_CHANCE = 15;

  /** Noise alone is so alike in one of 1e9 places, over the root of what is averaged. */
  private static final double BY_CHANCE = 4.6;

  /** Symbols whose guards are looked at, at most. */
  private static final int MOST_GUARDS = 32;

  private static final int FARTHEST_SHIFT = 32;

  private final double[] re;
  private final double[] im;
  private final DescribedFrame frame;
  private final FramePlan plan;
  private final int transform;
  private final int looked;
  private final double alike;
  private final double fitting;
  private final KnownTones known;

  // Sums from the beginning on: what a guard and the end of its symbol have in common, and power
  private final double[] commonRe;
  private final double[] commonIm;
  private final double[] power;
  private final SymbolReader reader;
  private int others;

  FrameFinder(
      double[] re,
      double[] im,
      DescribedFrame frame,
      ChannelSamples samples,
      OfdmSettings settings) {
    this.re = re;
    this.im = im;
    this.frame = frame;
    this.plan = frame.plan();
    this.transform = plan.transform();
    this.looked = Math.min(MOST_GUARDS, frame.at().length);
    this.reader = new SymbolReader(samples, settings, plan);
    int n = Math.max(0, re.length - transform);
    commonRe = new double[n + 1];
    commonIm = new double[n + 1];
    power = new double[n + 1];
    for (int i = 0; i < n; i++) {
      int j = i + transform;
      commonRe[i + 1] = commonRe[i] + re[i] * re[j] + im[i] * im[j];
      commonIm[i + 1] = commonIm[i] + re[i] * im[j] - im[i] * re[j];
      power[i + 1] =
          power[i] + 0.5 * (re[i] * re[i] + im[i] * im[i] + re[j] * re[j] + im[j] * im[j]);
    }
    double guards = 0;
    for (int s = 0; s < looked; s++) {
      guards += frame.guard()[s];
    }
    this.known = new KnownTones(plan, !frame.learned());
    this.fitting =
        Math.min(KNOWN_WELL, Math.max(KNOWN, Math.sqrt(KNOWN_BY_CHANCE / known.pairs())));
    double byChance = BY_CHANCE / Math.sqrt(guards / ChannelSamples.TIMES);
    this.alike = Math.min(ALIKE_WELL, Math.max(ALIKE, byChance));
  }

  /** Places so far whose guards fit, but not what is known of the tones. */
  int others() {
    return others;
  }

  /** How alike guards and ends are, if the first training's transform began there; its square. */
  private double fits(int at, double[] common) {
    double x = 0;
    double y = 0;
    double all = 1e-300;
    for (int s = 0; s < looked; s++) {
      int to = at + frame.at()[s];
      int from = to - frame.guard()[s];
      if (from >= 0 && to < power.length) {
        x += commonRe[to] - commonRe[from];
        y += commonIm[to] - commonIm[from];
        all += power[to] - power[from];
      }
    }
    common[0] = x;
    common[1] = y;
    return (x * x + y * y) / (all * all);
  }

  /**
   * The next frame whose first training begins at a sample or later; null if there is no more. One
   * that began before the record is left out.
   */
  PacketFinder.Found next(int from) {
    int last = re.length - lastTraining() - transform;
    int near = transform / 2;
    double[] common = new double[2];
    double most = 0;
    int best = -1;
    for (int n = Math.max(plan.head(), from); n <= last; n++) {
      double now = fits(n, common);
      if (now > alike * alike && now > most) {
        most = now;
        best = n;
      }
      if (best >= 0 && (n - best >= near || n == last)) {
        fits(best, common);
        PacketFinder.Found found = known(best, Math.atan2(common[1], common[0]) / transform);
        if (found != null) {
          return found;
        }
        others++;
        most = 0;
        best = -1;
      }
    }
    return null;
  }

  /** Tones of a symbol there, without an offset. */
  private float[][] spectrum(int at, double offset) {
    int from = at - plan.early();
    float[] x = new float[transform];
    float[] y = new float[transform];
    double turnRe = Math.cos(offset);
    double turnIm = -Math.sin(offset);
    double c = 1;
    double s = 0;
    for (int n = 0; n < transform; n++) {
      int m = Math.max(0, from + n);
      x[n] = (float) (re[m] * c - im[m] * s);
      y[n] = (float) (im[m] * c + re[m] * s);
      double next = c * turnRe - s * turnIm;
      s = c * turnIm + s * turnRe;
      c = next;
    }
    Transforms.ofLength(transform).forward(x, y);
    return new float[][] {x, y};
  }

  private int lastTraining() {
    return plan.training().get(plan.training().size() - 1).at();
  }

  /** Where the tones are that are known, at a place; null if they are not there. */
  private PacketFinder.Found known(int at, double offset) {
    int most =
        Math.max(
            1,
            Math.min(FARTHEST_SHIFT, transform / ChannelSamples.TIMES / 2 - plan.farthest() - 1));
    double tone = 2 * Math.PI / transform;
    KnownTones.Shift shift = known.best(place -> spectrum(at + place, offset), most);
    if (shift.alike() < fitting) {
      return null;
    }
    PacketFinder.Found found = new PacketFinder.Found(at, offset + shift.tones() * tone);
    reader.begin(plan, found, plan.trainingEnd());
    int late = (int) Math.rint(reader.later(!frame.learned()));
    if (Math.abs(late) > plan.early()) {
      return null; // known tones are near, but belong to another symbol
    }
    return new PacketFinder.Found(at + late, found.offset());
  }
}
