package rovnik.core.units;

/**
 * Units in which a level is shown. What an instrument measures is the voltage at its port of
 * {@value #PORT_OHM} ohm; a power is what that voltage makes in the impedance that the user names.
 */
public enum LevelUnit {
  /** Power in decibels over a milliwatt, in the named impedance. */
  DBM("dBm"),
  /** Voltage in decibels over a microvolt, root mean square. */
  DBUV("dB\u00B5V"),
  /** Voltage in decibels over a volt, root mean square. */
  DBV("dBV"),
  /** Voltage, root mean square. */
  VOLT("V"),
  /** Power in the named impedance. */
  WATT("W");

  /** Impedance that levels in dBm refer to inside. */
  public static final double PORT_OHM = 50;

  private final String label;

  LevelUnit(String label) {
    this.label = label;
  }

  public String label() {
    return label;
  }

  /** True if equal steps are equal ratios. */
  public boolean decibels() {
    return this != VOLT && this != WATT;
  }

  /**
   * A level in this unit.
   *
   * @param dbm power of the same voltage in {@value #PORT_OHM} ohm
   * @param ohm impedance that powers are shown for, more than 0
   */
  public double fromDbm(double dbm, double ohm) {
    double squareVolts = Decibels.wattsFromDbm(dbm) * PORT_OHM;
    return switch (this) {
      case DBM -> dbm - Decibels.fromPowerRatio(ohm / PORT_OHM);
      case DBUV -> dbm + Decibels.fromPowerRatio(PORT_OHM * 1e-3) + 120;
      case DBV -> dbm + Decibels.fromPowerRatio(PORT_OHM * 1e-3);
      case VOLT -> Math.sqrt(squareVolts);
      case WATT -> squareVolts / ohm;
    };
  }

  /** The other way: dBm in {@value #PORT_OHM} ohm of a level in this unit. */
  public double toDbm(double level, double ohm) {
    return switch (this) {
      case DBM -> level + Decibels.fromPowerRatio(ohm / PORT_OHM);
      case DBUV -> level - Decibels.fromPowerRatio(PORT_OHM * 1e-3) - 120;
      case DBV -> level - Decibels.fromPowerRatio(PORT_OHM * 1e-3);
      case VOLT -> Decibels.dbmFromWatts(level * level / PORT_OHM);
      case WATT -> Decibels.dbmFromWatts(level * ohm / PORT_OHM);
    };
  }

  /**
   * An uncertainty or another small step in this unit.
   *
   * @param level in this unit, where the step is taken
   * @param db the step in decibels
   */
  public double stepOf(double level, double db) {
    if (decibels()) {
      return db;
    }
    double power = Decibels.toPowerRatio(db);
    return level * ((this == VOLT ? Math.sqrt(power) : power) - 1);
  }
}
