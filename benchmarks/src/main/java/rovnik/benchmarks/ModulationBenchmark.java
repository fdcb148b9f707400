package rovnik.benchmarks;

import java.util.List;
import java.util.Optional;
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
import rovnik.core.modulation.Format;
import rovnik.core.modulation.Framing;
import rovnik.core.modulation.Modulator;
import rovnik.core.modulation.Payload;
import rovnik.core.modulation.Prbs;
import rovnik.core.modulation.PulseShape;
import rovnik.core.modulation.SingleCarrier;
import rovnik.core.modulation.Waveform;
import rovnik.core.modulation.analog.AnalogMeasurement;
import rovnik.core.modulation.analog.AnalogSettings;
import rovnik.core.modulation.analog.AudioFilter;
import rovnik.core.modulation.analysis.Equalizer;
import rovnik.core.modulation.analysis.SingleCarrierMeasurement;
import rovnik.core.modulation.analysis.SingleCarrierSettings;
import rovnik.core.receiver.CountSearch;
import rovnik.core.receiver.ErrorTheory;
import rovnik.core.receiver.LevelEstimate;
import rovnik.core.receiver.LevelSearch;
import rovnik.core.receiver.Quality;
import rovnik.core.result.Outcome;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;

/** Carriers with data, in milliseconds. */
@State(Scope.Thread)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
@Fork(1)
public class ModulationBenchmark {
  private static final double RATE = 48e3;
  private static final int SYMBOLS = 10_000;
  private static final long BITS = 100_000_000;
  private static final double ANALOG_RATE_HZ = 50e3;
  private static final int ANALOG_SAMPLES = 26_000;

  private SingleCarrier qam;
  private SingleCarrier qpsk;
  private SingleCarrierMeasurement ofQam;
  private SingleCarrierMeasurement ofQpsk;
  private IqRecord qamRecord;
  private IqRecord qpskRecord;
  private SingleCarrierMeasurement ofMany;
  private IqRecord manyRecord;
  private SingleCarrierMeasurement ofKeyed;
  private IqRecord keyedRecord;
  private AnalogMeasurement ofAnalog;
  private IqRecord analogRecord;
  private long[] sent;
  private long[] received;

  private static SingleCarrier carrier(Format format) {
    return new SingleCarrier(
        format,
        RATE,
        PulseShape.rootRaisedCosine(0.35),
        List.of(),
        Payload.of(Prbs.PN15),
        Framing.NONE);
  }

  private static SingleCarrierMeasurement measurement(SingleCarrier c, int symbols) {
    return new SingleCarrierMeasurement(
        new SingleCarrierSettings(c, 0, 0, symbols, 0, null, false, false, Double.NaN));
  }

  private static IqRecord record(SingleCarrier c, double samplesPerSymbol, int symbols) {
    return record(c, samplesPerSymbol, symbols, 35);
  }

  private static IqRecord record(
      SingleCarrier c, double samplesPerSymbol, int symbols, double noiseDb) {
    Waveform w =
        new Modulator(c, samplesPerSymbol * RATE)
            .make(symbols)
            .withNoise(noiseDb, c.symbolRateHz(), 1);
    float[] iq = java.util.Arrays.copyOf(w.iq(), 2 * (int) (samplesPerSymbol * symbols));
    return new IqRecord(iq, w.sampleRateHz(), 1e9, Double.NaN, false);
  }

  /** Makes records and bits. */
  @Setup
  public void setUp() {
    qam = carrier(Format.QAM64);
    qpsk = carrier(Format.QPSK);
    ofQam = measurement(qam, SYMBOLS);
    ofQpsk = measurement(qpsk, 2000);
    qamRecord = record(qam, 4, SYMBOLS + 60);
    qpskRecord = record(qpsk, 25.0 / 3, 2060);
    SingleCarrier many = carrier(Format.QAM4096);
    ofMany =
        new SingleCarrierMeasurement(
            new SingleCarrierSettings(
                many,
                0,
                0,
                SYMBOLS,
                0,
                null,
                false,
                false,
                Double.NaN,
                new Equalizer(Equalizer.Mode.TRAINED, Equalizer.USUAL_REACH, List.of()),
                0));
    manyRecord = record(many, 4, SYMBOLS + 60, 50);
    SingleCarrier keyed =
        new SingleCarrier(
            Format.GMSK,
            RATE,
            new PulseShape(PulseShape.Kind.GAUSSIAN, 0.3),
            List.of(),
            Payload.of(Prbs.PN15),
            Framing.NONE);
    ofKeyed = measurement(keyed, SYMBOLS);
    keyedRecord = record(keyed, 4, SYMBOLS + 100);
    float[] fm = new float[2 * ANALOG_SAMPLES];
    for (int n = 0; n < ANALOG_SAMPLES; n++) {
      double angle = 2.5 * Math.sin(2 * Math.PI * 1000 * n / ANALOG_RATE_HZ);
      fm[2 * n] = (float) Math.cos(angle);
      fm[2 * n + 1] = (float) Math.sin(angle);
    }
    analogRecord = new IqRecord(fm, ANALOG_RATE_HZ, 1e8, Double.NaN, false);
    ofAnalog =
        new AnalogMeasurement(
            new AnalogSettings(
                AnalogSettings.Kind.FM, 0, 25e3, 0.5, 0, AudioFilter.NONE, Double.NaN, Double.NaN));
    sent = Prbs.PN23.bits(BITS);
    received = sent.clone();
    received[12345] ^= 1;
  }

  /** Samples to all readings: 10,000 symbols of 64-QAM at 4 samples a symbol. */
  @Benchmark
  public Outcome measureTenThousandSymbols() {
    return ofQam.of(qamRecord, MeasurementContext.BARE);
  }

  /** A live look: 2,000 symbols of QPSK. */
  @Benchmark
  public Outcome measureLiveLook() {
    return ofQpsk.of(qpskRecord, MeasurementContext.BARE);
  }

  /** 10,000 symbols of 4096-QAM with an equalizer that is trained. */
  @Benchmark
  public Outcome measureManyPointsEqualized() {
    return ofMany.of(manyRecord, MeasurementContext.BARE);
  }

  /** 10,000 symbols of GMSK. */
  @Benchmark
  public Outcome measureKeyed() {
    return ofKeyed.of(keyedRecord, MeasurementContext.BARE);
  }

  /** Half a second of FM by a tone, in a channel of 25 kHz. */
  @Benchmark
  public Outcome measureAnalog() {
    return ofAnalog.of(analogRecord, MeasurementContext.BARE);
  }

  /** A sensitivity from its first level to its end, with counts as theory has them. */
  @Benchmark
  public LevelEstimate searchSensitivity() {
    ErrorTheory theory = ErrorTheory.of(Format.QAM16).orElseThrow();
    Random random = new Random(3);
    CountSearch search = new CountSearch(theory, 1, 1e-3, 1e6, -70, -120, -10, 0.1);
    Optional<LevelSearch.Step> step = search.next();
    while (step.isPresent()) {
      double dbm = step.get().dbm();
      double expected = step.get().seconds() * 1e6 * theory.ratio(dbm + 100);
      long errors = Math.max(0, Math.round(expected + Math.sqrt(expected) * random.nextGaussian()));
      search.add(dbm, Quality.ofBits((long) (step.get().seconds() * 1e6), errors, 0, 0));
      step = search.next();
    }
    return search.estimate();
  }

  /** 1,000,000 symbols at 4 samples each. */
  @Benchmark
  public Waveform makeOneMillionSymbols() {
    return new Modulator(qam, 4 * RATE).make(1_000_000);
  }

  /** 10^8 bits of PN23 from bits to errors. */
  @Benchmark
  public long compareHundredMillionBits() {
    return Prbs.errors(Prbs.PN23.matching(received, BITS).orElseThrow(), received, 0, BITS);
  }
}
