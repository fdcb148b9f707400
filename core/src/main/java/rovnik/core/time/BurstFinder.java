package rovnik.core.time;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.hipparchus.util.KthSelector;
import rovnik.core.Refusal;
import rovnik.core.signal.BandTaker;

/**
 * Finds bursts in a band: what rises over the noise further than chance would let it, and where its
 * voltage passes half of its level.
 */
final class BurstFinder {
  /** Of exponentially distributed powers a tenth lies below this share of their mean. */
  private static final double TENTH = -Math.log(0.9);

  /** Noise passes the threshold in one record of a thousand. */
  private static final double CHANCE = 1e-3;

  /** A burst goes on down to this share of the threshold. */
  private static final double HOLDS = 0.25;

  /** Share at each end of a burst that is left out of its level. */
  private static final double SHOULDER = 0.15;

  /** Times of the filter around a burst that are no noise. */
  private static final double AWAY = 3;

  /**
   * Ringing so many times of the filter after a step, of its power, falls with their square. A step
   * whose own band ends sharply leaves (1 / pi^2)^2 in its own band; one of a third of the width
   * has ten times that, and both edges of a burst may add up.
   */
  private static final double RINGS = 4 / (Math.PI * Math.PI);

  /** A band that is this quiet is rounding, of its highest power. */
  private static final double ROUNDED = 1e-13;

  private static final int MOST = 100_000;

  private final BurstSettings settings;
  private final BandTaker.Band band;
  private final int count;
  private final double rateHz;
  private final double[] power;
  private final double quiet;
  private final double threshold;
  private final List<Burst> bursts = new ArrayList<>();
  private double noise;
  private int cut;
  private int tooShort;
  private double onSeconds;

  BurstFinder(BurstSettings settings, BandTaker.Band band) {
    this.settings = settings;
    this.band = band;
    this.count = band.samples();
    this.rateHz = band.rateHz();
    this.power = new double[count];
    for (int n = 0; n < count; n++) {
      power[n] = band.re()[n] * (double) band.re()[n] + band.im()[n] * (double) band.im()[n];
    }
    double most = Arrays.stream(power).max().orElse(0);
    if (!(most > 0)) {
      throw new Refusal(
          "signal", "There is no signal: all samples are 0. Check the source and the connection.");
    }
    this.quiet =
        Math.max(ROUNDED * most, new KthSelector().select(power.clone(), null, count / 10) / TENTH);
    this.noise = quiet;
    // Values of a filtered noise are independent about once in a time of its filter.
    double independent = Math.max(1, count / rateHz * settings.bandHz());
    double byChance = quiet * Math.log(independent / CHANCE);
    this.threshold =
        Double.isNaN(settings.overNoiseDb())
            ? byChance
            : quiet * Math.pow(10, settings.overNoiseDb() / 10);
    List<int[]> places = places();
    this.noise = between(places);
    for (int[] p : standing(places)) {
      take(p[0], p[1]);
    }
  }

  List<Burst> bursts() {
    return bursts;
  }

  double[] power() {
    return power;
  }

  /** Mean power where no burst is. */
  double noise() {
    return noise;
  }

  /** What the quietest tenth would be the noise of; where it is quiet for less, too much. */
  double quiet() {
    return quiet;
  }

  double threshold() {
    return threshold;
  }

  /** Bursts that the result cuts off; they are not measured. */
  int cut() {
    return cut;
  }

  int tooShort() {
    return tooShort;
  }

  /** How long anything was there, with what was cut off. */
  double onSeconds() {
    return onSeconds;
  }

  /** Whether the threshold lies where noise passes it. */
  boolean firesOnNoise() {
    double independent = count / rateHz * settings.bandHz();
    return independent * Math.exp(-threshold / quiet) > 0.5;
  }

  /** First and last samples of what rises over the threshold. */
  private List<int[]> places() {
    List<int[]> out = new ArrayList<>();
    int pause = (int) Math.ceil(Math.max(settings.pauseSeconds(), 1 / settings.bandHz()) * rateHz);
    int n = 0;
    while (n < count) {
      if (power[n] < threshold) {
        n++;
        continue;
      }
      int first = n;
      int last = n;
      while (n < count && n - last <= pause) {
        if (power[n] >= HOLDS * threshold) {
          last = n;
        }
        n++;
      }
      out.add(new int[] {first, last});
      if (out.size() > MOST) {
        throw new Refusal(
            "overNoiseDb",
            "There are more than 100,000 bursts. Raise the threshold, or look shorter.");
      }
    }
    return out;
  }

  /**
   * What stands over the skirts of stronger ones before and after it; what does not is their
   * ringing.
   */
  private List<int[]> standing(List<int[]> places) {
    double[] peak = new double[places.size()];
    for (int i = 0; i < peak.length; i++) {
      for (int n = places.get(i)[0]; n <= places.get(i)[1]; n++) {
        peak[i] = Math.max(peak[i], power[n]);
      }
    }
    double most = Arrays.stream(peak).max().orElse(0);
    double reach = Math.sqrt(RINGS * most / threshold);
    boolean[] rings = new boolean[peak.length];
    for (int i = 0; i < peak.length; i++) {
      for (int step = -1; step <= 1; step += 2) {
        double times = 0;
        for (int o = i + step; o >= 0 && o < peak.length && times < reach; o += step) {
          int gap =
              step < 0 ? places.get(i)[0] - places.get(o)[1] : places.get(o)[0] - places.get(i)[1];
          times = gap / rateHz * settings.bandHz();
          rings[i] |= peak[i] < peak[o] * Math.min(1, RINGS / (times * times));
        }
      }
    }
    List<int[]> out = new ArrayList<>();
    for (int i = 0; i < peak.length; i++) {
      if (!rings[i]) {
        out.add(places.get(i));
      }
    }
    return out;
  }

  /** Mean power of all samples that are some times of the filter away from what rises. */
  private double between(List<int[]> places) {
    int away = (int) Math.ceil(AWAY / settings.bandHz() * rateHz);
    double sum = 0;
    long samples = 0;
    int next = 0;
    for (int i = 0; i <= places.size(); i++) {
      int to = i < places.size() ? places.get(i)[0] - away : count;
      for (int n = next; n < to; n++) {
        sum += power[n];
        samples++;
      }
      next = i < places.size() ? places.get(i)[1] + away : count;
    }
    return samples < 16 * away || !(sum > 0) ? quiet : Math.max(sum / samples, ROUNDED * quiet);
  }

  /** Measures what lies between two samples, and some before and after. */
  private void take(int first, int last) {
    double level = level(first, last);
    double half = level / 4;
    double start = crossing(outwards(first, -1, half), -1, half);
    double end = crossing(outwards(last, 1, half), 1, half);
    // The filter sees what is beyond the ends of the result for one of its times.
    double blind = rateHz / settings.bandHz();
    if (!(start > blind && end < count - 1 - blind)) {
      cut++;
      onSeconds += (last - first + 1) / rateHz;
      return;
    }
    if ((end - start) / rateHz < settings.leastSeconds()) {
      tooShort++;
      return;
    }
    onSeconds += (end - start) / rateHz;
    bursts.add(measured(start, end, level));
  }

  /** Mean power without the shoulders. */
  private double level(int first, int last) {
    int shoulder = (int) (SHOULDER * (last - first + 1));
    double sum = 0;
    int from = first + shoulder;
    int to = last - shoulder;
    for (int n = from; n <= to; n++) {
      sum += power[n];
    }
    return Math.max(1e-300, sum / (to - from + 1));
  }

  /**
   * The outermost sample of a burst from a sample on: inwards while it is below, then outwards
   * while it is above.
   */
  private int outwards(int n, int step, double half) {
    int at = n;
    while (at - step >= 0 && at - step < count && power[at] < half) {
      at -= step;
    }
    while (at + step >= 0 && at + step < count && power[at + step] >= half) {
      at += step;
    }
    return at;
  }

  /** Where the voltage passes a power beside a sample; NaN if the result ends before. */
  private double crossing(int at, int step, double half) {
    int beside = at + step;
    if (beside < 0 || beside >= count) {
      return Double.NaN;
    }
    double a = Math.sqrt(power[at]);
    double b = Math.sqrt(power[beside]);
    double want = Math.sqrt(half);
    return a > b ? at + step * (a - want) / (a - b) : at;
  }

  private Burst measured(double start, double end, double level) {
    int from = (int) Math.ceil(start + SHOULDER * (end - start));
    int to = (int) Math.floor(end - SHOULDER * (end - start));
    double mean = level;
    if (to > from) {
      double sum = 0;
      for (int n = from; n <= to; n++) {
        sum += power[n];
      }
      // Noise is on top of it.
      mean = Math.max(1e-300, sum / (to - from + 1) - noise);
    }
    double peak = 0;
    for (int n = (int) Math.ceil(start); n <= end; n++) {
      peak = Math.max(peak, power[n]);
    }
    double rise = edge((int) Math.ceil(start), -1, mean);
    double fall = edge((int) Math.floor(end), 1, mean);
    double fastest = Math.max(1e-300, Math.min(number(rise), number(fall)));
    // Noise along the voltage, at an edge that goes 0.8 of the level in this time.
    double jitter = Math.sqrt(noise / 2 / mean) * fastest / 0.8;
    return new Burst(
        start / rateHz,
        end / rateHz,
        mean,
        peak,
        offsetHz(from, to),
        rise,
        fall,
        droopDb(from, to),
        jitter);
  }

  private double number(double edge) {
    return Double.isNaN(edge) ? 0.68 / settings.bandHz() : edge;
  }

  /** From 10 to 90 % of the voltage at an edge near a sample inside it. */
  private double edge(int inside, int step, double level) {
    double high = passes(inside, -step, 0.81 * level, true);
    double low = passes(inside, step, 0.01 * level, false);
    return Double.isNaN(high) || Double.isNaN(low) ? Double.NaN : Math.abs(high - low) / rateHz;
  }

  /** Where a power is passed from a sample on, going up or down. */
  private double passes(int start, int step, double wanted, boolean up) {
    double want = Math.sqrt(wanted);
    for (int n = start; n + step >= 0 && n + step < count; n += step) {
      double a = Math.sqrt(power[n]);
      double b = Math.sqrt(power[n + step]);
      if (up ? b >= want : b <= want) {
        boolean between = up ? a < want : a > want;
        return between ? n + step * (want - a) / (b - a) : n;
      }
    }
    return Double.NaN;
  }

  /** Mean turn from sample to sample. */
  private double offsetHz(int from, int to) {
    if (to - from < 4) {
      return Double.NaN;
    }
    double re = 0;
    double im = 0;
    for (int n = from + 1; n <= to; n++) {
      double a = band.re()[n];
      double b = band.im()[n];
      double c = band.re()[n - 1];
      double d = band.im()[n - 1];
      re += a * c + b * d;
      im += b * c - a * d;
    }
    // Noise turns with the middle of the band: what neighbours have in common of it is known.
    double x = Math.PI * settings.bandHz() / 2 / rateHz;
    re -= (to - from) * noise * Math.exp(-x * x / Math.log(2));
    return Math.atan2(im, re) / (2 * Math.PI) * rateHz;
  }

  /** What a straight line through the power falls by over the whole burst. */
  private double droopDb(int from, int to) {
    int n = to - from + 1;
    if (n < 8) {
      return 0;
    }
    double mean = 0;
    for (int k = from; k <= to; k++) {
      mean += power[k] / n;
    }
    double middle = (from + to) / 2.0;
    double moment = 0;
    double square = 0;
    for (int k = from; k <= to; k++) {
      moment += (k - middle) * (power[k] - mean);
      square += (k - middle) * (k - middle);
    }
    double change = moment / square * n / (1 - 2 * SHOULDER) / mean;
    double bounded = Math.max(-1.98, Math.min(1.98, change));
    return -10 * Math.log10((1 + bounded / 2) / (1 - bounded / 2));
  }
}
