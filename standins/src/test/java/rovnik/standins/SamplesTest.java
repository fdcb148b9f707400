package rovnik.standins;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import org.testng.annotations.Test;
import rovnik.standins.world.ExciterTap;
import rovnik.standins.world.NoiseBench;
import rovnik.standins.world.Truth;
import rovnik.standins.world.World;

/** The quick noise and tones of the stand-ins against what statistics and sines must be. */
public class SamplesTest {
  /** White: neighbours do not know of one another; Gaussian: the fourth moment is 3. */
  @Test
  public void noiseIsWhiteAndGaussian() {
    World world = new World(3);
    NoiseBench bench = new NoiseBench(world);
    bench.plug(NoiseBench.THROUGH);
    bench.setHot(true);
    int n = 400_000;
    double[] iq = new double[2 * n];
    double rate = 1e6;
    bench.receive(iq, n, 458e6, rate);
    double second = 0;
    double fourth = 0;
    double[] lag = new double[6];
    for (int i = 0; i < 2 * n; i++) {
      second += iq[i] * iq[i] / (2 * n);
      fourth += Math.pow(iq[i], 4) / (2 * n);
      for (int k = 1; k < lag.length && i >= 2 * k; k++) {
        lag[k] += iq[i] * iq[i - 2 * k] / (2 * n);
      }
    }
    double expected =
        Math.pow(10, (Truth.THERMAL_DBM_PER_HZ + Truth.NOISE_SOURCE_ENR_DB) / 10) * rate / 2;
    assertEquals(second, expected, 0.01 * expected);
    assertEquals(fourth / (second * second), 3, 0.05);
    for (int k = 1; k < lag.length; k++) {
      assertTrue(Math.abs(lag[k]) < 0.006 * second, "lag " + k + ": " + lag[k] / second);
    }
  }

  /** A tone is a sine to the last sample, however long the record: rounding does not add up. */
  @Test
  public void tonesKeepTheirPhase() {
    World world = new World(4);
    ExciterTap tap = new ExciterTap(world);
    tap.setDivides(1);
    int n = 300_000;
    double[] iq = new double[2 * n];
    double rate = 1e6;
    double centre = Truth.BUOY_HZ - 123_456.7;
    tap.receive(iq, n, centre, rate);
    double a = Math.pow(10, Truth.EXCITER_DBM / 20);
    double start = Math.atan2(iq[1], iq[0]);
    for (int i : new int[] {0, 1, 1023, 1024, 77_777, n - 1}) {
      double angle = start + 2 * Math.PI * 123_456.7 / rate * i;
      assertEquals(iq[2 * i], a * Math.cos(angle), 1e-6 * a, "sample " + i);
      assertEquals(iq[2 * i + 1], a * Math.sin(angle), 1e-6 * a, "sample " + i);
    }
  }

  @Test
  public void aTransmitterThatIsOffHasNoExciter() {
    World world = new World(5);
    world.setTransmitting(false);
    double[] iq = new double[200];
    new ExciterTap(world).receive(iq, 100, Truth.BUOY_HZ, 1e6);
    for (double v : iq) {
      assertEquals(v, 0.0);
    }
  }

  /** FETCh2? wants a record first, and then answers as many samples as READ? did. */
  @Test
  public void theSecondInputSpeaksScpi() {
    World world = new World(6);
    TwoInputStandin two =
        new TwoInputStandin(world, new NoiseBench(world), new ExciterTap(world), false);
    assertEquals(run(two, "FETC2?"), "");
    assertTrue(run(two, "SYST:ERR?").startsWith("-230"));
    run(two, "SENS:FREQ:CENT 458E6;:SENS:SWE:POIN 64;:INP2:ATT 12;:FORM:BORD SWAP");
    assertEquals(Double.parseDouble(run(two, "INP2:ATT?")), 12.0);
    byte[] first = two.run("READ?");
    byte[] second = two.run("FETC2?");
    assertEquals(second.length, first.length);
    ByteBuffer b = ByteBuffer.wrap(second).order(ByteOrder.LITTLE_ENDIAN);
    b.position(5);
    assertTrue(Math.abs(b.getFloat()) <= 1);
    run(two, "*RST");
    assertEquals(Double.parseDouble(run(two, "INP2:ATT?")), 40.0);
  }

  private static String run(TwoInputStandin instrument, String message) {
    byte[] reply = instrument.run(message);
    return reply == null ? "" : new String(reply, StandardCharsets.ISO_8859_1);
  }
}
