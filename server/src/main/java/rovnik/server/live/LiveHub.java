package rovnik.server.live;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Service;
import rovnik.core.Refusal;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.Detector;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.server.bench.BenchService;
import rovnik.server.jobs.JobService;
import rovnik.server.recordings.RecordingDto;
import rovnik.server.recordings.RecordingService;
import tools.jackson.databind.json.JsonMapper;

/** All live views by source: "i3" is instrument 3, "r7" recording 7. */
@Service
class LiveHub implements SourceHub {
  /** First look at something unknown: wide, at the level of a small transmitter. */
  private static final SpectrumSettings FIRST_LOOK =
      new SpectrumSettings(460e6, 20e6, 0, Window.HANN, Detector.RMS, 16, 30, 75e3);

  private final BenchService bench;
  private final JobService jobs;
  private final RecordingService recordings;
  private final JsonMapper json;
  private final Map<String, LiveSession> sessions = new ConcurrentHashMap<>();

  LiveHub(BenchService bench, JobService jobs, RecordingService recordings, JsonMapper json) {
    this.bench = bench;
    this.jobs = jobs;
    this.recordings = recordings;
    this.json = json;
    bench.onSwitched(() -> sessions.values().forEach(LiveSession::restartAverage));
    jobs.onChange(
        id ->
            sessions.values().stream()
                .filter(s -> s.jobId != null && s.jobId == id)
                .forEach(LiveSession::jobChanged));
  }

  /** What a receiver that nobody has framed yet is set to. */
  static SpectrumSettings firstLook() {
    return FIRST_LOOK;
  }

  @Override
  public boolean knows(String source) {
    return source != null && source.matches("[ir]\\d{1,18}");
  }

  @Override
  public LiveSession session(String source) {
    if (!knows(source)) {
      throw new Refusal(
          "source", "A source is \"i\" and an instrument's id, or \"r\" and a recording's.");
    }
    return sessions.computeIfAbsent(source, this::open);
  }

  private LiveSession open(String source) {
    long id = Long.parseLong(source.substring(1));
    if (source.startsWith("i")) {
      bench.receiver(id);
      return new ReceiverSession(source, id, FIRST_LOOK, bench, jobs, json);
    }
    RecordingDto r = recordings.find(id);
    SpectrumSettings whole =
        new SpectrumSettings(
            r.centreHz(),
            r.sampleRateHz(),
            0,
            Window.HANN,
            Detector.RMS,
            1000,
            0,
            Math.min(75e3, r.sampleRateHz() / 2));
    return new RecordingSession(source, id, whole, recordings, jobs, json);
  }
}
