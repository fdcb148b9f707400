package rovnik.server.modulation;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.FileSystemResource;
import org.springframework.core.io.Resource;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import rovnik.core.Refusal;
import rovnik.core.modulation.Waveform;
import rovnik.core.modulation.wave.WaveformLook;
import rovnik.core.path.SourceLevel;
import rovnik.core.units.Frequency;
import rovnik.instruments.source.GeneratorCapabilities;
import rovnik.instruments.source.KnownWaveform;
import rovnik.instruments.source.SignalGenerator;
import rovnik.server.bench.BenchService;
import rovnik.server.bench.InstrumentDto;
import rovnik.server.jobs.JobDto;
import rovnik.server.jobs.JobService;
import rovnik.server.jobs.LevelPlanDto;
import rovnik.server.live.Client;
import rovnik.server.live.Sessions;
import rovnik.server.recordings.RecordingDto;
import rovnik.server.recordings.RecordingService;
import rovnik.server.results.OutcomeDto;

/** Waveforms, what they will be like, and the generators that play them. */
@RestController
@RequestMapping("/api")
class WaveformController {
  private final Waveforms waveforms;
  private final RecordingService recordings;
  private final BenchService bench;
  private final JobService jobs;
  private final Sessions sessions;

  WaveformController(
      Waveforms waveforms,
      RecordingService recordings,
      BenchService bench,
      JobService jobs,
      Sessions sessions) {
    this.waveforms = waveforms;
    this.recordings = recordings;
    this.bench = bench;
    this.jobs = jobs;
    this.sessions = sessions;
  }

  /**
   * A waveform that was made. Its samples are scaled so that the highest is 1.
   *
   * @param id of the waveform; its samples can be measured as those of the recording with this id
   * @param crestDb highest over mean power
   * @param meanDbfs mean power of the scaled samples
   * @param seamless true if its end goes on with its beginning
   * @param note what must be said of it, "" for nothing
   */
  @Schema(name = "Waveform")
  record Made(
      long id,
      String name,
      double sampleRateHz,
      long samples,
      double seconds,
      double crestDb,
      double meanDbfs,
      boolean seamless,
      String note) {}

  /**
   * What a waveform would be like.
   *
   * @param plan mean levels and headroom of the peaks along the job's path, null without a job
   */
  @Schema(name = "WaveformPreview")
  record Preview(OutcomeDto outcome, @Nullable LevelPlanDto plan) {}

  /**
   * A waveform to look at.
   *
   * @param jobId whose path it would go through, null for none
   * @param levelDbm mean level at its source, null for what the source says
   */
  @Schema(name = "WaveformPreviewRequest")
  record PreviewRequest(
      WaveformRequest waveform, @Nullable Long jobId, @Nullable Double levelDbm) {}

  /**
   * A waveform to play.
   *
   * @param playbackRateHz null for the rate that it was made for
   * @param output "third" for the third baseband output, in step with what is played; null for the
   *     carrier
   * @param jobId the job that the generator works for; null for those that are measured now
   * @param overrideReason why power shall flow although the level plan says no
   */
  @Schema(name = "Playing")
  record Play(
      long waveformId,
      @Nullable Double playbackRateHz,
      @Nullable String output,
      @Nullable Long jobId,
      @Nullable String overrideReason) {}

  /** All waveforms, newest first. */
  @GetMapping("/waveforms")
  List<RecordingDto> all() {
    return waveforms.all();
  }

  @PostMapping("/waveforms")
  @ResponseStatus(HttpStatus.CREATED)
  Made make(@RequestBody WaveformRequest r) {
    Waveforms.Made made = waveforms.make(r);
    Waveform w = made.waveform();
    RecordingDto kept = waveforms.keep(r, made);
    double crest = w.crestDb();
    return new Made(
        kept.id(),
        kept.name(),
        w.sampleRateHz(),
        kept.samples(),
        kept.seconds(),
        crest,
        -crest,
        w.seamless(),
        w.note());
  }

  /** What it would be like; nothing is stored. */
  @PostMapping("/waveforms/preview")
  Preview preview(@RequestBody PreviewRequest r) {
    if (r.waveform() == null) {
      throw new Refusal("waveform", "Describe the waveform.");
    }
    Waveforms.Made made = waveforms.make(r.waveform());
    LevelPlanDto plan = null;
    if (r.jobId() != null) {
      JobDto job = jobs.find(r.jobId());
      double level = r.levelDbm() == null ? bench.sourceLevel(job).meanDbm() : r.levelDbm();
      plan =
          jobs.planDto(bench.asItIs(job), new SourceLevel(level, made.waveform().crestDb(), true));
    }
    return new Preview(OutcomeDto.whole(WaveformLook.of(made.waveform(), made.words())), plan);
  }

  @DeleteMapping("/waveforms/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void remove(@PathVariable long id) {
    waveforms.remove(id);
  }

  @GetMapping("/waveforms/{id}/sigmf-meta")
  ResponseEntity<byte[]> meta(@PathVariable long id) {
    return file(id, ".sigmf-meta", MediaType.APPLICATION_JSON).body(recordings.metaJson(id));
  }

  @GetMapping("/waveforms/{id}/sigmf-data")
  ResponseEntity<Resource> data(@PathVariable long id) {
    return file(id, ".sigmf-data", MediaType.APPLICATION_OCTET_STREAM)
        .body(new FileSystemResource(recordings.dataFile(id)));
  }

  private ResponseEntity.BodyBuilder file(long id, String ending, MediaType type) {
    String name = waveforms.find(id).name().replaceAll("[^\\w .+-]", "_");
    return ResponseEntity.ok()
        .headers(
            h ->
                h.setContentDisposition(
                    ContentDisposition.attachment().filename(name + ending).build()))
        .contentType(type);
  }

  /** Sends a waveform to a generator and plays it; the gate is asked if its output is on. */
  @PostMapping("/instruments/{id}/play")
  InstrumentDto play(@PathVariable long id, Client client, @RequestBody Play p) {
    GeneratorCapabilities can = bench.generatorCapabilities(id);
    waveforms.find(p.waveformId());
    KnownWaveform w = waveforms.known(p.waveformId()).orElseThrow();
    double rate = p.playbackRateHz() == null ? w.rateHz() : p.playbackRateHz();
    if (!(rate >= can.slowestRateHz() && rate <= can.fastestRateHz())) {
      throw new Refusal(
          "playbackRateHz",
          "The generator plays "
              + Frequency.ofHertz(can.slowestRateHz())
              + " to "
              + Frequency.ofHertz(can.fastestRateHz())
              + "; make the waveform for a rate within that.");
    }
    boolean third = "third".equals(p.output());
    if (p.output() != null && !third) {
      throw new Refusal("output", "Send it to \"third\", or leave output out for the carrier.");
    }
    bench.load(id, w, waveforms.samples(p.waveformId()));
    Map<String, String> values = new LinkedHashMap<>();
    if (third) {
      values.put(SignalGenerator.THIRD, Long.toString(w.id())); // the clock is that of the carrier
    } else {
      values.put(SignalGenerator.RATE, Double.toString(rate));
      values.put(SignalGenerator.SIGNAL, Long.toString(w.id()));
    }
    sessions.control(id, values, p.jobId(), p.overrideReason(), client);
    return bench.one(id);
  }
}
