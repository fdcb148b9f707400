package rovnik.core.emission;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.expectThrows;

import java.util.Random;
import org.testng.annotations.Test;
import rovnik.core.Refusal;

/** Weighted traces against the detector that does one frequency in the straightforward way. */
public class CisprBankTest {
  private static final double RATE = 102_400;

  private static double db(double power) {
    return 10 * Math.log10(power);
  }

  private static void addTone(float[] iq, double hz, double amplitude) {
    for (int n = 0; n < iq.length / 2; n++) {
      iq[2 * n] += (float) (amplitude * Math.cos(2 * Math.PI * hz / RATE * n));
      iq[2 * n + 1] += (float) (amplitude * Math.sin(2 * Math.PI * hz / RATE * n));
    }
  }

  /** What the single detector indicates with the signal moved down by {@code hz}. */
  private static CisprDetector straight(float[] iq, double hz) {
    float[] moved = new float[iq.length];
    for (int n = 0; n < iq.length / 2; n++) {
      double c = Math.cos(2 * Math.PI * hz / RATE * n);
      double s = -Math.sin(2 * Math.PI * hz / RATE * n);
      moved[2 * n] = (float) (iq[2 * n] * c - iq[2 * n + 1] * s);
      moved[2 * n + 1] = (float) (iq[2 * n] * s + iq[2 * n + 1] * c);
    }
    CisprDetector d = new CisprDetector(CisprBand.B, RATE);
    d.accept(moved, moved.length / 2);
    return d;
  }

  /** A sine anywhere between the filter's positions indicates itself on both. */
  @Test
  public void aSineIndicatesItselfWhereverItLies() {
    for (double hz : new double[] {-20_000, 317, 12_345.6, 13_100}) {
      float[] iq = new float[2 * 200_000];
      addTone(iq, hz, 0.2);
      CisprBank bank = new CisprBank(CisprBand.B, RATE, hz, 100, 3);
      bank.accept(iq, 200_000);
      double[] out = new double[3];
      bank.quasiPeakInto(out);
      assertEquals(db(out[0] / 0.04), 0, 0.1, "quasi-peak at " + hz);
      bank.averageInto(out);
      assertEquals(db(out[0] / 0.04), 0, 0.1, "average at " + hz);
    }
  }

  /** Pulses, a carrier keyed on and off, and noise: point by point the same as the one detector. */
  @Test
  public void everyPointIsTheOneDetector() {
    float[] iq = new float[2 * 150_000];
    Random random = new Random(7);
    for (int n = 0; n < iq.length / 2; n++) {
      boolean pulse = n % 2048 == 0;
      double keyed = n / 5_000 % 2 == 0 ? 0.05 : 0;
      iq[2 * n] =
          (float)
              (random.nextGaussian() * 0.002
                  + (pulse ? 1 : 0)
                  + keyed * Math.cos(2 * Math.PI * 15_000 / RATE * n));
      iq[2 * n + 1] =
          (float)
              (random.nextGaussian() * 0.002 + keyed * Math.sin(2 * Math.PI * 15_000 / RATE * n));
    }
    int points = 5;
    CisprBank bank = new CisprBank(CisprBand.B, RATE, -20_000, 8_750, points);
    bank.accept(iq, 150_000);
    double[] quasiPeak = new double[points];
    double[] average = new double[points];
    bank.quasiPeakInto(quasiPeak);
    bank.averageInto(average);
    for (int i = 0; i < points; i++) {
      CisprDetector d = straight(iq, -20_000 + 8_750 * i);
      // The bank's envelope is sampled four times a bandwidth: short peaks lie between samples.
      assertEquals(db(quasiPeak[i]), db(d.quasiPeakPower()), 0.5, "quasi-peak, point " + i);
      assertEquals(db(average[i]), db(d.averagePower()), 0.2, "average, point " + i);
    }
  }

  /** Mean envelope of Gaussian noise: sqrt(pi / 4) of its root mean square, -1.05 dB (Rayleigh). */
  @Test
  public void theAverageOfWhiteNoise() {
    float[] iq = new float[2 * 1_000_000];
    Random random = new Random(11);
    for (int i = 0; i < iq.length; i++) {
      iq[i] = (float) (random.nextGaussian() * Math.sqrt(0.5));
    }
    CisprBank bank = new CisprBank(CisprBand.B, RATE, -30_000, 2_000, 31);
    bank.accept(iq, 1_000_000);
    double[] out = new double[31];
    bank.averageInto(out);
    double mean = 0;
    for (double power : out) {
      mean += db(power) / out.length;
    }
    // Noise bandwidth of a Gaussian filter: sqrt(pi / ln 2) / 2 of its 3-dB width.
    double noiseHz = 9_000 / Math.sqrt(2) * Math.sqrt(Math.PI / Math.log(2)) / 2;
    // The highest indication of a meter that still moves a little lies above the mean.
    assertEquals(mean, db(noiseHz / RATE) - 1.05, 0.35);
  }

  @Test
  public void aRecordNarrowerThanTheFilterIsRefused() {
    Refusal r = expectThrows(Refusal.class, () -> new CisprBank(CisprBand.CD, 200e3, 0, 1e3, 10));
    assertEquals(r.field(), "traces");
  }
}
