package rovnik.core.modulation.analysis;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.modulation.Format;
import rovnik.core.modulation.Framing;
import rovnik.core.modulation.Payload;
import rovnik.core.modulation.Prbs;
import rovnik.core.modulation.PulseShape;
import rovnik.core.modulation.SingleCarrier;
import rovnik.core.signal.BandTaker;

/** Symbols from samples that were made elsewhere. */
public class RecoveryTest {
  private static final double RATE = 48e3;

  static SingleCarrier carrier(Format format, double rollOff) {
    return new SingleCarrier(
        format,
        RATE,
        PulseShape.rootRaisedCosine(rollOff),
        java.util.List.of(),
        Payload.of(Prbs.PN9),
        Framing.NONE);
  }

  static Symbols recover(SingleCarrier c, float[] iq, double samplesPerSymbol, int most) {
    double fs = RATE * samplesPerSymbol;
    int samples = iq.length / 2;
    BandTaker taker = new BandTaker(iq, 0, samples, fs);
    return new SymbolRecovery(c, c.filter().matched(), taker, samples, fs)
        .recover(0, 0.4 * RATE, most);
  }

  @DataProvider
  public Object[][] formats() {
    Format[] all =
        java.util.Arrays.stream(Format.values()).filter(f -> !f.keyed()).toArray(Format[]::new);
    Object[][] rows = new Object[all.length][];
    for (int i = 0; i < all.length; i++) {
      rows[i] = new Object[] {all[i]};
    }
    return rows;
  }

  /** Arbitrary delay, phase, level, frequency to a tenth of the symbol rate: 70 dB down. */
  @Test(dataProvider = "formats")
  public void theFloor(Format format) {
    Random random = new Random(format.ordinal());
    SingleCarrier c = carrier(format, 0.25);
    int[] values = Carriers.values(random, c.constellation().size(), 1400);
    for (double sps : new double[] {4, 3.3}) {
      Carriers.Faults f = new Carriers.Faults();
      f.delaySymbols = random.nextDouble();
      f.phase = 6 * random.nextDouble();
      f.frequency = (random.nextDouble() - 0.5) * 0.19;
      f.level = Math.pow(10, -3 * random.nextDouble());
      f.clockPpm = 20 * (random.nextDouble() - 0.5);
      Symbols s = recover(c, Carriers.make(format, values, 0.25, sps, f, random), sps, 5000);
      double db = 10 * Math.log10(s.meanSquare());
      assertEquals(s.frequencyHz() / RATE, f.frequency, 1e-6, format + " frequency");
      assertTrue(db < -70, format + ": " + db);
    }
  }
}
