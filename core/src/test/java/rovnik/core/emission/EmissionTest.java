package rovnik.core.emission;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.emission.AdjacentChannels.Channel;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.BandPower;
import rovnik.core.spectrum.Detector;
import rovnik.core.spectrum.SpectrumEstimator;
import rovnik.core.spectrum.SpectrumLayout;
import rovnik.core.spectrum.Trace;

public class EmissionTest {
  private static final int SPS = 8;
  private static final double ALPHA = 0.35;
  private static final int SYMBOLS = 8192;
  private static final int HALF = 16;

  /** The signal of fixtures/qpsk_occupied.py, symbol rate 1 Hz. */
  private static Trace qpsk() {
    long state = 12345;
    double[][] symbols = new double[SYMBOLS][2];
    for (double[] s : symbols) {
      for (int k = 0; k < 2; k++) {
        state = (1103515245L * state + 12345) % (1L << 31);
        s[k] = ((state >> 16 & 1) * 2 - 1) / Math.sqrt(2);
      }
    }
    double[] pulse = new double[2 * HALF * SPS + 1];
    for (int k = 0; k < pulse.length; k++) {
      pulse[k] = rootRaisedCosine((k - HALF * SPS) / (double) SPS);
    }
    float[] iq = new float[2 * SYMBOLS * SPS];
    for (int n = 0; n < SYMBOLS * SPS; n++) {
      for (int k = n % SPS; k < pulse.length && k <= n; k += SPS) {
        double[] s = symbols[(n - k) / SPS];
        iq[2 * n] += (float) (s[0] * pulse[k]);
        iq[2 * n + 1] += (float) (s[1] * pulse[k]);
      }
    }
    SpectrumLayout layout = SpectrumLayout.ofLength(SPS, 0, SPS, Window.BLACKMAN_HARRIS, 4096);
    SpectrumEstimator e = new SpectrumEstimator(layout, Detector.RMS);
    e.accumulate(iq, 0, iq.length / 2);
    double[] power = new double[layout.points()];
    e.powerInto(power);
    float[] level = new float[power.length];
    for (int i = 0; i < level.length; i++) {
      level[i] = (float) (10 * Math.log10(power[i]));
    }
    return new Trace(
        layout.offsetHz(0),
        layout.stepHz(),
        level,
        "dBm",
        "plane",
        layout.rbwHz(),
        layout.enbwHz(),
        e.segments(),
        "",
        "");
  }

  private static double rootRaisedCosine(double t) {
    if (t == 0) {
      return 1 + ALPHA * (4 / Math.PI - 1);
    }
    double up =
        Math.sin(Math.PI * t * (1 - ALPHA)) + 4 * ALPHA * t * Math.cos(Math.PI * t * (1 + ALPHA));
    return up / (Math.PI * t * (1 - Math.pow(4 * ALPHA * t, 2)));
  }

  /** NumPy and SciPy 1.10 on the same bits: see fixtures/qpsk_occupied.py. */
  @Test
  public void occupiedBandwidthOfQpskAgreesWithNumPy() {
    Trace t = qpsk();
    OccupiedBandwidth share = OccupiedBandwidth.ofShare(new BandPower(t), 0.99);
    assertEquals(share.widthHz(), 1.1650704817869726, 1e-4);
    assertEquals(share.centreHz(), 0, 0.01);
    // SciPy's figure counts whole bins of 1/512; ours runs to the crossing.
    assertEquals(OccupiedBandwidth.ofFall(t, 26).widthHz(), 1.3203125, 2 / 512.0);
    // Bandwidth of a root-raised-cosine carrier: symbol rate x (1 + alpha), identity.
    assertTrue(OccupiedBandwidth.ofShare(new BandPower(t), 0.99999).widthHz() < 1 + ALPHA + 0.02);
  }

  /** The same script's ratios behind root-raised-cosine filters. */
  @Test
  public void adjacentChannelRatiosAgreeWithNumPy() {
    ChannelFilter filter = ChannelFilter.rootRaisedCosine(1, ALPHA);
    AdjacentChannels plan =
        new AdjacentChannels(
            filter, List.of(new Channel(1, filter, -20), new Channel(1.2, filter, Double.NaN)));
    List<AdjacentChannels.Result> r = plan.measure(qpsk(), 0);
    assertEquals(r.get(0).dbc(), -13.238276689186462, 0.01);
    assertEquals(r.get(1).dbc(), -13.238280702047012, 0.01);
    assertEquals(r.get(3).dbc(), -29.753935470535016, 0.02);
    assertEquals(r.get(2).dbc(), -30.10999679770405, 0.02);
    assertEquals(r.get(0).offsetHz(), -1.0);
    assertTrue(r.get(0).limit().margin(r.get(0).dbc()) < 0);
    Refusal narrow = expectThrows(Refusal.class, () -> plan.measure(qpsk(), 3));
    assertTrue(
        narrow.getMessage().contains("Widen the span to at least 3.75 Hz"), narrow.getMessage());
  }

  /** A flat channel beside nothing: ratio of widths. */
  @Test
  public void rectangularChannelsOfWhiteNoiseHoldTheirWidth() {
    Trace t = Made.trace(-1e6, 1e3, 2001, hz -> -100);
    AdjacentChannels plan =
        new AdjacentChannels(
            ChannelFilter.rectangle(100e3),
            List.of(new Channel(300e3, ChannelFilter.rectangle(50e3), Double.NaN)));
    AdjacentChannels.Result r = plan.measure(t, 0).get(0);
    assertEquals(r.dbc(), -3.0103, 1e-3);
    assertEquals(r.level(), -100 + 10 * Math.log10(50e3 / 1.5e3), 1e-3);
  }

  @Test
  public void bandsAddUpAndEndAtTheTrace() {
    Trace t = Made.noisy(0, 10, 1000, 4, hz -> 1e-9);
    BandPower p = new BandPower(t);
    double whole = p.linear(-1e9, 1e9);
    assertEquals(p.linear(-5, 3333.3) + p.linear(3333.3, 9995), whole, whole * 1e-12);
    assertEquals(p.linear(20e3, 30e3), 0, 0.0);
    assertEquals(p.frequencyAtShare(0), -5, 1e-9);
    assertEquals(p.frequencyAtShare(1), 9995, 1e-6);
    assertEquals(p.frequencyAtShare(0.25), 2500, 100);
  }

  @Test
  public void widthOfALineAtXDecibels() {
    // Straight sides of 1 dB per 10 Hz around 497 Hz.
    Trace t = Made.trace(0, 7, 150, hz -> -Math.abs(hz - 497) / 10);
    OccupiedBandwidth w = OccupiedBandwidth.ofFall(t, 20);
    assertEquals(w.widthHz(), 400, 1e-3);
    assertThrows(Refusal.class, () -> OccupiedBandwidth.ofFall(t, 0));
    assertThrows(Refusal.class, () -> OccupiedBandwidth.ofShare(new BandPower(t), 1.2));
  }

  /** AM side lines: m = 100 % -6.02 dB, 50 % -12.04, 30 % -16.48, 10 % -26.02 (20 log10(m/2)). */
  @DataProvider
  public Object[][] am() {
    return new Object[][] {{100, -6.02}, {50, -12.04}, {30, -16.48}, {10, -26.02}};
  }

  @Test(dataProvider = "am")
  public void amDepthFromSideLines(double percent, double side) {
    assertEquals(Distortion.amPercent(13, 13 + side, 13 + side), percent, percent * 0.001);
    assertThrows(Refusal.class, () -> Distortion.amPercent(13, 13 + side, 13 + side - 4));
  }

  /** OIP3 = P + delta/2 (Pozar, Microwave Engineering, from memory). */
  @Test
  public void interceptFromTwoTones() {
    var t = Distortion.thirdOrder(101e6, 100e6, 0.2, -0.2, -52, -49.8);
    assertEquals(t.interceptDbm(), 25, 1e-9);
    assertEquals(t.distanceDb(), 49.8, 1e-9);
    assertEquals(t.lowerHz(), 99e6);
    assertEquals(t.upperHz(), 102e6);
  }

  /**
   * A cubic of 25 dBm intercept: 2 P1 + P2 - 2 x 25 and 2 P2 + P1 - 2 x 25, for unequal tones too.
   */
  @Test
  public void unequalTonesHaveTheSameIntercept() {
    for (double other : new double[] {0, -3, -10, 4}) {
      var t = Distortion.thirdOrder(100e6, 101e6, 0, other, other - 50, 2 * other - 50);
      assertEquals(t.interceptDbm(), 25, 1e-9, "second tone at " + other);
    }
  }

  /** -40 dB alone is 1 %; two of them are 1.414 %. */
  private static double percent(Double... harmonics) {
    List<Double> scatter = java.util.Collections.nCopies(harmonics.length, 0.0);
    return Distortion.harmonics(10, 0, List.of(harmonics), scatter, 0).percent();
  }

  @Test
  public void harmonicDistortion() {
    assertEquals(percent(-30.0), 1, 1e-9);
    assertEquals(percent(-30.0, -30.0), Math.sqrt(2), 1e-9);
    assertEquals(percent(), 0, 0.0);
  }

  /** F = ENR / (Y - 1), Friis 1944: a 15 dB source and Y of 10 dB give 5.46 dB. */
  @Test
  public void noiseFigureByYFactorAndCascade() {
    double f = NoiseFigure.byYFactor(-80, -90, 15, 290);
    assertEquals(f, 15 - 10 * Math.log10(9), 1e-9);
    // A cold source at 300 K instead of 290 K hides a little of the figure.
    assertTrue(NoiseFigure.byYFactor(-80, -90, 15, 300) < f);
    assertThrows(Refusal.class, () -> NoiseFigure.byYFactor(-90, -90, 15, 290));
    assertThrows(Refusal.class, () -> NoiseFigure.byYFactor(-60, -90, 5, 1000));
    // 2 dB and 10 dB of gain before 10 dB: F = 1.585 + 9 / 10.
    double both = 10 * Math.log10(Math.pow(10, 0.2) + 0.9);
    assertEquals(NoiseFigure.ofFirstStage(both, 10, 10), 2, 1e-9);
    assertThrows(Refusal.class, () -> NoiseFigure.ofFirstStage(1, 20, 3));
    // numeric derivative
    double up = NoiseFigure.byYFactor(-79.999, -90, 15, 290);
    assertEquals((f - up) / 0.001, NoiseFigure.sensitivityToY(10), 1e-3);
  }
}
