package rovnik.server.time;

import io.swagger.v3.oas.annotations.media.Schema;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.signal.Window;
import rovnik.core.time.SpectrogramMeasurement;
import rovnik.core.time.SpectrogramSettings;
import rovnik.server.config.Choices;
import rovnik.server.live.LookSamples;
import rovnik.server.modulation.RecordSettings;

/**
 * Settings of a spectrogram, as sent and stored.
 *
 * @param centreHz middle of the span, at the reading plane; 0 for the middle of a recording
 * @param spanHz that is looked at; 0 for all that a recording holds
 * @param rbwHz width of the resolution filter; 0 for a five-hundredth of the span
 * @param window rectangular, hann, hamming, blackman, blackman-harris or flat-top
 * @param overlapPercent of one window with the next, 0 to 98
 * @param seconds length of the result, however long the recording is
 * @param startSeconds where in a recording it begins
 * @param rows at most, 10 to 2,000
 * @param referenceLevelDbm highest level that is expected at the reading plane
 */
@Schema(name = "SpectrogramSettings")
public record SpectrogramSettingsDto(
    double centreHz,
    double spanHz,
    double rbwHz,
    String window,
    double overlapPercent,
    double seconds,
    double startSeconds,
    int rows,
    double referenceLevelDbm)
    implements RecordSettings<SpectrogramSettingsDto> {
  static final SpectrogramSettingsDto FIRST =
      new SpectrogramSettingsDto(458.525e6, 2e6, 0, "hann", 50, 0.05, 0, 400, 33);

  private static final double WHOLE_SECONDS = 3600;

  private SpectrogramSettingsDto at(
      double centre, double span, double length, double referenceDbm) {
    return new SpectrogramSettingsDto(
        centre, span, rbwHz, window, overlapPercent, length, startSeconds, rows, referenceDbm);
  }

  @Override
  public SpectrogramSettingsDto ofWhole() {
    return at(0, 0, WHOLE_SECONDS, referenceLevelDbm);
  }

  @Override
  public SpectrogramSettingsDto ofSamples(LookSamples samples, double longest) {
    return at(0, 0, longest, referenceLevelDbm);
  }

  @Override
  public SpectrogramSettingsDto withReference(double levelDbm) {
    return at(centreHz, spanHz, seconds, levelDbm);
  }

  @Override
  public RecordMeasurement measurement() {
    RecordSettings.checkReference(referenceLevelDbm);
    return new SpectrogramMeasurement(
        new SpectrogramSettings(
            centreHz,
            spanHz,
            rbwHz,
            Choices.named(Window.values(), Window::label, "window", window),
            overlapPercent,
            seconds,
            startSeconds,
            rows));
  }
}
