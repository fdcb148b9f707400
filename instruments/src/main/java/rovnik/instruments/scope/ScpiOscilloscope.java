package rovnik.instruments.scope;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.path.Supply;
import rovnik.core.result.Fact;
import rovnik.core.signal.VoltageRecord;
import rovnik.core.units.Frequency;
import rovnik.core.units.Seconds;
import rovnik.instruments.Control;
import rovnik.instruments.InstrumentFault;
import rovnik.instruments.ScpiInstrument;
import rovnik.instruments.Values;
import rovnik.instruments.dialect.Dialect;
import rovnik.instruments.scpi.ScpiConnection;

/** An {@link Oscilloscope} in the words of a dialect; its samples are signed bytes. */
public final class ScpiOscilloscope extends ScpiInstrument implements Oscilloscope {
  /** Steps of a converter of eight bits. */
  private static final int STEPS = 256;

  private static final String OFF = "off";
  private static final List<String> OUT_OF = List.of(OFF, "channel 1", "channel 2");

  private final ScopeCapabilities capabilities;
  private ScopeSetup setup;
  private byte[] codes = new byte[0];

  public ScpiOscilloscope(ScpiConnection connection, Dialect dialect) {
    super(connection, dialect);
    this.capabilities = ScopeCapabilities.of(dialect);
  }

  @Override
  public ScopeCapabilities capabilities() {
    return capabilities;
  }

  @Override
  public void reset() {
    setup = null;
    super.reset();
  }

  @Override
  public void arm(ScopeSetup wanted) {
    disarm();
    if (!wanted.equals(setup)) {
      setup = null; // unknown until all of it has been taken
      dialect.send(connection, "sampleIntervalSeconds", 1 / wanted.sampleRateHz());
      double got = 1 / dialect.number(connection, "sampleIntervalSeconds", 1e-13, 1e3);
      if (Math.abs(got / wanted.sampleRateHz() - 1) > 1e-9) {
        throw new InstrumentFault(
            InstrumentFault.Kind.REPORTED,
            "The oscilloscope took a sample rate of "
                + got
                + " Hz instead of "
                + wanted.sampleRateHz()
                + ". Correct the rates in its dialect.");
      }
      dialect.send(connection, "samples", Integer.toString(wanted.samples()));
      setup = wanted;
    }
    dialect.send(connection, "arm", "");
    waits(); // its answer says that it has taken all of that
  }

  @Override
  public boolean waits() {
    return dialect.flag(connection, "waits");
  }

  @Override
  public void disarm() {
    dialect.send(connection, "disarm", "");
  }

  @Override
  public List<VoltageRecord> taken() {
    if (setup == null) {
      throw new IllegalStateException("arm() must come first");
    }
    if (waits()) {
      throw new Refusal("trigger", "The oscilloscope still waits for its trigger.");
    }
    double range = dialect.number(connection, "rangeVolts", 0, 1e6);
    double middle = dialect.number(connection, "middleVolts", -1e6, 1e6);
    if (codes.length != setup.samples()) {
      codes = new byte[setup.samples()];
    }
    Duration lasts = Duration.ofNanos((long) (setup.samples() / setup.sampleRateHz() * 2e9));
    List<VoltageRecord> out = new ArrayList<>();
    for (int channel = 1; channel <= capabilities.channels(); channel++) {
      String ask = dialect.query("channel").ask().replace("{channel}", "" + channel);
      connection.askBlock(ask, codes.length, codes, lasts);
      float[] volts = new float[codes.length];
      for (int i = 0; i < volts.length; i++) {
        volts[i] = (float) (middle + codes[i] * (range / STEPS));
      }
      out.add(new VoltageRecord(volts, setup.sampleRateHz(), capabilities.triggerDelaySeconds()));
    }
    return out;
  }

  @Override
  public List<Control> controls() {
    double widest = capabilities.widestVolts();
    return List.of(
        Control.number(
            RANGE,
            "range, peak to peak",
            dialect.number(connection, "rangeVolts", 0, 1e6),
            "V",
            0,
            widest),
        Control.number(
            MIDDLE,
            "middle",
            dialect.number(connection, "middleVolts", -1e6, 1e6),
            "V",
            -widest / 2,
            widest / 2),
        Control.choice(TRIGGER_OUT, "trigger out", triggerOut(), OUT_OF),
        Control.number(
            TRIGGER_OUT_LEVEL,
            "over",
            dialect.number(connection, "triggerOutLevelVolts", -1e6, 1e6),
            "V",
            -widest / 2,
            widest / 2));
  }

  private String triggerOut() {
    if (!dialect.flag(connection, "triggerOut")) {
      return OFF;
    }
    return OUT_OF.get(dialect.flag(connection, "triggerOutOf") ? 1 : 2);
  }

  private void triggerOut(String of) {
    int channel = OUT_OF.indexOf(of);
    if (channel < 0) {
      throw new Refusal("value", "The trigger output gives: " + String.join(", ", OUT_OF) + ".");
    }
    if (channel > 0) {
      dialect.send(connection, "triggerOutOf", "" + channel);
    }
    dialect.send(connection, "triggerOut", channel > 0 ? "ON" : "OFF");
  }

  @Override
  public void set(String control, String value) {
    double widest = capabilities.widestVolts();
    switch (control) {
      case RANGE -> dialect.send(connection, "rangeVolts", within(value, 0.01, widest));
      case MIDDLE ->
          dialect.send(connection, "middleVolts", within(value, -widest / 2, widest / 2));
      case TRIGGER_OUT -> triggerOut(value);
      case TRIGGER_OUT_LEVEL ->
          dialect.send(connection, "triggerOutLevelVolts", within(value, -widest / 2, widest / 2));
      default -> super.set(control, value);
    }
  }

  private static double within(String value, double least, double most) {
    double v = Values.number(value);
    if (!(v >= least && v <= most)) {
      throw new Refusal(
          "value", "It goes from " + Supply.volts(least) + " to " + Supply.volts(most) + " here.");
    }
    return v;
  }

  @Override
  public List<Fact> facts() {
    return List.of(
        Fact.of("channels", Integer.toString(capabilities.channels())),
        Fact.of("samples up to", Frequency.ofHertz(capabilities.fastestRateHz()).toString()),
        Fact.of("begins after its trigger by", Seconds.words(capabilities.triggerDelaySeconds())),
        Fact.of(
            "trigger out later by",
            Seconds.words(capabilities.triggerOutDelaySeconds())
                + " \u00b1 "
                + Seconds.words(capabilities.triggerOutDelayHalfWidth())));
  }
}
