package rovnik.standins;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertNull;
import static org.testng.Assert.assertTrue;

import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import rovnik.standins.scpi.ScpiInstrument;
import rovnik.standins.world.Truth;
import rovnik.standins.world.World;

/** The stand-ins speak as IEEE 488.2 and SCPI-99 want, and their physics follow the truth. */
public class ScpiStandinTest {
  private World world;
  private ScpiInstrument receiver;
  private ScpiInstrument transmitter;

  @BeforeMethod
  public void setUp() {
    world = new World(7);
    receiver = new ReceiverStandin(world, false);
    transmitter = new TransmitterStandin(world);
  }

  private static String ask(ScpiInstrument i, String message) {
    byte[] reply = i.run(message);
    return reply == null ? null : new String(reply, StandardCharsets.ISO_8859_1);
  }

  @Test
  public void shortLongAndMixedFormsAndUnits() {
    assertNull(ask(receiver, "SENSE:FREQUENCY:CENTER 458.525 MHZ"));
    assertEquals(Double.parseDouble(ask(receiver, "freq:cent?")), 458.525e6, 1e-3);
    assertNull(ask(receiver, ":SENS:SWE:POIN 1000;TINT 2.5E-6"));
    assertEquals(ask(receiver, "SWE:POIN?"), "1000");
    assertEquals(1 / Double.parseDouble(ask(receiver, "SWE:TINT?")), 400e3, 1e-3);
    assertEquals(ask(receiver, "*OPC?;*ESE?"), "1;0");
    assertEquals(ask(receiver, "SYST:ERR?"), "0,\"No error\"");
  }

  @Test
  public void errorsAreQueuedAndSetTheStatus() {
    ask(receiver, "*CLS");
    ask(receiver, "NONSENSE:COMMAND 1");
    ask(receiver, "FREQ:CENT 9 GHZ");
    ask(receiver, "FREQ:CENT");
    ask(receiver, "FREQ:CENT abc");
    assertEquals(ask(receiver, "SYST:ERR:COUN?"), "4");
    assertEquals(ask(receiver, "*STB?"), "4");
    assertTrue(ask(receiver, "SYST:ERR?").startsWith("-113,\"Undefined header"));
    assertTrue(ask(receiver, "SYST:ERR?").startsWith("-222,"));
    assertTrue(ask(receiver, "SYST:ERR?").startsWith("-109,"));
    assertTrue(ask(receiver, "SYST:ERR?").startsWith("-104,"));
    assertEquals(ask(receiver, "*ESR?"), "48");
    assertEquals(ask(receiver, "*ESR?"), "0");
    for (int i = 0; i < 30; i++) {
      ask(receiver, "BAD");
    }
    assertEquals(ask(receiver, "SYST:ERR:COUN?"), "20");
  }

  private double[] readPower(double centre, double rate, int points, int attenuation) {
    ask(receiver, "FREQ:CENT " + centre + ";:SWE:TINT " + 1 / rate + ";POIN " + points);
    ask(receiver, "INP:ATT " + attenuation + ";:FORM REAL,32;:FORM:BORD NORM");
    byte[] block = receiver.run("READ?");
    int digits = block[1] - '0';
    assertEquals(block.length, 2 + digits + points * 8);
    ByteBuffer b = ByteBuffer.wrap(block, 2 + digits, points * 8);
    double sum = 0;
    double re = 0;
    double im = 0;
    for (int i = 0; i < points; i++) {
      float x = b.getFloat();
      float y = b.getFloat();
      sum += x * x + y * y;
      re += x;
      im += y;
    }
    return new double[] {
      10 * Math.log10(sum / points), 10 * Math.log10((re * re + im * im) / points / points)
    };
  }

  @Test
  public void carrierArrivesWithItsPower() {
    double[] p = readPower(458.525e6, 400e3, 20_000, 20);
    assertEquals(p[0], 27 - world.lossDb(458.5e6), 0.1);
    ask(transmitter, "SOUR:POW:MODE HIGH");
    assertEquals(readPower(458.525e6, 400e3, 20_000, 20)[0] - p[0], 2, 0.02);
    ask(transmitter, "MOD:STAT ON;:POW:MODE NORM");
    assertEquals(readPower(458.525e6, 400e3, 60_000, 24)[0] + 4, p[0], 0.15);
    ask(transmitter, "OUTP OFF");
    assertTrue(readPower(458.525e6, 400e3, 20_000, 20)[0] < -60);
  }

  @Test
  public void noiseFollowsTheAttenuator() {
    ask(transmitter, "OUTP OFF");
    for (int attenuation : new int[] {0, 20, 40}) {
      double[] p = readPower(2e9, 400e3, 200_000, attenuation);
      double noise =
          Math.pow(10, p[0] / 10) - Math.pow(10, p[1] / 10); // without the converter's dc
      double dbm = 10 * Math.log10(noise) - 20 + attenuation - 10 * Math.log10(400e3);
      assertEquals(dbm, -173.975 + 18 + attenuation, 0.2);
    }
  }

  @Test
  public void overloadAndProtection() {
    readPower(458.525e6, 400e3, 1000, 10);
    assertEquals(ask(receiver, "STAT:QUES:COND?"), "8");
    readPower(458.525e6, 400e3, 1000, 20);
    assertEquals(ask(receiver, "STAT:QUES:COND?"), "0");
    world.setPadDb(0);
    readPower(458.525e6, 400e3, 1000, 40);
    assertEquals(ask(receiver, "INP:PROT:TRIP?"), "1");
    assertTrue(ask(receiver, "SYST:ERR?").contains("protection tripped"));
    world.setPadDb(30);
    assertTrue(readPower(458.525e6, 400e3, 1000, 20)[0] < -50);
    ask(receiver, "INP:PROT:CLE");
    assertTrue(readPower(458.525e6, 400e3, 1000, 20)[0] > -10);
  }

  @Test
  public void theSameSeedRepeats() {
    byte[] first = receiver.run("READ?");
    byte[] second = new ReceiverStandin(new World(7), false).run("READ?");
    assertEquals(first, second);
    assertEquals(Truth.BUOY_HZ, 458.525871e6, 1);
  }
}
