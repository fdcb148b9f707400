package rovnik.server.recordings;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Iterator;
import org.jspecify.annotations.Nullable;

/**
 * The newest samples of a stream, on disk, by their numbers. One thread appends; others read what
 * is held meanwhile, and are told when it is overwritten under their hands. The file has no name:
 * it goes with the process.
 */
public final class SampleRing implements AutoCloseable {
  /** Interleaved 32-bit floats. */
  private static final int BYTES = 8;

  /** So much is read at once. */
  private static final int READ_BYTES = 1 << 20;

  /** More seams than this are forgotten, with what lies before them. */
  private static final int MOST_SEAMS = 100_000;

  private final FileChannel channel;
  private final long capacity;
  private final Deque<Seam> seams = new ArrayDeque<>();

  /** Positions from and to which the converter was overloaded. */
  private final Deque<long[]> overloads = new ArrayDeque<>();

  private ByteBuffer buffer = ByteBuffer.allocateDirect(0);
  private long written;

  /** From a position on samples lie one after the other, with these numbers. */
  private record Seam(long position, long number) {}

  /**
   * Samples without a gap.
   *
   * @param first number of the first
   * @param position of the first, counted from when the ring was made
   * @param overload the converter was overloaded in a block that it is of
   */
  public record Stretch(long first, long samples, long position, boolean overload) {}

  SampleRing(Path file, long capacity) {
    this.capacity = capacity;
    try {
      channel =
          FileChannel.open(
              file,
              StandardOpenOption.CREATE_NEW,
              StandardOpenOption.READ,
              StandardOpenOption.WRITE,
              StandardOpenOption.DELETE_ON_CLOSE);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  static long bytes(long samples) {
    return samples * BYTES;
  }

  /** Samples that fit. */
  public long capacity() {
    return capacity;
  }

  /**
   * Appends samples, in place of the oldest.
   *
   * @param number of the first; where it does not follow the last one, samples are missing
   * @param overload the converter was overloaded among them
   */
  public void append(float[] iq, long number, boolean overload) throws IOException {
    int samples = iq.length / 2;
    if (buffer.capacity() < samples * BYTES) {
      buffer = ByteBuffer.allocateDirect(samples * BYTES).order(ByteOrder.LITTLE_ENDIAN);
    }
    buffer.clear();
    buffer.asFloatBuffer().put(iq);
    buffer.limit(samples * BYTES);
    long position = written();
    while (buffer.hasRemaining()) {
      long at = (position * BYTES + buffer.position()) % (capacity * BYTES);
      int end = buffer.limit();
      buffer.limit((int) Math.min(end, buffer.position() + capacity * BYTES - at));
      channel.write(buffer, at);
      buffer.limit(end);
    }
    appended(number, samples, overload);
  }

  private synchronized long written() {
    return written;
  }

  private synchronized void appended(long number, int samples, boolean overload) {
    if (overload) {
      overloaded(written, written + samples);
    }
    Seam last = seams.peekLast();
    if (last == null || last.number() + written - last.position() != number) {
      if (last != null && number < last.number()) {
        seams.clear(); // the stream began anew
      }
      seams.addLast(new Seam(written, number));
    }
    written += samples;
    while (seams.size() > 1 && (second().position() <= oldest() || seams.size() > MOST_SEAMS)) {
      seams.removeFirst();
    }
    while (!overloads.isEmpty() && overloads.peekFirst()[1] <= oldest()) {
      overloads.removeFirst();
    }
  }

  private void overloaded(long from, long to) {
    long[] last = overloads.peekLast();
    if (last != null && (last[1] == from || overloads.size() > MOST_SEAMS)) {
      last[1] = to;
    } else {
      overloads.addLast(new long[] {from, to});
    }
  }

  private Stretch stretch(long first, long samples, long position) {
    boolean overload =
        overloads.stream().anyMatch(o -> o[0] < position + samples && o[1] > position);
    return new Stretch(first, samples, position, overload);
  }

  private Seam second() {
    Iterator<Seam> all = seams.iterator();
    all.next();
    return all.next();
  }

  /** Position of the oldest sample that is held. */
  private long oldest() {
    return Math.max(0, written - capacity);
  }

  /** What lies without a gap around a sample, in a range of numbers; null if it is not held. */
  public synchronized @Nullable Stretch around(long sample, long from, long to) {
    long end = written;
    Iterator<Seam> newestFirst = seams.descendingIterator();
    while (newestFirst.hasNext()) {
      Seam s = newestFirst.next();
      long begin = Math.max(s.position(), oldest());
      long first = s.number() + begin - s.position();
      long last = s.number() + end - s.position(); // one after it
      if (sample >= first && sample < last) {
        long low = Math.max(first, from);
        long high = Math.min(last, to);
        return stretch(low, high - low, begin + low - first);
      }
      end = s.position();
    }
    return null;
  }

  /** The newest samples without a gap, at most so many; null if there are none. */
  public synchronized @Nullable Stretch newest(long most) {
    Seam last = seams.peekLast();
    if (last == null || written == 0) {
      return null;
    }
    long end = last.number() + written - last.position();
    return around(end - 1, end - most, end);
  }

  /** Samples of a stretch, as a file has them; reading fails once they are overwritten. */
  public InputStream read(Stretch stretch) {
    return new Reading(stretch);
  }

  /** Reads in large pieces: each is checked after it was read. */
  private final class Reading extends InputStream {
    private final ByteBuffer piece = ByteBuffer.allocate(READ_BYTES).limit(0);
    private final long endByte;
    private long at;

    Reading(Stretch s) {
      at = s.position() * BYTES;
      endByte = at + s.samples() * BYTES;
    }

    @Override
    public int read() throws IOException {
      return piece.hasRemaining() || fill() ? piece.get() & 0xff : -1;
    }

    @Override
    public int read(byte[] into, int from, int length) throws IOException {
      if (!piece.hasRemaining() && !fill()) {
        return -1;
      }
      int now = Math.min(length, piece.remaining());
      piece.get(into, from, now);
      return now;
    }

    private boolean fill() throws IOException {
      if (at >= endByte) {
        return false;
      }
      piece.clear().limit((int) Math.min(READ_BYTES, endByte - at));
      long first = at;
      while (piece.hasRemaining()) {
        long place = (first + piece.position()) % (capacity * BYTES);
        int limit = piece.limit();
        piece.limit((int) Math.min(limit, piece.position() + capacity * BYTES - place));
        if (channel.read(piece, place) < 0) {
          throw new IOException("the ring ends too early");
        }
        piece.limit(limit);
      }
      if (oldestByte() > first) {
        throw new IOException("newer samples took their place; make the ring longer");
      }
      at += piece.limit();
      piece.flip();
      return true;
    }

    private long oldestByte() {
      synchronized (SampleRing.this) {
        return oldest() * BYTES;
      }
    }
  }

  @Override
  public void close() throws IOException {
    channel.close();
  }
}
