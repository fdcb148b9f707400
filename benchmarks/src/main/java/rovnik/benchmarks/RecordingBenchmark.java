package rovnik.benchmarks;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
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
import org.openjdk.jmh.annotations.TearDown;
import org.openjdk.jmh.annotations.Warmup;
import rovnik.core.formats.SampleFormat;
import rovnik.core.signal.SampleSource;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.Detector;
import rovnik.core.spectrum.RecordSpectrum;
import rovnik.core.spectrum.SpectrumLayout;
import rovnik.core.spectrum.SpectrumSettings;

/** Spectrum of a recording of 1 GiB on disk, read in blocks: samples a second. */
@State(Scope.Thread)
@BenchmarkMode(Mode.Throughput)
@OutputTimeUnit(TimeUnit.SECONDS)
@Warmup(iterations = 1, time = 1)
@Measurement(iterations = 3, time = 1)
@Fork(
    value = 1,
    jvmArgsAppend = {"--add-modules=jdk.incubator.vector", "-Xmx300m"})
public class RecordingBenchmark {
  private static final int SAMPLES = 1 << 27;

  @Param({"1", "2"})
  public int cores;

  private Path file;
  private SpectrumLayout layout;
  private SpectrumSettings settings;

  /** Writes the file. */
  @Setup
  public void setUp() throws IOException {
    file = Files.createTempFile("rovnik-bench", ".sigmf-data");
    file.toFile().deleteOnExit();
    Random random = new Random(1);
    ByteBuffer block = ByteBuffer.allocate(1 << 23).order(ByteOrder.LITTLE_ENDIAN);
    while (block.hasRemaining()) {
      block.putFloat((float) random.nextGaussian() * 0.1f);
    }
    try (FileChannel out = FileChannel.open(file, StandardOpenOption.WRITE)) {
      for (int i = 0; i < 8 * (SAMPLES >> 23); i++) {
        out.write(block.flip());
      }
    }
    layout = SpectrumLayout.ofLength(1e8, 0, 1e8, Window.HANN, 4096);
    settings = new SpectrumSettings(0, 1e8, 0, Window.HANN, Detector.RMS, 1_000_000, 0, 1e6);
  }

  @TearDown
  public void tearDown() throws IOException {
    Files.delete(file);
  }

  /** A source of the file's samples from one on. */
  private static final class Source implements SampleSource, AutoCloseable {
    private final FileChannel channel;
    private final ByteBuffer buffer = ByteBuffer.allocateDirect(1 << 19);

    Source(Path file, long first) {
      try {
        channel = FileChannel.open(file);
        channel.position(8 * first);
      } catch (IOException e) {
        throw new UncheckedIOException(e);
      }
    }

    @Override
    public int read(float[] iq, int most) {
      try {
        buffer.clear().limit(Math.min(buffer.capacity(), 8 * most));
        while (buffer.hasRemaining() && channel.read(buffer) >= 0) {
          // until full or at the end
        }
        buffer.flip();
        int samples = buffer.remaining() / 8;
        SampleFormat.CF32_LE.decode(buffer, iq, samples);
        return samples;
      } catch (IOException e) {
        throw new UncheckedIOException(e);
      }
    }

    @Override
    public void close() throws IOException {
      channel.close();
    }
  }

  /** The whole recording. */
  @Benchmark
  @OperationsPerInvocation(SAMPLES)
  public int wholeRecording() {
    return RecordSpectrum.estimate(
            first -> new Source(file, first), SAMPLES, layout, settings, cores)
        .segments();
  }
}
