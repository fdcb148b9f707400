package rovnik.core.time;

import rovnik.core.spectrum.SpectrumLayout;
import rovnik.core.spectrum.ToneInterpolator;
import rovnik.core.uncertainty.UncertaintyBudget;

/**
 * A line at a highest point of many spectra: where between points it stands is told by their mean
 * and the shape of the window; noise lifts the highest of many.
 *
 * @param offsetPoints from the point
 * @param lossDb that the point has less than the line
 * @param levelStandardDb standard uncertainty of the level
 * @param pointStandard standard uncertainty of the place, in points
 */
record HighestLine(
    double offsetPoints, double lossDb, double levelStandardDb, double pointStandard) {
  private static final double DB = 10 / Math.log(10);

  /** What the shape of the window leaves. */
  private static final double SHAPE_DB = 0.02;

  /** Spectra in which the line begins or ends are wider: what they do to the mean, in points. */
  private static final double EDGES_POINTS = 0.6;

  private static final double MANY_EDGES_POINTS = 0.006;

  /** The highest of n values of noise is about sqrt(2 ln n) standard deviations over their mean. */
  private static final double OF_HIGHEST = 0.6;

  /** Of spectra that overlap by half, so many are as good as independent. */
  private static final double OWN_SHARE = 0.75;

  /** In the mean a line must be this far over the noise to tell where it is: 7 dB. */
  private static final double OVER_NOISE = 5;

  /** Where nothing is known: anywhere from half-way to one point to half-way to the other. */
  private static final double ANYWHERE_POINTS = 0.5 / Math.sqrt(3);

  /**
   * @param highest power of each point
   * @param mean of each point, over all spectra
   * @param noise mean power of noise at a point
   * @param spectra that there are
   * @param with those in which the line is
   */
  static HighestLine of(
      SpectrumLayout layout,
      float[] highest,
      double[] mean,
      int top,
      double noise,
      long spectra,
      long with) {
    double power = Math.max(highest[top], 1e-30);
    double lift =
        DB * Math.sqrt(2 * noise / power) * OF_HIGHEST * Math.sqrt(2 * Math.log(Math.max(2, with)));
    ToneInterpolator between = ToneInterpolator.of(layout);
    if (mean[top] < OVER_NOISE * noise) {
      double half = between.lossDb(0.5) / 2;
      return new HighestLine(0, half, Math.hypot(lift, half / Math.sqrt(3)), ANYWHERE_POINTS);
    }
    float[] db = new float[mean.length];
    for (int i = 0; i < db.length; i++) {
      db[i] = (float) (DB * Math.log(mean[i] + 1e-30));
    }
    double offset = between.offsetPoints(db, top, DB * Math.log(noise + 1e-30));
    double teller = Math.max(1e-3, between.tellerAmplitude(offset));
    double ratio = noise / (mean[top] * teller * teller);
    double scatterDb = DB * Math.sqrt((2 * ratio + ratio * ratio) / (OWN_SHARE * spectra));
    double byNoise = Math.sqrt(2) * scatterDb / Math.max(1e-3, between.slopeDb(offset));
    double points =
        Math.min(
            ANYWHERE_POINTS,
            Math.hypot(byNoise, Math.max(MANY_EDGES_POINTS, EDGES_POINTS / Math.max(2, with))));
    double ofPlace = Math.abs(between.lossDb(Math.abs(offset) + points) - between.lossDb(offset));
    return new HighestLine(
        offset, between.lossDb(offset), Math.hypot(lift, Math.hypot(SHAPE_DB, ofPlace)), points);
  }

  /** Uncertainty of its frequency. */
  UncertaintyBudget frequency(double referenceHz, double stepHz) {
    return new UncertaintyBudget()
        .rectangular("reference", referenceHz)
        .normal("between points", pointStandard * stepHz);
  }
}
