package rovnik.server.time;

import io.swagger.v3.oas.annotations.media.Schema;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.signal.Window;
import rovnik.core.time.DensityMeasurement;
import rovnik.core.time.DensitySettings;
import rovnik.server.config.Choices;
import rovnik.server.live.LookSamples;
import rovnik.server.modulation.RecordSettings;

/**
 * Settings of the density of levels over frequency and its history, as sent and stored.
 *
 * @param centreHz middle of the span, at the reading plane; 0 for the middle of a recording
 * @param spanHz that is looked at; 0 for all that a recording holds
 * @param rbwHz width of the resolution filter; 0 for a five-hundredth of the span
 * @param window rectangular, hann, hamming, blackman, blackman-harris or flat-top
 * @param overlapPercent of one window with the next, 0 to 98
 * @param seconds length of the result
 * @param startSeconds where in a recording it begins
 * @param decaySeconds after which a spectrum counts for a third; 0 where all count alike
 * @param referenceLevelDbm highest level that is expected at the reading plane
 */
@Schema(name = "DensitySettings")
public record DensitySettingsDto(
    double centreHz,
    double spanHz,
    double rbwHz,
    String window,
    double overlapPercent,
    double seconds,
    double startSeconds,
    double decaySeconds,
    double referenceLevelDbm)
    implements RecordSettings<DensitySettingsDto> {
  static final DensitySettingsDto FIRST =
      new DensitySettingsDto(458.525e6, 2e6, 0, "hann", 50, 0.05, 0, 0, 33);

  private DensitySettingsDto at(double centre, double span, double length, double referenceDbm) {
    return new DensitySettingsDto(
        centre,
        span,
        rbwHz,
        window,
        overlapPercent,
        length,
        startSeconds,
        decaySeconds,
        referenceDbm);
  }

  @Override
  public DensitySettingsDto ofWhole() {
    return at(0, 0, seconds, referenceLevelDbm);
  }

  @Override
  public DensitySettingsDto ofSamples(LookSamples samples, double longest) {
    return at(0, 0, longest, referenceLevelDbm);
  }

  @Override
  public DensitySettingsDto withReference(double levelDbm) {
    return at(centreHz, spanHz, seconds, levelDbm);
  }

  @Override
  public RecordMeasurement measurement() {
    RecordSettings.checkReference(referenceLevelDbm);
    return new DensityMeasurement(
        new DensitySettings(
            centreHz,
            spanHz,
            rbwHz,
            Choices.named(Window.values(), Window::label, "window", window),
            overlapPercent,
            seconds,
            startSeconds,
            decaySeconds));
  }
}
