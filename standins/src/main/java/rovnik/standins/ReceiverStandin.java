package rovnik.standins;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Locale;
import java.util.function.Consumer;
import rovnik.standins.scpi.ScpiError;
import rovnik.standins.scpi.ScpiInstrument;
import rovnik.standins.world.Clock;
import rovnik.standins.world.ReceiverFrontEnd;
import rovnik.standins.world.ReceiverTruth;
import rovnik.standins.world.TriggerCable;
import rovnik.standins.world.World;

/**
 * IQ receiver, 10 kHz to 8 GHz. The digitizer follows SCPI-99's SENSe:SWEep (points, time interval)
 * and answers READ? with a definite-length block of interleaved 32-bit floats, full scale 1.0.
 *
 * <p>After INITiate:CONTinuous ON it takes samples without a pause, into a memory that holds
 * {@value #HELD_POINTS} of them; FETCh:NEXT? answers the next points of them, behind the number of
 * the first (64 bits). Who asks too late misses the oldest, and sees it by the numbers.
 * FETCh:TRIGger:TIMes? answers how many times the trigger input rose while these points were taken,
 * and after how many points each time, to a cycle of the converter.
 */
class ReceiverStandin extends ScpiInstrument {
  private static final int MOST_POINTS = 1 << 23;
  private static final int HELD_POINTS = 1 << 22;
  private static final int OVERLOAD = 8; // questionable power
  private static final int TRIPPED = 512;

  private final ReceiverFrontEnd frontEnd;
  private final TriggerCable cable;
  private final boolean paced;
  private List<Double> rises = List.of();
  private double centreHz;
  private double rateHz;
  private int points;
  private double attenuationDb;
  private boolean littleEndian;
  private final long switchedOnNanos = System.nanoTime();
  private boolean continuous;

  /** Number of the next sample that is given away, at a rate. */
  private long next;

  private double nextRateHz;

  /**
   * @param paced true to take as long for a record as its samples last
   */
  ReceiverStandin(World world, boolean paced) {
    this("Rovnik,IQ receiver stand-in,1,1.0", new ReceiverFrontEnd(world), paced);
  }

  ReceiverStandin(String identity, ReceiverFrontEnd frontEnd, boolean paced) {
    this(identity, frontEnd, new TriggerCable(new Clock(), (from, to) -> List.of()), paced);
  }

  /**
   * @param cable at its trigger input
   */
  ReceiverStandin(String identity, ReceiverFrontEnd frontEnd, TriggerCable cable, boolean paced) {
    super(identity);
    this.frontEnd = frontEnd;
    this.cable = cable;
    this.paced = paced;
    initial();
    both("[SENSe:]FREQuency:CENTer", p -> centreHz = number(p, 10e3, 8e9), () -> text(centreHz));
    both("[SENSe:]SWEep:TINTerval", p -> rateHz = rate(p), () -> text(1 / rateHz));
    both("[SENSe:]SWEep:POINts", p -> points = integer(p, 1, MOST_POINTS), () -> "" + points);
    both(
        "INPut:ATTenuation",
        p -> attenuationDb = 2 * Math.rint(number(p, 0, 40) / 2),
        () -> text(attenuationDb));
    query(
        "[SENSe:]POWer[:AC]:RANGe[:UPPer]",
        () -> text(frontEnd.truth().fullScaleDbm(attenuationDb)));
    query("INPut:PROTection:TRIPped", () -> frontEnd.tripped() ? "1" : "0");
    set("INPut:PROTection:CLEar", p -> frontEnd.clearTrip());
    both("FORMat[:DATA]", ReceiverStandin::checkFormat, () -> "REAL,32");
    both("FORMat:BORDer", this::setByteOrder, () -> littleEndian ? "SWAP" : "NORM");
    queryBytes("READ", this::read);
    both("INITiate:CONTinuous", p -> setContinuous(onOff(p)), () -> continuous ? "1" : "0");
    queryBytes("FETCh:NEXT", this::fetchNext);
    query("FETCh:TRIGger:TIMes", this::rises);
    // A reader that comes too late, for tests in which no time passes.
    set("SIMulation:LOSE", p -> lose(integer(p, 1, 1 << 30)));
  }

  @Override
  protected void reset() {
    initial();
  }

  private void initial() {
    centreHz = 1e9;
    rateHz = frontEnd.truth().rateHz();
    points = 4096;
    attenuationDb = 40;
    littleEndian = false;
    continuous = false;
  }

  @Override
  protected int questionable() {
    return (frontEnd.clipped() ? OVERLOAD : 0) | (frontEnd.tripped() ? TRIPPED : 0);
  }

  static String text(double value) {
    return String.format(Locale.ROOT, "%.12E", value);
  }

  private double rate(String interval) {
    ReceiverTruth t = frontEnd.truth();
    return t.nearestRate(1 / number(interval, 0.99 / t.rateHz(), 1.01 / t.slowestHz()));
  }

  private static void checkFormat(String parameter) {
    if (!parameter.toUpperCase(Locale.ROOT).replace(" ", "").equals("REAL,32")) {
      throw ScpiError.illegalValue(parameter);
    }
  }

  private void setByteOrder(String parameter) {
    littleEndian =
        switch (parameter.toUpperCase(Locale.ROOT)) {
          case "SWAP", "SWAPPED" -> true;
          case "NORM", "NORMAL" -> false;
          default -> throw ScpiError.illegalValue(parameter);
        };
  }

  private void setContinuous(boolean on) {
    continuous = on;
    if (paced) {
      next = rateHz == nextRateHz ? Math.max(next, taken()) : taken();
    }
    nextRateHz = rateHz;
  }

  /** Number of samples that passed since it was switched on, at the present rate. */
  private long taken() {
    return (long) ((System.nanoTime() - switchedOnNanos) * 1e-9 * rateHz);
  }

  private void lose(long samples) {
    frontEnd.miss(samples / rateHz);
    next += samples;
  }

  private byte[] fetchNext() {
    if (!continuous) {
      throw new ScpiError(-230, "Data corrupt or stale; INIT:CONT ON comes first");
    }
    if (paced) {
      long late = taken() - next - Math.max(HELD_POINTS, points);
      if (late > 0) {
        lose(late);
      }
    }
    double began = cable.seconds();
    float[] iq = frontEnd.record(centreHz, rateHz, points, attenuationDb);
    rises = cable.risesSince(began).stream().map(t -> t - began).toList();
    long first = next;
    next += points;
    if (paced) {
      pause((long) ((next - taken()) / rateHz * 1e9));
    }
    return block(iq, Long.BYTES, b -> b.putLong(first));
  }

  private String rises() {
    double cycles = frontEnd.truth().rateHz();
    StringBuilder out = new StringBuilder().append(rises.size());
    for (double t : rises) {
      out.append(',').append(text(Math.ceil(t * cycles) / cycles * rateHz));
    }
    return out.toString();
  }

  private static void pause(long nanos) {
    if (nanos > 0) {
      java.util.concurrent.locks.LockSupport.parkNanos(nanos);
    }
  }

  private byte[] read() {
    if (continuous) {
      throw new ScpiError(-213, "Init ignored; INIT:CONT OFF comes first");
    }
    long began = System.nanoTime();
    boolean wasTripped = frontEnd.tripped();
    frontEnd.trigger();
    float[] iq = frontEnd.record(centreHz, rateHz, points, attenuationDb);
    if (frontEnd.tripped() && !wasTripped) {
      raise(-310, "System error; input protection tripped, lower the level and send INP:PROT:CLE");
    }
    alsoTake(centreHz, rateHz, points);
    if (paced) {
      pause((long) (points / rateHz * 1e9) - (System.nanoTime() - began));
    }
    return block(iq);
  }

  /** Takes what else is taken at the same time. */
  protected void alsoTake(double centreHz, double rateHz, int points) {}

  /** Samples as a definite-length block. */
  final byte[] block(float[] iq) {
    return block(iq, 0, b -> {});
  }

  private byte[] block(float[] iq, int headBytes, Consumer<ByteBuffer> head) {
    int bytes = headBytes + iq.length * 4;
    byte[] length = Integer.toString(bytes).getBytes(StandardCharsets.ISO_8859_1);
    ByteBuffer block = ByteBuffer.allocate(2 + length.length + bytes);
    block.put((byte) '#').put((byte) ('0' + length.length)).put(length);
    block.order(littleEndian ? ByteOrder.LITTLE_ENDIAN : ByteOrder.BIG_ENDIAN);
    head.accept(block);
    block.asFloatBuffer().put(iq);
    return block.array();
  }
}
