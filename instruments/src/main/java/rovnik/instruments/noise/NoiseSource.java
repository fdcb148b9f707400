package rovnik.instruments.noise;

import java.util.List;
import rovnik.core.result.Fact;
import rovnik.instruments.Control;
import rovnik.instruments.Instrument;
import rovnik.instruments.ScpiInstrument;
import rovnik.instruments.Values;
import rovnik.instruments.dialect.Dialect;
import rovnik.instruments.scpi.ScpiConnection;

/** A source of white noise of a known excess, hot when it is on. */
public interface NoiseSource extends Instrument {
  boolean hot();

  void setHot(boolean hot);

  /** Excess noise ratio as its label says, dB. */
  double excessNoiseDb();

  @Override
  default List<Control> controls() {
    return List.of(Control.onOff("hot", "hot", hot(), false));
  }

  @Override
  default void set(String control, String value) {
    if (!control.equals("hot")) {
      Instrument.super.set(control, value);
    }
    setHot(Values.onOff(value));
  }

  @Override
  default List<Fact> facts() {
    return List.of(Fact.of("excess noise ratio", excessNoiseDb(), "dB"));
  }

  @Override
  default String condition() {
    return hot() ? "hot" : "cold";
  }

  /** The source in the words of a dialect. */
  static NoiseSource over(ScpiConnection connection, Dialect dialect) {
    return new OverScpi(connection, dialect);
  }

  /** SCPI driver. */
  final class OverScpi extends ScpiInstrument implements NoiseSource {
    private OverScpi(ScpiConnection connection, Dialect dialect) {
      super(connection, dialect);
    }

    @Override
    public boolean hot() {
      return dialect.flag(connection, "output");
    }

    @Override
    public void setHot(boolean hot) {
      dialect.send(connection, "output", hot ? "ON" : "OFF");
    }

    @Override
    public double excessNoiseDb() {
      return dialect.facts().containsKey("excessNoiseDb")
          ? dialect.fact("excessNoiseDb")
          : dialect.number(connection, "excessNoiseDb", -20, 60);
    }
  }
}
