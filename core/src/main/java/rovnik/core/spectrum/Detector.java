package rovnik.core.spectrum;

/** How the spectra of several segments become one trace point. */
public enum Detector {
  /** Mean of the powers: the true power of noise-like signals. */
  RMS("RMS"),
  /** Highest power seen. */
  PEAK("Peak"),
  /** Lowest power seen. */
  MINIMUM("Minimum"),
  /** The newest segment alone. */
  SAMPLE("Sample"),
  /** Mean of the decibel values: reads noise 2.51 dB low (10 x Euler's constant / ln 10). */
  LOG_AVERAGE("Log average");

  private final String label;

  Detector(String label) {
    this.label = label;
  }

  public String label() {
    return label;
  }
}
