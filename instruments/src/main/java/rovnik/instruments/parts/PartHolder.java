package rovnik.instruments.parts;

import java.util.Arrays;
import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.network.NetworkData;
import rovnik.instruments.Control;
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

  /**
   * Puts a part made of measured data among those at hand.
   *
   * @throws Refusal if the place holds real parts only, or the data is no two-port of 50 ohm
   */
  void load(String name, NetworkData part);

  @Override
  default List<Control> controls() {
    return List.of(Control.choice("part", "plugged in", plugged(), parts()));
  }

  @Override
  default void set(String control, String value) {
    if (!control.equals("part")) {
      Instrument.super.set(control, value);
    }
    if (value == null || value.isBlank()) {
      throw new Refusal("part", "Name the part to plug in.");
    }
    plug(value);
  }

  @Override
  default String condition() {
    return plugged();
  }

  /** The place in the words of a dialect. */
  static PartHolder over(ScpiConnection connection, Dialect dialect) {
    return new OverScpi(connection, dialect);
  }

  /** SCPI driver. */
  final class OverScpi extends ScpiInstrument implements PartHolder {
    private static final int MOST_POINTS = 20_001;

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
      dialect.send(connection, "plug", clean(part));
    }

    private static String clean(String name) {
      return name.replaceAll("[\"',;#\\n]", " ").strip();
    }

    @Override
    public void load(String name, NetworkData part) {
      if (part.ports() != 2 || part.referenceOhm()[0] != 50 || part.referenceOhm()[1] != 50) {
        throw new Refusal("part", "A part to plug in has two ports of 50 ohm.");
      }
      if (part.points() > MOST_POINTS) {
        throw new Refusal("part", "A part to plug in has at most " + MOST_POINTS + " points.");
      }
      StringBuilder text = new StringBuilder("'").append(clean(name)).append('\'');
      for (int p = 0; p < part.points(); p++) {
        text.append(',').append(part.frequencyHz()[p]);
        for (int k = 0; k < 8; k++) {
          text.append(',').append((float) part.s()[8 * p + k]);
        }
      }
      dialect.send(connection, "load", text.toString());
    }
  }
}
