package rovnik.instruments.source;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.LongFunction;
import rovnik.core.Refusal;
import rovnik.core.result.Fact;
import rovnik.core.units.Frequency;
import rovnik.instruments.Control;
import rovnik.instruments.Hint;
import rovnik.instruments.Values;

/**
 * A generator that plays waveforms through a modulator. What the user sets is the centre of the
 * signal: a shift moves the synthesiser, and its leakage with it, aside from there.
 */
public interface SignalGenerator extends SignalSource {
  String FREQUENCY = "frequency";
  String RATE = "playback-rate";
  String SHIFT = "shift";
  String GAIN = "gain";
  String QUADRATURE = "quadrature";
  String LEAKAGE_I = "leakage-i";
  String LEAKAGE_Q = "leakage-q";
  String DELAY = "delay";
  String ADJUST = "adjust";
  String THIRD = "third-signal";
  String NOTHING = "nothing";
  String CARRIER = "plain carrier";

  GeneratorState generator();

  GeneratorCapabilities generatorCapabilities();

  /** Says how what Rovnik knows of a waveform is found by its id. */
  void waveforms(LongFunction<Optional<KnownWaveform>> known);

  /**
   * Sends samples to its memory; what is played does not change unless it has the same name.
   *
   * @param iq interleaved, full scale 1
   * @throws Refusal if they do not fit its memory
   */
  void load(KnownWaveform waveform, float[] iq);

  /** Plays a waveform of its memory, or {@link #CARRIER}. */
  void play(String choice);

  void setCentreHz(double hz);

  void setRateHz(double hz);

  void setShiftHz(double hz);

  void setTrim(String which, double value);

  /** Its own adjustment of the modulator at the present frequency. */
  void adjust();

  /** What it could play, as one chooses it. */
  List<String> choices();

  /** Plays a waveform of its memory on the third output, in step; or {@link #NOTHING}. */
  void playThird(String choice);

  /** What the third output plays, as one chooses it. */
  String thirdChoice();

  /** The same, empty for nothing or something that Rovnik did not send. */
  Optional<KnownWaveform> third();

  /** Turns one of the baseband outputs. */
  void setOutput(String control, double value);

  /** What is played, empty for a plain carrier or something that Rovnik did not send. */
  Optional<KnownWaveform> played();

  @Override
  default boolean levelOpen(String control) {
    return control.equals(SIGNAL);
  }

  @Override
  default List<Control> controls() {
    GeneratorState s = generator();
    GeneratorCapabilities can = generatorCapabilities();
    GeneratorState.Trims t = s.trims();
    List<Control> all = new ArrayList<>();
    all.add(Control.onOff(OUTPUT, "output", s.on(), true));
    all.add(Control.number(FREQUENCY, "at", s.centreHz(), "Hz", can.lowestHz(), can.highestHz()));
    all.add(
        Control.number(LEVEL, "level", s.levelDbm(), "dBm", levelRangeDbm()[0], levelRangeDbm()[1])
            .raisingPower());
    all.add(Control.choice(SIGNAL, "signal", choice(s), choices()).raisingPower());
    all.add(
        Control.number(
                RATE, "played at", s.rateHz(), "Hz", can.slowestRateHz(), can.fastestRateHz())
            .further());
    all.add(
        Control.number(
                SHIFT,
                "shifted aside by",
                s.shiftHz(),
                "Hz",
                -can.widestShiftHz(),
                can.widestShiftHz())
            .further());
    all.add(trim(GAIN, "gain of I over Q", t.gainDb(), "dB", can.trimGainDb()));
    all.add(
        trim(QUADRATURE, "quadrature", t.quadratureDegrees(), "deg", can.trimQuadratureDegrees()));
    all.add(trim(LEAKAGE_I, "leakage I, share of rms", t.leakageI(), "", can.trimLeakage()));
    all.add(trim(LEAKAGE_Q, "leakage Q, share of rms", t.leakageQ(), "", can.trimLeakage()));
    all.add(trim(DELAY, "I later than Q by", t.delaySeconds(), "s", can.trimDelaySeconds()));
    for (BasebandOutput o : s.outputs()) {
      all.addAll(o.controls(can));
    }
    if (!s.outputs().isEmpty()) {
      all.add(Control.choice(THIRD, "third output plays", thirdChoice(), thirdChoices()).further());
    }
    all.add(Control.action(ADJUST, "Adjust its modulator here"));
    return all;
  }

  private static Control trim(String id, String label, double now, String unit, double most) {
    return Control.number(id, label, now, unit, -most, most).further();
  }

  @Override
  default Runnable restorer() {
    GeneratorState before = generator();
    String signal = choice(before);
    return () -> {
      setLevelDbm(before.levelDbm());
      setRateHz(before.rateHz());
      play(choices().contains(signal) ? signal : CARRIER);
      setCentreHz(before.centreHz());
    };
  }

  private List<String> thirdChoices() {
    List<String> all = new ArrayList<>(choices());
    all.set(0, NOTHING);
    return all;
  }

  private String choice(GeneratorState s) {
    if (!s.playing()) {
      return CARRIER;
    }
    return played().map(KnownWaveform::choice).orElse(s.waveform());
  }

  @Override
  default void set(String control, String value) {
    switch (control) {
      case FREQUENCY -> setCentreHz(Values.number(value));
      case SIGNAL -> play(value);
      case RATE -> setRateHz(Values.number(value));
      case SHIFT -> setShiftHz(Values.number(value));
      case GAIN, QUADRATURE, LEAKAGE_I, LEAKAGE_Q, DELAY -> setTrim(control, Values.number(value));
      case ADJUST -> adjust();
      case THIRD -> playThird(value);
      default -> turn(control, value);
    }
  }

  private void turn(String control, String value) {
    if (generator().outputs().stream()
        .flatMap(o -> o.controls(generatorCapabilities()).stream())
        .anyMatch(c -> c.id().equals(control))) {
      setOutput(control, Values.number(value));
    } else {
      SignalSource.super.set(control, value);
    }
  }

  @Override
  default List<Fact> facts() {
    GeneratorState s = generator();
    return played()
        .map(
            w ->
                List.of(Fact.of("peaks", Math.rint(10 * (s.levelDbm() + w.crestDb())) / 10, "dBm")))
        .orElse(List.of());
  }

  @Override
  default List<Hint> hints() {
    GeneratorState s = generator();
    List<Hint> all = new ArrayList<>();
    KnownWaveform w = played().orElse(null);
    if (w != null && Math.abs(s.rateHz() / w.rateHz() - 1) > 1e-9) {
      all.add(
          new Hint(
              String.format(
                  Locale.ROOT,
                  "Made for %s, played at %s: all that is in it comes %.4g times as fast and as"
                      + " wide. A tone at 1 MHz in it is at %s.",
                  Frequency.ofHertz(w.rateHz()),
                  Frequency.ofHertz(s.rateHz()),
                  s.rateHz() / w.rateHz(),
                  Frequency.ofHertz(Math.rint(1e9 * s.rateHz() / w.rateHz()) / 1e3)),
              "Play it at " + Frequency.ofHertz(w.rateHz()),
              Map.of(RATE, Double.toString(w.rateHz()))));
    }
    third()
        .filter(t -> s.playing() && Math.abs(s.rateHz() / t.rateHz() - 1) > 1e-9)
        .ifPresent(
            t ->
                all.add(
                    new Hint(
                        String.format(
                            Locale.ROOT,
                            "What the third output plays was made for %s and comes %.4g times as"
                                + " fast: it plays at the rate of the carrier. Make it for %s.",
                            Frequency.ofHertz(t.rateHz()),
                            s.rateHz() / t.rateHz(),
                            Frequency.ofHertz(s.rateHz())),
                        "Let it play nothing",
                        Map.of(THIRD, NOTHING))));
    if (s.playing()) {
      adjustment(s, all);
    }
    return all;
  }

  private void adjustment(GeneratorState s, List<Hint> all) {
    double now = s.synthesiserHz();
    boolean never = Double.isNaN(s.adjustedHz());
    if (never
        || Math.abs(now - s.adjustedHz())
            > generatorCapabilities().adjustmentHoldsShare() * s.adjustedHz()) {
      all.add(
          new Hint(
              never
                  ? "Its modulator has not been adjusted."
                  : "Its modulator was adjusted at "
                      + Frequency.ofHertz(s.adjustedHz())
                      + "; at "
                      + Frequency.ofHertz(now)
                      + " that has expired.",
              "Adjust it here",
              Map.of(ADJUST, "")));
    }
  }

  @Override
  default String condition() {
    GeneratorState s = generator();
    if (!s.on()) {
      return "off";
    }
    StringBuilder words = new StringBuilder("on, ").append(choice(s));
    if (s.playing() && s.shiftHz() != 0) {
      words.append(", shifted aside by ").append(Frequency.ofHertz(s.shiftHz()));
    }
    if (s.playing()) {
      boolean holds = hints().stream().noneMatch(h -> h.values().containsKey(ADJUST));
      words.append(holds ? ", adjusted" : ", not adjusted");
      if (!s.trims().equals(GeneratorState.Trims.NONE)) {
        words.append(", trimmed");
      }
    }
    return words.toString();
  }
}
