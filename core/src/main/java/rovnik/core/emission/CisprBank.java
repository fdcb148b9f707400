package rovnik.core.emission;

import rovnik.core.Refusal;
import rovnik.core.signal.ComplexFft;
import rovnik.core.units.Frequency;

/**
 * Quasi-peak and average detectors of CISPR 16-1-1 at every point of a trace at once, fed from one
 * record (an FFT-based measuring instrument in the sense of that standard). Each point sees the
 * signal through the Gaussian filter of the band; the weighting and the meter are those of {@link
 * CisprDetector}, which does the same for one frequency in the straightforward way.
 *
 * <p>Blocks need not be contiguous: the weighting stands still between them, which is right for
 * signals that go on as they are.
 */
public final class CisprBank {
  /** Filter positions within one bandwidth: a line between two of them is interpolated. */
  private static final double BINS_PER_BANDWIDTH = 8;

  /** Envelope values within 1 / bandwidth. */
  private static final double STEPS_PER_BANDWIDTH = 4;

  /** Narrower records cut the filter's skirts. */
  private static final double LEAST_BANDWIDTHS = 2.5;

  private final ComplexFft fft;
  private final float[] taps;
  private final float[] re;
  private final float[] im;
  private final int hop;
  private final int firstBin;
  private final int bins;
  private final double[] position;
  private final CisprWeighting weighting;
  private final double[] capacitor;
  private final double[] meter;
  private final double[] slope;
  private final double[] averageMeter;
  private final double[] averageSlope;
  private final double[] highest;
  private final double[] highestAverage;
  private final double settledSeconds;
  private double seconds;
  private final double stepSeconds;

  /**
   * @param sampleRateHz at least 2.5 bandwidths
   * @param offsetHz of the first point from the record's centre
   * @param stepHz distance of two points
   */
  public CisprBank(
      CisprBand band, double sampleRateHz, double offsetHz, double stepHz, int points) {
    if (sampleRateHz < LEAST_BANDWIDTHS * band.bandwidthHz()) {
      throw new Refusal(
          "traces",
          "The standard weighs in "
              + Frequency.ofHertz(band.bandwidthHz())
              + " here, and this record is only "
              + Frequency.ofHertz(sampleRateHz)
              + " wide. Widen the span, or take the weighted trace away.");
    }
    double[] h = CisprDetector.gaussian(band.bandwidthHz(), sampleRateHz);
    int wanted = (int) Math.max(h.length, BINS_PER_BANDWIDTH * sampleRateHz / band.bandwidthHz());
    int length = Math.max(16, Integer.highestOneBit(wanted - 1) << 1);
    this.fft = ComplexFft.of(length);
    this.taps = new float[h.length];
    for (int i = 0; i < h.length; i++) {
      taps[i] = (float) h[i];
    }
    this.re = new float[length];
    this.im = new float[length];
    this.hop = (int) Math.max(1, sampleRateHz / (STEPS_PER_BANDWIDTH * band.bandwidthHz()));
    double binHz = sampleRateHz / length;
    this.firstBin = (int) Math.floor(offsetHz / binHz);
    this.bins = (int) Math.floor((offsetHz + (points - 1) * stepHz) / binHz) - firstBin + 2;
    this.position = new double[points];
    for (int i = 0; i < points; i++) {
      position[i] = (offsetHz + i * stepHz) / binHz - firstBin;
    }
    this.stepSeconds = hop / sampleRateHz;
    this.settledSeconds = band.settledSeconds();
    this.weighting = new CisprWeighting(band, stepSeconds);
    this.capacitor = new double[bins];
    this.meter = new double[bins];
    this.slope = new double[bins];
    this.averageMeter = new double[bins];
    this.averageSlope = new double[bins];
    this.highest = new double[bins];
    this.highestAverage = new double[bins];
  }

  /** Signal watched so far. */
  public double seconds() {
    return seconds;
  }

  /** After so long a steady signal reads within a tenth of a decibel. */
  public double settledSeconds() {
    return settledSeconds;
  }

  /** Feeds one block; the indications that are read next are the highest within it. */
  public void accept(float[] iq, int samples) {
    java.util.Arrays.fill(highest, 0);
    java.util.Arrays.fill(highestAverage, 0);
    int length = re.length;
    for (int at = 0; at + taps.length <= samples; at += hop) {
      for (int i = 0, a = 2 * at; i < taps.length; i++, a += 2) {
        re[i] = iq[a] * taps[i];
        im[i] = iq[a + 1] * taps[i];
      }
      java.util.Arrays.fill(re, taps.length, length, 0f);
      java.util.Arrays.fill(im, taps.length, length, 0f);
      fft.forward(re, im);
      step();
      seconds += stepSeconds;
    }
  }

  private void step() {
    double charge = weighting.charge();
    double keep = 1 - weighting.discharge();
    double m = weighting.meterStep();
    int mask = re.length - 1;
    for (int k = 0; k < bins; k++) {
      int bin = firstBin + k & mask;
      double envelope = Math.sqrt(re[bin] * re[bin] + im[bin] * im[bin]);
      double c = capacitor[k];
      if (envelope > c) {
        c += charge * envelope * CisprWeighting.current(c / envelope);
      }
      c *= keep;
      capacitor[k] = c;
      slope[k] += m * (c - meter[k] - 2 * slope[k]);
      meter[k] += m * slope[k];
      averageSlope[k] += m * (envelope - averageMeter[k] - 2 * averageSlope[k]);
      averageMeter[k] += m * averageSlope[k];
      highest[k] = Math.max(highest[k], meter[k]);
      highestAverage[k] = Math.max(highestAverage[k], averageMeter[k]);
    }
  }

  /**
   * Writes the quasi-peak indication of each point as the power of a steady sine that indicates the
   * same.
   */
  public void quasiPeakInto(double[] out) {
    into(out, highest, 1 / weighting.sineShare());
  }

  /** Writes the indication of the average detector in the same terms. */
  public void averageInto(double[] out) {
    into(out, highestAverage, 1);
  }

  /** Between two filter positions the logarithm is straight, as that of a Gaussian nearly is. */
  private void into(double[] out, double[] indication, double scale) {
    for (int i = 0; i < position.length; i++) {
      int k = (int) Math.min(Math.max(Math.floor(position[i]), 0), bins - 2.0);
      double share = position[i] - k;
      double a = Math.max(indication[k], 1e-15);
      double b = Math.max(indication[k + 1], 1e-15);
      double v = scale * Math.exp((1 - share) * Math.log(a) + share * Math.log(b));
      out[i] = v * v;
    }
  }
}
