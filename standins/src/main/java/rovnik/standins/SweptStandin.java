package rovnik.standins;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import rovnik.standins.scpi.ScpiError;
import rovnik.standins.scpi.ScpiInstrument;
import rovnik.standins.world.SweptView;
import rovnik.standins.world.World;

/**
 * Swept spectrum analyzer, 10 kHz to 8 GHz, in the words of SCPI-99: a single sweep on INITiate,
 * the trace by TRACe:DATA?, as ASCII or as a definite-length block of 32-bit floats.
 */
final class SweptStandin extends ScpiInstrument {
  private static final int OVERLOAD = 8;
  private static final int UNCALIBRATED = 256;
  private final SweptView view;
  private final boolean paced;
  private double startHz;
  private double stopHz;
  private double rbwHz;
  private int points;
  private double attenuationDb;
  private SweptView.Detector detector;
  private boolean ascii;
  private float[] trace;
  private boolean overloaded;

  /**
   * @param paced true to take as long for a sweep as it lasts
   */
  SweptStandin(World world, boolean paced) {
    super("Rovnik,Swept analyzer stand-in,1,1.0");
    this.view = new SweptView(world);
    this.paced = paced;
    reset();
    both("[SENSe:]FREQuency:STARt", p -> startHz = number(p, 10e3, 8e9), () -> text(startHz));
    both("[SENSe:]FREQuency:STOP", p -> stopHz = number(p, 10e3, 8e9), () -> text(stopHz));
    both(
        "[SENSe:]BANDwidth[:RESolution]",
        p -> rbwHz = nearestRbw(number(p, 10, 10e6)),
        () -> text(rbwHz));
    both("[SENSe:]SWEep:POINts", p -> points = integer(p, 101, 20_001), () -> "" + points);
    query("[SENSe:]SWEep:TIME", () -> text(SweptView.sweepSeconds(stopHz - startHz, rbwHz)));
    both("[SENSe:]DETector[:FUNCtion]", p -> detector = detector(p), () -> word(detector));
    both(
        "INPut:ATTenuation",
        p -> attenuationDb = 5 * Math.rint(number(p, 0, 60) / 5),
        () -> text(attenuationDb));
    both("FORMat[:DATA]", this::setFormat, () -> ascii ? "ASC,8" : "REAL,32");
    both(
        "FORMat:BORDer",
        p -> {
          if (!p.toUpperCase(Locale.ROOT).startsWith("SWAP")) {
            throw ScpiError.illegalValue(p);
          }
        },
        () -> "SWAP");
    set("INITiate:CONTinuous", p -> onOff(p));
    set("INITiate[:IMMediate]", p -> sweep());
    queryBytes("TRACe[:DATA]", this::data);
  }

  @Override
  protected void reset() {
    startHz = 10e3;
    stopHz = 8e9;
    rbwHz = 3e6;
    points = 1001;
    attenuationDb = 10;
    detector = SweptView.Detector.POSITIVE;
    ascii = true;
    trace = null;
  }

  @Override
  protected int questionable() {
    return (overloaded ? OVERLOAD : 0) | (stopHz <= startHz ? UNCALIBRATED : 0);
  }

  private static String text(double value) {
    return String.format(Locale.ROOT, "%.9E", value);
  }

  /** Filters of 1, 3 and 10. */
  private static double nearestRbw(double wanted) {
    double best = 10;
    for (double decade = 10; decade <= 10e6; decade *= 10) {
      for (double m : new double[] {1, 3}) {
        double rbw = m * decade;
        if (rbw <= 10e6 && Math.abs(Math.log(rbw / wanted)) < Math.abs(Math.log(best / wanted))) {
          best = rbw;
        }
      }
    }
    return best;
  }

  private static SweptView.Detector detector(String word) {
    return switch (word.toUpperCase(Locale.ROOT)) {
      case "POS", "POSITIVE" -> SweptView.Detector.POSITIVE;
      case "NEG", "NEGATIVE" -> SweptView.Detector.NEGATIVE;
      case "SAMP", "SAMPLE" -> SweptView.Detector.SAMPLE;
      case "RMS" -> SweptView.Detector.RMS;
      case "AVER", "AVERAGE" -> SweptView.Detector.AVERAGE;
      default -> throw ScpiError.illegalValue(word);
    };
  }

  private static String word(SweptView.Detector d) {
    return d == SweptView.Detector.RMS
        ? "RMS"
        : d.name()
            .substring(
                0, d == SweptView.Detector.POSITIVE || d == SweptView.Detector.NEGATIVE ? 3 : 4);
  }

  private void setFormat(String parameter) {
    ascii =
        switch (parameter.toUpperCase(Locale.ROOT).replace(" ", "")) {
          case "ASC", "ASCII", "ASC,8", "ASCII,8" -> true;
          case "REAL,32" -> false;
          default -> throw ScpiError.illegalValue(parameter);
        };
  }

  private void sweep() {
    if (stopHz <= startHz) {
      throw new ScpiError(-221, "Settings conflict; stop must lie above start");
    }
    trace = view.sweep(startHz, stopHz, points, rbwHz, detector, attenuationDb);
    overloaded = view.overloaded(attenuationDb);
    if (paced) {
      double seconds = Math.min(SweptView.sweepSeconds(stopHz - startHz, rbwHz), 30);
      java.util.concurrent.locks.LockSupport.parkNanos((long) (seconds * 1e9));
    }
  }

  private byte[] data() {
    if (trace == null) {
      throw new ScpiError(-230, "Data corrupt or stale; no sweep was taken");
    }
    if (ascii) {
      StringBuilder text = new StringBuilder(trace.length * 14);
      for (int i = 0; i < trace.length; i++) {
        text.append(i == 0 ? "" : ",").append(String.format(Locale.ROOT, "%.7E", trace[i]));
      }
      return text.toString().getBytes(StandardCharsets.ISO_8859_1);
    }
    byte[] length = Integer.toString(4 * trace.length).getBytes(StandardCharsets.ISO_8859_1);
    ByteBuffer block = ByteBuffer.allocate(2 + length.length + 4 * trace.length);
    block.put((byte) '#').put((byte) ('0' + length.length)).put(length);
    block.order(ByteOrder.LITTLE_ENDIAN).asFloatBuffer().put(trace);
    return block.array();
  }
}
