package rovnik.instruments.source;

import java.util.List;
import java.util.Locale;
import rovnik.core.Refusal;
import rovnik.core.path.Supply;
import rovnik.core.result.Fact;
import rovnik.core.units.Frequency;
import rovnik.instruments.Control;
import rovnik.instruments.ScpiInstrument;
import rovnik.instruments.Values;
import rovnik.instruments.dialect.Dialect;
import rovnik.instruments.scpi.ScpiConnection;

/** A {@link FunctionSource} in the words of a dialect. */
public final class ScpiFunctionSource extends ScpiInstrument implements FunctionSource {
  /** Shapes, and what SCPI-99 calls them. */
  private static final String[] SHAPES = {"sine", "triangle", "square", FunctionState.STEADY};

  private static final String[] WORDS = {"SIN", "TRI", "SQU", "DC"};

  public ScpiFunctionSource(ScpiConnection connection, Dialect dialect) {
    super(connection, dialect);
  }

  @Override
  public FunctionState state() {
    String word = connection.ask(dialect.query("shape").ask()).strip().toUpperCase(Locale.ROOT);
    int shape = 0;
    for (int i = 0; i < WORDS.length; i++) {
      shape = word.startsWith(WORDS[i]) ? i : shape;
    }
    double most = dialect.fact("highestVolts");
    return new FunctionState(
        dialect.flag(connection, OUTPUT),
        SHAPES[shape],
        dialect.number(connection, "frequencyHz", 0, 1e9),
        dialect.number(connection, "amplitudeVolts", 0, most),
        dialect.number(connection, "offsetVolts", -most, most));
  }

  @Override
  public Supply.Accuracy accuracy() {
    return new Supply.Accuracy(dialect.fact("accuracyVolts"), dialect.fact("accuracyShare"));
  }

  @Override
  public List<Control> controls() {
    FunctionState s = state();
    double most = dialect.fact("highestVolts");
    return List.of(
        Control.onOff(OUTPUT, "output", s.on(), true),
        Control.choice(SHAPE, "shape", s.shape(), List.of(SHAPES)).raisingPower(),
        Control.number(
            FREQUENCY,
            "at",
            s.frequencyHz(),
            "Hz",
            dialect.fact("lowestHz"),
            dialect.fact("highestHz")),
        Control.number(OFFSET, "mean", s.offsetVolts(), "V", -most, most).raisingPower(),
        Control.number(AMPLITUDE, "swing to each side", s.amplitudeVolts(), "V", 0, most)
            .raisingPower());
  }

  @Override
  public void set(String control, String value) {
    switch (control) {
      case OUTPUT -> dialect.send(connection, "output", Values.onOff(value) ? "ON" : "OFF");
      case SHAPE -> dialect.send(connection, "shape", WORDS[Values.choice(value, SHAPES)]);
      case FREQUENCY ->
          dialect.send(connection, "frequencyHz", within(value, "lowestHz", "highestHz"));
      case OFFSET -> dialect.send(connection, "offsetVolts", volts(value, true));
      case AMPLITUDE -> dialect.send(connection, "amplitudeVolts", volts(value, false));
      default -> super.set(control, value);
    }
  }

  private double within(String value, String lowest, String highest) {
    double v = Values.number(value);
    if (!(v >= dialect.fact(lowest) && v <= dialect.fact(highest))) {
      throw new Refusal(
          "value",
          "This source goes from "
              + Frequency.ofHertz(dialect.fact(lowest))
              + " to "
              + Frequency.ofHertz(dialect.fact(highest))
              + ".");
    }
    return v;
  }

  private double volts(String value, boolean negative) {
    double v = Values.number(value);
    double most = dialect.fact("highestVolts");
    if (!(v <= most && v >= (negative ? -most : 0))) {
      throw new Refusal(
          "value",
          "This source puts out "
              + Supply.volts(negative ? -most : 0)
              + " to "
              + Supply.volts(most)
              + " here.");
    }
    return v;
  }

  @Override
  public List<Fact> facts() {
    FunctionState s = state();
    return s.swingVolts() == 0
        ? List.of()
        : List.of(
            Fact.of(
                "swings", Supply.swing(new Supply.Drive(s.offsetVolts(), s.amplitudeVolts(), 0))));
  }

  @Override
  public String condition() {
    return state().text();
  }
}
