package rovnik.core.emission;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Random;
import org.testng.annotations.Test;
import rovnik.core.limits.LimitSet;
import rovnik.core.limits.Verdict;
import rovnik.core.path.ElementKind;
import rovnik.core.path.PathCorrection;
import rovnik.core.path.PathElement;
import rovnik.core.path.SignalPath;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.result.SpoiledBand;
import rovnik.core.signal.FrequencyCounter;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.Detector;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.SpectrumEstimator;
import rovnik.core.spectrum.SpectrumLayout;
import rovnik.core.spectrum.SpectrumMeasurement;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.uncertainty.InstrumentAccuracy;

/** What a view asks for, through a path with a 30 dB pad, from samples to verdicts. */
public class EmissionMeasurementTest {
  private static final double FS = 400e3;
  private static final double CENTRE = 458.525e6;
  private static final SignalPath PATH =
      new SignalPath(
          List.of(
              PathElement.source("TX", 27, 20),
              PathElement.of("Pad", ElementKind.PAD, -30, 0.3),
              PathElement.port("RX", 0, 20, 20)),
          0);

  /** Tones as frequency offset and dBm at the port, in noise of -120 dBm/Hz. */
  private static IqRecord record(double[]... tones) {
    int samples = 1 << 17;
    float[] iq = new float[2 * samples];
    Random random = new Random(6);
    double sigma = Math.sqrt(1e-12 * FS / 2);
    for (int i = 0; i < samples; i++) {
      double re = sigma * random.nextGaussian();
      double im = sigma * random.nextGaussian();
      for (double[] t : tones) {
        double phase = 2 * Math.PI * t[0] / FS * i + 0.7;
        re += Math.pow(10, t[1] / 20) * Math.cos(phase);
        im += Math.pow(10, t[1] / 20) * Math.sin(phase);
      }
      iq[2 * i] = (float) re;
      iq[2 * i + 1] = (float) im;
    }
    return new IqRecord(iq, FS, CENTRE, 0, false);
  }

  private static EmissionResult measure(
      IqRecord record, ViewPlan view, List<String> marks, List<SpoiledBand> spoiled) {
    SpectrumSettings s =
        new SpectrumSettings(
            CENTRE, 300e3, 300, Window.BLACKMAN_HARRIS, Detector.RMS, 100, 30, 50e3);
    SpectrumLayout layout = SpectrumLayout.plan(FS, 0, 300e3, 300, Window.BLACKMAN_HARRIS);
    SpectrumEstimator e = new SpectrumEstimator(layout, Detector.RMS);
    e.accumulate(record.iq(), 0, record.sampleCount());
    double[] power = new double[layout.points()];
    e.powerInto(power);
    MeasurementContext context =
        new MeasurementContext(
            new PathCorrection(PATH),
            new InstrumentAccuracy(0.4, 1e-9),
            new LimitSet(CENTRE, 2.5, 27, 3, 0.5),
            marks,
            spoiled);
    return EmissionMeasurement.of(
        SpectrumMeasurement.of(power, layout, e.outside(), CENTRE, 0, e.segments(), s, context),
        s,
        view,
        context,
        layout,
        record);
  }

  private static ViewPlan plan(
      ViewPlan.Occupied occupied,
      AdjacentChannels adjacent,
      EmissionMask mask,
      boolean tones,
      boolean am,
      boolean skirt,
      ViewPlan.ReadAt... reads) {
    return new ViewPlan(
        List.of(),
        ViewPlan.PLAIN.reducer(),
        4096,
        occupied,
        adjacent,
        mask,
        Double.NaN,
        tones,
        am,
        skirt,
        List.of(reads),
        LevelDisplay.PLAIN,
        null);
  }

  private static Reading reading(EmissionResult r, String id) {
    return r.readings().stream()
        .filter(x -> x.id().equals(id))
        .findFirst()
        .orElseThrow(() -> new AssertionError(id + " not in " + r.readings()));
  }

  private static ResultTable table(EmissionResult r, String id) {
    return r.tables().stream().filter(t -> t.id().equals(id)).findFirst().orElseThrow();
  }

  /** -60 dBc of +27 dBm is -33 dBm at the plane: the line at +60 kHz lies 3 dB above it. */
  @Test
  public void aMaskIsJudgedAtTheReadingPlane() {
    EmissionMask mask =
        new EmissionMask(
            List.of(new EmissionMask.Segment(40e3, 140e3, 0, -60, -60, Double.NaN, Double.NaN)));
    EmissionResult r =
        measure(
            record(new double[] {0, -3}, new double[] {60e3, -60}),
            plan(null, null, mask, false, false, false),
            List.of(),
            List.of());
    Reading worst = reading(r, "maskMargin");
    assertEquals(worst.value(), -3, 0.1);
    assertEquals(worst.verdict(), Verdict.FAIL);
    assertTrue(worst.label().matches(".*\\+(60|59\\.999) kHz"), worst.label());
    assertEquals(table(r, "mask").rows().size(), 2);
    assertEquals(table(r, "mask").rows().get(1).verdict(), Verdict.FAIL);
    assertEquals(table(r, "mask").rows().get(0).verdict(), Verdict.PASS);
    assertEquals(r.limitLines().size(), 2);
    assertEquals(r.limitLines().get(1).y()[0], -33, 0.1);
    EmissionResult overloaded =
        measure(
            record(new double[] {0, -3}),
            plan(null, null, mask, false, false, false),
            List.of("overload"),
            List.of());
    assertEquals(reading(overloaded, "maskMargin").verdict(), Verdict.INVALID);
  }

  /** What was spoiled elsewhere does not mark what lies here. */
  @Test
  public void aSpoiledBandMarksOnlyWhatLiesInIt() {
    List<SpoiledBand> far = List.of(new SpoiledBand(CENTRE + 100e3, CENTRE + 120e3, "overload"));
    EmissionResult r = measure(record(new double[] {0, -3}), ViewPlan.PLAIN, List.of(), far);
    assertEquals(reading(r, "carrierPower").marks(), List.of());
    assertEquals(reading(r, "channelPower").marks(), List.of());
    List<SpoiledBand> here = List.of(new SpoiledBand(CENTRE - 1e3, CENTRE + 1e3, "overload"));
    EmissionResult spoiled = measure(record(new double[] {0, -3}), ViewPlan.PLAIN, List.of(), here);
    assertEquals(reading(spoiled, "carrierPower").marks(), List.of("overload"));
    assertEquals(reading(spoiled, "carrierPower").verdict(), Verdict.INVALID);
    assertEquals(reading(spoiled, "carrierFrequency").marks(), List.of());
  }

  /** Two tones of +24 dBm and products 50 dB below: an intercept of +49 dBm at the plane. */
  @Test
  public void interceptAtTheReadingPlane() {
    IqRecord two =
        record(
            new double[] {-10e3, -6},
            new double[] {10e3, -6},
            new double[] {-30e3, -56},
            new double[] {30e3, -57});
    EmissionResult r =
        measure(two, plan(null, null, null, true, false, false), List.of(), List.of());
    assertEquals(reading(r, "intercept").value(), 24 + 25, 0.1);
    assertEquals(reading(r, "thirdOrder").value(), -50, 0.1);
    assertEquals(table(r, "twoTones").rows().get(2).cells().get(1).value(), CENTRE - 30e3, 5);
    EmissionResult one =
        measure(
            record(new double[] {0, -6}),
            plan(null, null, null, true, false, false),
            List.of(),
            List.of());
    assertTrue(reading(one, "intercept").marks().get(0).contains("two tones"));
  }

  /** 30 % AM: side lines 16.48 dB down. */
  @Test
  public void amDepthWithItsRate() {
    IqRecord am =
        record(new double[] {0, -10}, new double[] {5e3, -26.48}, new double[] {-5e3, -26.48});
    Reading depth =
        reading(
            measure(am, plan(null, null, null, false, true, false), List.of(), List.of()),
            "amDepth");
    assertEquals(depth.value(), 30, 0.1);
    assertTrue(depth.label().contains("5 kHz") || depth.label().contains("4.999"), depth.label());
  }

  /**
   * FM of index 0.2 has side lines 20 dB down as AM of 20 % has (J1(0.2)/J0(0.2) = 0.1005,
   * Abramowitz and Stegun 9.1.10); its depth is none. Both together keep their own.
   */
  @Test
  public void fmIsNoAm() {
    for (double depth : new double[] {0, 0.1}) {
      float[] iq = new float[1 << 19];
      java.util.Random random = new java.util.Random(4);
      for (int i = 0; i < iq.length / 2; i++) {
        double t = i / FS;
        double phase = 0.2 * Math.sin(2 * Math.PI * 5e3 * t + 1) + 2 * Math.PI * 1234.5 * t;
        double size = 0.3 * (1 + depth * Math.cos(2 * Math.PI * 5e3 * t + 0.4));
        iq[2 * i] = (float) (size * Math.cos(phase) + 1e-4 * random.nextGaussian());
        iq[2 * i + 1] = (float) (size * Math.sin(phase) + 1e-4 * random.nextGaussian());
      }
      IqRecord fm = new IqRecord(iq, FS, CENTRE, 0, false);
      Reading r =
          reading(
              measure(fm, plan(null, null, null, false, true, false), List.of(), List.of()),
              "amDepth");
      // The product of the two adds to the depth what is left of narrow FM: J0 and J2 of 0.2.
      assertEquals(r.value(), 100 * depth, 0.02 + 2 * depth, r.toString());
      assertEquals(r.marks(), List.of());
    }
  }

  /** What is claimed of the depth holds the truth as often as k = 2 promises, beside FM as well. */
  @Test
  public void theUncertaintyOfTheDepthIsKept() {
    int inside = 0;
    int trials = 600;
    double density = 1e-3;
    for (int seed = 0; seed < trials; seed++) {
      java.util.Random random = new java.util.Random(seed);
      double depth = 0.1 + 0.3 * random.nextDouble();
      double away = 4e3 + 2e3 * random.nextDouble();
      double carrier = 1e3 * random.nextGaussian();
      float[] iq = new float[1 << 12];
      for (int i = 0; i < iq.length / 2; i++) {
        double turn = 2 * Math.PI * i / FS;
        double phase = carrier * turn + 0.05 * Math.sin(away * turn + 0.7);
        double size = 1 + depth * Math.cos(away * turn + seed);
        iq[2 * i] =
            (float) (size * Math.cos(phase) + Math.sqrt(density / 2) * random.nextGaussian());
        iq[2 * i + 1] =
            (float) (size * Math.sin(phase) + Math.sqrt(density / 2) * random.nextGaussian());
      }
      SideLines s =
          SideLines.of(new IqRecord(iq, FS, CENTRE, 0, false), carrier, away, density / FS);
      inside += Math.abs(s.depth() - depth) <= 2 * s.standard() ? 1 : 0;
    }
    assertEquals(100.0 * inside / trials, 95.4, 3, inside + " of " + trials);
  }

  @Test
  public void channelsThatDoNotFitAreSaidOnTheNumber() {
    AdjacentChannels wide =
        new AdjacentChannels(
            ChannelFilter.rectangle(50e3),
            List.of(new AdjacentChannels.Channel(200e3, ChannelFilter.rectangle(50e3), -60)));
    Reading r =
        reading(
            measure(
                record(new double[] {0, -3}),
                plan(null, wide, null, false, false, false),
                List.of(),
                List.of()),
            "adjacentWorst");
    assertTrue(Double.isNaN(r.value()));
    assertTrue(r.marks().get(0).contains("Widen the span to at least 450 kHz"), r.marks().get(0));
  }

  @Test
  public void occupiedBandwidthOfALineIsItsRbwAndLimited() {
    ViewPlan v = plan(new ViewPlan.Occupied(0.99, 20, 500), null, null, false, false, true);
    EmissionResult r = measure(record(new double[] {0, -3}), v, List.of(), List.of());
    Reading w = reading(r, "occupiedBandwidth");
    // 4-term Blackman-Harris: 20 dB down at 2.4 times its 3-dB width.
    assertEquals(w.value(), 300 * 2.43, 30);
    assertEquals(w.verdict(), Verdict.FAIL);
    assertEquals(r.limitLines().size(), 2);
    assertEquals(table(r, "skirt").rows().get(0).cells().get(1).text(), "no skirt above the noise");
  }

  /** -120 dBm/Hz at the port is -90 dBm/Hz at the source; 20 kHz of it are 43 dB more. */
  @Test
  public void numbersAtMarkers() {
    EmissionResult r =
        measure(
            record(new double[] {12_345.678, -3}),
            plan(
                null,
                null,
                null,
                false,
                false,
                false,
                new ViewPlan.ReadAt(ViewPlan.ReadKind.DENSITY, CENTRE + 100e3, 20e3),
                new ViewPlan.ReadAt(ViewPlan.ReadKind.BAND, CENTRE + 100e3, 20e3),
                new ViewPlan.ReadAt(ViewPlan.ReadKind.COUNT, CENTRE + 12e3, 5e3),
                new ViewPlan.ReadAt(ViewPlan.ReadKind.BAND, CENTRE + 1e6, 20e3)),
            List.of(),
            List.of());
    assertEquals(reading(r, "read0").value(), -90, 0.15);
    assertEquals(reading(r, "read1").value(), -90 + 43.01, 0.15);
    assertEquals(reading(r, "read2").value(), CENTRE + 12_345.678, 0.01);
    assertTrue(reading(r, "read2").uncertainty() < 1.2);
    assertTrue(reading(r, "read3").marks().get(0).contains("outside the span"));
    assertTrue(Double.isFinite(reading(r, "channelDensity").value()));
  }

  /**
   * Cramer-Rao bound of a tone's frequency: var = 6 / ((2 pi)^2 snr n^3) in cycles per sample (Rife
   * and Boorstyn, IEEE Trans. IT 20, 1974).
   */
  @Test
  public void theCounterReachesTheBound() {
    int n = 4096;
    double snr = 100;
    Random random = new Random(2);
    double sum = 0;
    double said = 0;
    int trials = 200;
    for (int t = 0; t < trials; t++) {
      float[] iq = new float[2 * n];
      for (int i = 0; i < n; i++) {
        double phase = 2 * Math.PI * 0.012345 * i + t;
        iq[2 * i] = (float) (Math.cos(phase) + random.nextGaussian() * Math.sqrt(0.5 / snr));
        iq[2 * i + 1] = (float) (Math.sin(phase) + random.nextGaussian() * Math.sqrt(0.5 / snr));
      }
      FrequencyCounter.Count c = FrequencyCounter.count(iq, n, 1, 0.0123, 0.05);
      sum += Math.pow(c.offsetHz() - 0.012345, 2);
      said += c.standardHz() / trials;
    }
    double bound = Math.sqrt(6 / (4 * Math.PI * Math.PI * snr * Math.pow(n, 3)));
    assertEquals(Math.sqrt(sum / trials) / bound, 1, 0.2);
    assertEquals(said / bound, 1, 0.2);
  }
}
