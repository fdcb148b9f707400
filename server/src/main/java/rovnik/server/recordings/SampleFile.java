package rovnik.server.recordings;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import rovnik.core.formats.SampleFormat;
import rovnik.core.signal.SampleSource;

/** Samples of a data file, decoded block by block; the file is never loaded whole. */
final class SampleFile implements SampleSource, AutoCloseable {
  private final FileChannel channel;
  private final SampleFormat format;
  private ByteBuffer buffer = ByteBuffer.allocate(0);

  SampleFile(Path file, SampleFormat format) {
    this(file, format, 0);
  }

  /**
   * @param first sample to begin at
   */
  SampleFile(Path file, SampleFormat format, long first) {
    try {
      this.channel = FileChannel.open(file, StandardOpenOption.READ);
      channel.position(first * format.bytesPerSample());
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    this.format = format;
  }

  @Override
  public int read(float[] iq, int mostSamples) {
    int bytes = mostSamples * format.bytesPerSample();
    if (buffer.capacity() < bytes) {
      buffer = ByteBuffer.allocate(bytes);
    }
    buffer.clear().limit(bytes);
    try {
      while (buffer.hasRemaining() && channel.read(buffer) >= 0) {
        // until full or at the end
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    buffer.flip();
    int samples = buffer.remaining() / format.bytesPerSample();
    format.decode(buffer, iq, samples);
    return samples;
  }

  @Override
  public void close() {
    try {
      channel.close();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
