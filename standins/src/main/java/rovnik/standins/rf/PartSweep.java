package rovnik.standins.rf;

import java.util.Arrays;
import java.util.random.RandomGenerator;
import java.util.random.RandomGeneratorFactory;
import rovnik.standins.world.Truth;

/** Sweeps of the network analyzer over what is plugged in, with the noise of its receivers. */
public final class PartSweep {
  /** Ratios in the order S11, S12, S21, S22, and the switch at port 1 and 2. */
  public static final int VALUES = 6;

  private static final long DRIFT_NANOS = 2_000_000_000L;
  private final PartBench bench;
  private final RandomGenerator random;
  private final long startedNanos = System.nanoTime();
  private double[] hz = new double[0];
  private double[] exact = new double[0];
  private double powerDbm;
  private int change = -1;
  private long madeNanos;
  private boolean overload;

  public PartSweep(PartBench bench, long seed) {
    this.bench = bench;
    this.random = RandomGeneratorFactory.of("Xoshiro256PlusPlus").create(seed);
  }

  /**
   * @param bandwidthHz of the receivers, divided by the number of averages
   * @return {@link #VALUES} pairs a point
   */
  public double[] sweep(double[] frequencyHz, double power, double bandwidthHz) {
    long now = System.nanoTime();
    if (!Arrays.equals(hz, frequencyHz)
        || power != powerDbm
        || bench.change() != change
        || now - madeNanos > DRIFT_NANOS) {
      hz = frequencyHz.clone();
      powerDbm = power;
      change = bench.change();
      madeNanos = now;
      compute((now - startedNanos) / 1e9);
    }
    double noise =
        Math.sqrt(Math.pow(10, (Truth.ANALYZER_NOISE_DBM_PER_HZ - power) / 10) * bandwidthHz / 2);
    double jitter = Truth.ANALYZER_JITTER * Math.sqrt(bandwidthHz / 1000) / Math.sqrt(2);
    double[] seen = exact.clone();
    for (int i = 0; i < seen.length; i += 2) {
      double size = Math.hypot(seen[i], seen[i + 1]);
      double sigma = Math.hypot(noise, jitter * size);
      seen[i] += sigma * random.nextGaussian();
      seen[i + 1] += sigma * random.nextGaussian();
    }
    return seen;
  }

  private void compute(double warmSeconds) {
    exact = new double[2 * VALUES * hz.length];
    double highest = 0;
    for (int p = 0; p < hz.length; p++) {
      TestSet.Seen s = TestSet.look(bench.at(hz[p], powerDbm), hz[p], warmSeconds);
      Complex[] all = {s.m11(), s.m12(), s.m21(), s.m22(), s.g1(), s.g2()};
      for (int k = 0; k < VALUES; k++) {
        exact[2 * (VALUES * p + k)] = all[k].re();
        exact[2 * (VALUES * p + k) + 1] = all[k].im();
      }
      highest = Math.max(highest, s.m21().norm());
    }
    overload = powerDbm + 20 * Math.log10(highest + 1e-12) > Truth.ANALYZER_OVERLOAD_DBM;
  }

  /** Whether the receiver of port 2 got too much in the last sweep. */
  public boolean overload() {
    return overload;
  }
}
