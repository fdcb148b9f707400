package rovnik.instruments.parts;

import java.util.Arrays;
import java.util.List;
import rovnik.instruments.Instrument;
import rovnik.instruments.ScpiInstrument;
import rovnik.instruments.dialect.Dialect;
import rovnik.instruments.scpi.ScpiConnection;

/** A place where one of several parts is plugged in: a coaxial switch, or a hand. */
public interface PartHolder extends Instrument {
  /** Names of the parts at hand. */
  List<String> parts();

  String plugged();

  void plug(String part);

  /** The place in the words of a dialect. */
  static PartHolder over(ScpiConnection connection, Dialect dialect) {
    return new OverScpi(connection, dialect);
  }

  /** SCPI driver. */
  final class OverScpi extends ScpiInstrument implements PartHolder {
    private OverScpi(ScpiConnection connection, Dialect dialect) {
      super(connection, dialect);
    }

    @Override
    public List<String> parts() {
      return Arrays.stream(connection.ask(dialect.query("parts").ask()).split(","))
          .map(String::strip)
          .filter(s -> !s.isEmpty())
          .toList();
    }

    @Override
    public String plugged() {
      return connection.ask(dialect.query("plugged").ask()).strip();
    }

    @Override
    public void plug(String part) {
      dialect.send(connection, "plug", part.replaceAll("[\"';\\n]", ""));
    }
  }
}
