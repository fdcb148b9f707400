package rovnik.benchmarks;

import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OperationsPerInvocation;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import rovnik.core.emission.EmissionMask;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.Detector;
import rovnik.core.spectrum.PeakSearch;
import rovnik.core.spectrum.SpectrumEstimator;
import rovnik.core.spectrum.SpectrumLayout;
import rovnik.core.spectrum.ToneInterpolator;
import rovnik.core.spectrum.Trace;
import rovnik.core.spectrum.TraceMode;
import rovnik.core.spectrum.TraceRow;
import rovnik.core.spectrum.TraceStack;

/** Spectrum estimator (Hann, 50 % overlap, complex float, one core) and what is read from it. */
@State(Scope.Thread)
@BenchmarkMode(Mode.Throughput)
@OutputTimeUnit(TimeUnit.SECONDS)
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
@Fork(value = 1, jvmArgsAppend = "--add-modules=jdk.incubator.vector")
public class SpectrumBenchmark {
  private static final int SAMPLES = 1 << 20;
  private float[] iq;
  private Trace trace;
  private ToneInterpolator interpolator;
  private Trace large;
  private EmissionMask mask;
  private TraceStack stack;
  private double[] power;

  /** Makes a record of noise. */
  @Setup
  public void setUp() {
    Random random = new Random(1);
    iq = new float[2 * SAMPLES];
    for (int i = 0; i < iq.length; i++) {
      iq[i] = (float) random.nextGaussian() * 0.1f;
    }
    SpectrumLayout layout = SpectrumLayout.ofLength(1, 0, 1, Window.HANN, 4096);
    interpolator = ToneInterpolator.of(layout);
    float[] level = new float[4096];
    for (int i = 0; i < level.length; i++) {
      level[i] = (float) (-100 + 3 * random.nextGaussian() + (i % 200 == 0 ? 50 : 0));
    }
    trace = new Trace(0, 1, level, "dBm", "", 1.44, 1.5, 1, "", "");
    float[] many = new float[1 << 19];
    for (int i = 0; i < many.length; i++) {
      many[i] = (float) (-100 + 3 * random.nextGaussian() + (i % 200 == 0 ? 50 : 0));
    }
    large = new Trace(0, 1, many, "dBm", "", 1.44, 1.5, 1, "", "");
    java.util.List<EmissionMask.Segment> segments = new java.util.ArrayList<>();
    for (int i = 0; i < 6; i++) {
      segments.add(
          new EmissionMask.Segment(
              300 * i,
              300 * (i + 1),
              i < 3 ? 0 : 30,
              -20 - 10 * i,
              -30 - 10 * i,
              Double.NaN,
              Double.NaN));
    }
    mask = new EmissionMask(segments);
    power = new double[4096];
    java.util.Arrays.fill(power, 1e-9);
    stack =
        new TraceStack(
            java.util.List.of(
                TraceRow.of(TraceMode.HIGHEST, 1),
                TraceRow.of(TraceMode.LOWEST, 1),
                TraceRow.of(TraceMode.POWER_AVERAGE, 256),
                TraceRow.of(TraceMode.LOG_AVERAGE, 64),
                TraceRow.of(TraceMode.EXPONENTIAL_AVERAGE, 16),
                TraceRow.math(TraceMode.RATIO, 0, 1)),
            4096,
            java.util.List.of());
  }

  /** The estimator at several lengths, beside {@code benchmarks/reference/welch.c}. */
  @State(Scope.Thread)
  public static class Lengths {
    @Param({"1024", "4096", "16384", "524288"})
    int points;

    private SpectrumEstimator estimator;

    /** Plans. */
    @Setup
    public void setUp() {
      estimator =
          new SpectrumEstimator(
              SpectrumLayout.ofLength(1, 0, 1, Window.HANN, points), Detector.RMS);
    }
  }

  /** Reported in samples a second. */
  @Benchmark
  @OperationsPerInvocation(SAMPLES)
  public int estimatorSamples(Lengths lengths) {
    lengths.estimator.reset();
    lengths.estimator.accumulate(iq, 0, SAMPLES);
    return lengths.estimator.segments();
  }

  /** Peak table of a 4,096-point trace with 20 lines, reported in tables a second. */
  @Benchmark
  public int peakTable() {
    return new PeakSearch(PeakSearch.median(trace.level()) + 12, 6, 32)
        .find(trace, interpolator)
        .size();
  }

  /** Peak table of 524,288 bins with 2,600 lines, reported in tables a second. */
  @Benchmark
  public int peakTableOfHalfAMillion() {
    return new PeakSearch(PeakSearch.median(large.level()) + 12, 6, 32)
        .find(large, interpolator)
        .size();
  }

  /** Mask of six segments over 4,096 points, reported in checks a second. */
  @Benchmark
  public int maskCheck() {
    return mask.judge(trace, 2048, 0, java.util.List.of()).size();
  }

  /** One look at 4,096 points with six more traces and their decibels, in looks a second. */
  @Benchmark
  public double sixTraces() {
    stack.take(power);
    double sum = 0;
    for (int i = 0; i < 6; i++) {
      double[] p = stack.power(i);
      for (double v : p) {
        sum += Math.log10(Math.max(v, 1e-30));
      }
    }
    return sum;
  }
}
