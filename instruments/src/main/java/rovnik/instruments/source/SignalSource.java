package rovnik.instruments.source;

import java.util.ArrayList;
import java.util.List;
import rovnik.core.result.Fact;
import rovnik.instruments.Control;
import rovnik.instruments.Instrument;
import rovnik.instruments.Values;

/** A generator or transmitter that can be switched. */
public interface SignalSource extends Instrument {
  String OUTPUT = "output";
  String SIGNAL = "signal";
  String DRIVE = "drive";
  String LEVEL = "level";
  String DATA = "data";
  String HIGH = "high";

  SourceState state();

  void setOn(boolean on);

  void setModulated(boolean modulated);

  void setDriveHigh(boolean high);

  /** Sets the level at its output; refused if it cannot. */
  void setLevelDbm(double levelDbm);

  /**
   * Lowest and highest level that can be set, dBm.
   *
   * @throws rovnik.core.Refusal if the level cannot be set
   */
  double[] levelRangeDbm();

  /** What puts level and signal back to what they are now; the output is not touched. */
  default Runnable restorer() {
    SourceState before = state();
    return () -> {
      SourceState now = state();
      if (now.driveHigh() != before.driveHigh()) {
        setDriveHigh(before.driveHigh());
      }
      if (now.levelDbm() != before.levelDbm() && state().levelDbm() != before.levelDbm()) {
        setLevelDbm(before.levelDbm());
      }
      if (now.modulated() != before.modulated()) {
        setModulated(before.modulated());
      }
    };
  }

  /** Whether it is not known before it is set how high the level is with this control. */
  default boolean levelOpen(String control) {
    return control.equals(DRIVE);
  }

  @Override
  default List<Control> controls() {
    SourceState s = state();
    List<Control> all = new ArrayList<>();
    all.add(Control.onOff(OUTPUT, "output", s.on(), true));
    all.add(
        Control.choice(
            SIGNAL, "signal", s.modulated() ? DATA : "carrier", List.of("carrier", DATA)));
    all.add(
        Control.choice(DRIVE, "drive", s.driveHigh() ? HIGH : "normal", List.of("normal", HIGH))
            .raisingPower());
    return all;
  }

  @Override
  default void set(String control, String value) {
    switch (control) {
      case OUTPUT -> setOn(Values.onOff(value));
      case SIGNAL -> setModulated(Values.choice(value, "carrier", DATA) == 1);
      case DRIVE -> setDriveHigh(Values.choice(value, "normal", HIGH) == 1);
      case LEVEL -> setLevelDbm(Values.number(value));
      default -> Instrument.super.set(control, value);
    }
  }

  @Override
  default List<Fact> facts() {
    SourceState s = state();
    return List.of(
        Fact.of("nominal", s.frequencyHz(), "Hz"), Fact.of("level", s.levelDbm(), "dBm"));
  }

  @Override
  default String condition() {
    return state().text();
  }
}
