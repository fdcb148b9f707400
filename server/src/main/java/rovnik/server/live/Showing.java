package rovnik.server.live;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicLong;
import org.jspecify.annotations.Nullable;
import org.springframework.web.socket.BinaryMessage;
import org.springframework.web.socket.TextMessage;
import rovnik.core.result.Outcome;
import rovnik.core.signal.Sound;
import rovnik.server.config.Conflict;
import rovnik.server.jobs.JobDto;
import rovnik.server.results.FrameBytes;
import rovnik.server.results.OutcomeDto;
import tools.jackson.databind.json.JsonMapper;

/**
 * What a session measured last: sent to windows as frames, read by scripts.
 *
 * @param <S> settings of the measurement
 */
final class Showing<S> {
  /**
   * Header of one frame to the browser; the arrays of its outcome follow it.
   *
   * @param sequence grows by one a frame
   * @param acquiredAtMillis when the newest data was complete
   * @param settled all that the settings ask for is in it
   * @param view what the screen of this kind needs beside the outcome
   */
  @Schema(name = "Frame")
  record Frame(
      String source,
      String measurement,
      long sequence,
      long acquiredAtMillis,
      boolean settled,
      Object settings,
      @Nullable Object view,
      OutcomeDto outcome,
      List<FrameBytes.ArrayHead> arrays) {}

  /** A look with what it was taken with. */
  record Newest<S>(Look look, S settings, JobDto job, long acquiredAtMillis, long sequence) {}

  private final String source;
  private final String kind;
  private final JsonMapper json;

  /** So many windows that went are remembered. */
  private static final int MOST_GONE = 1000;

  private final Set<Watcher> watchers = ConcurrentHashMap.newKeySet();
  private final Set<String> gone = ConcurrentHashMap.newKeySet();
  private final AtomicLong sequence = new AtomicLong();
  private volatile @Nullable Newest<S> newest;

  /** Revision of the state that was told last. */
  private long told;

  /** Samples of sound so far; touched by the instrument's thread only. */
  private long heard;

  Showing(String source, String kind, JsonMapper json) {
    this.source = source;
    this.kind = kind;
    this.json = json;
  }

  /** A window comes, and gets the newest look there is; the state is told to it as to all. */
  void watch(Watcher watcher) {
    watchers.add(watcher);
    gone.remove(watcher.clientId());
    Newest<S> n = newest;
    if (n != null) {
      watcher.firstFrame(frame(n));
    }
  }

  /** A window goes; true if its client has no other one. */
  boolean leave(Watcher watcher) {
    watchers.remove(watcher);
    watcher.close();
    boolean last = watchers.stream().noneMatch(w -> w.clientId().equals(watcher.clientId()));
    if (last) {
      if (gone.size() >= MOST_GONE) {
        gone.clear();
      }
      gone.add(watcher.clientId());
    }
    return last;
  }

  /** True if the windows of this client have all gone. */
  boolean gone(String clientId) {
    return gone.contains(clientId);
  }

  boolean watched() {
    return !watchers.isEmpty();
  }

  /** Tells all windows; of two states that are told at once the newer one stays. */
  synchronized void state(SessionState state) {
    if (state.revision() > told) {
      told = state.revision();
      TextMessage message = new TextMessage(json.writeValueAsString(state));
      watchers.forEach(w -> w.state(message));
    }
  }

  /** A number for a look or a finding, larger than all before. */
  long number() {
    return sequence.incrementAndGet();
  }

  /** Takes a look that is too early to be sent. */
  void note(Look look, S with, JobDto of, long acquiredAtMillis) {
    newest = new Newest<>(look, with, of, acquiredAtMillis, sequence.get());
  }

  /** Takes a look and sends it to all windows. */
  void publish(Look look, S with, JobDto of, long acquiredAtMillis) {
    Newest<S> n = new Newest<>(look, with, of, acquiredAtMillis, number());
    newest = n;
    if (watched()) {
      byte[] frame = frame(n);
      watchers.forEach(w -> w.frame(frame));
    }
  }

  /** Null if nothing was measured yet. */
  @Nullable Newest<S> peek() {
    return newest;
  }

  /** The newest look, or a {@link Conflict} if there is none. */
  Newest<S> newest() {
    Newest<S> n = newest;
    if (n == null) {
      throw Conflict.state("Nothing was measured yet. Start the measurement first.");
    }
    return n;
  }

  /**
   * Header of a piece of sound; the samples follow it. Pieces follow one another without a gap
   * while {@code first} says so.
   *
   * @param lane always "sound": a frame has none
   * @param rateHz samples a second
   * @param first number of its first sample since the session began
   */
  @Schema(name = "SoundPiece")
  record SoundPiece(String lane, double rateHz, long first, List<FrameBytes.ArrayHead> arrays) {}

  /** Sends what is heard to the windows that want it, all of it and in its order. */
  void sound(Sound piece) {
    long first = heard;
    heard += piece.samples().length;
    List<Watcher> listeners = watchers.stream().filter(Watcher::listens).toList();
    if (piece.samples().length > 0 && !listeners.isEmpty()) {
      byte[] message =
          FrameBytes.of(
              json,
              "sound",
              piece.samples(),
              arrays -> new SoundPiece("sound", piece.rateHz(), first, arrays));
      listeners.forEach(w -> w.ordered(new BinaryMessage(message)));
    }
  }

  private byte[] frame(Newest<S> n) {
    Outcome outcome = n.look().shown();
    return FrameBytes.of(
        json,
        outcome,
        arrays ->
            new Frame(
                source,
                kind,
                n.sequence(),
                n.acquiredAtMillis(),
                n.look().settled(),
                n.settings(),
                n.look().view(),
                OutcomeDto.head(outcome),
                arrays));
  }
}
