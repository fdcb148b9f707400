package rovnik.standins;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rovnik.standins.rf.PartBench;
import rovnik.standins.rf.PartSweep;
import rovnik.standins.scpi.ScpiError;
import rovnik.standins.scpi.ScpiInstrument;

/**
 * Two-port network analyzer, 9 kHz to 8 GHz, in the words of SCPI-99: raw ratios of its receivers
 * after INITiate, as a block of 64-bit floats; it corrects nothing.
 */
final class NetworkStandin extends ScpiInstrument {
  private static final double LOWEST_HZ = 9e3;
  private static final double HIGHEST_HZ = 8e9;
  private static final int MOST_POINTS = 20_001;
  private static final int DC_AT_PORT = 1;
  private static final int OVERLOAD = 8;
  private static final int SWEEPING = 8;
  private static final double SETTLE_SECONDS = 4e-6;

  private record Segment(double startHz, double stopHz, int points) {}

  private final PartBench bench;
  private final PartSweep sweep;
  private final boolean paced;
  private double startHz;
  private double stopHz;
  private int points;
  private String type;
  private List<Segment> segments = List.of();
  private double bandwidthHz;
  private int averages;
  private double powerDbm;
  private boolean secondPort;
  private long endNanos;
  private boolean began;
  private double[] data;

  NetworkStandin(PartBench bench, long seed, boolean paced) {
    super("Rovnik,Network analyzer stand-in,1,1.0");
    this.bench = bench;
    this.sweep = new PartSweep(bench, seed);
    this.paced = paced;
    reset();
    both("[SENSe:]FREQuency:STARt", p -> startHz = hertz(p), () -> text(startHz));
    both("[SENSe:]FREQuency:STOP", p -> stopHz = hertz(p), () -> text(stopHz));
    both("[SENSe:]SWEep:POINts", p -> points = integer(p, 2, MOST_POINTS), () -> "" + points);
    both("[SENSe:]SWEep:TYPE", this::setType, () -> type);
    both("[SENSe:]SEGMent:DATA", this::setSegments, () -> "" + segments.size());
    both(
        "[SENSe:]BANDwidth[:RESolution]",
        p -> bandwidthHz = number(p, 1, 1e6),
        () -> text(bandwidthHz));
    both("[SENSe:]AVERage:COUNt", p -> averages = integer(p, 1, 1000), () -> "" + averages);
    both("SOURce:POWer[:LEVel]", p -> powerDbm = number(p, -45, 13), () -> text(powerDbm));
    both("OUTPut:PORT2", p -> secondPort = onOff(p), () -> secondPort ? "1" : "0");
    query("[SENSe:]SWEep:TIME", () -> text(seconds()));
    set("INITiate:CONTinuous", p -> onOff(p));
    set("INITiate[:IMMediate]", p -> begin());
    set("ABORt", p -> began = false);
    both("FORMat[:DATA]", p -> {}, () -> "REAL,64");
    both("FORMat:BORDer", p -> {}, () -> "SWAP");
    queryBytes("[SENSe:]FREQuency:DATA", () -> block(frequencies()));
    queryBytes("TRACe[:DATA]", this::trace);
  }

  @Override
  protected void reset() {
    startHz = LOWEST_HZ;
    stopHz = HIGHEST_HZ;
    points = 201;
    type = "LIN";
    segments = List.of();
    bandwidthHz = 1000;
    averages = 1;
    powerDbm = -10;
    secondPort = true;
    began = false;
    data = null;
  }

  @Override
  protected int questionable() {
    return (bench.dcAtPort() ? DC_AT_PORT : 0) | (sweep.overload() ? OVERLOAD : 0);
  }

  @Override
  protected int operation() {
    return began && System.nanoTime() < endNanos ? SWEEPING : 0;
  }

  private static double hertz(String p) {
    return number(p, LOWEST_HZ, HIGHEST_HZ);
  }

  private static String text(double value) {
    return String.format(Locale.ROOT, "%.11E", value);
  }

  private void setType(String word) {
    type =
        switch (word.toUpperCase(Locale.ROOT)) {
          case "LIN", "LINEAR" -> "LIN";
          case "LOG", "LOGARITHMIC" -> "LOG";
          case "SEGM", "SEGMENT" -> "SEGM";
          default -> throw ScpiError.illegalValue(word);
        };
  }

  /** Start, stop and points of each, one after the other. */
  private void setSegments(String text) {
    String[] numbers = text.split(",");
    if (numbers.length % 3 != 0) {
      throw ScpiError.illegalValue("a segment is start, stop, points");
    }
    List<Segment> list = new ArrayList<>();
    double before = 0;
    for (int i = 0; i < numbers.length; i += 3) {
      Segment s =
          new Segment(
              hertz(numbers[i].strip()),
              hertz(numbers[i + 1].strip()),
              integer(numbers[i + 2].strip(), 1, MOST_POINTS));
      if (s.startHz() <= before || s.stopHz() < s.startHz()) {
        throw new ScpiError(-221, "Settings conflict; segments must rise");
      }
      before = s.stopHz();
      list.add(s);
    }
    segments = list;
  }

  private double[] frequencies() {
    if (type.equals("SEGM")) {
      return segments.stream()
          .flatMapToDouble(s -> java.util.Arrays.stream(grid(s.startHz, s.stopHz, s.points, false)))
          .toArray();
    }
    return grid(startHz, stopHz, points, type.equals("LOG"));
  }

  private static double[] grid(double from, double to, int n, boolean log) {
    double[] hz = new double[n];
    for (int i = 0; i < n; i++) {
      double share = n == 1 ? 0 : i / (n - 1.0);
      hz[i] = log ? from * Math.pow(to / from, share) : from + share * (to - from);
    }
    return hz;
  }

  private double seconds() {
    int n = type.equals("SEGM") ? segments.stream().mapToInt(Segment::points).sum() : points;
    return n * (1.2 / bandwidthHz + SETTLE_SECONDS) * averages * (secondPort ? 2 : 1);
  }

  private void begin() {
    if (type.equals("SEGM") ? segments.isEmpty() : stopHz < startHz) {
      throw new ScpiError(-221, "Settings conflict; stop must lie above start");
    }
    began = true;
    data = null;
    endNanos = System.nanoTime() + (paced ? (long) (seconds() * 1e9) : 0);
  }

  private byte[] trace() {
    if (!began) {
      throw new ScpiError(-230, "Data corrupt or stale; no sweep was taken");
    }
    if (operation() != 0) {
      throw new ScpiError(-230, "Data corrupt or stale; the sweep is under way");
    }
    if (data == null) {
      data = sweep.sweep(frequencies(), powerDbm, bandwidthHz / averages);
    }
    return block(data);
  }

  private static byte[] block(double[] values) {
    byte[] length = Integer.toString(8 * values.length).getBytes(StandardCharsets.ISO_8859_1);
    ByteBuffer block = ByteBuffer.allocate(2 + length.length + 8 * values.length);
    block.put((byte) '#').put((byte) ('0' + length.length)).put(length);
    block.order(ByteOrder.LITTLE_ENDIAN).asDoubleBuffer().put(values);
    return block.array();
  }
}
