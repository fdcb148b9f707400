package rovnik.core.spectrum;

import java.util.List;
import rovnik.core.units.Decibels;

/**
 * How well a line is known: what the noise at its points does to its level and its frequency, and
 * what its shape says of others that lie under it. A lone tone has just the shape of the window;
 * what another line, a modulation or a skirt adds shows as a difference from it.
 */
final class LineStatistics {
  /** Others are looked for so near, in RBW. */
  private static final double NEAR_RBW = 2;

  /** Differences of less than so many standard deviations are noise. */
  private static final double SIGMAS = 2.5;

  /** Rounding of levels to single precision. */
  private static final double ROUNDING_DB = 2e-5;

  /** Beside a tone there is less than this share of its power. */
  private static final double ALONE = 0.03;

  private static final double NEPER_DB = 20 / Math.log(10);

  /** What is known of one line: its level without the noise under it, and standard deviations. */
  record Known(
      double hertz,
      double level,
      double levelDb,
      double frequencyHz,
      double pullDb,
      double pullHz) {}

  private final Trace trace;
  private final ToneInterpolator interpolator;
  private final NoiseStatistics noise;
  private final double floor;

  LineStatistics(Trace trace, ToneInterpolator interpolator) {
    this.trace = trace;
    this.interpolator = interpolator;
    this.noise = new NoiseStatistics(trace);
    this.floor = PeakSearch.median(trace.level()) + noise.meanAboveMedianDb();
  }

  /** Mean of the noise at a point, in the trace's unit. */
  double floor() {
    return floor;
  }

  Known of(Peak line) {
    double ratio = Decibels.toPowerRatio(floor - line.level());
    int top = point((line.frequencyHz() - trace.startHz()) / trace.stepHz());
    while (top > 0 && trace.level()[top - 1] > trace.level()[top]) {
      top--;
    }
    while (top + 1 < trace.points() && trace.level()[top + 1] > trace.level()[top]) {
      top++;
    }
    double offset = interpolator.offsetPoints(trace.level(), top, floor);
    double slope = Math.max(1e-6, interpolator.slopeDb(offset));
    double variance = interpolator.offsetVariance(offset, ratio, trace.segments(), noise.point());
    double offsetPoints = NoiseStatistics.decibels(variance) / slope;
    double height = interpolator.amplitude(offset);
    double levelDb =
        Math.hypot(
            NoiseStatistics.decibels(noise.line() * ratio) / height,
            offsetPoints * Math.abs(interpolator.lossSlopeDb(offset)));
    double clean = Math.max(0.1, 1 - ratio / (height * height));
    double[] other = other(line, top, offset, ratio, offsetPoints);
    return new Known(
        trace.startHz() + (top + offset) * trace.stepHz(),
        line.level() + Decibels.fromPowerRatio(clean),
        Math.hypot(levelDb, ROUNDING_DB),
        Math.hypot(offsetPoints, ROUNDING_DB / slope) * trace.stepHz(),
        NEPER_DB * other[0] / height,
        NEPER_DB * other[1] / interpolator.tellerAmplitude(offset) / slope * trace.stepHz());
  }

  private int point(double place) {
    return (int) Math.max(0, Math.min(trace.points() - 1, Math.round(place)));
  }

  /**
   * The largest difference from the window's own shape, beyond what noise explains: taken for
   * another tone where it is found, it reaches the line's top and the points that tell its place by
   * the window's response. Returned as shares of the line's amplitude at both.
   */
  private double[] other(Peak line, int top, double offset, double ratio, double offsetPoints) {
    int reach = (int) Math.max(2, Math.ceil(NEAR_RBW * trace.rbwHz() / trace.stepHz()));
    double[] most = new double[2];
    for (int i = Math.max(0, top - reach); i <= Math.min(trace.points() - 1, top + reach); i++) {
      double apart = Math.abs(i - top - offset);
      double own = interpolator.amplitude(apart);
      double wanted = own * own + ratio;
      double power = Decibels.toPowerRatio(trace.level()[i] - line.level());
      double flank =
          (interpolator.amplitude(apart + 0.05) - interpolator.amplitude(apart - 0.05)) / 0.1;
      double moved = 2 * own * flank * offsetPoints;
      double scatter =
          Math.sqrt(
              noise.line() * ratio * own * own + noise.point() * ratio * ratio + moved * moved);
      double beyond = Math.abs(power - wanted) - SIGMAS * scatter - ROUNDING_DB * wanted;
      if (beyond > 0) {
        // In step with the line it adds 2 own e, as far as that does not average out, and e
        // squared.
        double steady = 0;
        for (double x = -0.5; x <= 0.5; x += 0.25) {
          steady = Math.max(steady, interpolator.steady(apart + x, trace.segments()));
        }
        double along = own * steady;
        double e = beyond / (along + Math.sqrt(along * along + beyond));
        int teller = interpolator.tellerDistance();
        double atTop = e * interpolator.amplitude(apart);
        double atTeller = e * interpolator.amplitude(Math.max(0, apart - teller));
        most[0] = Math.max(most[0], atTop * Math.max(steady, atTop));
        most[1] = Math.max(most[1], atTeller * Math.max(steady, atTeller));
      }
    }
    return most;
  }

  /**
   * Standard deviation in dB of the power in a band: lines scatter with the noise under them, all
   * else like noise of its own density.
   *
   * @param lines of the trace that are plain tones
   */
  double bandDb(double lowHz, double highHz, List<Peak> lines) {
    int first = point((lowHz - trace.startHz()) / trace.stepHz());
    int last = point((highHz - trace.startHz()) / trace.stepHz());
    double[] power = new double[last - first + 1];
    double total = 0;
    for (int i = first; i <= last; i++) {
      power[i - first] = Decibels.toPowerRatio(trace.level()[i]);
      total += power[i - first];
    }
    double noisePower = Decibels.toPowerRatio(floor);
    double variance = 0;
    int lobe = interpolator.lobePoints();
    for (Peak line : lines) {
      int at = (int) Math.round((line.frequencyHz() - trace.startHz()) / trace.stepHz());
      if (at < first || at > last || shapeless(line)) {
        continue;
      }
      double linear = Decibels.toPowerRatio(line.level());
      // Summed over the band, noise lies across the line as the window's square weighs it.
      variance += 2 * linear * noisePower / trace.enbwHz() * noise.perSquaredDensity();
      for (int i = Math.max(first, at - lobe); i <= Math.min(last, at + lobe); i++) {
        power[i - first] = Math.min(power[i - first], noisePower);
      }
    }
    double squares = 0;
    for (double p : power) {
      squares += p * p;
    }
    double toPower = trace.stepHz() / trace.enbwHz();
    variance +=
        squares * trace.stepHz() / trace.enbwHz() / trace.enbwHz() * noise.perSquaredDensity();
    double sum = total * toPower;
    return sum > 0 ? NoiseStatistics.decibels(variance / sum / sum) : 0;
  }

  /**
   * True if a line does not stand alone: a peak of a modulated signal scatters like noise, and so
   * do its neighbours.
   */
  private boolean shapeless(Peak line) {
    int lobe = interpolator.lobePoints();
    int at = (int) Math.round((line.frequencyHz() - trace.startHz()) / trace.stepHz());
    double sum = 0;
    int count = 0;
    for (int away = lobe + 1; away <= 4 * lobe; away++) {
      for (int i : new int[] {at - away, at + away}) {
        if (i >= 0 && i < trace.points()) {
          sum += Decibels.toPowerRatio(trace.level()[i] - line.level());
          count++;
        }
      }
    }
    return count == 0 || sum / count > ALONE;
  }
}
