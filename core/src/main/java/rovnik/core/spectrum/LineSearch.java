package rovnik.core.spectrum;

import rovnik.core.Refusal;

/**
 * What counts as a line.
 *
 * @param threshold lowest level at the reading plane, NaN to follow the noise floor
 * @param excursionDb how far the trace must fall on both sides
 * @param most lines listed
 */
public record LineSearch(double threshold, double excursionDb, int most) {
  public static final LineSearch AUTO =
      new LineSearch(Double.NaN, PeakSearch.DEFAULT_EXCURSION_DB, SpectrumMeasurement.MOST_PEAKS);

  public static final int MOST = 200;

  public LineSearch {
    if (!(excursionDb >= 0.5 && excursionDb <= 100)) {
      throw new Refusal("excursionDb", "The excursion of a line must be 0.5 to 100 dB.");
    }
    if (most < 1 || most > MOST) {
      throw new Refusal("mostLines", "The table lists 1 to " + MOST + " lines.");
    }
  }

  public PeakSearch over(float[] levelDb) {
    double floor =
        Double.isNaN(threshold)
            ? PeakSearch.median(levelDb) + PeakSearch.DEFAULT_ABOVE_MEDIAN_DB
            : threshold;
    return new PeakSearch(floor, excursionDb, most);
  }
}
