package rovnik.server.live;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.FloatBuffer;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicLong;
import org.springframework.web.socket.TextMessage;
import rovnik.core.emission.EmissionResult;
import rovnik.core.emission.ViewPlan;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.spectrum.Trace;
import rovnik.server.config.Conflict;
import rovnik.server.live.LiveState.Phase;
import rovnik.server.runs.KeptLook;
import rovnik.server.spectrum.ReadingDto;
import rovnik.server.spectrum.SettingsDto;
import rovnik.server.spectrum.TableDto;
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

  /**
   * Orders states; begins at the time, so that a new server's states are newer than an old one's.
   */
  private final AtomicLong revision = new AtomicLong(System.currentTimeMillis() * 1000);

  private volatile Client holder = Client.NOBODY;
  private volatile byte[] lastFrame;
  private volatile Frame lastHeader;
  protected final String source;
  protected volatile SpectrumSettings settings;
  protected volatile ViewPlan view = ViewPlan.PLAIN;
  protected volatile Long jobId;
  protected volatile Phase phase = Phase.IDLE;
  protected volatile String message = "";
  protected volatile String field = "";
  protected volatile String overrideReason = "";
  protected volatile Finding finding;
  private volatile long findingId;

  LiveSession(String source, SpectrumSettings settings, JsonMapper json) {
    this.source = source;
    this.settings = settings;
    this.json = json;
  }

  abstract String sourceName();

  abstract double widestSpanHz();

  /** Widest span of a single record; wider ones are stitched. */
  double widestAtOnceHz() {
    return widestSpanHz();
  }

  abstract String levelUnit();

  /** Takes new settings, or refuses them and changes nothing. */
  abstract void apply(SpectrumSettings wanted, ViewPlan wantedView);

  abstract void start(long job, String reason);

  abstract void hold();

  /** Path or limits of the job changed. */
  abstract void jobChanged();

  /** The newest look with its samples, or a {@link Conflict} if there is none. */
  abstract KeptLook look();

  /** Starts guided work, or refuses it. */
  void startGuided(Guided work, long job, String reason) {
    throw Conflict.state("A recording stands still: guided work needs a receiver.");
  }

  /** Stops guided work; what it found so far stays. */
  void stopGuided() {}

  /** How far guided work is, null if there is none. */
  GuidedProgress guided() {
    return null;
  }

  /** The newest finding, or a {@link Conflict} if there is none. */
  FindingDto finding() {
    Finding f = finding;
    if (f == null) {
      throw Conflict.state("Nothing was found yet. Start guided work first.");
    }
    return FindingDto.of(findingId, f);
  }

  protected void found(Finding f) {
    finding = f;
    findingId = f == null ? 0 : sequence.incrementAndGet();
  }

  /** The newest finding as a look to keep. */
  KeptLook findingLook() {
    throw Conflict.state("There is no finding to keep.");
  }

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
        revision.incrementAndGet(),
        source,
        sourceName(),
        phase,
        message,
        field,
        holder.id(),
        holder.name(),
        jobId,
        SettingsDto.of(settings, view),
        widestSpanHz(),
        widestAtOnceHz(),
        levelUnit(),
        overrideReason,
        guided(),
        findingId);
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

  /** Sends a look with fewer points if there are more than the view wants. */
  void publish(Look look, Setting setting, long acquiredAtMillis) {
    ViewPlan plan = setting.view();
    EmissionResult shown = plan.display().of(look.result());
    Trace whole = look.result().base().trace();
    Trace main = plan.display().of(plan.reducer().reduce(whole, plan.mostPoints()));
    List<Trace> rows =
        look.rows().stream()
            .map(r -> plan.display().of(plan.reducer().reduce(r.trace(), plan.mostPoints())))
            .toList();
    double reference = setting.settings().referenceLevelDbm();
    Look.Facts facts = look.facts();
    publish(
        new Frame(
            source,
            sequence.incrementAndGet(),
            acquiredAtMillis,
            SettingsDto.of(setting.settings(), plan),
            main.startHz(),
            main.stepHz(),
            main.points(),
            main.unit(),
            main.plane(),
            main.rbwHz(),
            main.enbwHz(),
            main.segments(),
            facts.fftLength(),
            facts.sampleRateHz(),
            facts.recordSeconds(),
            facts.attenuationDb(),
            look.marks(),
            shown.base().peaks(),
            shown.readings().stream().map(ReadingDto::of).toList(),
            look.rows().stream().map(Look.Row::label).toList(),
            shown.tables().stream().map(TableDto::of).toList(),
            shown.limitLines(),
            look.progress(),
            look.remainingSeconds(),
            look.spoiled(),
            whole.unit().equals("dBm") ? plan.display().of(reference) : reference,
            !main.unit().startsWith("dB")),
        main,
        rows);
  }

  /**
   * Sends a frame: header length, JSON header padded to four bytes, levels of the main trace and of
   * the rows; little-endian.
   */
  private void publish(Frame header, Trace main, List<Trace> rows) {
    byte[] text = json.writeValueAsBytes(header);
    int padded = (text.length + 3) / 4 * 4;
    int levels = main.points() * (1 + rows.size());
    ByteBuffer b = ByteBuffer.allocate(4 + padded + 4 * levels).order(ByteOrder.LITTLE_ENDIAN);
    b.putInt(padded).put(text);
    while (b.position() < 4 + padded) {
      b.put((byte) ' ');
    }
    FloatBuffer floats = b.asFloatBuffer();
    floats.put(main.level());
    rows.forEach(r -> floats.put(r.level()));
    lastFrame = b.array();
    lastHeader = header;
    watchers.forEach(w -> w.frame(lastFrame));
  }
}
