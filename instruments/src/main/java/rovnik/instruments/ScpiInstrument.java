package rovnik.instruments;

import java.util.List;
import rovnik.instruments.dialect.Dialect;
import rovnik.instruments.scpi.ScpiConnection;

/** The common part of all drivers over SCPI. */
public abstract class ScpiInstrument implements Instrument {
  private static final int LONGEST_IDENTITY = 300;

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
    String answer = connection.ask("*IDN?");
    return answer.length() > LONGEST_IDENTITY ? answer.substring(0, LONGEST_IDENTITY) : answer;
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

  /** May be called by any thread: what waits for an answer is told that the connection broke. */
  @Override
  public void close() {
    connection.close();
  }
}
