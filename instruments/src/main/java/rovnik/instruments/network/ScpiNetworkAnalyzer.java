package rovnik.instruments.network;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.time.Duration;
import java.util.Locale;
import java.util.stream.Collectors;
import rovnik.core.network.NetworkData;
import rovnik.core.network.RawSweep;
import rovnik.core.network.SweepSettings;
import rovnik.core.network.SweepSettings.Type;
import rovnik.instruments.InstrumentFault;
import rovnik.instruments.ScpiInstrument;
import rovnik.instruments.dialect.Dialect;
import rovnik.instruments.scpi.ScpiConnection;

/** A {@link NetworkAnalyzer} in the words of a dialect. */
public final class ScpiNetworkAnalyzer extends ScpiInstrument implements NetworkAnalyzer {
  private static final double Z0 = 50;

  /** A sweep that takes longer is a mistake. */
  private static final double LONGEST_SECONDS = 24 * 3600;

  private final NetworkCapabilities capabilities;
  private SweepSettings settings;
  private double[] frequencyHz;
  private double sweepSeconds;
  private long beganNanos;

  public ScpiNetworkAnalyzer(ScpiConnection connection, Dialect dialect) {
    super(connection, dialect);
    this.capabilities = NetworkCapabilities.of(dialect);
  }

  @Override
  public NetworkCapabilities capabilities() {
    return capabilities;
  }

  @Override
  public void reset() {
    settings = null;
    super.reset();
  }

  @Override
  public void configure(SweepSettings wanted) {
    if (wanted.equals(settings)) {
      return;
    }
    capabilities.check(wanted);
    settings = null; // unknown until all of it has been taken
    dialect.send(connection, "abort", "");
    if (wanted.type() == Type.SEGMENTS) {
      dialect.send(
          connection,
          "segments",
          wanted.segments().stream()
              .map(
                  s ->
                      String.format(
                          Locale.ROOT, "%.12G,%.12G,%d", s.startHz(), s.stopHz(), s.points()))
              .collect(Collectors.joining(",")));
    } else {
      dialect.send(connection, "startHz", wanted.startHz());
      dialect.send(connection, "stopHz", wanted.stopHz());
      dialect.send(connection, "points", Integer.toString(wanted.points()));
    }
    dialect.send(
        connection,
        "type",
        switch (wanted.type()) {
          case LINEAR -> "LIN";
          case LOGARITHMIC -> "LOG";
          case SEGMENTS -> "SEGM";
        });
    dialect.send(connection, "bandwidthHz", wanted.bandwidthHz());
    dialect.send(connection, "averages", Integer.toString(wanted.averages()));
    dialect.send(connection, "powerDbm", wanted.powerDbm());
    dialect.send(connection, "secondPort", wanted.bothPorts() ? "ON" : "OFF");
    sweepSeconds = dialect.number(connection, "sweepSeconds", 0, LONGEST_SECONDS);
    int points = wanted.frequencies().length;
    frequencyHz = block("frequencies", points);
    settings = wanted;
  }

  @Override
  public void begin() {
    if (settings == null) {
      throw new IllegalStateException("configure() must come first");
    }
    dialect.send(connection, "begin", "");
    beganNanos = System.nanoTime();
  }

  @Override
  public double progress() {
    double share = (System.nanoTime() - beganNanos) / 1e9 / sweepSeconds;
    return dialect.flag(connection, "sweeping") ? Math.min(share, 0.99) : 1;
  }

  @Override
  public double remainingSeconds() {
    return Math.max(0, sweepSeconds - (System.nanoTime() - beganNanos) / 1e9);
  }

  @Override
  public RawSweep read() {
    int n = frequencyHz.length;
    boolean tells = dialect.query("trace").as().equals("switched-le");
    int values = tells ? 6 : 4;
    double[] all = block("trace", 2 * values * n);
    double[] s = new double[8 * n];
    double[] switch1 = new double[tells ? 2 * n : 0];
    double[] switch2 = new double[tells ? 2 * n : 0];
    for (int p = 0; p < n; p++) {
      System.arraycopy(all, 2 * values * p, s, 8 * p, 8);
      if (!settings.bothPorts()) {
        s[8 * p + 2] = s[8 * p + 3] = s[8 * p + 6] = s[8 * p + 7] = 0;
      }
      if (tells) {
        System.arraycopy(all, 2 * values * p + 8, switch1, 2 * p, 2);
        System.arraycopy(all, 2 * values * p + 10, switch2, 2 * p, 2);
      }
    }
    return new RawSweep(
        new NetworkData(2, new double[] {Z0, Z0}, frequencyHz, s), switch1, switch2);
  }

  @Override
  public String trouble() {
    if (dialect.can("overload") && dialect.flag(connection, "overload")) {
      return "overload";
    }
    return dialect.can("dcAtPort") && dialect.flag(connection, "dcAtPort") ? "dc at a port" : "";
  }

  private double[] block(String capability, int count) {
    byte[] bytes = new byte[8 * count];
    connection.askBlock(
        dialect.query(capability).ask(), bytes.length, bytes, Duration.ofSeconds(2));
    double[] values = new double[count];
    ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN).asDoubleBuffer().get(values);
    for (int i = 0; i < count; i++) {
      if (!Double.isFinite(values[i])) {
        throw new InstrumentFault(
            InstrumentFault.Kind.BAD_REPLY,
            "The sweep makes no sense: value "
                + (i + 1)
                + " is not finite. Check the format in the dialect.");
      }
    }
    return values;
  }
}
