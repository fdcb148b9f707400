package rovnik.server.watch;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import rovnik.core.watch.WatchPoint;
import rovnik.core.watch.WatchStretch;
import rovnik.server.results.ArrayBlob;
import rovnik.server.watch.WatchMapper.BlobRow;
import rovnik.server.watch.WatchMapper.ChunkRow;
import rovnik.server.watch.WatchMapper.PointRow;

/**
 * Points of watches on disk. The newest lie there one by one; as soon as there are enough they
 * become a chunk, which knows what it came to: so a million points are read as a few thousand.
 */
@Component
public class WatchStore {
  static final int POINTS_OF_CHUNK = 256;

  /** So many points are read one by one; of more, chunks say what they came to. */
  private static final int MOST_SINGLE = 50_000;

  private final WatchMapper mapper;

  WatchStore(WatchMapper mapper) {
    this.mapper = mapper;
  }

  /** Writes points, newer than all before; when this returns they are on disk. */
  @Transactional
  public void write(long id, List<WatchPoint> points) {
    List<WatchPoint> single = points;
    if (points.size() >= POINTS_OF_CHUNK && mapper.countOfPoints(id) == 0) {
      single = chunks(id, points);
    }
    single.forEach(p -> mapper.insertPoint(id, p.atMillis(), bytes(p.packed())));
    if (mapper.countOfPoints(id) >= POINTS_OF_CHUNK) {
      chunks(id, mapper.points(id, 0, Long.MAX_VALUE).stream().map(this::point).toList());
    }
  }

  /** Makes as many whole chunks of points as there are; what is left over comes back. */
  private List<WatchPoint> chunks(long id, List<WatchPoint> points) {
    int from = 0;
    for (; points.size() - from >= POINTS_OF_CHUNK; from += POINTS_OF_CHUNK) {
      chunk(id, points.subList(from, from + POINTS_OF_CHUNK));
    }
    return points.subList(from, points.size());
  }

  private void chunk(long id, List<WatchPoint> points) {
    int width = 1 + points.get(0).packed().length;
    double[] all = new double[width * points.size()];
    for (int k = 0; k < points.size(); k++) {
      WatchPoint p = points.get(k);
      all[k * width] = p.atMillis();
      System.arraycopy(p.packed(), 0, all, k * width + 1, width - 1);
    }
    long last = points.get(points.size() - 1).atMillis();
    mapper.insertChunk(
        id,
        new ChunkRow(
            points.get(0).atMillis(), last, points.size(), bytes(WatchStretch.of(points).packed())),
        ArrayBlob.of(all));
    mapper.deletePoints(id, last);
  }

  /**
   * What a stretch of time came to: point by point, or chunk by chunk where that would be too many.
   * Chunks that reach beyond the stretch are taken apart.
   */
  List<WatchStretch> stretches(long id, long fromMillis, long toMillis) {
    List<ChunkRow> chunks = mapper.chunks(id, fromMillis, toMillis);
    boolean single = chunks.stream().mapToInt(ChunkRow::points).sum() <= MOST_SINGLE;
    List<WatchStretch> out = new ArrayList<>();
    for (ChunkRow c : chunks) {
      if (single || c.firstMillis() < fromMillis || c.lastMillis() > toMillis) {
        points(id, c).stream()
            .filter(p -> p.atMillis() >= fromMillis && p.atMillis() <= toMillis)
            .forEach(p -> out.add(WatchStretch.of(p)));
      } else {
        out.add(WatchStretch.unpacked(doubles(c.stretch())));
      }
    }
    mapper.points(id, fromMillis, toMillis).forEach(p -> out.add(WatchStretch.of(point(p))));
    return out;
  }

  /** All points of a stretch of time, one after the other. */
  void each(long id, long fromMillis, long toMillis, Consumer<WatchPoint> to) {
    for (ChunkRow c : mapper.chunks(id, fromMillis, toMillis)) {
      points(id, c).stream()
          .filter(p -> p.atMillis() >= fromMillis && p.atMillis() <= toMillis)
          .forEach(to);
    }
    mapper.points(id, fromMillis, toMillis).forEach(p -> to.accept(point(p)));
  }

  private List<WatchPoint> points(long id, ChunkRow c) {
    BlobRow b = mapper.blob(id, c.firstMillis());
    double[] all = new ArrayBlob(b.type(), b.numbers(), b.crc32(), b.deflated()).doubles();
    int width = all.length / c.points();
    List<WatchPoint> out = new ArrayList<>(c.points());
    for (int k = 0; k < c.points(); k++) {
      out.add(WatchPoint.unpacked((long) all[k * width], all, k * width + 1, (width - 1) / 4));
    }
    return out;
  }

  private WatchPoint point(PointRow row) {
    double[] packed = doubles(row.numbers());
    return WatchPoint.unpacked(row.atMillis(), packed, 0, packed.length / 4);
  }

  private static byte[] bytes(double[] values) {
    ByteBuffer b = ByteBuffer.allocate(8 * values.length).order(ByteOrder.LITTLE_ENDIAN);
    b.asDoubleBuffer().put(values);
    return b.array();
  }

  private static double[] doubles(byte[] bytes) {
    double[] values = new double[bytes.length / 8];
    ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN).asDoubleBuffer().get(values);
    return values;
  }
}
