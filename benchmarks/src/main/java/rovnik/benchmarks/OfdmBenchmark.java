package rovnik.benchmarks;

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
import rovnik.core.modulation.ofdm.LegacyRate;
import rovnik.core.modulation.ofdm.OfdmDescription;
import rovnik.core.modulation.ofdm.OfdmMeasurement;
import rovnik.core.modulation.ofdm.OfdmSettings;
import rovnik.core.modulation.ofdm.PacketFormat;
import rovnik.core.modulation.ofdm.ReadyDescriptions;
import rovnik.core.modulation.ofdm.UserPacket;
import rovnik.core.modulation.wave.FramePart;
import rovnik.core.modulation.wave.PacketPart;
import rovnik.core.result.Outcome;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;

/** OFDM packets from samples to all readings, and made, in milliseconds. */
@State(Scope.Thread)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
@Fork(1)
public class OfdmBenchmark {
  private static final double CHANNEL_HZ = 20e6;
  private static final double RATE_HZ = 40e6;
  private static final int MANY = 100;
  private static final int EHT_BYTES = 78_000;

  private final OfdmMeasurement measurement =
      new OfdmMeasurement(
          new OfdmSettings(
              0, CHANNEL_HZ, 0.1, 0, 1, OfdmSettings.Estimate.TRAINING, true, false, null));
  private final PacketPart short16 = new PacketPart(LegacyRate.R54, 400, 1e-4, CHANNEL_HZ);
  private final OfdmDescription cellular = ReadyDescriptions.all().get(0);
  private final OfdmDescription wide = ReadyDescriptions.all().get(1);
  private final OfdmMeasurement cellularMeasurement = measuring(cellular);
  private final OfdmMeasurement wideMeasurement = measuring(wide);
  private static final double WIDE_HZ = 320e6;
  private final UserPacket eht = eht();
  private final OfdmMeasurement widest =
      new OfdmMeasurement(
          new OfdmSettings(
              0, WIDE_HZ, 0.1, 0, 1, OfdmSettings.Estimate.TRAINING, true, false, null));
  private IqRecord ehtRecord;
  private IqRecord one;
  private IqRecord subframe;
  private IqRecord wideFrame;
  private IqRecord many;

  @Setup
  public void make() {
    double[] packet = new PacketPart(eht, EHT_BYTES, 400e-6, WIDE_HZ).make(256_000, 2 * WIDE_HZ);
    ehtRecord = record(packet, 2 * WIDE_HZ);
    one = record(1);
    many = record(MANY);
    subframe = frame(cellular, 1.1e-3);
    wideFrame = frame(wide, 20e-6);
  }

  /** 16 symbols of 4096-QAM 5/6. */
  private static UserPacket eht() {
    return UserPacket.of(PacketFormat.EHT, WIDE_HZ, 13, 2, EHT_BYTES);
  }

  private static OfdmMeasurement measuring(OfdmDescription d) {
    return new OfdmMeasurement(
        new OfdmSettings(0, CHANNEL_HZ, 0.1, 0, 1, OfdmSettings.Estimate.TRAINING, true, false, d));
  }

  /** A frame at the rate of its transform. */
  private static IqRecord frame(OfdmDescription d, double seconds) {
    double rate = d.rateHz();
    return record(new FramePart(d, seconds, 1).make((int) (seconds * rate), rate), rate);
  }

  private IqRecord record(int packets) {
    return record(short16.make((int) (packets * 1e-4 * RATE_HZ), RATE_HZ), RATE_HZ);
  }

  private static IqRecord record(double[] x, double rateHz) {
    float[] iq = new float[x.length];
    for (int i = 0; i < x.length; i++) {
      iq[i] = (float) (0.1 * x[i]);
    }
    return new IqRecord(iq, rateHz, 5.5e9, 0, false);
  }

  /** 400 bytes at 54 Mbit/s: 16 symbols with data. */
  @Benchmark
  public Outcome onePacket() {
    return measurement.of(one, MeasurementContext.BARE);
  }

  /** A hundred of them in one record. */
  @Benchmark
  public Outcome hundredPackets() {
    return measurement.of(many, MeasurementContext.BARE);
  }

  /** A subframe by description: 14 symbols of 1,200 tones, 64-QAM, at 30.72 MS/s. */
  @Benchmark
  public Outcome describedSubframe() {
    return cellularMeasurement.of(subframe, MeasurementContext.BARE);
  }

  /** 700 MHz by description: 16 symbols of 560 tones, 256-QAM, at 1.28 GS/s. */
  @Benchmark
  public Outcome describedWide() {
    return wideMeasurement.of(wideFrame, MeasurementContext.BARE);
  }

  /** One is made at 40 MS/s. */
  @Benchmark
  public double[] made() {
    return short16.make(4000, RATE_HZ);
  }

  /** EHT in 320 MHz: found, read, all readings and views. */
  @Benchmark
  public Outcome widestPacket() {
    return widest.of(ehtRecord, MeasurementContext.BARE);
  }

  @Benchmark
  public float[] widestMade() {
    return eht.samples(new byte[EHT_BYTES], 1, 2);
  }
}
