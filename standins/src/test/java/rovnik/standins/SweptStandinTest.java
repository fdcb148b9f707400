package rovnik.standins;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import rovnik.standins.scpi.ScpiInstrument;
import rovnik.standins.world.SweptView;
import rovnik.standins.world.Truth;
import rovnik.standins.world.World;

/** The swept stand-in's physics by closed forms, and its words by SCPI-99. */
public class SweptStandinTest {
  private World world;
  private ScpiInstrument analyzer;
  private SweptView view;

  @BeforeMethod
  public void setUp() {
    world = new World(3);
    analyzer = new SweptStandin(world, false);
    view = new SweptView(world);
  }

  private String ask(String message) {
    byte[] reply = analyzer.run(message);
    return reply == null ? "" : new String(reply, StandardCharsets.ISO_8859_1);
  }

  private static double power(float[] level, double step, double rbw) {
    double sum = 0;
    for (float v : level) {
      sum += Math.pow(10, v / 10);
    }
    return 10 * Math.log10(sum * step / (1.0645 * rbw));
  }

  /** The power of the data, summed over the channel, is that of the carrier. */
  @Test
  public void dataHoldsThePowerOfTheCarrier() {
    world.setData(true);
    double mean = 0;
    for (int i = 0; i < 16; i++) {
      float[] level =
          view.sweep(
              Truth.BUOY_HZ - 100e3, Truth.BUOY_HZ + 100e3, 2001, 1e3, SweptView.Detector.RMS, 20);
      mean += Math.pow(10, power(level, 100, 1e3) / 10) / 16;
    }
    double expected = Truth.BUOY_LEVEL_DBM - world.lossDb(Truth.BUOY_HZ) + 0.1;
    assertEquals(10 * Math.log10(mean), expected, 0.15);
  }

  /** The skirt of the carrier is its phase noise: -88 dBc/Hz at 10 kHz, 20 dB a decade. */
  @Test
  public void theSkirtIsThePhaseNoise() {
    double carrier = Truth.BUOY_LEVEL_DBM - world.lossDb(Truth.BUOY_HZ);
    for (double offset : new double[] {10e3, 30e3}) {
      double sum = 0;
      int sweeps = 200;
      for (int i = 0; i < sweeps; i++) {
        float[] one =
            view.sweep(
                Truth.BUOY_HZ + offset,
                Truth.BUOY_HZ + offset + 100,
                101,
                300,
                SweptView.Detector.RMS,
                0);
        sum += Math.pow(10, one[0] / 10) / sweeps;
      }
      double dbcPerHz = 10 * Math.log10(sum / (1.0645 * 300)) - carrier - 0.1;
      assertEquals(dbcPerHz, -88 - 20 * Math.log10(offset / 10e3), 1);
    }
  }

  @Test
  public void harmonicsFollowTheDrive() {
    assertEquals(world.harmonicDbc(2), -41, 0);
    world.setDriveDb(Truth.HIGH_DRIVE_DB);
    assertEquals(world.harmonicDbc(2), -32, 1e-9);
    assertEquals(world.harmonicDbc(3), -43, 1e-9);
    assertEquals(world.levelDbm(), 29, 1e-9);
    world.setDriveDb(-6);
    assertEquals(world.harmonicDbc(2), -47, 1e-9);
    assertEquals(world.harmonicDbc(3), -64, 1e-9);
  }

  @Test
  public void asciiAndBinaryTracesAreTheSame() {
    ask("FREQ:STAR 458 MHZ;STOP 459 MHZ");
    ask("BAND 10 KHZ;:SWE:POIN 201;:DET RMS");
    ask("FORM ASC");
    ask("INIT:IMM");
    String[] numbers = ask("TRAC:DATA?").split(",");
    assertEquals(numbers.length, 201);
    ask("FORM REAL,32");
    byte[] block = analyzer.run("TRAC:DATA?");
    assertEquals(new String(block, 0, 5, StandardCharsets.ISO_8859_1), "#3804");
    ByteBuffer floats = ByteBuffer.wrap(block, 5, 804).order(ByteOrder.LITTLE_ENDIAN);
    for (String number : numbers) {
      assertEquals(floats.getFloat(), Float.parseFloat(number), 1e-4);
    }
  }

  @Test
  public void settingsAreTakenRoundedOrRefused() {
    ask("BAND 2 KHZ");
    assertEquals(Double.parseDouble(ask("BAND?")), 3e3, 1e-6); // filters of 1 and 3
    ask("INP:ATT 12");
    assertEquals(Double.parseDouble(ask("INP:ATT?")), 10, 0);
    ask("DET POS");
    assertEquals(ask("DET?"), "POS");
    ask("DET AVER");
    assertEquals(ask("DET?"), "AVER");
    for (String bad :
        new String[] {
          "DET MAYBE", "SWE:POIN 5", "FREQ:STOP 20 GHZ", "FORM HEX", "FORM:BORD NORM"
        }) {
      ask("*CLS");
      ask(bad);
      assertTrue(ask("SYST:ERR?").startsWith("-2"), bad);
    }
    ask("*CLS");
    ask("*RST");
    ask("TRAC:DATA?");
    assertTrue(ask("SYST:ERR?").startsWith("-230"));
    ask("FREQ:STAR 2 GHZ;STOP 1 GHZ");
    ask("INIT:IMM");
    assertTrue(ask("SYST:ERR?").startsWith("-221"));
  }

  /** Time for the filter to settle on each of its widths. */
  @Test
  public void sweepsTakeTheirTime() {
    ask("FREQ:STAR 1 GHZ;STOP 1.001 GHZ");
    ask("BAND 1 KHZ");
    assertEquals(Double.parseDouble(ask("SWE:TIME?")), 4, 1e-9);
    ask("BAND 100 KHZ");
    assertEquals(Double.parseDouble(ask("SWE:TIME?")), 1e-3, 1e-9);
  }

  @Test
  public void tooMuchAtTheMixerIsAnOverload() {
    ask("INP:ATT 0");
    ask("INIT:IMM");
    assertEquals(ask("STAT:QUES:COND?"), "8");
    ask("INP:ATT 20");
    ask("INIT:IMM");
    assertEquals(ask("STAT:QUES:COND?"), "0");
  }

  /** The transmitter's level can be set within what it can do. */
  @Test
  public void theTransmittersLevelIsSet() {
    ScpiInstrument tx = new TransmitterStandin(world);
    tx.run("POW 20");
    assertEquals(world.levelDbm(), 20, 1e-9);
    tx.run("POW 40");
    assertEquals(world.levelDbm(), 20, 1e-9);
    assertTrue(new String(tx.run("SYST:ERR?"), StandardCharsets.ISO_8859_1).startsWith("-222"));
    tx.run("POW:MODE HIGH");
    assertEquals(world.driveDb(), 2, 1e-9);
    tx.run("*RST");
    assertEquals(world.driveDb(), 0, 1e-9);
  }
}
