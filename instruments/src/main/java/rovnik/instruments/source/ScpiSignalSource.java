package rovnik.instruments.source;

import java.util.Locale;
import rovnik.core.Refusal;
import rovnik.instruments.ScpiInstrument;
import rovnik.instruments.dialect.Dialect;
import rovnik.instruments.scpi.ScpiConnection;

/** A {@link SignalSource} in the words of a dialect. */
public final class ScpiSignalSource extends ScpiInstrument implements SignalSource {
  public ScpiSignalSource(ScpiConnection connection, Dialect dialect) {
    super(connection, dialect);
  }

  @Override
  public SourceState state() {
    return new SourceState(
        dialect.flag(connection, "output"),
        dialect.can("modulation") && dialect.flag(connection, "modulation"),
        dialect.can("drive") && dialect.flag(connection, "drive"),
        dialect.number(connection, "frequencyHz", 0, 1e12),
        dialect.number(connection, "levelDbm", -300, 100),
        0,
        false);
  }

  @Override
  public void setOn(boolean on) {
    dialect.send(connection, "output", on ? "ON" : "OFF");
  }

  @Override
  public void setModulated(boolean modulated) {
    dialect.send(connection, "modulation", modulated ? "ON" : "OFF");
  }

  @Override
  public void setDriveHigh(boolean high) {
    dialect.send(connection, "drive", high ? "HIGH" : "NORM");
  }

  @Override
  public double[] levelRangeDbm() {
    return new double[] {dialect.fact("lowestLevelDbm"), dialect.fact("highestLevelDbm")};
  }

  @Override
  public void setLevelDbm(double levelDbm) {
    double[] range = levelRangeDbm();
    if (!(levelDbm >= range[0] && levelDbm <= range[1])) {
      throw new Refusal(
          "levelDbm",
          String.format(
              Locale.ROOT, "The source can be set from %.1f to %.1f dBm.", range[0], range[1]));
    }
    dialect.send(connection, "levelDbm", levelDbm);
  }
}
