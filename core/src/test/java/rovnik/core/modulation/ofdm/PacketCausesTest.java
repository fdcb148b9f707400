package rovnik.core.modulation.ofdm;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import org.testng.annotations.Test;
import rovnik.core.result.Outcome;
import rovnik.core.result.ResultTable;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;

/** Why a packet is not better: faults that are known, alone and together. */
public class PacketCausesTest {
  private static final double FS = PacketBench.FS;
  private static final double POWER = 52.0 / 64 / 64;

  /** So little noise that it does not count. */
  private static final double QUIET_DB = 70;

  private static float[] packet(Random random) {
    return LegacyPacket.samples(
        LegacyRate.ofMegabits(24), PacketBench.framed(random, 700), 1 + random.nextInt(127), 2);
  }

  private static Outcome measured(float[] sent, double snrDb, Random random) {
    float[] iq = PacketBench.received(sent, 12e3, snrDb, random, POWER, 52 * 312.5e3);
    return PacketBench.measured(iq, FS, 1);
  }

  private static ResultTable.Row row(Outcome o, String label) {
    return o.table("causes").orElseThrow().rows().stream()
        .filter(r -> r.cells().get(0).text().equals(label))
        .findFirst()
        .orElse(null);
  }

  /** EVM that a cause makes alone, %; 0 if it is not named. */
  private static double by(Outcome o, String label) {
    ResultTable.Row r = row(o, label);
    return r == null ? 0 : r.cells().get(2).value();
  }

  private static String toldBy(Outcome o, String label) {
    return row(o, label).cells().get(4).text();
  }

  /** Shares add up, whatever they are. */
  private static void addsUp(Outcome o) {
    addsUp(o, 8);
  }

  private static void addsUp(Outcome o, double percent) {
    double rest = row(o, "Not explained").cells().get(1).value();
    assertTrue(Math.abs(rest) < percent, "not explained: " + rest + " %");
  }

  private interface Fault {
    /** Samples of a packet, interleaved; changed. */
    void spoil(float[] x);
  }

  private static float[] spoilt(float[] x, Fault... faults) {
    float[] y = x.clone();
    for (Fault f : faults) {
      f.spoil(y);
    }
    return y;
  }

  private static Fault mirror(double re, double im) {
    return x -> {
      for (int n = 0; n < x.length; n += 2) {
        double a = x[n];
        double b = x[n + 1];
        x[n] += (float) (re * a + im * b);
        x[n + 1] += (float) (im * a - re * b);
      }
    };
  }

  private static Fault bend(double along, double across) {
    return x -> {
      for (int n = 0; n < x.length; n += 2) {
        double a = x[n];
        double b = x[n + 1];
        double p = (a * a + b * b) / POWER;
        x[n] = (float) (a * (1 + along * p) - b * across * p);
        x[n + 1] = (float) (b * (1 + along * p) + a * across * p);
      }
    };
  }

  private static Fault turn(DoubleUnaryOperator angle) {
    return x -> {
      for (int n = 0; n < x.length; n += 2) {
        double c = Math.cos(angle.applyAsDouble(n / 2 / FS));
        double s = Math.sin(angle.applyAsDouble(n / 2 / FS));
        double a = x[n];
        x[n] = (float) (a * c - x[n + 1] * s);
        x[n + 1] = (float) (a * s + x[n + 1] * c);
      }
    };
  }

  private static Fault swell(DoubleUnaryOperator share) {
    return x -> {
      for (int n = 0; n < x.length; n++) {
        x[n] *= (float) (1 + share.applyAsDouble(n / 2 / FS));
      }
    };
  }

  private static Fault line(double hz, double dbc) {
    double a = Math.sqrt(POWER) * Math.pow(10, dbc / 20);
    return x -> {
      for (int n = 0; n < x.length; n += 2) {
        double angle = 2 * Math.PI * hz * n / 2 / FS;
        x[n] += (float) (a * Math.cos(angle));
        x[n + 1] += (float) (a * Math.sin(angle));
      }
    };
  }

  /** Noise by itself: half as much again comes with the training of two symbols. */
  @Test
  public void noiseIsNoise() {
    for (int t = 0; t < 8; t++) {
      Random random = new Random(t);
      Outcome o = measured(packet(random), 30, random);
      assertEquals(by(o, "Noise"), 100 * Math.pow(10, -30 / 20.0), 0.2, "noise " + t);
      assertEquals(
          by(o, "Channel as it was estimated"), 100 * Math.pow(10, -33 / 20.0), 0.5, "" + t);
      for (String other :
          new String[] {"Phase noise between tones", "Mirror images", "Compression (AM-AM)"}) {
        assertTrue(by(o, other) < 0.45, other + " " + by(o, other));
      }
      assertEquals(by(o, "A spur on a tone"), 0.0);
      addsUp(o);
    }
  }

  /** A channel that is learned from the data has part of their noise in it. */
  @Test
  public void noiseIsNoMoreThanAll() {
    OfdmSettings both =
        new OfdmSettings(
            0, 20e6, 0.1, 0, 1, OfdmSettings.Estimate.TRAINING_AND_DATA, true, false, null);
    for (int t = 0; t < 4; t++) {
      Random random = new Random(70 + t);
      float[] iq = PacketBench.received(packet(random), 0, 30, random, POWER, 52 * 312.5e3);
      Outcome o =
          new OfdmMeasurement(both)
              .of(new IqRecord(iq, FS, 5.5e9, 0, false), MeasurementContext.BARE);
      assertEquals(row(o, "Noise").cells().get(1).value(), 95.0, 6.0, "percent");
      addsUp(o, 4);
    }
  }

  /** I and Q of other gain and not square: as much again goes into the channel's estimate. */
  @Test
  public void mirrorImagesAreTold() {
    Random random = new Random(31);
    double gain = 0.02;
    double angle = Math.toRadians(1.5);
    Outcome o = measured(spoilt(packet(random), mirror(gain / 2, -angle / 2)), QUIET_DB, random);
    double expected = 100 * Math.sqrt(2 * (gain * gain + angle * angle) / 4);
    assertEquals(by(o, "Mirror images"), expected, 0.05 * expected);
    String told = toldBy(o, "Mirror images");
    assertTrue(told.contains("I has +0.17"), told);
    assertTrue(told.contains("91.5") || told.contains("91.49"), told);
    addsUp(o);
  }

  @Test
  public void compressionIsTold() {
    Random random = new Random(32);
    Outcome o = measured(spoilt(packet(random), bend(-0.02, 0.01)), QUIET_DB, random);
    String told = toldBy(o, "Compression (AM-AM)");
    // About the mean gain of 1 - 2 shares the tones.
    assertEquals(number(told), 2.0, 0.15, told);
    assertEquals(number(toldBy(o, "Turn with level (AM-PM)")), Math.toDegrees(0.01), 0.05);
    assertEquals(by(o, "Compression (AM-AM)") / by(o, "Turn with level (AM-PM)"), 2, 0.1);
    addsUp(o);
  }

  private static double number(String told) {
    return Double.parseDouble(told.replaceAll("^.*?by ([0-9.]+) .*$", "$1"));
  }

  /** A phase that swings at 150 kHz within a symbol of 4 us; a level that does. */
  @Test
  public void whatSmearsTonesIsTold() {
    Random random = new Random(33);
    double rms = 0.01;
    DoubleUnaryOperator wave = t -> Math.sqrt(2) * rms * Math.sin(2 * Math.PI * 310e3 * t);
    Outcome phase = measured(spoilt(packet(random), turn(wave)), QUIET_DB, random);
    double least = 0.8 * 100 * rms;
    assertEquals(by(phase, "Phase noise between tones"), 100 * rms, 0.1);
    assertTrue(by(phase, "Ripple of the level within symbols") < 0.15);
    addsUp(phase);
    Outcome level = measured(spoilt(packet(random), swell(wave)), QUIET_DB, random);
    assertTrue(by(level, "Ripple of the level within symbols") > least);
    assertTrue(by(level, "Phase noise between tones") < 0.15);
    addsUp(level);
  }

  @Test
  public void aSpurIsFoundAtItsTone() {
    Random random = new Random(34);
    // Tone 10 is at 3.125 MHz; the carrier of the packet moves with the receiver.
    Outcome o = measured(spoilt(packet(random), line(3.125e6, -40)), 45, random);
    String told = toldBy(o, "A spur on a tone");
    assertTrue(told.contains("tone 10, 3.125 MHz above the carrier"), told);
    addsUp(o);
  }

  /** All at once: each as it was alone. */
  @Test
  public void causesAreToldApart() {
    for (int t = 0; t < 5; t++) {
      Random random = new Random(50 + t);
      double rms = 0.008;
      DoubleUnaryOperator wave = s -> Math.sqrt(2) * rms * Math.sin(2 * Math.PI * 310e3 * s);
      Outcome o =
          measured(
              spoilt(packet(random), bend(-0.015, 0), mirror(0.008, 0.006), turn(wave)),
              38,
              random);
      assertEquals(by(o, "Mirror images"), 100 * Math.sqrt(2) * 0.01, 0.2, "mirror " + t);
      assertEquals(number(toldBy(o, "Compression (AM-AM)")), 1.5, 0.2, "bend " + t);
      assertEquals(by(o, "Phase noise between tones"), 100 * rms, 0.2, "phase " + t);
      assertEquals(by(o, "Noise"), 100 * Math.pow(10, -38 / 20.0), 0.15, "noise " + t);
      // What two faults do to the training of one packet may add or cancel.
      addsUp(o, 15);
    }
  }
}
