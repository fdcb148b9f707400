package rovnik.instruments.source;

import java.util.List;
import java.util.stream.DoubleStream;
import rovnik.core.Refusal;
import rovnik.instruments.Control;
import rovnik.instruments.Instrument;
import rovnik.instruments.ScpiInstrument;
import rovnik.instruments.Values;
import rovnik.instruments.dialect.Dialect;
import rovnik.instruments.scpi.ScpiConnection;

/** A switched pad. */
public interface StepAttenuator extends Instrument {
  double attenuationDb();

  void setAttenuationDb(double db);

  /** What it can be switched to, dB. */
  List<Double> stepsDb();

  @Override
  default List<Control> controls() {
    return List.of(
        Control.choice(
                "attenuation",
                "pad",
                words(attenuationDb()),
                stepsDb().stream().map(StepAttenuator::words).toList())
            .raisingPower());
  }

  @Override
  default void set(String control, String value) {
    if (!control.equals("attenuation")) {
      Instrument.super.set(control, value);
    }
    setAttenuationDb(Values.number(value.replaceFirst("\\s*dB$", "")));
  }

  @Override
  default String condition() {
    return words(attenuationDb());
  }

  private static String words(double db) {
    return Math.round(db) + " dB";
  }

  /** The pad in the words of a dialect. */
  static StepAttenuator over(ScpiConnection connection, Dialect dialect) {
    return new OverScpi(connection, dialect);
  }

  /** SCPI driver. */
  final class OverScpi extends ScpiInstrument implements StepAttenuator {
    private OverScpi(ScpiConnection connection, Dialect dialect) {
      super(connection, dialect);
    }

    @Override
    public double attenuationDb() {
      return dialect.number(connection, "attenuationDb", 0, highestDb());
    }

    private double highestDb() {
      return dialect.facts().getOrDefault("highestAttenuationDb", 40.0);
    }

    @Override
    public List<Double> stepsDb() {
      double step = dialect.facts().getOrDefault("attenuationStepDb", 10.0);
      double highest = highestDb();
      return DoubleStream.iterate(0, v -> v <= highest, v -> v + step).boxed().toList();
    }

    @Override
    public void setAttenuationDb(double db) {
      if (stepsDb().stream().noneMatch(s -> Math.abs(s - db) < 0.05)) {
        throw new Refusal("attenuationDb", "The pad can be switched to " + stepsDb() + " dB.");
      }
      dialect.send(connection, "attenuationDb", db);
    }
  }
}
