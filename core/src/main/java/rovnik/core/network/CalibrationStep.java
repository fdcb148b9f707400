package rovnik.core.network;

/** One thing to plug in and measure. */
public enum CalibrationStep {
  OPEN_1("Open at port 1", 1, CalibrationStandard.Kind.OPEN),
  SHORT_1("Short at port 1", 1, CalibrationStandard.Kind.SHORT),
  LOAD_1("Load at port 1", 1, CalibrationStandard.Kind.LOAD),
  OPEN_2("Open at port 2", 2, CalibrationStandard.Kind.OPEN),
  SHORT_2("Short at port 2", 2, CalibrationStandard.Kind.SHORT),
  LOAD_2("Load at port 2", 2, CalibrationStandard.Kind.LOAD),
  THROUGH("Through between the ports", 0, null),
  /** May be left out. */
  ISOLATION("Loads at both ports (may be left out)", 0, null);

  private final String label;
  private final int port;
  private final CalibrationStandard.Kind standard;

  CalibrationStep(String label, int port, CalibrationStandard.Kind standard) {
    this.label = label;
    this.port = port;
    this.standard = standard;
  }

  public String label() {
    return label;
  }

  /** 1 or 2 for a standard at a port, 0 for both. */
  public int port() {
    return port;
  }

  /** Null for both ports at once. */
  public CalibrationStandard.Kind standard() {
    return standard;
  }
}
