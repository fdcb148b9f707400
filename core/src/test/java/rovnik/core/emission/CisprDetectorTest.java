package rovnik.core.emission;

import static org.testng.Assert.assertEquals;

import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** CISPR 16-1-1, response to repeated pulses, from memory: table of the quasi-peak detector. */
public class CisprDetectorTest {
  /** Band, repetition rate, level of the pulses for the same indication as at the reference. */
  @DataProvider
  public Object[][] pulses() {
    return new Object[][] {
      {CisprBand.A, 100, -4.0, 1.0},
      {CisprBand.A, 60, -3.0, 1.0},
      {CisprBand.A, 25, 0.0, 0.01},
      {CisprBand.A, 10, 4.0, 1.0},
      {CisprBand.A, 5, 7.5, 1.5},
      {CisprBand.A, 2, 13.0, 2.0},
      {CisprBand.A, 1, 17.0, 2.0},
      {CisprBand.B, 1000, -4.5, 1.0},
      {CisprBand.B, 100, 0.0, 0.01},
      {CisprBand.B, 20, 6.5, 1.0},
      {CisprBand.B, 10, 10.0, 1.5},
      {CisprBand.B, 2, 20.5, 2.0},
      {CisprBand.B, 1, 22.5, 2.0},
      {CisprBand.CD, 1000, -8.0, 1.0},
      {CisprBand.CD, 100, 0.0, 0.01},
      {CisprBand.CD, 20, 9.0, 1.0},
      {CisprBand.CD, 10, 14.0, 1.5},
      {CisprBand.CD, 2, 26.0, 2.0},
      {CisprBand.CD, 1, 28.5, 2.0},
    };
  }

  @Test(dataProvider = "pulses")
  public void pulseResponseOfTheStandard(
      CisprBand band, int repetitionHz, double relativeDb, double toleranceDb) {
    int reference = band == CisprBand.A ? 25 : 100;
    double change = indicationDb(band, repetitionHz) - indicationDb(band, reference);
    assertEquals(-change, relativeDb, toleranceDb);
  }

  /** Short pulses of one sample: their spectrum is flat over the filter. */
  private static double indicationDb(CisprBand band, int repetitionHz) {
    double rate = 8 * band.bandwidthHz();
    CisprDetector d = new CisprDetector(band, rate);
    int period = (int) Math.round(rate / repetitionHz);
    float[] pulse = new float[2 * period];
    pulse[0] = 1;
    int repetitions = Math.max(3, (int) Math.ceil(2.5 * repetitionHz));
    for (int i = 0; i < repetitions; i++) {
      d.accept(pulse, period);
    }
    return 10 * Math.log10(d.quasiPeakPower());
  }

  /** An unmodulated sine indicates its root mean square on both detectors. */
  @Test
  public void aSineIndicatesItself() {
    CisprDetector d = new CisprDetector(CisprBand.B, 40e3);
    float[] iq = new float[2 * 80_000];
    for (int i = 0; i < 80_000; i++) {
      iq[2 * i] = (float) (0.3 * Math.cos(0.01 * i));
      iq[2 * i + 1] = (float) (0.3 * Math.sin(0.01 * i));
    }
    d.accept(iq, 80_000);
    assertEquals(10 * Math.log10(d.quasiPeakPower() / 0.09), 0, 0.02);
    assertEquals(10 * Math.log10(d.averagePower() / 0.09), 0, 0.02);
  }

  /** 6 dB down at half the bandwidth from the middle. */
  @Test
  public void theBandwidthIsThatAtSixDecibels() {
    CisprDetector d = new CisprDetector(CisprBand.B, 72e3);
    float[] iq = new float[2 * 144_000];
    for (int i = 0; i < 144_000; i++) {
      double a = 2 * Math.PI * 4.5e3 / 72e3 * i;
      iq[2 * i] = (float) Math.cos(a);
      iq[2 * i + 1] = (float) Math.sin(a);
    }
    d.accept(iq, 144_000);
    assertEquals(10 * Math.log10(d.averagePower()), -6.02, 0.05);
  }

  /** The average of a carrier that is on for a quarter of the time is 12 dB down. */
  @Test
  public void theAverageDetectorAverages() {
    CisprDetector d = new CisprDetector(CisprBand.B, 40e3);
    float[] iq = new float[2 * 160_000];
    for (int i = 0; i < 160_000; i++) {
      iq[2 * i] = i % 400 < 100 ? 1 : 0;
    }
    d.accept(iq, 160_000);
    assertEquals(10 * Math.log10(d.averagePower()), -12.04, 0.3);
  }
}
