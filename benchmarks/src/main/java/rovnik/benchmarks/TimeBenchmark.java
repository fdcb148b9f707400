package rovnik.benchmarks;

import java.util.ArrayList;
import java.util.List;
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
import rovnik.core.limits.Limit;
import rovnik.core.listening.ListenMeasurement;
import rovnik.core.listening.ListenSettings;
import rovnik.core.listening.Squelch;
import rovnik.core.modulation.Digesting;
import rovnik.core.modulation.RecordMeasurement.Gathering;
import rovnik.core.modulation.analog.AudioFilter;
import rovnik.core.result.Outcome;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.time.BurstMeasurement;
import rovnik.core.time.BurstSettings;
import rovnik.core.time.DensityMeasurement;
import rovnik.core.time.DensitySettings;
import rovnik.core.time.IntervalPattern;
import rovnik.core.time.SpectrogramMeasurement;
import rovnik.core.time.SpectrogramSettings;
import rovnik.core.time.TriggerMask;
import rovnik.core.time.TriggerMeasurement;
import rovnik.core.time.TriggerSettings;
import rovnik.core.watch.WatchOutcome;
import rovnik.core.watch.WatchPoint;
import rovnik.core.watch.WatchSettings;
import rovnik.core.watch.WatchStretch;
import rovnik.core.watch.Watched;

/** What comes and goes, in samples a second. */
@State(Scope.Thread)
@BenchmarkMode(Mode.Throughput)
@OutputTimeUnit(TimeUnit.SECONDS)
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
@Fork(value = 1, jvmArgsAppend = "--add-modules=jdk.incubator.vector")
public class TimeBenchmark {
  private static final int SAMPLES = 1 << 21;
  private static final double RATE = 1e6;
  private static final int POINTS = 1024;

  private IqRecord record;
  private IqRecord part;
  private Digesting.Digest digest;
  private DensityMeasurement density;
  private BurstMeasurement bursts;
  private ListenMeasurement listening;
  private TriggerMeasurement trigger;
  private TriggerMeasurement triggerInBand;
  private TriggerMeasurement mask;

  /** Noise, a carrier, and bursts of another. */
  private WatchSettings watched;

  private List<WatchStretch> chunks;
  private List<WatchStretch> points;

  @Setup
  public void setUp() {
    watches();
    float[] iq = new float[2 * SAMPLES];
    Random random = new Random(1);
    for (int n = 0; n < SAMPLES; n++) {
      double burst = n % 3100 < 300 ? 0.2 : 0;
      double a = 2 * Math.PI * 0.1 * n;
      double b = -2 * Math.PI * 0.23 * n;
      iq[2 * n] = (float) (0.01 * Math.cos(a) + burst * Math.cos(b) + 1e-3 * random.nextGaussian());
      iq[2 * n + 1] =
          (float) (0.01 * Math.sin(a) + burst * Math.sin(b) + 1e-3 * random.nextGaussian());
    }
    record = new IqRecord(iq, RATE, 1e9, Double.NaN, false);
    double rbwHz = Window.HANN.figures().width3dbBins() * RATE / POINTS;
    density = new DensityMeasurement(new DensitySettings(0, 0, rbwHz, Window.HANN, 50, 10, 0, 0));
    bursts =
        new BurstMeasurement(
            new BurstSettings(0, 250e3, 10, 0, Double.NaN, 0, 0, Limit.NONE, Limit.NONE));
    trigger = trigger(0);
    triggerInBand = trigger(250e3);
    mask = mask();
    part = record.cut(0, (1 << 20) / RATE);
    digest = digesting().of(part);
    listening =
        new ListenMeasurement(
            new ListenSettings(
                rovnik.core.listening.Mode.FM,
                1e9 + 0.1 * RATE,
                12.5e3,
                10,
                0,
                new AudioFilter(300, 3000, 0, false),
                Squelch.OPEN));
  }

  private static TriggerMeasurement trigger(double bandHz) {
    return new TriggerMeasurement(
        new TriggerSettings(
            0,
            bandHz,
            10,
            0,
            TriggerSettings.By.RISES,
            -20,
            100e-6,
            Double.POSITIVE_INFINITY,
            10e-6,
            0,
            1e-3,
            1e-3,
            TriggerMask.NONE,
            IntervalPattern.ANY));
  }

  /** A mask over the middle of the record, in spectra of about 1,024 samples. */
  private static TriggerMeasurement mask() {
    return new TriggerMeasurement(
        new TriggerSettings(
            0,
            0,
            10,
            0,
            TriggerSettings.By.MASK,
            0,
            0,
            Double.POSITIVE_INFINITY,
            0,
            0,
            1e-3,
            1e-3,
            new TriggerMask(
                List.of(
                    new TriggerMask.Point(1e9 - 0.4 * RATE, -20),
                    new TriggerMask.Point(1e9 + 0.4 * RATE, -20)),
                1.9 * RATE / 1024),
            IntervalPattern.ANY));
  }

  /** Spectra that are held against a mask. */
  @Benchmark
  @OperationsPerInvocation(SAMPLES)
  public Outcome triggerMask() {
    return mask.of(record, MeasurementContext.BARE);
  }

  /** Bursts that rise over a level, in all that the record holds. */
  @Benchmark
  @OperationsPerInvocation(SAMPLES)
  public Outcome triggerSamples() {
    return trigger.of(record, MeasurementContext.BARE);
  }

  /** The same in a band. */
  @Benchmark
  @OperationsPerInvocation(SAMPLES)
  public Outcome triggerInBandSamples() {
    return triggerInBand.of(record, MeasurementContext.BARE);
  }

  /** A digest of a part of a recording, from which spectrograms are put together. */
  @Benchmark
  @OperationsPerInvocation(1 << 20)
  public Object spectrogramDigestSamples() {
    return digesting().of(part);
  }

  /** 1 GiB of samples in 400 rows, from its digests. */
  @Benchmark
  @BenchmarkMode(Mode.AverageTime)
  @OutputTimeUnit(TimeUnit.MILLISECONDS)
  public Outcome spectrogramZoom() {
    Digesting all = digesting();
    for (int i = 0; i < PARTS; i++) {
      all.take(digest, i == PARTS - 1);
    }
    return all.gathering()
        .add(nothing(PARTS * (double) part.sampleCount()), MeasurementContext.BARE);
  }

  private static final int PARTS = 128;

  private Digesting digesting() {
    double rbwHz = 1.4 * RATE / 1000;
    return new SpectrogramMeasurement(
            new SpectrogramSettings(0, 0, rbwHz, Window.HANN, 50, 3600, 0, 400))
        .digesting(nothing(0), MeasurementContext.BARE, PARTS * (long) part.sampleCount())
        .orElseThrow();
  }

  private static IqRecord nothing(double samples) {
    return new IqRecord(new float[0], RATE, 1e9, Double.NaN, false, samples / RATE);
  }

  /** Density, history, traces and what was there: 1,024 points, half overlap. */
  @Benchmark
  @OperationsPerInvocation(SAMPLES)
  public Outcome densitySamples() {
    return density.of(record, MeasurementContext.BARE);
  }

  /** One channel of FM, from samples to sound. */
  @Benchmark
  @OperationsPerInvocation(SAMPLES)
  public Gathering heardSamples() {
    Gathering all = listening.gathering();
    all.take(record, MeasurementContext.BARE);
    return all;
  }

  /** The same with all readings. */
  @Benchmark
  @OperationsPerInvocation(SAMPLES)
  public Outcome listenSamples() {
    return listening.of(record, MeasurementContext.BARE);
  }

  /** Bursts in a quarter of the record's band. */
  @Benchmark
  @OperationsPerInvocation(SAMPLES)
  public Outcome burstSamples() {
    return bursts.of(record, MeasurementContext.BARE);
  }

  /** A chart of a watch over 11 days of a point a second, from its 3,906 chunks. */
  @Benchmark
  public Outcome watchOfAMillionPoints() {
    return watch(chunks);
  }

  /** The same of 50,000 points that are read one by one. */
  @Benchmark
  public Outcome watchOfSinglePoints() {
    return watch(points);
  }

  private Outcome watch(List<WatchStretch> of) {
    return new WatchOutcome(
            new WatchOutcome.About("Watch", "Spectrum", 0, 1_000_000_000L, Double.NaN),
            watched,
            of,
            List.of(),
            List.of(),
            600)
        .outcome();
  }

  private void watches() {
    Random random = new Random(5);
    watched =
        new WatchSettings(
            List.of(
                new Watched("level", "Level", "dBm", "", false, new Limit(-30, 30), 0),
                new Watched("error", "Error", "ppm", "", false, Limit.NONE, 0)),
            1,
            20,
            1);
    chunks = new ArrayList<>();
    points = new ArrayList<>();
    for (int c = 0; c < 3906; c++) {
      List<WatchPoint> some = new ArrayList<>();
      for (int k = 0; k < 256; k++) {
        double[] v = {random.nextGaussian(), random.nextGaussian()};
        some.add(new WatchPoint(1000L * (256 * c + k), v, v, v, new double[] {0.5, 0.1}));
      }
      chunks.add(WatchStretch.of(some));
      if (points.size() < 50_000) {
        some.forEach(p -> points.add(WatchStretch.of(p)));
      }
    }
  }
}
