package rovnik.standins.world;

/**
 * What a modulator and its synthesiser really are; levels are against the mean of what is played.
 *
 * @param leakageDbc before it is adjusted
 * @param adjustedLeakageDbc after that
 * @param imbalanceDb I over Q, before
 * @param adjustedImbalanceDb after
 * @param quadratureDegrees off a right angle, before
 * @param adjustedQuadratureDegrees after
 * @param delaySeconds by which I is later than Q
 * @param referenceError of carrier and clock, as a share
 * @param oip3Dbm of its amplifier
 * @param phaseNoiseDbc at 10 kHz, in 1 Hz
 * @param cornerHz up to which that is flat
 * @param noiseDbc far from the carrier, in 1 Hz
 */
record ModulatorTruth(
    double leakageDbc,
    double adjustedLeakageDbc,
    double imbalanceDb,
    double adjustedImbalanceDb,
    double quadratureDegrees,
    double adjustedQuadratureDegrees,
    double delaySeconds,
    double referenceError,
    double oip3Dbm,
    double phaseNoiseDbc,
    double cornerHz,
    double noiseDbc) {
  static final ModulatorTruth GENERATOR =
      generator(Truth.GENERATOR_PHASE_NOISE_DBC_PER_HZ_AT_10_KHZ, Truth.GENERATOR_NOISE_DBC_PER_HZ);

  static final ModulatorTruth QUIET_GENERATOR =
      generator(Truth.QUIET_PHASE_NOISE_DBC_PER_HZ_AT_10_KHZ, Truth.QUIET_NOISE_DBC_PER_HZ);

  static final ModulatorTruth QUAY_LINK =
      new ModulatorTruth(
          Truth.QUAY_LEAKAGE_DBC,
          Truth.QUAY_TRIMMED_LEAKAGE_DBC,
          Truth.QUAY_IMBALANCE_DB,
          Truth.QUAY_IMBALANCE_DB,
          Truth.QUAY_QUADRATURE_DEGREES,
          Truth.QUAY_QUADRATURE_DEGREES,
          0,
          Truth.QUAY_REFERENCE_ERROR,
          Truth.QUAY_OIP3_DBM,
          Truth.QUAY_PHASE_NOISE_DBC_PER_HZ_AT_10_KHZ,
          Truth.QUAY_PHASE_NOISE_CORNER_HZ,
          Truth.QUAY_NOISE_DBC_PER_HZ);

  private static ModulatorTruth generator(double phaseNoiseDbc, double noiseDbc) {
    return new ModulatorTruth(
        Truth.GENERATOR_LEAKAGE_DBC,
        Truth.GENERATOR_ADJUSTED_LEAKAGE_DBC,
        Truth.GENERATOR_IMBALANCE_DB,
        Truth.GENERATOR_ADJUSTED_IMBALANCE_DB,
        Truth.GENERATOR_QUADRATURE_DEGREES,
        Truth.GENERATOR_ADJUSTED_QUADRATURE_DEGREES,
        Truth.GENERATOR_DELAY_SECONDS,
        Truth.GENERATOR_REFERENCE_ERROR,
        Truth.GENERATOR_OIP3_DBM,
        phaseNoiseDbc,
        Truth.GENERATOR_PHASE_NOISE_CORNER_HZ,
        noiseDbc);
  }

  /** The same against a mean that is lower by so much, because there is silence in it. */
  ModulatorTruth withSilence(double db) {
    return new ModulatorTruth(
        leakageDbc + db,
        adjustedLeakageDbc + db,
        imbalanceDb,
        adjustedImbalanceDb,
        quadratureDegrees,
        adjustedQuadratureDegrees,
        delaySeconds,
        referenceError,
        oip3Dbm,
        phaseNoiseDbc,
        cornerHz,
        noiseDbc + db);
  }
}
