package rovnik.benchmarks;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import rovnik.core.formats.TouchstoneReader;
import rovnik.core.network.ErrorTerms;
import rovnik.core.network.NetworkData;
import rovnik.core.network.TimeDomain;

/** Networks of 20,001 points, in milliseconds. */
@State(Scope.Thread)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
@Fork(1)
public class NetworkBenchmark {
  private static final int POINTS = 20_001;
  private NetworkData two;
  private ErrorTerms terms;
  private byte[] file;

  /** Makes random networks. */
  @Setup
  public void setUp() {
    Random random = new Random(1);
    double[] f = new double[POINTS];
    double[] s = new double[8 * POINTS];
    for (int i = 0; i < POINTS; i++) {
      f[i] = 100e3 * (i + 1);
    }
    for (int i = 0; i < s.length; i++) {
      s[i] = 0.3 * random.nextGaussian();
    }
    two = new NetworkData(2, new double[] {50, 50}, f, s);
    terms = new ErrorTerms(f, side(random), side(random));
    StringBuilder text = new StringBuilder("# MHz S MA R 50\n");
    for (int i = 0; i < POINTS; i++) {
      text.append(f[i] / 1e6);
      for (int k = 0; k < 16; k++) {
        text.append(
            String.format(
                Locale.ROOT, " %.6f %.4f", random.nextDouble(), 360 * random.nextDouble()));
        text.append(k % 4 == 3 ? "\n" : "");
      }
    }
    file = text.toString().getBytes(StandardCharsets.ISO_8859_1);
  }

  private static ErrorTerms.Side side(Random random) {
    double[][] t = new double[6][2 * POINTS];
    for (int k = 0; k < 6; k++) {
      for (int i = 0; i < 2 * POINTS; i++) {
        t[k][i] = (i % 2 == 0 && (k == 2 || k == 4) ? 0.9 : 0) + 0.05 * random.nextGaussian();
      }
    }
    return new ErrorTerms.Side(t[0], t[1], t[2], t[3], t[4], t[5]);
  }

  @Benchmark
  public double twelveTerms() {
    return terms.correct(two).re(0, 1, 1);
  }

  @Benchmark
  public double timeDomainStep() {
    return TimeDomain.of(two, 1, 1)
        .response(TimeDomain.Mode.STEP, TimeDomain.Shape.BALANCED)
        .value()[0];
  }

  @Benchmark
  public double timeDomainGate() {
    return TimeDomain.of(two, 1, 1).gated(10e-9, 200e-9)[0];
  }

  /** As a view with a gate asks for it: over the distance, and back through the gate. */
  @Benchmark
  public double timeDomainStepAndGate() {
    TimeDomain t = TimeDomain.of(two, 1, 1);
    return t.response(TimeDomain.Mode.STEP, TimeDomain.Shape.BALANCED).value()[0]
        + t.gated(10e-9, 200e-9)[0];
  }

  @Benchmark
  public double timeDomainBandPass() {
    return TimeDomain.of(two, 1, 1)
        .response(TimeDomain.Mode.BAND_PASS, TimeDomain.Shape.BALANCED)
        .value()[0];
  }

  @Benchmark
  public double touchstoneOfFourPorts() throws IOException {
    return TouchstoneReader.read(new ByteArrayInputStream(file), "x.s4p").network().re(0, 1, 1);
  }
}
