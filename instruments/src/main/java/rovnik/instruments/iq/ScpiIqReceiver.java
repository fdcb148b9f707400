package rovnik.instruments.iq;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.FloatBuffer;
import java.time.Duration;
import rovnik.core.signal.IqRecord;
import rovnik.instruments.InstrumentFault;
import rovnik.instruments.ScpiInstrument;
import rovnik.instruments.dialect.Dialect;
import rovnik.instruments.scpi.ScpiConnection;

/** An {@link IqReceiver} in the words of a dialect. */
public final class ScpiIqReceiver extends ScpiInstrument implements IqReceiver {
  private final IqCapabilities capabilities;
  private IqSetup setup;
  private double fullScaleDbm;
  private byte[] bytes = new byte[0];
  private FloatBuffer floats;
  private float[] iq = new float[0];

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
    super.reset();
  }

  @Override
  public void configure(IqSetup wanted) {
    IqSetup before = setup;
    setup = null; // unknown until all of it has been taken
    if (before == null || before.centreHz() != wanted.centreHz()) {
      dialect.send(connection, "centreHz", wanted.centreHz());
    }
    if (before == null || before.sampleRateHz() != wanted.sampleRateHz()) {
      dialect.send(connection, "sampleIntervalSeconds", 1 / wanted.sampleRateHz());
      double got = 1 / dialect.number(connection, "sampleIntervalSeconds");
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
      fullScaleDbm = dialect.number(connection, "fullScaleDbm");
    }
    setup = wanted;
  }

  @Override
  public IqRecord acquire() {
    if (setup == null) {
      throw new IllegalStateException("configure() must come first");
    }
    int count = 2 * setup.samples();
    if (bytes.length != 4 * count) {
      bytes = new byte[4 * count];
      floats = ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN).asFloatBuffer();
      iq = new float[count];
    }
    Duration lasts = Duration.ofNanos((long) (setup.samples() / setup.sampleRateHz() * 2e9));
    connection.askBlock(dialect.query("record").ask(), bytes.length, bytes, lasts);
    floats.rewind();
    floats.get(iq);
    boolean overload = dialect.flag(connection, "overload");
    return new IqRecord(iq, setup.sampleRateHz(), setup.centreHz(), fullScaleDbm, overload);
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
