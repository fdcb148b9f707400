package rovnik.core.modulation.wave;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.modulation.Format;
import rovnik.core.modulation.Framing;
import rovnik.core.modulation.Payload;
import rovnik.core.modulation.Prbs;
import rovnik.core.modulation.PulseShape;
import rovnik.core.modulation.SingleCarrier;
import rovnik.core.modulation.Waveform;
import rovnik.core.result.Outcome;

/** Parts of waveforms against what the textbooks say of their lines, peaks and periods. */
public class WaveSumTest {
  private static Waveform make(double rateHz, double seconds, WavePart... parts) {
    return new WaveSum(
            java.util.Arrays.stream(parts).map(p -> new WaveSum.Placed(p, 0, 0)).toList())
        .make(rateHz, seconds);
  }

  /** Level of the line at a frequency against mean power 1, by the sum that defines it; dB. */
  private static double lineDb(Waveform w, double hz) {
    double re = 0;
    double im = 0;
    for (int n = 0; n < w.samples(); n++) {
      double angle = -2 * Math.PI * hz / w.sampleRateHz() * n;
      re += w.iq()[2 * n] * Math.cos(angle) - w.iq()[2 * n + 1] * Math.sin(angle);
      im += w.iq()[2 * n] * Math.sin(angle) + w.iq()[2 * n + 1] * Math.cos(angle);
    }
    return 20 * Math.log10(Math.hypot(re, im) / w.samples() + 1e-12);
  }

  /** Side lines of AM: 20 log10(m / 2) below the carrier (textbook identity). */
  @DataProvider
  public Object[][] depths() {
    return new Object[][] {{1.0, -6.02}, {0.5, -12.04}, {0.3, -16.48}, {0.1, -26.02}};
  }

  @Test(dataProvider = "depths")
  public void sideLinesOfAm(double depth, double below) {
    Waveform w = make(100e3, 0.01, new Modulated(Modulated.Kind.AM, depth, 1e3, false, 1));
    assertTrue(w.seamless());
    assertEquals(lineDb(w, 1e3) - lineDb(w, 0), below, 0.01);
    assertEquals(lineDb(w, -1e3) - lineDb(w, 0), below, 0.01);
  }

  /** The carrier is gone where J0 has its zeros (Abramowitz and Stegun, table 9.5). */
  @DataProvider
  public Object[][] nulls() {
    return new Object[][] {{2.4048}, {5.5201}, {8.6537}};
  }

  @Test(dataProvider = "nulls")
  public void carrierOfFmAndPmAtTheZeros(double index) {
    Waveform fm = make(200e3, 0.01, new Modulated(Modulated.Kind.FM, index * 2e3, 2e3, false, 1));
    Waveform pm = make(200e3, 0.01, new Modulated(Modulated.Kind.PM, index, 2e3, false, 1));
    assertTrue(lineDb(fm, 0) < -75, "FM " + lineDb(fm, 0));
    assertTrue(lineDb(pm, 0) < -75, "PM " + lineDb(pm, 0));
    assertEquals(fm.crestDb(), 0, 1e-6, "constant envelope");
  }

  /** In phase, N tones peak at 10 log10 N; with phases as the square of the number near 3 dB. */
  @Test
  public void phasesOfACombKeepItsPeaksLow() {
    Waveform high = make(1.024e6, 1e-3, Tones.comb(64, 10e3, false));
    Waveform low = make(1.024e6, 1e-3, Tones.comb(64, 10e3, true));
    assertEquals(high.crestDb(), 10 * Math.log10(64), 0.02);
    assertTrue(low.crestDb() < 3.5, "crest " + low.crestDb());
    assertEquals(lineDb(low, 5e3), -10 * Math.log10(64), 0.01);
    assertEquals(lineDb(low, 315e3), -10 * Math.log10(64), 0.01);
  }

  /** Lines of a rectangular train: sin(pi k d) / (pi k d), d the duty (textbook identity). */
  @Test
  public void linesOfPulses() {
    Waveform w = make(10e6, 1e-3, new Pulses(14e-6, 100e-6, 0));
    double duty = 0.14;
    assertEquals(w.crestDb(), -10 * Math.log10(duty), 0.01);
    for (int k = 1; k < 6; k++) {
      double x = Math.PI * k * duty;
      double expected = 20 * Math.log10(Math.abs(Math.sin(x) / x));
      assertEquals(lineDb(w, k * 10e3) - lineDb(w, 0), expected, 0.02, "line " + k);
    }
  }

  @Test
  public void noiseFillsItsBandOnly() {
    Waveform w = make(1e6, 0.02, new BandNoise(200e3, 3));
    Outcome o = WaveformLook.of(w, "noise");
    assertEquals(o.reading("occupied").orElseThrow().value(), 198e3, 4e3);
    double[] db = o.series("spectrum").orElseThrow().y();
    double inside = db[db.length / 2];
    assertTrue(db[db.length / 5] < inside - 45, "outside " + db[db.length / 5]);
    // Peaks of complex Gaussian noise: 1 in 10,000 above 10 log10(ln 10^4) = 9.64 dB.
    assertEquals(o.reading("often").orElseThrow().value(), 9.64, 0.6);
  }

  @Test
  public void aSweepCoversItsRange() {
    Waveform w = make(1e6, 5e-3, new Sweep(-200e3, 200e3, 5e-3));
    assertTrue(w.seamless(), w.note());
    assertEquals(WaveformLook.of(w, "").reading("occupied").orElseThrow().value(), 400e3, 10e3);
    assertEquals(w.crestDb(), 0, 1e-5);
    assertFalse(make(1e6, 5e-3, new Sweep(0, 200.1e3, 5e-3)).seamless());
  }

  /** Tones 20 dB apart stay so in a sum, and the sum is as long as all of them need. */
  @Test
  public void sumsKeepOffsetsLevelsAndPeriods() {
    SingleCarrier data =
        new SingleCarrier(
            Format.QPSK,
            50e3,
            PulseShape.rootRaisedCosine(0.3),
            List.of(),
            Payload.of(Prbs.ofOrder(9)),
            Framing.NONE);
    WaveSum sum =
        new WaveSum(
            List.of(
                new WaveSum.Placed(new DataPart(data), -100e3, 0),
                new WaveSum.Placed(Tones.carrier(), 100e3, 0),
                new WaveSum.Placed(Tones.carrier(), 150e3, -20)));
    Waveform w = sum.make(500e3, 1e-3);
    assertTrue(w.seamless(), w.note());
    assertEquals(w.samples() % (511 * 10), 0);
    assertEquals(lineDb(w, 150e3) - lineDb(w, 100e3), -20, 0.05);
    assertEquals(lineDb(w, 100e3), 10 * Math.log10(1 / 2.01), 0.05);
  }

  @Test
  public void whatCannotBeMadeSaysWhatToDo() {
    Refusal narrow =
        expectThrows(
            Refusal.class,
            () -> make(1e3, 1, new Modulated(Modulated.Kind.FM, 5e3, 1e3, false, 1)));
    assertTrue(narrow.getMessage().contains("14 kHz or more"), narrow.getMessage());
    expectThrows(Refusal.class, () -> new Pulses(2, 1, 0));
    expectThrows(Refusal.class, () -> new WaveSum(List.of()));
    expectThrows(Refusal.class, () -> make(1e6, 1e3, Tones.carrier()));
    Waveform seam = make(1e6, 1e-3, new OwnSamples(new float[] {1, 0, 0, 1}, 1e6, "own"));
    assertTrue(seam.note().contains("seam"));
    Refusal rate =
        expectThrows(
            Refusal.class, () -> make(2e6, 1e-3, new OwnSamples(new float[2], 1e6, "own")));
    assertTrue(rate.getMessage().contains("1 MHz"), rate.getMessage());
  }
}
