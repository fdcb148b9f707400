package rovnik.server.live;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.FloatBuffer;
import java.util.List;
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
 * A spectrum that is shared. What its source is (a receiver, a recording) is up to the subclass;
 * all of them send the same frames.
 */
abstract class LiveSession extends SharedSource {
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
    super(json);
    this.source = source;
    this.settings = settings;
  }

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
    findingId = f == null ? 0 : nextSequence();
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

  @Override
  public LiveState state() {
    return new LiveState(
        nextRevision(),
        source,
        sourceName(),
        phase,
        message,
        field,
        holder().id(),
        holder().name(),
        jobId,
        SettingsDto.of(settings, view),
        widestSpanHz(),
        widestAtOnceHz(),
        levelUnit(),
        overrideReason,
        guided(),
        findingId);
  }

  /** What is measured has changed: an average must not mix before and after. */
  void restartAverage() {}

  protected void stand(Phase newPhase, String newMessage, String newField) {
    phase = newPhase;
    message = newMessage;
    field = newField;
    publishState();
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
            nextSequence(),
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
    lastHeader = header;
    publishFrame(b.array());
  }
}
