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
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.Detector;
import rovnik.core.spectrum.PeakSearch;
import rovnik.core.spectrum.SpectrumEstimator;
import rovnik.core.spectrum.SpectrumLayout;
import rovnik.core.spectrum.ToneInterpolator;
import rovnik.core.spectrum.Trace;

/** Spectrum estimator: Hann, 4,096 points, 50 % overlap, complex float, one core. */
@State(Scope.Thread)
@BenchmarkMode(Mode.Throughput)
@OutputTimeUnit(TimeUnit.SECONDS)
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
@Fork(value = 1, jvmArgsAppend = "--add-modules=jdk.incubator.vector")
public class SpectrumBenchmark {
  private static final int SAMPLES = 1 << 20;
  private float[] iq;
  private SpectrumEstimator estimator;
  private Trace trace;
  private ToneInterpolator interpolator;

  /** Makes a record of noise. */
  @Setup
  public void setUp() {
    Random random = new Random(1);
    iq = new float[2 * SAMPLES];
    for (int i = 0; i < iq.length; i++) {
      iq[i] = (float) random.nextGaussian() * 0.1f;
    }
    SpectrumLayout layout = SpectrumLayout.ofLength(1, 0, 1, Window.HANN, 4096);
    estimator = new SpectrumEstimator(layout, Detector.RMS);
    interpolator = ToneInterpolator.of(layout);
    float[] level = new float[4096];
    for (int i = 0; i < level.length; i++) {
      level[i] = (float) (-100 + 3 * random.nextGaussian() + (i % 200 == 0 ? 50 : 0));
    }
    trace = new Trace(0, 1, level, "dBm", "", 1.44, 1.5, 1, "", "");
  }

  /** Reported in samples a second. */
  @Benchmark
  @OperationsPerInvocation(SAMPLES)
  public int estimatorSamples() {
    estimator.reset();
    estimator.accumulate(iq, 0, SAMPLES);
    return estimator.segments();
  }

  /** Peak table of a 4,096-point trace with 20 lines, reported in tables a second. */
  @Benchmark
  public int peakTable() {
    return PeakSearch.aboveFloor(trace.level(), 32).find(trace, interpolator).size();
  }
}
