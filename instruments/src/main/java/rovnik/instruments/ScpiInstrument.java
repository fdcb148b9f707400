package rovnik.instruments;

import java.util.List;
import rovnik.instruments.dialect.Dialect;
import rovnik.instruments.scpi.ScpiConnection;

/** The common part of all drivers over SCPI. */
public abstract class ScpiInstrument implements Instrument {
  protected final ScpiConnection connection;
  protected final Dialect dialect;

  protected ScpiInstrument(ScpiConnection connection, Dialect dialect) {
    this.connection = connection;
    this.dialect = dialect;
    // Old errors belong to whoever was here before.
    connection.set("*CLS");
    prepare();
  }

  /** Puts the instrument into the state that the driver relies on. */
  private void prepare() {
    if (dialect.can("prepare")) {
      dialect.send(connection, "prepare", "");
    }
  }

  @Override
  public String identity() {
    return connection.ask("*IDN?");
  }

  @Override
  public void reset() {
    connection.set("*RST");
    prepare();
  }

  @Override
  public List<String> errors() {
    return connection.errors();
  }

  @Override
  public void close() {
    connection.close();
  }
}
