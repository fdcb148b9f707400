package rovnik.core.emission;

/**
 * Measuring bandwidths and time constants of CISPR 16-1-1 (from memory): the bandwidth is that at 6
 * dB, the time constants are those of the weighting circuit and of a critically damped meter.
 */
public enum CisprBand {
  /** 9 to 150 kHz. */
  A(200, 45e-3, 500e-3, 160e-3),
  /** 0.15 to 30 MHz. */
  B(9e3, 1e-3, 160e-3, 160e-3),
  /** 30 to 1000 MHz. */
  CD(120e3, 1e-3, 550e-3, 100e-3);

  /** A critically damped meter is within 1 % of a step after 6.6 of its time constants. */
  private static final double SETTLED_TIMES = 6.6;

  private final double bandwidthHz;
  private final double chargeSeconds;
  private final double dischargeSeconds;
  private final double meterSeconds;

  CisprBand(
      double bandwidthHz, double chargeSeconds, double dischargeSeconds, double meterSeconds) {
    this.bandwidthHz = bandwidthHz;
    this.chargeSeconds = chargeSeconds;
    this.dischargeSeconds = dischargeSeconds;
    this.meterSeconds = meterSeconds;
  }

  /** The band that a frequency belongs to; above 1 GHz the widest is taken. */
  public static CisprBand of(double hertz) {
    return hertz < 150e3 ? A : hertz < 30e6 ? B : CD;
  }

  /** 6-dB bandwidth. */
  public double bandwidthHz() {
    return bandwidthHz;
  }

  public double chargeSeconds() {
    return chargeSeconds;
  }

  public double dischargeSeconds() {
    return dischargeSeconds;
  }

  public double meterSeconds() {
    return meterSeconds;
  }

  /** After so long a steady signal reads within a tenth of a decibel. */
  public double settledSeconds() {
    return SETTLED_TIMES * meterSeconds;
  }
}
