package rovnik.core.modulation.analysis;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.modulation.Format;
import rovnik.core.modulation.SingleCarrier;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;

/** From records to readings, with faults of known size. */
public class SingleCarrierMeasurementTest {
  private static final double RATE = 48e3;
  private static final double SPS = 4;

  static Outcome measure(SingleCarrier c, float[] iq) {
    return measure(c, iq, false);
  }

  static Outcome measure(SingleCarrier c, float[] iq, boolean knownData) {
    SingleCarrierSettings s =
        new SingleCarrierSettings(
            c, 0, 0.4 * c.symbolRateHz(), 0, 0, null, false, knownData, Double.NaN);
    return new SingleCarrierMeasurement(s)
        .of(new IqRecord(iq, RATE * SPS, 458.5e6, Double.NaN, false), MeasurementContext.BARE);
  }

  static double value(Outcome o, String id) {
    return o.reading(id).orElseThrow().value();
  }

  private static double share(Outcome o, String cause) {
    for (ResultTable.Row r : o.table("causes").orElseThrow().rows()) {
      if (r.cells().get(0).text().equals(cause)) {
        return r.cells().get(1).value();
      }
    }
    return 0;
  }

  @DataProvider
  public Object[][] sizes() {
    return new Object[][] {
      {Format.QPSK, 0.1}, {Format.QPSK, 1}, {Format.QAM64, 0.1}, {Format.QAM64, 1}
    };
  }

  /** Every fault at once, from a thousandth on: each is found within 3 % of itself. */
  @Test(dataProvider = "sizes")
  public void faultsAreFoundBesideEachOther(Format format, double size) {
    Random random = new Random(5);
    SingleCarrier c = RecoveryTest.carrier(format, 0.35);
    Carriers.Faults f = new Carriers.Faults();
    f.imbalanceDb = 0.1 * size;
    f.quadratureDegrees = 0.6 * size;
    f.leakDb = -40 + 20 * Math.log10(size);
    f.delayQSymbols = 0.01 * size;
    f.clockPpm = 5 * size;
    f.frequency = 0.07;
    f.phase = 0.2;
    f.noiseDb = -75;
    int[] values = Carriers.values(random, c.constellation().size(), 3000);
    Outcome o = measure(c, Carriers.make(format, values, 0.35, SPS, f, random));
    // Without known data the axes are turned by quarters: signs may be the other way.
    assertEquals(Math.abs(value(o, "gainImbalance")), f.imbalanceDb, 0.03 * f.imbalanceDb);
    assertEquals(
        Math.abs(value(o, "quadratureError")), f.quadratureDegrees, 0.03 * f.quadratureDegrees);
    assertEquals(value(o, "iqOffset"), f.leakDb, 0.25);
    assertEquals(
        Math.abs(value(o, "iqDelay")) * RATE, f.delayQSymbols, 0.03 * f.delayQSymbols, "delay");
    assertEquals(value(o, "symbolRateError"), f.clockPpm, 0.03 * f.clockPpm, "clock");
    assertEquals(value(o, "frequencyError"), f.frequency * RATE, 0.01, "frequency");
  }

  /** Noise alone: EVM is the inverse of the signal-to-noise ratio (identity). */
  @Test
  public void noiseGivesItsOwnEvm() {
    Random random = new Random(6);
    SingleCarrier c = RecoveryTest.carrier(Format.QPSK, 0.35);
    for (double db : new double[] {10, 20, 30, 40, 50, 60}) {
      Carriers.Faults f = new Carriers.Faults();
      f.noiseDb = -db;
      int[] values = Carriers.values(random, 4, 3000);
      Outcome o = measure(c, Carriers.make(Format.QPSK, values, 0.35, SPS, f, random));
      Reading evm = o.reading("evm").orElseThrow();
      assertEquals(evm.value(), 100 * Math.pow(10, -db / 20), 1.3 * evm.uncertainty(), db + " dB");
      // An rms of 2 N independent parts scatters by 1 / (2 sqrt(N)) of itself; U is twice that.
      assertEquals(evm.uncertainty() / evm.value(), 1 / Math.sqrt(2953), 0.1 / Math.sqrt(2953));
      assertTrue(share(o, "Noise") > 95, o.summary());
    }
  }

  /** One cause alone gets at least 95 % of the error. */
  @Test
  public void eachCauseAlone() {
    Random random = new Random(7);
    for (Format format : new Format[] {Format.QPSK, Format.QAM64}) {
      SingleCarrier c = RecoveryTest.carrier(format, 0.35);
      for (String cause :
          new String[] {
            "Carrier leakage",
            "Gain imbalance",
            "Quadrature error",
            "Delay between I and Q",
            "Noise"
          }) {
        Carriers.Faults f = new Carriers.Faults();
        switch (cause) {
          case "Carrier leakage" -> f.leakDb = -36;
          case "Gain imbalance" -> f.imbalanceDb = 0.3;
          case "Quadrature error" -> f.quadratureDegrees = 1.5;
          case "Delay between I and Q" -> f.delayQSymbols = 0.02;
          default -> f.noiseDb = -35;
        }
        int[] values = Carriers.values(random, c.constellation().size(), 2000);
        Outcome o = measure(c, Carriers.make(format, values, 0.35, SPS, f, random));
        assertTrue(share(o, cause) > 95, format + ", " + cause + ": " + share(o, cause));
      }
    }
  }

  /** Another format, noise, a wrong rate: a sentence, never a number. */
  @Test
  public void whatDoesNotFitIsRefused() {
    Random random = new Random(8);
    Format[] some = {
      Format.BPSK,
      Format.QPSK,
      Format.PI4_DQPSK,
      Format.PSK8,
      Format.QAM16,
      Format.QAM64,
      Format.QAM256,
      Format.APSK16
    };
    for (double noise : new double[] {-35, -24}) {
      for (Format sent : some) {
        Carriers.Faults f = new Carriers.Faults();
        f.noiseDb = noise;
        SingleCarrier c = RecoveryTest.carrier(sent, 0.35);
        int[] values = Carriers.values(random, c.constellation().size(), 2000);
        float[] iq = Carriers.make(sent, values, 0.35, SPS, f, random);
        for (Format taken : some) {
          String said;
          try {
            Outcome o = measure(RecoveryTest.carrier(taken, 0.35), iq);
            said = "EVM " + value(o, "evm");
          } catch (Refusal e) {
            said = e.getMessage();
          }
          // At 24 dB one in six decisions of 256-QAM is wrong: a number would be false.
          boolean expected = sent == taken && (sent != Format.QAM256 || noise < -30);
          assertEquals(
              said.startsWith("EVM"),
              expected,
              noise + " dB, " + sent + " as " + taken + ": " + said);
        }
      }
    }
    float[] iq = new float[2 * 8000];
    for (int i = 0; i < iq.length; i++) {
      iq[i] = (float) random.nextGaussian();
    }
    for (Format taken : java.util.EnumSet.range(Format.OOK, Format.QAM4096)) {
      SingleCarrier c = RecoveryTest.carrier(taken, 0.35);
      Refusal refusal = expectThrows(Refusal.class, () -> measure(c, iq));
      assertEquals(refusal.field(), "format", refusal.getMessage());
    }
  }

  /** A roll-off that is not the sender's: the errors are named after what makes them. */
  @Test
  public void aFilterThatDoesNotMatchIsSaid() {
    Random random = new Random(9);
    Carriers.Faults f = new Carriers.Faults();
    f.noiseDb = -60;
    int[] values = Carriers.values(random, 16, 2000);
    float[] iq = Carriers.make(Format.QAM16, values, 0.35, SPS, f, random);
    Outcome o = measure(RecoveryTest.carrier(Format.QAM16, 0.2), iq);
    ResultTable.Row worst = o.table("causes").orElseThrow().rows().get(0);
    assertEquals(worst.cells().get(0).text(), "Ripple and group delay");
    assertTrue(worst.cells().get(5).text().contains("roll-off"), worst.cells().get(5).text());
  }

  /** Nothing, and a carrier without data: each its own sentence. */
  @Test
  public void whatIsNoDataIsSaid() {
    SingleCarrier c = RecoveryTest.carrier(Format.QPSK, 0.35);
    Refusal none = expectThrows(Refusal.class, () -> measure(c, new float[20_000]));
    assertTrue(none.getMessage().contains("no signal"), none.getMessage());
    float[] still = new float[20_000];
    for (int i = 0; i < still.length / 2; i++) {
      still[2 * i] = (float) (0.3 * Math.cos(0.05 * i));
      still[2 * i + 1] = (float) (0.3 * Math.sin(0.05 * i));
    }
    Refusal plain = expectThrows(Refusal.class, () -> measure(c, still));
    assertTrue(plain.getMessage().contains("plain carrier"), plain.getMessage());
  }
}
