package rovnik.core.time;

/**
 * Finds where power goes to one side of a level and how long it stays there, in samples that go on.
 * It comes back only beyond {@link #HYSTERESIS} on the other side, and a pause that is short enough
 * does not end it. Where samples are missing nothing is known: what was on is dropped, and what
 * follows must be seen on the other side first.
 */
final class TriggerSearch {
  /** 2 dB. */
  static final double HYSTERESIS = Math.pow(10, 0.2);

  /** Samples that are passed over at once where nothing crosses. */
  private static final int TOGETHER = PowerBlocks.TOGETHER;

  /** Where the power is, as far as it is known. */
  private enum Side {
    UNKNOWN,
    OFF,
    ON
  }

  private final boolean rises;
  private final float enters;
  private final float leaves;
  private final double least;
  private final double most;
  private final double pause;
  private final TriggerTally tally;
  private Side side = Side.UNKNOWN;
  private double next;
  private float before = Float.NaN;
  private double began;
  private double left = Double.NaN;
  private float farthest;

  /** What was given beside the powers, null if nothing is. */
  private float[] places;

  private float where;
  private boolean fired;
  private TriggerEvent running;
  private long otherLength;
  private long cutByGaps;
  private long ended;
  private long brief;
  private float nearest;
  private final double briefSamples;

  /**
   * @param rises what counts, a rise or a fall
   * @param level power of full scale
   * @param least samples that it lasts
   * @param most samples that it lasts
   * @param pause samples for which it may leave
   * @param briefSamples what is shorter than so many is not more than noise is
   * @param tally takes what comes
   */
  TriggerSearch(
      boolean rises,
      double level,
      double least,
      double most,
      double pause,
      double briefSamples,
      TriggerTally tally) {
    this.rises = rises;
    this.enters = (float) level;
    this.leaves = (float) (rises ? level / HYSTERESIS : level * HYSTERESIS);
    this.least = least;
    this.most = most;
    this.pause = pause;
    this.tally = tally;
    this.briefSamples = briefSamples;
    this.nearest = rises ? 0 : Float.POSITIVE_INFINITY;
  }

  private boolean isOn(float p) {
    return rises ? p >= enters : p < enters;
  }

  private boolean isOff(float p) {
    return rises ? p < leaves : p >= leaves;
  }

  private float farther(float a, float b) {
    return rises ? Math.max(a, b) : Math.min(a, b);
  }

  /**
   * Samples are missing here.
   *
   * @param firstAfter where it goes on
   */
  void gap(double firstAfter) {
    if (side == Side.ON && !fired) {
      cutByGaps++;
    }
    side = Side.UNKNOWN;
    left = Double.NaN;
    before = Float.NaN;
    next = firstAfter;
    tally.gap();
  }

  /** Takes powers that follow those before. */
  void take(PowerBlocks blocks) {
    take(blocks, null);
  }

  /**
   * Takes powers that follow those before.
   *
   * @param beside a value for each, that of the farthest is kept; null if there is none
   */
  void take(PowerBlocks blocks, float[] beside) {
    places = beside;
    float[] power = blocks.power();
    int count = blocks.count();
    for (int b = 0, from = 0; from < count; b++, from += TOGETHER) {
      int to = Math.min(count, from + TOGETHER);
      if (!quiet(blocks.highest(b), blocks.lowest(b), to - from)) {
        for (int i = from; i < to; i++) {
          one(power[i], i);
        }
      }
      before = power[to - 1];
    }
  }

  /** True if nothing happens among so many samples; they are then passed over. */
  private boolean quiet(float highest, float lowest, int samples) {
    float toEnter = rises ? highest : lowest;
    float toLeave = rises ? lowest : highest;
    if (side != Side.UNKNOWN && next + samples > tally.due()) {
      return false;
    }
    if (side == Side.OFF && !isOn(toEnter)) {
      nearest = farther(nearest, toEnter);
      next += samples;
      return true;
    }
    if (side == Side.OFF || !Double.isNaN(left) || isOff(toLeave)) {
      return false;
    }
    if (side == Side.UNKNOWN) {
      next += samples;
      return true;
    }
    if (places != null) {
      return false;
    }
    if (!fired && Double.isInfinite(most) && next + samples - began >= least) {
      return false;
    }
    farthest = farther(farthest, toEnter);
    next += samples;
    return true;
  }

  private void one(float p, int i) {
    switch (side) {
      case UNKNOWN -> side = isOff(p) ? Side.OFF : Side.UNKNOWN;
      case OFF -> {
        nearest = farther(nearest, p);
        if (isOn(p)) {
          begin(p, i);
        } else if (next > tally.due()) {
          tally.missed();
        }
      }
      case ON -> on(p, i);
    }
    before = p;
    next++;
  }

  private void begin(float p, int i) {
    side = Side.ON;
    began = crossing(p, enters);
    farthest = p;
    where = places == null ? 0 : places[i];
    left = Double.NaN;
    fired = false;
    if (least <= 0 && Double.isInfinite(most)) {
      fire();
    }
  }

  /** Where the amplitude passes that of a level, straight between two samples. */
  private double crossing(float p, float level) {
    if (Float.isNaN(before)) {
      return next;
    }
    double a = Math.sqrt(before);
    double b = Math.sqrt(p);
    double share = a == b ? 1 : (Math.sqrt(level) - a) / (b - a);
    return next - 1 + Math.max(0, Math.min(1, share));
  }

  private void on(float p, int i) {
    if (isOff(p)) {
      left = Double.isNaN(left) ? crossing(p, leaves) : left;
      if (next - left >= pause) {
        end();
        return;
      }
    } else if (isOn(p)) {
      left = Double.NaN;
      if (places != null && farther(farthest, p) != farthest) {
        where = places[i];
      }
      farthest = farther(farthest, p);
    }
    boolean stays = Double.isNaN(left);
    if (!fired && stays && Double.isInfinite(most) && next - began >= least) {
      fire();
    }
    if (fired && next > tally.due()) {
      tally.missed();
    }
  }

  private void fire() {
    fired = true;
    running = tally.came(began, farthest, where);
  }

  private void end() {
    double lasted = left - began;
    ended++;
    brief += lasted < briefSamples ? 1 : 0;
    if (!fired && lasted >= least && lasted <= most) {
      fire();
    } else if (!fired) {
      otherLength++;
    }
    if (running != null) {
      tally.replaced(running, running.ended(lasted, farthest, where));
    }
    running = null;
    side = Side.OFF;
    left = Double.NaN;
  }

  /** How far one goes that goes on is told as far as it is. */
  void tellRunning() {
    if (running != null) {
      running = tally.replaced(running, running.ended(Double.NaN, farthest, where));
    }
  }

  /** Shorter or longer than asked for. */
  long otherLength() {
    return otherLength;
  }

  /** Went on where samples are missing, so that its length is not known. */
  long cutByGaps() {
    return cutByGaps;
  }

  /** How near the power came while it was waited for. */
  double nearest() {
    return nearest;
  }

  /** True while it was never seen on the side that it must come from. */
  boolean neverOff() {
    return side == Side.UNKNOWN && tally.count() == 0 && ended == 0;
  }

  /** True if most of what was seen is no longer than noise is. */
  boolean firesOnNoise() {
    return ended >= 5 && brief > ended / 2;
  }

  /** How long what is on lasts already; NaN if nothing is. */
  double goesOn() {
    return side == Side.ON ? next - began : Double.NaN;
  }
}
