package rovnik.server.live;

import java.util.List;
import java.util.Map;
import rovnik.core.path.PathCorrection;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.SpectrumResult;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.spectrum.Trace;
import rovnik.core.uncertainty.InstrumentAccuracy;
import rovnik.server.config.Conflict;
import rovnik.server.jobs.JobDto;
import rovnik.server.jobs.JobService;
import rovnik.server.live.LiveState.Phase;
import rovnik.server.recordings.RecordingDto;
import rovnik.server.recordings.RecordingService;
import rovnik.server.runs.KeptLook;
import rovnik.server.spectrum.ReadingDto;
import rovnik.server.spectrum.SettingsDto;
import tools.jackson.databind.json.JsonMapper;

/** A recording seen as a live view: computed whole at every change, then still. */
final class RecordingSession extends LiveSession {
  private final long recordingId;
  private final RecordingService recordings;
  private final JobService jobs;
  private SpectrumResult result;
  private SpectrumSettings resultSettings;
  private JobDto resultJob;

  RecordingSession(
      String source,
      long recordingId,
      SpectrumSettings settings,
      RecordingService recordings,
      JobService jobs,
      JsonMapper json) {
    super(source, settings, json);
    this.recordingId = recordingId;
    this.recordings = recordings;
    this.jobs = jobs;
  }

  @Override
  String sourceName() {
    return recordings.find(recordingId).name();
  }

  @Override
  double widestSpanHz() {
    return recordings.find(recordingId).sampleRateHz();
  }

  @Override
  String levelUnit() {
    return recordings.find(recordingId).levelUnit();
  }

  @Override
  synchronized void apply(SpectrumSettings wanted) {
    if (jobId == null) {
      settings = wanted;
      publishState();
      return;
    }
    compute(wanted, jobs.find(jobId));
  }

  private void compute(SpectrumSettings wanted, JobDto job) {
    RecordingDto recording = recordings.find(recordingId);
    boolean calibrated = recording.fullScaleDbm() != null;
    List<String> marks = recording.overload() ? List.of("clipped") : List.of();
    MeasurementContext context =
        new MeasurementContext(
            calibrated ? new PathCorrection(job.path().toCore()) : null,
            InstrumentAccuracy.UNKNOWN,
            job.limits().toCore(),
            marks);
    result = recordings.spectrum(recordingId, wanted, context);
    settings = wanted;
    resultSettings = wanted;
    resultJob = job;
    Trace t = result.trace();
    double windowSeconds =
        wanted.window().figures().width3dbBins() / t.rbwHz(); // length / rate = w3 / RBW
    publish(
        new Frame(
            source,
            nextSequence(),
            System.currentTimeMillis(),
            SettingsDto.of(wanted),
            t.startHz(),
            t.stepHz(),
            t.points(),
            t.unit(),
            t.plane(),
            t.rbwHz(),
            t.enbwHz(),
            t.segments(),
            (int) Math.round(recording.sampleRateHz() / t.stepHz()),
            recording.sampleRateHz(),
            windowSeconds,
            null,
            marks,
            result.peaks(),
            result.readings().stream().map(ReadingDto::of).toList()),
        result);
    stand(Phase.STILL, "", "");
  }

  @Override
  synchronized void start(long job, String reason) {
    JobDto found = jobs.find(job);
    jobId = job;
    compute(settings, found);
  }

  @Override
  void hold() {
    // A recording stands still anyway.
  }

  @Override
  synchronized void jobChanged() {
    if (jobId != null && result != null) {
      try {
        compute(settings, jobs.find(jobId));
      } catch (rovnik.core.Refusal r) {
        stand(Phase.REFUSED, r.getMessage(), r.field());
      }
    }
  }

  @Override
  synchronized KeptLook look() {
    if (result == null) {
      throw Conflict.state("There is nothing to keep yet.");
    }
    return new KeptLook(
        resultJob,
        resultSettings,
        result,
        null,
        recordingId,
        Map.of("recording", sourceName()),
        sourceName(),
        "recording " + sourceName(),
        "");
  }
}
