package rovnik.server.live;

import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicLong;
import org.springframework.web.socket.TextMessage;
import rovnik.server.config.Conflict;
import tools.jackson.databind.json.JsonMapper;

/** A source that any number of windows watch and at most one holds. */
public abstract class SharedSource {
  /** Who asks: a window's own id and the name that others see. */
  public record Client(String id, String name) {
    /** Header that carries the client. */
    static final String HEADER = "X-Rovnik-Client";

    static final Client NOBODY = new Client("", "");

    /** "id|name"; a script that sends none is the client "script". */
    public static Client of(String header) {
      if (header == null || header.isBlank()) {
        return new Client("script", "a script");
      }
      String[] parts =
          java.net.URLDecoder.decode(header, java.nio.charset.StandardCharsets.UTF_8)
              .split("\\|", 2);
      return new Client(parts[0], parts.length > 1 ? parts[1] : "another window");
    }
  }

  protected final JsonMapper json;
  private final Set<Watcher> watchers = ConcurrentHashMap.newKeySet();
  private final AtomicLong sequence = new AtomicLong();

  /**
   * Orders states; begins at the time, so that a new server's states are newer than an old one's.
   */
  private final AtomicLong revision = new AtomicLong(System.currentTimeMillis() * 1000);

  private volatile Client holder = Client.NOBODY;
  private volatile byte[] lastFrame;

  protected SharedSource(JsonMapper json) {
    this.json = json;
  }

  /** Name as shown. */
  protected abstract String sourceName();

  /** The state as it is sent; its revision is from {@link #nextRevision}. */
  public abstract Object state();

  /** Nobody looks any more. */
  protected void nobodyWatches() {}

  protected long nextRevision() {
    return revision.incrementAndGet();
  }

  protected long nextSequence() {
    return sequence.incrementAndGet();
  }

  protected Client holder() {
    return holder;
  }

  /** Lets the holder through, makes a first comer the holder, refuses everybody else. */
  public synchronized void require(Client client) {
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

  public synchronized void takeOver(Client client) {
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

  protected void publishState() {
    TextMessage state = stateMessage();
    watchers.forEach(w -> w.state(state));
  }

  private TextMessage stateMessage() {
    return new TextMessage(json.writeValueAsString(state()));
  }

  protected void publishFrame(byte[] frame) {
    lastFrame = frame;
    watchers.forEach(w -> w.frame(frame));
  }
}
