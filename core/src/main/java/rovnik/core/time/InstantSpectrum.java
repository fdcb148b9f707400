package rovnik.core.time;

import java.util.Arrays;
import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.signal.ComplexFft;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.Transforms;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.Peak;
import rovnik.core.spectrum.PeakSearch;
import rovnik.core.spectrum.ToneInterpolator;
import rovnik.core.spectrum.Trace;
import rovnik.core.units.Seconds;

/** The spectrum of one stretch of a record, with points between its bins. */
final class InstantSpectrum {
  private static final int MOST_SAMPLES = 1 << 20;
  static final int FEWEST = 16;

  /** Points of a bin; fewer of long stretches. */
  private static final int BETWEEN = 4;

  private static final int LONG = 1 << 16;
  private static final int MOST_LINES = 20;

  /** Noise alone rises over the lines' threshold in one spectrum of a thousand. */
  private static final double CHANCE = 1e-3;

  private static final int ROUNDS = 6;

  /** Samples that the spectrum is made of. */
  final int from;

  final int samples;
  final double rbwHz;
  final PlaneFrequencies at;

  /** Power of each point, 1 for a tone of full scale. */
  private final double[] power;

  /** Of a sum of 1. */
  private final double[] weights;

  private final float[] iq;

  /** Of the first point, from the centre of the record. */
  private final double firstHz;

  private final double noise;
  private final double enbwHz;
  private final Window window;
  private final int length;
  private final double rateHz;

  /**
   * @param from first sample
   * @param lowHz first frequency that is shown, from the centre of the record
   * @param highHz last
   */
  InstantSpectrum(
      IqRecord record,
      MeasurementContext context,
      int from,
      int samples,
      Window window,
      double lowHz,
      double highHz) {
    if (samples > MOST_SAMPLES || samples < FEWEST) {
      throw new Refusal(
          "stretchSeconds",
          "A spectrum is made of "
              + FEWEST
              + " to "
              + MOST_SAMPLES
              + " samples, here "
              + Seconds.words(FEWEST / record.sampleRateHz())
              + " to "
              + Seconds.words(MOST_SAMPLES / record.sampleRateHz())
              + ". Choose a stretch between.");
    }
    this.from = from;
    this.samples = samples;
    this.window = window;
    this.rateHz = record.sampleRateHz();
    int least = samples * (samples > LONG ? 2 : BETWEEN);
    this.length = Integer.highestOneBit(2 * least - 1);
    double binHz = rateHz / length;
    this.rbwHz = window.figures().width3dbBins() * rateHz / samples;
    this.enbwHz = window.figures().enbwBins() * rateHz / samples;
    double[] w = window.samples(samples);
    double gain = Arrays.stream(w).sum();
    this.weights = Arrays.stream(w).map(x -> x / gain).toArray();
    this.iq = record.iq();
    float[] re = new float[length];
    float[] im = new float[length];
    for (int n = 0; n < samples; n++) {
      re[n] = (float) (weights[n] * iq[2 * (from + n)]);
      im[n] = (float) (weights[n] * iq[2 * (from + n) + 1]);
    }
    ComplexFft fft = Transforms.ofLength(length);
    fft.forward(re, im);
    int first = Math.max(-length / 2, (int) Math.ceil(lowHz / binHz));
    int last = Math.min(length / 2 - 1, (int) Math.floor(highHz / binHz));
    this.power = new double[last - first + 1];
    for (int i = 0; i < power.length; i++) {
      int k = Math.floorMod(first + i, length);
      power[i] = re[k] * (double) re[k] + im[k] * (double) im[k];
    }
    double[] sorted = power.clone();
    Arrays.sort(sorted);
    this.noise = sorted[sorted.length / 2] / Math.log(2);
    this.firstHz = first * binHz;
    this.at = PlaneFrequencies.of(record, context, first * binHz, binHz, power.length);
  }

  /** Levels of no more points than can be drawn: of several the highest. */
  double[] levelsDb(int together) {
    double[] out = new double[(power.length + together - 1) / together];
    Arrays.fill(out, Double.NEGATIVE_INFINITY);
    for (int i = 0; i < power.length; i++) {
      out[i / together] = Math.max(out[i / together], db(power[i]) + at.addDb()[i]);
    }
    return out;
  }

  int points() {
    return power.length;
  }

  /** Power of all that is shown, of full scale. */
  double wholePower() {
    return Arrays.stream(power).sum() * rateHz / length / enbwHz;
  }

  /** Mean power of noise at a point, of full scale, if most of them are noise. */
  double noise() {
    return noise;
  }

  /** Lines that stand out, the strongest first, at the plane. */
  List<Peak> lines(String unit, boolean calibrated) {
    float[] level = new float[power.length];
    for (int i = 0; i < level.length; i++) {
      level[i] = (float) (db(power[i]) + at.addDb()[i]);
    }
    double independent = Math.max(2, power.length * rateHz / length / enbwHz);
    double threshold = db(noise * Math.log(independent / CHANCE)) + at.addDb()[power.length / 2];
    Trace trace =
        new Trace(
            at.hz()[0],
            at.stepHz(),
            level,
            unit,
            "",
            rbwHz,
            enbwHz,
            1,
            window.label(),
            "sample",
            calibrated);
    return new PeakSearch(threshold, PeakSearch.DEFAULT_EXCURSION_DB, MOST_LINES)
        .find(trace, new ToneInterpolator(window, (double) samples / length));
  }

  /**
   * A tone at the highest point of the spectrum.
   *
   * @param hz where it is, at the plane
   * @param power of it, 1 for full scale
   * @param standardHz of its frequency, by noise
   * @param overNoise its power over that of noise at a point
   */
  record Tone(double hz, double power, double standardHz, double overNoise) {}

  /**
   * The tone near the highest point: where the transform of the windowed samples is largest. Its
   * variance by noise follows from the slope of that transform beside its top; of a rectangular
   * window it is the bound of Rife and Boorstyn (IEEE Trans. IT-20, 1974).
   */
  Tone strongest() {
    int top = 0;
    for (int i = 1; i < power.length; i++) {
      top = power[i] > power[top] ? i : top;
    }
    double binHz = rateHz / length;
    double first = firstHz + top * binHz;
    double hz = first;
    double best = power[top];
    double step = binHz / 2;
    for (int round = 0; round < ROUNDS; round++) {
      double below = powerAt(hz - step);
      double above = powerAt(hz + step);
      best = powerAt(hz);
      double curve = below - 2 * best + above;
      double move = curve < 0 ? (below - above) / 2 / curve * step : 0;
      hz += Math.max(-step, Math.min(step, move));
      step /= 4;
    }
    best = powerAt(hz);
    double sum = 0;
    double squares = 0;
    double moment = 0;
    double squareMoment = 0;
    for (int n = 0; n < samples; n++) {
      double t = (n - (samples - 1) / 2.0) / rateHz;
      sum += weights[n];
      squares += weights[n] * weights[n];
      moment += weights[n] * t * t;
      squareMoment += weights[n] * weights[n] * t * t;
    }
    double variance = noise * sum * sum / squares / best / 2 * squareMoment / moment / moment;
    return new Tone(
        at.hz()[top] + (hz - first), best, Math.sqrt(variance) / (2 * Math.PI), best / noise);
  }

  /** Power of the windowed samples' transform at any frequency. */
  private double powerAt(double hz) {
    double re = 0;
    double im = 0;
    double turn = -2 * Math.PI * hz / rateHz;
    for (int n = 0; n < samples; n++) {
      double c = weights[n] * Math.cos(turn * n);
      double s = weights[n] * Math.sin(turn * n);
      double i = iq[2 * (from + n)];
      double q = iq[2 * (from + n) + 1];
      re += i * c - q * s;
      im += i * s + q * c;
    }
    return re * re + im * im;
  }

  private static double db(double power) {
    return 10 * Math.log10(power + 1e-30);
  }
}
