package rovnik.server.time;

import io.swagger.v3.oas.annotations.media.Schema;
import org.jspecify.annotations.Nullable;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.signal.Window;
import rovnik.core.time.AmplitudeMeasurement;
import rovnik.core.time.AmplitudeSettings;
import rovnik.server.config.Choices;
import rovnik.server.live.LookSamples;
import rovnik.server.modulation.RecordSettings;

/**
 * Settings of amplitude, frequency and phase over time and the spectrum at an instant, as sent and
 * stored.
 *
 * @param centreHz middle of the band, at the reading plane; 0 for the middle of a recording
 * @param bandHz that is looked at, 6 dB down at its edges; 0 for all that a recording holds
 * @param seconds length of the result
 * @param startSeconds where in a recording it begins
 * @param instantSeconds of the spectrum, in the recording; null for where the level is highest
 * @param stretchSeconds that the spectrum is made of; 0 for as long as the level stays there
 * @param window rectangular, hann, hamming, blackman, blackman-harris or flat-top
 * @param referenceLevelDbm highest level that is expected at the reading plane
 */
@Schema(name = "AmplitudeSettings")
public record AmplitudeSettingsDto(
    double centreHz,
    double bandHz,
    double seconds,
    double startSeconds,
    @Nullable Double instantSeconds,
    double stretchSeconds,
    String window,
    double referenceLevelDbm)
    implements RecordSettings<AmplitudeSettingsDto> {
  static final AmplitudeSettingsDto FIRST =
      new AmplitudeSettingsDto(458.525e6, 500e3, 0.05, 0, null, 0, "hann", 33);

  /** A band and what it takes to fall off at both sides, by which it must fit into a record. */
  private static final double FALLS = 1.3;

  private AmplitudeSettingsDto at(
      double newCentreHz, double newBandHz, double newSeconds, double newReferenceDbm) {
    return new AmplitudeSettingsDto(
        newCentreHz,
        newBandHz,
        newSeconds,
        startSeconds,
        instantSeconds,
        stretchSeconds,
        window,
        newReferenceDbm);
  }

  @Override
  public AmplitudeSettingsDto ofWhole() {
    return at(0, 0, seconds, referenceLevelDbm);
  }

  @Override
  public AmplitudeSettingsDto ofSamples(LookSamples samples, double longest) {
    // What is as wide as the record is all of it, around its own middle.
    boolean whole = samples.bandHz() * FALLS >= samples.record().sampleRateHz();
    return at(
        whole ? 0 : samples.centreHz(), whole ? 0 : samples.bandHz(), longest, referenceLevelDbm);
  }

  @Override
  public AmplitudeSettingsDto withReference(double levelDbm) {
    return at(centreHz, bandHz, seconds, levelDbm);
  }

  @Override
  public RecordMeasurement measurement() {
    RecordSettings.checkReference(referenceLevelDbm);
    return new AmplitudeMeasurement(
        new AmplitudeSettings(
            centreHz,
            bandHz,
            seconds,
            startSeconds,
            RecordSettings.number(instantSeconds),
            stretchSeconds,
            Choices.named(Window.values(), Window::label, "window", window)));
  }
}
