package rovnik.instruments.tested;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.time.Duration;
import java.util.Locale;
import rovnik.core.Refusal;
import rovnik.instruments.InstrumentFault;
import rovnik.instruments.ScpiInstrument;
import rovnik.instruments.dialect.Dialect;
import rovnik.instruments.scpi.ScpiConnection;
import rovnik.instruments.scpi.ScpiNumber;

/** A receiver under test over SCPI. */
public final class ScpiTestedReceiver extends ScpiInstrument implements TestedReceiver {
  private static final int COUNTS = 5;
  private static final int MOST_AUDIO = 1 << 18;
  private final TestedCapabilities capabilities;
  private double frequencyHz = Double.NaN;
  private int countedAtOnce = -1;
  private int samplesAtOnce = -1;

  public ScpiTestedReceiver(ScpiConnection connection, Dialect dialect) {
    super(connection, dialect);
    this.capabilities = TestedCapabilities.of(dialect);
  }

  @Override
  public TestedCapabilities capabilities() {
    return capabilities;
  }

  @Override
  public void reset() {
    countedAtOnce = -1;
    samplesAtOnce = -1;
    super.reset();
  }

  @Override
  public double frequencyHz() {
    if (Double.isNaN(frequencyHz)) {
      frequencyHz = dialect.number(connection, "frequencyHz", 1, 1e12);
    }
    return frequencyHz;
  }

  @Override
  public BitCounts count(int bits) {
    if (bits < 1 || bits > capabilities.mostBits()) {
      throw new Refusal(
          "bits", "It counts 1 to " + capabilities.mostBits() + " bits at once; not " + bits + ".");
    }
    if (bits != countedAtOnce) {
      countedAtOnce = -1;
      dialect.send(connection, "bits", Integer.toString(bits));
      countedAtOnce = bits;
    }
    Duration lasts = Duration.ofNanos((long) (2e9 * bits / capabilities.bitRate()));
    String answer = connection.ask(dialect.query("counts").ask(), lasts);
    String[] parts = answer.split(",");
    if (parts.length != COUNTS) {
      throw notCounts(answer);
    }
    long[] n = new long[COUNTS];
    for (int i = 0; i < COUNTS; i++) {
      try {
        double v = ScpiNumber.parse(parts[i]);
        if (!(v >= 0 && v <= 1e15)) {
          throw notCounts(answer);
        }
        n[i] = Math.round(v);
      } catch (NumberFormatException e) {
        throw notCounts(answer);
      }
    }
    if (n[1] > n[0] || n[3] > n[2]) {
      throw notCounts(answer);
    }
    return new BitCounts(n[0], n[1], n[2], n[3], n[4] != 0);
  }

  private static InstrumentFault notCounts(String answer) {
    return new InstrumentFault(
        InstrumentFault.Kind.BAD_REPLY,
        "The answer \""
            + (answer.length() > 40 ? answer.substring(0, 40) + "..." : answer)
            + "\" is not bits, errors, packets, wrong packets, in step. Check the dialect.");
  }

  @Override
  public double[] audio(int samples) {
    if (samples < 1 || samples > MOST_AUDIO) {
      throw new Refusal("seconds", "Audio is taken in pieces of 1 to " + MOST_AUDIO + " samples.");
    }
    if (samples != samplesAtOnce) {
      samplesAtOnce = -1;
      dialect.send(connection, "samples", Integer.toString(samples));
      samplesAtOnce = samples;
    }
    byte[] bytes = new byte[4 * samples];
    Duration lasts = Duration.ofNanos((long) (2e9 * samples / capabilities.audioRateHz()));
    connection.askBlock(dialect.query("audio").ask(), bytes.length, bytes, lasts);
    double[] out = new double[samples];
    var floats = ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN).asFloatBuffer();
    for (int i = 0; i < samples; i++) {
      float v = floats.get();
      if (!(Math.abs(v) < 1e6f)) {
        throw new InstrumentFault(
            InstrumentFault.Kind.BAD_REPLY,
            String.format(Locale.ROOT, "An audio sample is %s: that makes no sense.", v));
      }
      out[i] = v;
    }
    return out;
  }

  @Override
  public boolean squelchOpen() {
    return dialect.flag(connection, "squelchOpen");
  }

  @Override
  public double toneHz() {
    if (!dialect.can("toneHz")) {
      return Double.NaN;
    }
    try {
      return dialect.number(connection, "toneHz", 1, 1000);
    } catch (InstrumentFault f) {
      if (f.kind() == InstrumentFault.Kind.REPORTED) {
        return Double.NaN; // it says that there is none
      }
      throw f;
    }
  }

  @Override
  public String sequence() {
    return dialect.can("sequence")
        ? connection.ask(dialect.query("sequence").ask()).strip().replace("PRBS", "PN")
        : "";
  }

  @Override
  public void setSequence(String choice) {
    dialect.send(connection, "sequence", choice.replace("PN", "PRBS"));
  }

  @Override
  public String squelch() {
    return dialect.can("squelch")
        ? connection.ask(dialect.query("squelch").ask()).strip().toLowerCase(Locale.ROOT)
        : "";
  }

  @Override
  public void setSquelch(String choice) {
    dialect.send(connection, "squelch", choice.toUpperCase(Locale.ROOT));
  }
}
