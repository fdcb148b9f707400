package rovnik.instruments.sweep;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.time.Duration;
import java.util.Locale;
import rovnik.core.spectrum.Detector;
import rovnik.instruments.InstrumentFault;
import rovnik.instruments.ScpiInstrument;
import rovnik.instruments.dialect.Dialect;
import rovnik.instruments.scpi.ScpiConnection;

/** A {@link SweptAnalyzer} in the words of a dialect. */
public final class ScpiSweptAnalyzer extends ScpiInstrument implements SweptAnalyzer {
  /** Nobody waits longer for one sweep. */
  private static final double LONGEST_SECONDS = 900;

  private static final double HIGHEST_DBM = 300;

  private final SweepCapabilities capabilities;
  private SweepSetup setup;
  private double rbwHz;
  private double sweepSeconds;

  public ScpiSweptAnalyzer(ScpiConnection connection, Dialect dialect) {
    super(connection, dialect);
    this.capabilities = SweepCapabilities.of(dialect);
  }

  @Override
  public SweepCapabilities capabilities() {
    return capabilities;
  }

  @Override
  public void reset() {
    setup = null;
    super.reset();
  }

  @Override
  public void configure(SweepSetup wanted) {
    if (wanted.equals(setup)) {
      return;
    }
    setup = null; // unknown until all of it has been taken
    dialect.send(connection, "startHz", wanted.startHz());
    dialect.send(connection, "stopHz", wanted.stopHz());
    dialect.send(connection, "rbwHz", wanted.rbwHz());
    dialect.send(connection, "points", Integer.toString(wanted.points()));
    dialect.send(connection, "detector", word(wanted.detector()));
    dialect.send(connection, "attenuationDb", wanted.attenuationDb());
    rbwHz = dialect.number(connection, "rbwHz", 1e-3, 1e12);
    sweepSeconds = dialect.number(connection, "sweepSeconds", 0, 1e9);
    if (sweepSeconds > LONGEST_SECONDS) {
      throw new InstrumentFault(
          InstrumentFault.Kind.REPORTED,
          String.format(
              Locale.ROOT,
              "This sweep would take %.0f s; the longest is %.0f s. Use a wider RBW, a narrower"
                  + " span, or several sweeps.",
              sweepSeconds,
              LONGEST_SECONDS));
    }
    setup = wanted;
  }

  /** Detectors in the words of SCPI-99. */
  private static String word(Detector d) {
    return switch (d) {
      case RMS -> "RMS";
      case PEAK -> "POS";
      case MINIMUM -> "NEG";
      case SAMPLE -> "SAMP";
      case LOG_AVERAGE -> "AVER";
    };
  }

  @Override
  public Sweep sweep() {
    if (setup == null) {
      throw new IllegalStateException("configure() must come first");
    }
    Duration lasts = Duration.ofNanos((long) (sweepSeconds * 1.5e9));
    connection.ask(dialect.query("sweep").ask(), lasts);
    float[] level =
        dialect.query("trace").as().equals("ascii") ? readAscii(lasts) : readBlock(lasts);
    boolean overload = dialect.can("overload") && dialect.flag(connection, "overload");
    double step = (setup.stopHz() - setup.startHz()) / (setup.points() - 1);
    return new Sweep(setup.startHz(), step, level, rbwHz, sweepSeconds, overload);
  }

  private float[] readBlock(Duration lasts) {
    byte[] bytes = new byte[4 * setup.points()];
    connection.askBlock(dialect.query("trace").ask(), bytes.length, bytes, lasts);
    float[] level = new float[setup.points()];
    ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN).asFloatBuffer().get(level);
    return checked(level);
  }

  private float[] readAscii(Duration lasts) {
    String[] numbers = connection.ask(dialect.query("trace").ask(), lasts).split(",");
    if (numbers.length != setup.points()) {
      throw bad("it sent " + numbers.length + " of " + setup.points() + " points");
    }
    float[] level = new float[numbers.length];
    for (int i = 0; i < level.length; i++) {
      try {
        level[i] = Float.parseFloat(numbers[i].strip());
      } catch (NumberFormatException e) {
        throw bad("point " + (i + 1) + " is no number");
      }
    }
    return checked(level);
  }

  private static float[] checked(float[] level) {
    for (int i = 0; i < level.length; i++) {
      if (!(Math.abs(level[i]) <= HIGHEST_DBM)) {
        throw bad("point " + (i + 1) + " is " + level[i] + " dBm");
      }
    }
    return level;
  }

  private static InstrumentFault bad(String what) {
    return new InstrumentFault(
        InstrumentFault.Kind.BAD_REPLY,
        "The trace makes no sense: " + what + ". Check the format in the dialect.");
  }
}
