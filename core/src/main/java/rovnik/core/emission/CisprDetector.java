package rovnik.core.emission;

/**
 * Quasi-peak and average detectors of CISPR 16-1-1 behind a Gaussian filter of the band's 6-dB
 * bandwidth. Feed complex samples; read the highest indication of the meter.
 *
 * <p>Quasi-peak: while the envelope stands above the capacitor's voltage it charges; it always
 * discharges ({@link CisprWeighting}). Both detectors indicate the root mean square of an
 * unmodulated sine.
 */
public final class CisprDetector {
  private final double[] taps;
  private final double[] lineRe;
  private final double[] lineIm;
  private int lineAt;
  private final CisprWeighting weighting;
  private double capacitor;
  private double meter;
  private double meterSlope;
  private double averageMeter;
  private double averageSlope;
  private double highest;
  private double highestAverage;
  private double highestEnvelope;
  private final IndicationScatter scatter;
  private final double stepSeconds;
  private final double settledSeconds;
  private long steps;

  /**
   * @param sampleRateHz of the complex samples, at least four bandwidths
   */
  public CisprDetector(CisprBand band, double sampleRateHz) {
    this.taps = gaussian(band.bandwidthHz(), sampleRateHz);
    this.lineRe = new double[taps.length];
    this.lineIm = new double[taps.length];
    this.stepSeconds = 1 / sampleRateHz;
    this.settledSeconds = band.settledSeconds();
    this.weighting = new CisprWeighting(band, stepSeconds);
    this.scatter = new IndicationScatter(band, weighting, stepSeconds);
  }

  /**
   * Impulse response with unit gain whose amplitude response is 6 dB down at half the bandwidth.
   */
  static double[] gaussian(double bandwidthHz, double rateHz) {
    double sigmaHz = bandwidthHz / 2 / Math.sqrt(2 * Math.log(2));
    double sigma = rateHz / (2 * Math.PI * sigmaHz);
    int half = (int) Math.ceil(4 * sigma);
    double[] h = new double[2 * half + 1];
    double sum = 0;
    for (int i = 0; i < h.length; i++) {
      h[i] = Math.exp(-0.5 * Math.pow((i - half) / sigma, 2));
      sum += h[i];
    }
    for (int i = 0; i < h.length; i++) {
      h[i] /= sum;
    }
    return h;
  }

  /**
   * Feeds samples.
   *
   * @param iq interleaved; a tone at 0 Hz is in the middle of the filter
   */
  public void accept(float[] iq, int samples) {
    for (int n = 0; n < samples; n++) {
      lineRe[lineAt] = iq[2 * n];
      lineIm[lineAt] = iq[2 * n + 1];
      lineAt = lineAt + 1 == taps.length ? 0 : lineAt + 1;
      double re = 0;
      double im = 0;
      int k = 0;
      for (int i = lineAt; i < taps.length; i++, k++) {
        re += taps[k] * lineRe[i];
        im += taps[k] * lineIm[i];
      }
      for (int i = 0; i < lineAt; i++, k++) {
        re += taps[k] * lineRe[i];
        im += taps[k] * lineIm[i];
      }
      acceptEnvelope(Math.sqrt(re * re + im * im));
    }
  }

  /** One value of the envelope behind the filter: the peak of the carrier. */
  public void acceptEnvelope(double envelope) {
    steps++;
    scatter.accept(envelope, meter);
    if (envelope > capacitor) {
      capacitor += weighting.charge() * envelope * CisprWeighting.current(capacitor / envelope);
    }
    capacitor -= weighting.discharge() * capacitor;
    // Critically damped meter: two equal poles.
    meterSlope += weighting.meterStep() * (capacitor - meter - 2 * meterSlope);
    meter += weighting.meterStep() * meterSlope;
    averageSlope += weighting.meterStep() * (envelope - averageMeter - 2 * averageSlope);
    averageMeter += weighting.meterStep() * averageSlope;
    highestEnvelope = Math.max(highestEnvelope, envelope);
    highest = Math.max(highest, meter);
    highestAverage = Math.max(highestAverage, averageMeter);
  }

  /** Highest quasi-peak indication: the power |x|^2 of a steady sine that indicates the same. */
  public double quasiPeakPower() {
    double v = highest / weighting.sineShare();
    return v * v;
  }

  /** Highest envelope behind the filter, as power. */
  public double peakPower() {
    return highestEnvelope * highestEnvelope;
  }

  /** Highest indication of the average detector in the same terms. */
  public double averagePower() {
    return highestAverage * highestAverage;
  }

  /** Whether a steady signal was watched until it reads within a tenth of a decibel. */
  public boolean settled() {
    return steps * stepSeconds >= settledSeconds;
  }

  /** Standard deviation of the quasi-peak indication from one watch to the next, dB. */
  public double quasiPeakScatterDb() {
    return decibels(scatter.ofQuasiPeak() / highest);
  }

  /** The same of the peak. */
  public double peakScatterDb() {
    return decibels(scatter.ofPeak() / highestEnvelope);
  }

  /** The same of the average. */
  public double averageScatterDb() {
    return decibels(scatter.ofAverage() / highestAverage);
  }

  private static double decibels(double amplitudeShare) {
    return 20 / Math.log(10) * amplitudeShare;
  }
}
