package rovnik.instruments.source;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.LongFunction;
import rovnik.core.Refusal;
import rovnik.core.units.Frequency;
import rovnik.instruments.InstrumentFault;
import rovnik.instruments.ScpiInstrument;
import rovnik.instruments.dialect.Dialect;
import rovnik.instruments.scpi.ScpiConnection;

/** A {@link SignalGenerator} in the words of a dialect. */
public final class ScpiSignalGenerator extends ScpiInstrument implements SignalGenerator {
  /** Several questions about one state are answered from one round of queries. */
  private static final long STATE_LASTS_NANOS = 50_000_000;

  private final GeneratorCapabilities can;
  private LongFunction<Optional<KnownWaveform>> known = id -> Optional.empty();
  private GeneratorState last;
  private long lastNanos;

  public ScpiSignalGenerator(ScpiConnection connection, Dialect dialect) {
    super(connection, dialect);
    this.can = GeneratorCapabilities.of(dialect);
  }

  @Override
  public GeneratorCapabilities generatorCapabilities() {
    return can;
  }

  @Override
  public void waveforms(LongFunction<Optional<KnownWaveform>> finder) {
    known = finder;
  }

  @Override
  public GeneratorState generator() {
    if (last == null || System.nanoTime() - lastNanos > STATE_LASTS_NANOS) {
      last = asked();
      lastNanos = System.nanoTime();
    }
    return last;
  }

  private void send(String capability, double value) {
    last = null;
    dialect.send(connection, capability, value);
  }

  private void send(String capability, String value) {
    last = null;
    dialect.send(connection, capability, value);
  }

  private GeneratorState asked() {
    double shift = number("shiftHz", -can.widestShiftHz(), can.widestShiftHz());
    double synthesiser = number("frequencyHz", 0, 1e12);
    boolean playing = dialect.flag(connection, "modulation");
    return new GeneratorState(
        dialect.flag(connection, "output"),
        synthesiser + (playing ? shift : 0),
        number("levelDbm", -300, 100),
        text("selected"),
        playing,
        number("rateHz", 0, 1e12),
        shift,
        new GeneratorState.Trims(
            number("gainDb", -100, 100),
            number("quadratureDegrees", -360, 360),
            number("leakageI", -10, 10),
            number("leakageQ", -10, 10),
            number("delaySeconds", -1, 1)),
        adjustedHz(),
        outputs(),
        dialect.queries().containsKey("third") ? text("third") : "");
  }

  /** Of a dialect that knows them. */
  private List<BasebandOutput> outputs() {
    List<BasebandOutput> all = new ArrayList<>();
    for (String[] kind : BasebandOutput.KINDS) {
      String key = kind[0];
      if (dialect.queries().containsKey(BasebandOutput.GAIN + key)) {
        all.add(
            new BasebandOutput(
                key,
                kind[1],
                number(BasebandOutput.GAIN + key, -200, 200),
                number(BasebandOutput.DELAY + key, -1, 1),
                number(BasebandOutput.OFFSET + key, -1e3, 1e3)));
      }
    }
    return all;
  }

  @Override
  public void setOutput(String control, double value) {
    if (control.startsWith(BasebandOutput.GAIN)) {
      within("gain of an output", "dB", value, can.lowestOutputGainDb(), 0);
    } else if (control.startsWith(BasebandOutput.DELAY)) {
      within("delay of an output", "s", value, 0, can.longestDelaySeconds());
    } else {
      double most = can.widestOffsetVolts();
      within("offset of an output", "V", value, -most, most);
    }
    send(control, value);
  }

  @Override
  public void playThird(String choice) {
    send("third", choice.equals(NOTHING) ? "" : there(choice));
  }

  @Override
  public Optional<KnownWaveform> third() {
    return waveform(generator().third());
  }

  @Override
  public String thirdChoice() {
    String key = generator().third();
    return key.isEmpty() ? NOTHING : waveform(key).map(KnownWaveform::choice).orElse(key);
  }

  private double number(String capability, double lowest, double highest) {
    return dialect.number(connection, capability, lowest, highest);
  }

  private String text(String capability) {
    return connection.ask(dialect.query(capability).ask()).strip().replaceAll("^[\"']|[\"']$", "");
  }

  /** SCPI's "not a number" means that it was never adjusted. */
  private double adjustedHz() {
    try {
      return number("adjustedHz", 0, 1e12);
    } catch (InstrumentFault f) {
      if (f.kind() == InstrumentFault.Kind.REPORTED) {
        return Double.NaN;
      }
      throw f;
    }
  }

  @Override
  public SourceState state() {
    GeneratorState s = generator();
    double crest = s.playing() ? waveform(s.waveform()).map(KnownWaveform::crestDb).orElse(0.0) : 0;
    return new SourceState(s.on(), s.playing(), false, s.centreHz(), s.levelDbm(), crest, true);
  }

  @Override
  public void reset() {
    last = null;
    super.reset();
  }

  @Override
  public double[] levelRangeDbm() {
    return new double[] {dialect.fact("lowestLevelDbm"), dialect.fact("highestLevelDbm")};
  }

  @Override
  public void setOn(boolean on) {
    send("output", on ? "ON" : "OFF");
  }

  @Override
  public void setModulated(boolean modulated) {
    if (modulated == dialect.flag(connection, "modulation")) {
      return;
    }
    double centre = generator().centreHz();
    send("modulation", modulated ? "ON" : "OFF");
    setCentreHz(centre);
  }

  @Override
  public void setDriveHigh(boolean high) {
    if (high) {
      throw new Refusal("drive", "This generator has no drive to switch; set its level.");
    }
  }

  @Override
  public void setLevelDbm(double dbm) {
    within("level", "dBm", dbm, levelRangeDbm()[0], levelRangeDbm()[1]);
    send("levelDbm", dbm);
  }

  @Override
  public void setCentreHz(double hz) {
    GeneratorState s = generator();
    double shift = s.playing() ? s.shiftHz() : 0;
    within("frequency", "Hz", hz - shift, can.lowestHz(), can.highestHz());
    send("frequencyHz", hz - shift);
  }

  @Override
  public void setRateHz(double hz) {
    within("playback rate", "Hz", hz, can.slowestRateHz(), can.fastestRateHz());
    send("rateHz", hz);
  }

  /** The signal stays where it is; the synthesiser moves aside. */
  @Override
  public void setShiftHz(double hz) {
    within("shift", "Hz", hz, -can.widestShiftHz(), can.widestShiftHz());
    double centre = generator().centreHz();
    within("frequency", "Hz", centre - hz, can.lowestHz(), can.highestHz());
    send("shiftHz", hz);
    setCentreHz(centre);
  }

  @Override
  public void setTrim(String which, double value) {
    switch (which) {
      case GAIN -> trim("gainDb", "dB", value, can.trimGainDb());
      case QUADRATURE -> trim("quadratureDegrees", "deg", value, can.trimQuadratureDegrees());
      case LEAKAGE_I -> trim("leakageI", "", value, can.trimLeakage());
      case LEAKAGE_Q -> trim("leakageQ", "", value, can.trimLeakage());
      case DELAY -> trim("delaySeconds", "s", value, can.trimDelaySeconds());
      default -> throw new Refusal("control", "There is no trim called \"" + which + "\".");
    }
  }

  private void trim(String capability, String unit, double value, double most) {
    within("trim", unit, value, -most, most);
    send(capability, value);
  }

  private static void within(String what, String unit, double v, double lowest, double highest) {
    if (!(v >= lowest && v <= highest)) {
      throw new Refusal(
          what,
          unit.equals("Hz")
              ? String.format(
                  Locale.ROOT,
                  "The %s can be set from %s to %s.",
                  what,
                  Frequency.ofHertz(lowest),
                  Frequency.ofHertz(highest))
              : String.format(
                  Locale.ROOT,
                  "The %s can be set from %.4g to %.4g %s.",
                  what,
                  lowest,
                  highest,
                  unit));
    }
  }

  @Override
  public void adjust() {
    send("adjust", "");
  }

  @Override
  public void load(KnownWaveform waveform, float[] iq) {
    int samples = iq.length / 2;
    double free = number("free", 0, 1e15);
    if (samples > free && samples <= can.memorySamples()) {
      send("modulation", "OFF");
      send("forget", "");
      free = number("free", 0, 1e15);
    }
    if (samples > free || samples > can.memorySamples()) {
      throw new Refusal(
          "waveform",
          String.format(
              Locale.ROOT,
              "The waveform has %,d samples and the generator's memory holds %,.0f. Make fewer"
                  + " symbols, or fewer samples a symbol.",
              samples,
              Math.min(free, can.memorySamples())));
    }
    String command = dialect.commands().get("waveform");
    if (command == null) {
      send("waveform", ""); // says what is lacking
    }
    connection.setBlock(command.replace("{value}", waveform.key()), iq);
  }

  @Override
  public void play(String choice) {
    if (choice.equals(CARRIER)) {
      setModulated(false);
      return;
    }
    send("select", there(choice));
    setModulated(true);
  }

  /** Its name in the generator's memory; refused if it is not there. */
  private String there(String choice) {
    String key = keyOf(choice);
    if (!inMemory().contains(key)) {
      throw new Refusal(
          "signal", "\"" + choice + "\" is not in the generator's memory. Send it there first.");
    }
    return key;
  }

  private static String keyOf(String choice) {
    String id = choice.split(":", 2)[0].strip();
    return id.matches("\\d{1,18}") ? KnownWaveform.key(Long.parseLong(id)) : choice;
  }

  private List<String> inMemory() {
    String all = text("catalog");
    return all.isEmpty() ? List.of() : List.of(all.split(","));
  }

  @Override
  public List<String> choices() {
    List<String> all = new ArrayList<>();
    all.add(CARRIER);
    for (String key : inMemory()) {
      all.add(waveform(key).map(KnownWaveform::choice).orElse(key));
    }
    return all;
  }

  @Override
  public Optional<KnownWaveform> played() {
    GeneratorState s = generator();
    return s.playing() ? waveform(s.waveform()) : Optional.empty();
  }

  private Optional<KnownWaveform> waveform(String key) {
    long id = KnownWaveform.idOf(key);
    return id < 0 ? Optional.empty() : known.apply(id);
  }
}
