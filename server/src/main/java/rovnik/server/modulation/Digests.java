package rovnik.server.modulation;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.stream.LongStream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import rovnik.core.modulation.Digesting;
import rovnik.core.modulation.Digesting.Digest;
import rovnik.server.recordings.RecordingService;

/**
 * Digests of recordings, kept while there is room, so that another look need not read them again.
 */
@Component
class Digests {
  private static final long MOST_BYTES = 160L << 20;
  private static final int TOGETHER = 8;

  private final RecordingService recordings;
  private final Map<Place, Digest> kept = new LinkedHashMap<>(16, 0.75f, true);
  private long bytes;

  /** A part of a recording, digested in a way. */
  private record Place(long recording, Object key, long part) {}

  Digests(RecordingService recordings) {
    this.recordings = recordings;
    recordings.onRemove(this::forget);
  }

  /** Puts a stretch of a recording together from digests of its parts. */
  void gather(long recording, Digesting of, long first, long end) {
    long samples = of.partSamples();
    long last = (end - 1) / samples;
    long from = first / samples;
    // Few parts are made at once: each needs its samples in memory.
    for (long part = from; part <= last; part += TOGETHER) {
      long to = Math.min(last, part + TOGETHER - 1);
      Digest[] made =
          LongStream.rangeClosed(part, to)
              .parallel()
              .mapToObj(p -> digest(new Place(recording, of.key(), p), of))
              .toArray(Digest[]::new);
      for (int i = 0; i < made.length; i++) {
        of.take(made[i], part + i == last);
      }
    }
  }

  private Digest digest(Place place, Digesting of) {
    Digest known = known(place);
    if (known != null) {
      return known;
    }
    long samples = of.partSamples();
    Digest made =
        of.of(
            recordings.record(place.recording, place.part * samples, samples + of.beyondSamples()));
    keep(place, made);
    return made;
  }

  private synchronized @Nullable Digest known(Place place) {
    return kept.get(place);
  }

  private synchronized void keep(Place place, Digest made) {
    Digest before = kept.put(place, made);
    bytes += made.bytes() - (before == null ? 0 : before.bytes());
    var oldest = kept.entrySet().iterator();
    while (bytes > MOST_BYTES && oldest.hasNext()) {
      bytes -= oldest.next().getValue().bytes();
      oldest.remove();
    }
  }

  private synchronized void forget(long recording) {
    kept.entrySet()
        .removeIf(
            e -> {
              boolean gone = e.getKey().recording == recording;
              bytes -= gone ? e.getValue().bytes() : 0;
              return gone;
            });
  }
}
