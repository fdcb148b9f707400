package rovnik.core.coverage;

import java.util.List;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import rovnik.core.emission.AdjacentChannels;
import rovnik.core.emission.EmissionMask;
import rovnik.core.emission.EmissionMeasurement;
import rovnik.core.emission.ViewPlan;
import rovnik.core.limits.Limit;
import rovnik.core.limits.LimitSet;
import rovnik.core.result.Reading;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.Detector;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.ReadingMaker;
import rovnik.core.spectrum.SpectrumEstimator;
import rovnik.core.spectrum.SpectrumLayout;
import rovnik.core.spectrum.SpectrumMeasurement;
import rovnik.core.spectrum.SpectrumResult;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.uncertainty.InstrumentAccuracy;

/** Signals whose truth is known, seen by a perfect instrument. */
final class Trials {
  static final double FS = 400e3;
  static final double SPAN = 200e3;
  static final double RBW = 2000;
  private static final InstrumentAccuracy PERFECT = new InstrumentAccuracy(0, 0, 0);

  private static final MeasurementContext CONTEXT =
      new MeasurementContext(null, PERFECT, LimitSet.NONE, List.of());

  private Trials() {}

  /** A view that asks for some; null and false for what it does not. */
  static ViewPlan view(
      ViewPlan.Occupied occupied,
      AdjacentChannels adjacent,
      EmissionMask mask,
      Double highestDensity,
      boolean twoTones,
      boolean amDepth,
      List<ViewPlan.ReadAt> reads) {
    ViewPlan p = ViewPlan.PLAIN;
    return new ViewPlan(
        p.traces(),
        p.reducer(),
        p.mostPoints(),
        occupied,
        adjacent,
        mask,
        highestDensity,
        twoTones,
        amDepth,
        false,
        reads,
        p.display(),
        null);
  }

  static List<Reading> measure(
      float[] iq, Window window, double rbw, int averages, ViewPlan view, double channelHz) {
    SpectrumSettings s = settings(window, rbw, averages, channelHz);
    SpectrumLayout layout = SpectrumLayout.plan(FS, 0, SPAN, rbw, window);
    return EmissionMeasurement.of(
            spectrum(iq, layout, s), s, view, CONTEXT, layout, new IqRecord(iq, FS, 0, 0, false))
        .readings();
  }

  /** The strongest line alone, as work reads it that goes from band to band. */
  static List<Reading> lines(float[] iq, int averages) {
    SpectrumSettings s = settings(Window.HANN, RBW, averages, 20e3);
    SpectrumResult m = spectrum(iq, SpectrumLayout.plan(FS, 0, SPAN, RBW, Window.HANN), s);
    ReadingMaker maker = new ReadingMaker(m.trace(), s, null, CONTEXT);
    double level = m.peaks().get(0).level();
    return List.of(
        maker.level("line", "Line", level, "dBFS", maker.lineDb(level), Limit.NONE, List.of()));
  }

  private static SpectrumSettings settings(
      Window window, double rbw, int averages, double channelHz) {
    return new SpectrumSettings(0, SPAN, rbw, window, Detector.RMS, averages, 30, channelHz);
  }

  private static SpectrumResult spectrum(float[] iq, SpectrumLayout layout, SpectrumSettings s) {
    SpectrumEstimator e = new SpectrumEstimator(layout, Detector.RMS);
    e.accumulate(iq, 0, iq.length / 2);
    double[] power = new double[layout.points()];
    e.powerInto(power);
    return SpectrumMeasurement.of(power, layout, e.outside(), 0, 0, e.segments(), s, CONTEXT);
  }

  /** White noise of a density for as many segments as are averaged. */
  static float[] noise(Random random, Window w, double rbw, int averages, double density) {
    int n = (int) SpectrumLayout.plan(FS, 0, SPAN, rbw, w).samplesFor(averages);
    float[] iq = new float[2 * n];
    double sigma = Math.sqrt(density * FS / 2);
    for (int i = 0; i < iq.length; i++) {
      iq[i] = (float) (sigma * random.nextGaussian());
    }
    return iq;
  }

  /** A tone of 0 dB times a level, whose phase walks by so much a sample. */
  static void tone(float[] iq, double hz, double db, double walk, Random random) {
    double a = Math.pow(10, db / 20);
    double phase = 2 * Math.PI * random.nextDouble();
    for (int i = 0; i < iq.length / 2; i++) {
      iq[2 * i] += (float) (a * Math.cos(phase));
      iq[2 * i + 1] += (float) (a * Math.sin(phase));
      phase += 2 * Math.PI * hz / FS + (walk > 0 ? walk * random.nextGaussian() : 0);
    }
  }

  static double anywhere(Random random) {
    return (random.nextDouble() - 0.5) * SPAN / 2;
  }

  /** Adds noise by its spectrum: as many random tones as there are samples. */
  static void band(float[] iq, DoubleUnaryOperator density, Random random) {
    int n = iq.length / 2;
    int m = Integer.highestOneBit(2 * n - 1);
    double[] spectrum = new double[2 * m];
    for (int i = 0; i < m; i++) {
      double hz = (i < m / 2 ? i : i - m) * FS / m;
      double sigma = Math.sqrt(density.applyAsDouble(hz) * FS / m / 2);
      spectrum[2 * i] = sigma * random.nextGaussian();
      spectrum[2 * i + 1] = sigma * random.nextGaussian();
    }
    new org.jtransforms.fft.DoubleFFT_1D(m).complexInverse(spectrum, false);
    for (int i = 0; i < 2 * n; i++) {
      iq[i] += (float) spectrum[i];
    }
  }
}
