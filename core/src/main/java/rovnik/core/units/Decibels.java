package rovnik.core.units;

/** Decibel conversions. Powers are in watts, levels in dBm, ratios are power ratios. */
public final class Decibels {
  /** Boltzmann constant in J/K, exact (SI 2019). */
  public static final double BOLTZMANN_JOULE_PER_KELVIN = 1.380649e-23;

  /** Below this power ratio a level is shown as -300 dB instead of minus infinity. */
  private static final double FLOOR_RATIO = 1e-30;

  private Decibels() {}

  /** 10 log10(ratio), held at -300 dB for ratios of 1e-30 and below. */
  public static double fromPowerRatio(double ratio) {
    return 10 * Math.log10(Math.max(ratio, FLOOR_RATIO));
  }

  /** 20 log10(ratio) of voltages or waves, held at -300 dB. */
  public static double fromAmplitudeRatio(double ratio) {
    return fromPowerRatio(ratio * ratio);
  }

  public static double toAmplitudeRatio(double db) {
    return Math.pow(10, db / 20);
  }

  public static double toPowerRatio(double db) {
    return Math.pow(10, db / 10);
  }

  public static double dbmFromWatts(double watts) {
    return fromPowerRatio(watts / 1e-3);
  }

  public static double wattsFromDbm(double dbm) {
    return toPowerRatio(dbm) * 1e-3;
  }

  /** Available thermal noise density in dBm/Hz at the given temperature: 10 log10(kT / 1 mW). */
  public static double thermalNoiseDbmPerHz(double kelvin) {
    return dbmFromWatts(BOLTZMANN_JOULE_PER_KELVIN * kelvin);
  }

  /** Voltage reflection coefficient magnitude of a return loss in dB (positive number). */
  public static double reflectionFromReturnLoss(double returnLossDb) {
    return toAmplitudeRatio(-returnLossDb);
  }
}
