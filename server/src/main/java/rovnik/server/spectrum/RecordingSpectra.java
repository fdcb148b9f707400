package rovnik.server.spectrum;

import java.util.ArrayList;
import java.util.List;
import org.springframework.stereotype.Service;
import rovnik.core.Refusal;
import rovnik.core.emission.EmissionResult;
import rovnik.core.emission.ViewPlan;
import rovnik.core.path.PathCorrection;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.Detector;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.spectrum.Trace;
import rovnik.server.jobs.JobDto;
import rovnik.server.live.LookSamples;
import rovnik.server.recordings.RecordingDto;
import rovnik.server.recordings.RecordingService;

/** Spectra of recordings, with all that a view asks for. */
@Service
public class RecordingSpectra {
  private static final double WIDEST_FIRST_CHANNEL_HZ = 75e3;
  private static final int FIRST_AVERAGES = 1000;
  private static final long BESIDE = 1 << 22;

  private final RecordingService recordings;

  RecordingSpectra(RecordingService recordings) {
    this.recordings = recordings;
  }

  /** Settings that show all of it. */
  public SettingsDto whole(RecordingDto r) {
    return SettingsDto.of(
        new SpectrumSettings(
            r.centreHz(),
            r.sampleRateHz(),
            0,
            Window.HANN,
            Detector.RMS,
            FIRST_AVERAGES,
            0,
            Math.min(WIDEST_FIRST_CHANNEL_HZ, r.sampleRateHz() / 2)),
        ViewPlan.PLAIN);
  }

  SpectrumLook look(RecordingDto recording, SettingsDto wanted, JobDto job) {
    boolean calibrated = recording.fullScaleDbm() != null;
    Setting setting = setting(recording, wanted, job);
    List<String> marks = marks(recording);
    if (setting.view().second() != null) {
      throw new Refusal("second", "A recording has one input. Take input 2 away.");
    }
    RecordingService.Analysis analysis =
        recordings.emission(
            recording.id(), setting.settings(), setting.view(), setting.context(marks, List.of()));
    EmissionResult result = analysis.result();
    Trace t = result.base().trace();
    double windowSeconds =
        setting.settings().window().figures().width3dbBins()
            / t.rbwHz(); // length / rate = w3 / RBW
    return new SpectrumLook(
        setting,
        result,
        Rows.of(
            analysis.rows(),
            t,
            calibrated ? recording.fullScaleDbm() : Double.NaN,
            setting.correction()),
        null,
        new SpectrumLook.Facts(
            (int) Math.round(recording.sampleRateHz() / t.stepHz()),
            recording.sampleRateHz(),
            windowSeconds,
            null),
        analysis.unsettled().isEmpty() ? marks : with(marks, analysis.unsettled()),
        List.of(),
        1,
        0);
  }

  private Setting setting(RecordingDto recording, SettingsDto wanted, JobDto job) {
    boolean corrected = recording.fullScaleDbm() != null && !job.isNone();
    return new Setting(
        wanted.toCore(),
        wanted.viewToCore(),
        job,
        corrected ? new PathCorrection(job.path().toCore()) : null,
        recordings.accuracy(recording.id()));
  }

  private static List<String> marks(RecordingDto recording) {
    return recording.overload() ? List.of("clipped") : List.of();
  }

  /** Its beginning, for what else there is to see in it. */
  LookSamples samples(RecordingDto recording, SettingsDto wanted, JobDto job) {
    return setting(recording, wanted, job)
        .samples(
            recordings.record(recording.id(), 0, Math.min(recording.samples(), BESIDE)),
            marks(recording));
  }

  private static List<String> with(List<String> marks, String more) {
    List<String> all = new ArrayList<>(marks);
    all.add(more);
    return List.copyOf(all);
  }
}
