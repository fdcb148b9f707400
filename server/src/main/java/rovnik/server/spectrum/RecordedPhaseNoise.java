package rovnik.server.spectrum;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.springframework.stereotype.Component;
import rovnik.core.Refusal;
import rovnik.core.emission.PhaseNoise;
import rovnik.core.emission.PhaseNoiseOutcome;
import rovnik.core.emission.ViewPlan;
import rovnik.core.result.Outcome;
import rovnik.core.spectrum.Peak;
import rovnik.core.spectrum.ReadingMaker;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.spectrum.Trace;
import rovnik.server.measure.FileMeasurement;
import rovnik.server.recordings.RecordingDto;
import rovnik.server.recordings.RecordingService;

/** Phase noise of the strongest line of a recording: one spectrum a decade of offsets. */
@Component
class RecordedPhaseNoise implements FileMeasurement<RecordedPhaseNoise.Settings> {
  /** Spectra reach this far beyond the farthest offset. */
  private static final double REACH = 1.1;

  /** Samples that a spectrum with this resolution needs, in terms of its inverse. */
  private static final double WINDOWS = 4;

  /**
   * Settings.
   *
   * @param fromHz nearest offset that is wanted, 1 Hz or more; the recording's length may end
   *     sooner
   * @param toHz farthest offset; 0 for as far as the recording reaches
   */
  @Schema(name = "PhaseNoiseSettings")
  record Settings(double fromHz, double toHz) {
    Settings {
      if (!(fromHz >= 1)) {
        throw new Refusal("fromHz", "The nearest offset is 1 Hz or more, such as 100.");
      }
      if (toHz != 0 && !(toHz > fromHz)) {
        throw new Refusal(
            "toHz", "The farthest offset lies beyond the nearest; 0 for all there is.");
      }
    }
  }

  private final RecordingService recordings;
  private final RecordingSpectra spectra;

  RecordedPhaseNoise(RecordingService recordings, RecordingSpectra spectra) {
    this.recordings = recordings;
    this.spectra = spectra;
  }

  @Override
  public String kind() {
    return PhaseNoiseOutcome.KIND;
  }

  @Override
  public String title() {
    return PhaseNoiseOutcome.TITLE;
  }

  @Override
  public Set<Takes> takes() {
    return Set.of(Takes.IQ);
  }

  @Override
  public Class<Settings> settingsType() {
    return Settings.class;
  }

  @Override
  public Settings defaults() {
    return new Settings(100, 0);
  }

  @Override
  public Settings defaultsFor(Subject subject) {
    return defaults();
  }

  @Override
  public Outcome measure(Subject subject, Settings s) {
    RecordingDto r = recordings.find(subject.recordingId());
    SettingsDto whole = spectra.whole(r);
    SpectrumLook first = spectra.look(r, whole, subject.job());
    double f0 = strongest(first).frequencyHz();
    Trace all = first.trace();
    double reach = Math.min(f0 - all.startHz(), all.stopHz() - f0) / REACH;
    double to = s.toHz() == 0 ? reach : s.toHz();
    if (to > reach) {
      throw new Refusal(
          "toHz",
          String.format(
              java.util.Locale.ROOT, "The recording reaches %.4g Hz from the carrier.", reach));
    }
    List<Trace> traces = new ArrayList<>();
    SpectrumLook widest = null;
    SpectrumLook nearest = null;
    SpectrumSettings like = whole.toCore();
    for (double at = to; ; at /= 10) {
      SpectrumSettings one = PhaseNoiseOutcome.settings(like, f0, at);
      if (nearest != null && one.rbwHz() * r.seconds() < WINDOWS) {
        break; // the recording is too short for a finer look
      }
      nearest = spectra.look(r, SettingsDto.of(one, ViewPlan.PLAIN), subject.job());
      widest = widest == null ? nearest : widest;
      traces.add(nearest.trace());
      f0 = strongest(nearest).frequencyHz();
      if (PhaseNoise.NEAREST_RBW * nearest.trace().rbwHz() <= s.fromHz()) {
        break;
      }
    }
    double level = strongest(nearest).level();
    Setting setting = widest.setting();
    ReadingMaker maker =
        new ReadingMaker(
            widest.trace(),
            setting.settings(),
            setting.correction(),
            setting.context(widest.marks(), List.of()));
    return PhaseNoiseOutcome.of(
        PhaseNoise.of(traces, f0, level),
        f0,
        level,
        widest.trace(),
        maker,
        recordings.accuracy(r.id()),
        widest.marks());
  }

  private static Peak strongest(SpectrumLook look) {
    List<Peak> peaks = look.result().base().peaks();
    if (peaks.isEmpty()) {
      throw new Refusal("phaseNoise", "No line stands above the noise: there is no carrier.");
    }
    return peaks.get(0);
  }
}
