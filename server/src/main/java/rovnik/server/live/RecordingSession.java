package rovnik.server.live;

import java.util.List;
import java.util.Map;
import rovnik.core.Refusal;
import rovnik.core.emission.EmissionResult;
import rovnik.core.emission.ViewPlan;
import rovnik.core.path.PathCorrection;
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
import tools.jackson.databind.json.JsonMapper;

/** A recording seen as a live view: computed whole at every change, then still. */
final class RecordingSession extends LiveSession {
  private final long recordingId;
  private final RecordingService recordings;
  private final JobService jobs;
  private Look look;
  private Setting lookSetting;

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
  protected String sourceName() {
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
  synchronized void apply(SpectrumSettings wanted, ViewPlan wantedView) {
    if (jobId == null) {
      settings = wanted;
      view = wantedView;
      publishState();
      return;
    }
    compute(wanted, wantedView, jobs.find(jobId));
  }

  private void compute(SpectrumSettings wanted, ViewPlan wantedView, JobDto job) {
    RecordingDto recording = recordings.find(recordingId);
    boolean calibrated = recording.fullScaleDbm() != null;
    Setting setting =
        new Setting(
            wanted,
            wantedView,
            job,
            calibrated ? new PathCorrection(job.path().toCore()) : null,
            InstrumentAccuracy.UNKNOWN);
    List<String> marks = recording.overload() ? List.of("clipped") : List.of();
    if (wantedView.second() != null) {
      throw new Refusal("second", "A recording has one input. Take input 2 away.");
    }
    RecordingService.Analysis analysis =
        recordings.emission(recordingId, wanted, wantedView, setting.context(marks, List.of()));
    EmissionResult result = analysis.result();
    Trace t = result.base().trace();
    double windowSeconds =
        wanted.window().figures().width3dbBins() / t.rbwHz(); // length / rate = w3 / RBW
    settings = wanted;
    view = wantedView;
    lookSetting = setting;
    look =
        new Look(
            result,
            Rows.of(
                analysis.rows(),
                t,
                calibrated ? recording.fullScaleDbm() : Double.NaN,
                setting.correction()),
            null,
            new Look.Facts(
                (int) Math.round(recording.sampleRateHz() / t.stepHz()),
                recording.sampleRateHz(),
                windowSeconds,
                null),
            marks,
            List.of(),
            1,
            0);
    publish(look, setting, System.currentTimeMillis());
    stand(Phase.STILL, "", "");
  }

  @Override
  synchronized void start(long job, String reason) {
    JobDto found = jobs.find(job);
    jobId = job;
    compute(settings, view, found);
  }

  @Override
  void hold() {
    // A recording stands still anyway.
  }

  @Override
  synchronized void jobChanged() {
    if (jobId != null && look != null) {
      try {
        compute(settings, view, jobs.find(jobId));
      } catch (Refusal r) {
        stand(Phase.REFUSED, r.getMessage(), r.field());
      }
    }
  }

  @Override
  synchronized KeptLook look() {
    if (look == null) {
      throw Conflict.state("There is nothing to keep yet.");
    }
    return new KeptLook(
        lookSetting.job(),
        lookSetting.settings(),
        lookSetting.view(),
        look.result(),
        look.rows().stream().map(r -> new KeptLook.Row(r.label(), r.trace())).toList(),
        null,
        recordingId,
        Map.of("recording", sourceName()),
        sourceName(),
        "recording " + sourceName(),
        "");
  }
}
