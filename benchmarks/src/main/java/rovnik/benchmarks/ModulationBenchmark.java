package rovnik.benchmarks;

import java.util.List;
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
import rovnik.core.modulation.analysis.SingleCarrierMeasurement;
import rovnik.core.modulation.analysis.SingleCarrierSettings;
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

  private SingleCarrier qam;
  private SingleCarrier qpsk;
  private SingleCarrierMeasurement ofQam;
  private SingleCarrierMeasurement ofQpsk;
  private IqRecord qamRecord;
  private IqRecord qpskRecord;
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
    Waveform w =
        new Modulator(c, samplesPerSymbol * RATE).make(symbols).withNoise(35, c.symbolRateHz(), 1);
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
