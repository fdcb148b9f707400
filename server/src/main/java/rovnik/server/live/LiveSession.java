package rovnik.server.live;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicLong;
import org.springframework.web.socket.TextMessage;
import rovnik.core.spectrum.SpectrumResult;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.server.config.Conflict;
import rovnik.server.live.LiveState.Phase;
import rovnik.server.runs.KeptLook;
import tools.jackson.databind.json.JsonMapper;

/**
 * One source that any number of windows watch and at most one holds. What the source is (a
 * receiver, a recording) is up to the subclass; all of them send the same frames.
 */
abstract class LiveSession {
  /** Who asks: a window's own id and the name that others see. */
  record Client(String id, String name) {
    static final Client NOBODY = new Client("", "");
  }

  private final JsonMapper json;
  private final Set<Watcher> watchers = ConcurrentHashMap.newKeySet();
  private final AtomicLong sequence = new AtomicLong();
  private volatile Client holder = Client.NOBODY;
  private volatile byte[] lastFrame;
  private volatile Frame lastHeader;
  protected final String source;
  protected volatile SpectrumSettings settings;
  protected volatile Long jobId;
  protected volatile Phase phase = Phase.IDLE;
  protected volatile String message = "";
  protected volatile String field = "";
  protected volatile String overrideReason = "";

  LiveSession(String source, SpectrumSettings settings, JsonMapper json) {
    this.source = source;
    this.settings = settings;
    this.json = json;
  }

  abstract String sourceName();

  abstract double widestSpanHz();

  abstract String levelUnit();

  /** Takes new settings, or refuses them and changes nothing. */
  abstract void apply(SpectrumSettings wanted);

  abstract void start(long job, String reason);

  abstract void hold();

  /** Path or limits of the job changed. */
  abstract void jobChanged();

  /** The newest look with its samples, or a {@link Conflict} if there is none. */
  abstract KeptLook look();

  /** Header of the newest frame, or a {@link Conflict} if there is none. */
  Frame newestHeader() {
    Frame header = lastHeader;
    if (header == null) {
      throw Conflict.state("There is no frame yet. Start the acquisition first.");
    }
    return header;
  }

  LiveState state() {
    return new LiveState(
        source,
        sourceName(),
        phase,
        message,
        field,
        holder.id(),
        holder.name(),
        jobId,
        rovnik.server.spectrum.SettingsDto.of(settings),
        widestSpanHz(),
        levelUnit(),
        overrideReason);
  }

  /** Lets the holder through, makes a first comer the holder, refuses everybody else. */
  synchronized void require(Client client) {
    if (holder.id().isEmpty()) {
      holder = client;
    } else if (!holder.id().equals(client.id())) {
      throw Conflict.held(
          sourceName()
              + " is held by "
              + holder.name()
              + ". Watch what it shows, or take it over.");
    }
  }

  synchronized void takeOver(Client client) {
    holder = client;
    publishState();
  }

  void watch(Watcher watcher) {
    watchers.add(watcher);
    watcher.state(stateMessage());
    byte[] frame = lastFrame;
    if (frame != null) {
      watcher.frame(frame);
    }
  }

  /** A window closed; if it held the source, nobody does now. */
  void leave(Watcher watcher) {
    watchers.remove(watcher);
    watcher.close();
    String clientId = watcher.clientId();
    boolean gone = watchers.stream().noneMatch(w -> w.clientId().equals(clientId));
    if (gone && holder.id().equals(clientId)) {
      holder = Client.NOBODY;
      publishState();
    }
    if (watchers.isEmpty()) {
      nobodyWatches();
    }
  }

  /** What is measured has changed: an average must not mix before and after. */
  void restartAverage() {}

  /** Nobody looks any more. */
  void nobodyWatches() {}

  protected void stand(Phase newPhase, String newMessage, String newField) {
    phase = newPhase;
    message = newMessage;
    field = newField;
    publishState();
  }

  void publishState() {
    TextMessage state = stateMessage();
    watchers.forEach(w -> w.state(state));
  }

  private TextMessage stateMessage() {
    return new TextMessage(json.writeValueAsString(state()));
  }

  long nextSequence() {
    return sequence.incrementAndGet();
  }

  /** Sends a frame: header length, JSON header padded to four bytes, levels; little-endian. */
  void publish(Frame header, SpectrumResult result) {
    byte[] text = json.writeValueAsBytes(header);
    int padded = (text.length + 3) / 4 * 4;
    float[] level = result.trace().level();
    ByteBuffer b =
        ByteBuffer.allocate(4 + padded + 4 * level.length).order(ByteOrder.LITTLE_ENDIAN);
    b.putInt(padded).put(text);
    while (b.position() < 4 + padded) {
      b.put((byte) ' ');
    }
    b.asFloatBuffer().put(level);
    lastFrame = b.array();
    lastHeader = header;
    watchers.forEach(w -> w.frame(lastFrame));
  }
}
