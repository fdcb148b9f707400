package rovnik.instruments.iq;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.time.Duration;
import rovnik.core.Refusal;
import rovnik.core.signal.IqRecord;
import rovnik.instruments.InstrumentFault;
import rovnik.instruments.ScpiInstrument;
import rovnik.instruments.dialect.Dialect;
import rovnik.instruments.scpi.ScpiConnection;

/** An {@link IqReceiver} in the words of a dialect. */
public final class ScpiIqReceiver extends ScpiInstrument implements IqReceiver {
  private final IqCapabilities capabilities;
  private IqSetup setup;
  private boolean streaming;
  private long nextSample;
  private double fullScaleDbm;
  private double secondFullScaleDbm;
  private final Block first = new Block();
  private final Block second = new Block();

  /** Arrays of one input, kept while records have the same length. */
  private static final class Block {
    private byte[] bytes = new byte[0];
    private float[] iq = new float[0];
    private int head;

    /**
     * @param headBytes before the samples
     */
    void fit(int samples, int headBytes) {
      if (iq.length != 2 * samples || head != headBytes) {
        head = headBytes;
        bytes = new byte[headBytes + 8 * samples];
        iq = new float[2 * samples];
      }
    }

    /** The number before the samples. */
    long number() {
      return buffer().getLong(0);
    }

    private ByteBuffer buffer() {
      return ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN);
    }

    float[] decoded() {
      buffer().position(head).slice().order(ByteOrder.LITTLE_ENDIAN).asFloatBuffer().get(iq);
      boolean sense = true;
      for (float v : iq) {
        sense &= Math.abs(v) < BEYOND_FULL_SCALE; // false for what is not a number, too
      }
      if (!sense) {
        throw new InstrumentFault(
            InstrumentFault.Kind.BAD_REPLY,
            "The samples make no sense: some are not numbers, or far beyond full scale. Check the"
                + " format in the dialect.");
      }
      return iq;
    }
  }

  /** Full scale is 1; even an overloaded converter gives nothing like this. */
  private static final float BEYOND_FULL_SCALE = 1000;

  /** So many are exact as a number of seconds, and more than a year of a fast stream. */
  private static final long MOST_SAMPLES = 1L << 52;

  public ScpiIqReceiver(ScpiConnection connection, Dialect dialect) {
    super(connection, dialect);
    this.capabilities = IqCapabilities.of(dialect);
  }

  @Override
  public IqCapabilities capabilities() {
    return capabilities;
  }

  @Override
  public void reset() {
    setup = null;
    streaming = false;
    super.reset();
  }

  @Override
  public void configure(IqSetup wanted) {
    endStream();
    IqSetup before = setup;
    setup = null; // unknown until all of it has been taken
    if (before == null || before.centreHz() != wanted.centreHz()) {
      dialect.send(connection, "centreHz", wanted.centreHz());
    }
    if (before == null || before.sampleRateHz() != wanted.sampleRateHz()) {
      dialect.send(connection, "sampleIntervalSeconds", 1 / wanted.sampleRateHz());
      double got = 1 / dialect.number(connection, "sampleIntervalSeconds", 1e-12, 1e3);
      if (Math.abs(got / wanted.sampleRateHz() - 1) > 1e-9) {
        throw new InstrumentFault(
            InstrumentFault.Kind.REPORTED,
            "The receiver took a sample rate of "
                + got
                + " Hz instead of "
                + wanted.sampleRateHz()
                + ". Correct the rates in its dialect.");
      }
    }
    if (before == null || before.samples() != wanted.samples()) {
      dialect.send(connection, "samples", Integer.toString(wanted.samples()));
    }
    if (before == null || before.attenuationDb() != wanted.attenuationDb()) {
      dialect.send(connection, "attenuationDb", wanted.attenuationDb());
      fullScaleDbm = dialect.number(connection, "fullScaleDbm", -200, 100);
    }
    if (wanted.second()
        && (before == null || before.secondAttenuationDb() != wanted.secondAttenuationDb())) {
      dialect.send(connection, "secondAttenuationDb", wanted.secondAttenuationDb());
      secondFullScaleDbm = dialect.number(connection, "secondFullScaleDbm", -200, 100);
    }
    setup = wanted;
  }

  @Override
  public IqRecord acquire() {
    if (setup == null) {
      throw new IllegalStateException("configure() must come first");
    }
    endStream();
    Duration lasts = Duration.ofNanos((long) (setup.samples() / setup.sampleRateHz() * 2e9));
    first.fit(setup.samples(), 0);
    connection.askBlock(dialect.query("record").ask(), first.bytes.length, first.bytes, lasts);
    boolean overload = dialect.flag(connection, "overload");
    return new IqRecord(
        first.decoded(), setup.sampleRateHz(), setup.centreHz(), fullScaleDbm, overload);
  }

  private void endStream() {
    if (streaming) {
      streaming = false;
      dialect.send(connection, "streaming", "OFF");
    }
  }

  @Override
  public IqRecord streamed(IqSetup wanted) {
    if (!capabilities.streams()) {
      return IqReceiver.super.streamed(wanted); // refuses
    }
    if (!streaming || !wanted.equals(setup)) {
      configure(wanted);
      dialect.send(connection, "streaming", "ON");
      streaming = true;
      nextSample = 0;
    }
    first.fit(wanted.samples(), Long.BYTES);
    Duration lasts = Duration.ofNanos((long) (wanted.samples() / wanted.sampleRateHz() * 2e9));
    connection.askBlock(dialect.query("streamed").ask(), first.bytes.length, first.bytes, lasts);
    long number = first.number();
    if (number < nextSample || number > MOST_SAMPLES) {
      throw new InstrumentFault(
          InstrumentFault.Kind.BAD_REPLY,
          "The numbers of the stream make no sense: sample "
              + number
              + " where "
              + nextSample
              + " or a later one was expected. Check the format in the dialect.");
    }
    nextSample = number + wanted.samples();
    boolean overload = dialect.flag(connection, "overload");
    return new IqRecord(
        first.decoded(),
        wanted.sampleRateHz(),
        wanted.centreHz(),
        fullScaleDbm,
        overload,
        number / wanted.sampleRateHz(),
        dialect.can("pulses") ? pulses(number) : null);
  }

  /** When the trigger input rose, as the stream counts. */
  private double[] pulses(long number) {
    double[] out = dialect.numbers(connection, "pulses", 0, setup.samples());
    for (int i = 0; i < out.length; i++) {
      out[i] = (number + out[i]) / setup.sampleRateHz();
    }
    return out;
  }

  @Override
  public IqRecord acquiredOnSecond() {
    if (setup == null || !setup.second()) {
      throw new Refusal("second", "The second input was not asked for.");
    }
    second.fit(setup.samples(), 0);
    connection.askBlock(
        dialect.query("secondRecord").ask(), second.bytes.length, second.bytes, Duration.ZERO);
    boolean overload = dialect.flag(connection, "secondOverload");
    return new IqRecord(
        second.decoded(), setup.sampleRateHz(), setup.centreHz(), secondFullScaleDbm, overload);
  }

  @Override
  public boolean protectionTripped() {
    return dialect.can("protection") && dialect.flag(connection, "protection");
  }

  @Override
  public void clearProtection() {
    connection.errors(); // the trip itself is reported there: it is known
    dialect.send(connection, "clearProtection", "");
  }
}
