package rovnik.core.spectrum;

/** What one row of a view does with the spectra that come one after the other. */
public enum TraceMode {
  /** The newest alone. */
  LIVE("newest"),
  /** Mean of the powers of the newest N. */
  POWER_AVERAGE("power average"),
  /** Mean in which each new spectrum counts 1/N and all older ones fade. */
  EXPONENTIAL_AVERAGE("fading average"),
  /** Mean of the decibels of the newest N. */
  LOG_AVERAGE("log average"),
  /** Highest since the start. */
  HIGHEST("highest hold"),
  /** Lowest since the start. */
  LOWEST("lowest hold"),
  /** Stands as it was when it was frozen. */
  FROZEN("frozen"),
  /** Quasi-peak of CISPR 16-1-1, in the bandwidth that belongs to the frequency. */
  QUASI_PEAK("quasi-peak"),
  /** Average detector of CISPR 16-1-1 in the same bandwidth. */
  CISPR_AVERAGE("CISPR average"),
  /** Row A over row B in dB. */
  RATIO("A \u2212 B in dB"),
  /** Power of row A less the power of row B. */
  REST("A \u2212 B in power");

  private final String label;

  TraceMode(String label) {
    this.label = label;
  }

  public String label() {
    return label;
  }

  /** True if it is made from two other rows. */
  public boolean math() {
    return this == RATIO || this == REST;
  }

  /** True if it is made from the samples and not from the spectra. */
  public boolean weighted() {
    return this == QUASI_PEAK || this == CISPR_AVERAGE;
  }

  /** True if it needs a number of spectra. */
  public boolean counted() {
    return this == POWER_AVERAGE || this == EXPONENTIAL_AVERAGE || this == LOG_AVERAGE;
  }
}
