package rovnik.instruments.tested;

import java.util.ArrayList;
import java.util.List;
import rovnik.core.result.Fact;
import rovnik.instruments.Control;
import rovnik.instruments.Instrument;
import rovnik.instruments.Values;

/** A receiver under test: it tells how well it takes what it receives. */
public interface TestedReceiver extends Instrument {
  String SEQUENCE = "sequence";
  String SQUELCH = "squelch";
  List<String> SEQUENCES = List.of("PN9", "PN15", "PN23");
  List<String> SQUELCHES = List.of("off", "noise", "tone");

  TestedCapabilities capabilities();

  /** Where it listens. */
  double frequencyHz();

  /**
   * Listens until so many bits are compared with the test sequence, or a little longer than they
   * last.
   *
   * @param bits at most as many as it counts at once
   */
  BitCounts count(int bits);

  /** The next samples of its loudspeaker's output, full scale 1; a copy of its own. */
  double[] audio(int samples);

  /** Whether its squelch lets what it receives through. */
  boolean squelchOpen();

  /** Frequency of the tone below the voice that it hears, NaN if there is none. */
  double toneHz();

  /** Test sequence that it compares with, "" if it has no test mode. */
  String sequence();

  void setSequence(String choice);

  /** What mutes its loudspeaker, "" if nothing can. */
  String squelch();

  void setSquelch(String choice);

  @Override
  default List<Control> controls() {
    List<Control> all = new ArrayList<>();
    if (!sequence().isEmpty()) {
      all.add(Control.choice(SEQUENCE, "compares with", sequence(), SEQUENCES));
    }
    if (!squelch().isEmpty()) {
      all.add(Control.choice(SQUELCH, "squelch", squelch(), SQUELCHES));
    }
    return all;
  }

  @Override
  default void set(String control, String value) {
    switch (control) {
      case SEQUENCE ->
          setSequence(SEQUENCES.get(Values.choice(value, SEQUENCES.toArray(String[]::new))));
      case SQUELCH ->
          setSquelch(SQUELCHES.get(Values.choice(value, SQUELCHES.toArray(String[]::new))));
      default -> Instrument.super.set(control, value);
    }
  }

  @Override
  default List<Fact> facts() {
    return List.of(Fact.of("listens at", frequencyHz(), "Hz"));
  }

  @Override
  default String condition() {
    return !squelch().isEmpty() ? "squelch " + squelch() : sequence();
  }
}
