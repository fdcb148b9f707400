package rovnik.server.time;

import io.swagger.v3.oas.annotations.media.Schema;
import rovnik.core.listening.ListenMeasurement;
import rovnik.core.listening.ListenSettings;
import rovnik.core.listening.Mode;
import rovnik.core.listening.Squelch;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.modulation.analog.AudioFilter;
import rovnik.server.config.Choices;
import rovnik.server.modulation.RecordSettings;

/**
 * How a channel is heard, as sent and stored.
 *
 * @param mode am, fm, usb or lsb
 * @param centreHz carrier, with one side band the one that is suppressed, at the reading plane; 0
 *     for the middle of a recording
 * @param bandHz channel; with one side band how far that reaches
 * @param seconds length of the result
 * @param startSeconds where in a recording it begins
 * @param audioLowHz lowest frequency that is heard, 0 for all
 * @param audioHighHz highest, 0 for all
 * @param deEmphasisSeconds time constant, 0 for none
 * @param squelchBy what opens the squelch: none, level, quieting or tone
 * @param squelch level in dBm (dBFS of a recording without levels), quieting in dB, or tone in Hz
 * @param referenceLevelDbm highest level that is expected at the reading plane
 */
@Schema(name = "ListenSettings")
public record ListenSettingsDto(
    String mode,
    double centreHz,
    double bandHz,
    double seconds,
    double startSeconds,
    double audioLowHz,
    double audioHighHz,
    double deEmphasisSeconds,
    String squelchBy,
    double squelch,
    double referenceLevelDbm)
    implements RecordSettings<ListenSettingsDto> {
  /** A voice channel. */
  static final ListenSettingsDto FIRST =
      new ListenSettingsDto("fm", 164.2e6, 12.5e3, 2, 0, 300, 3000, 0, "none", 0, 0);

  /** FM of which the rest is as usual, heard by a tone of the list. */
  public static ListenSettingsDto of(
      double centreHz, double bandHz, double toneHz, double referenceLevelDbm) {
    return new ListenSettingsDto(
        FIRST.mode,
        centreHz,
        bandHz,
        FIRST.seconds,
        0,
        FIRST.audioLowHz,
        FIRST.audioHighHz,
        0,
        "tone",
        toneHz,
        referenceLevelDbm);
  }

  private ListenSettingsDto at(double newCentreHz, double newReferenceDbm) {
    return new ListenSettingsDto(
        mode,
        newCentreHz,
        bandHz,
        seconds,
        startSeconds,
        audioLowHz,
        audioHighHz,
        deEmphasisSeconds,
        squelchBy,
        squelch,
        newReferenceDbm);
  }

  @Override
  public ListenSettingsDto ofWhole() {
    return at(0, referenceLevelDbm);
  }

  @Override
  public ListenSettingsDto withReference(double levelDbm) {
    return at(centreHz, levelDbm);
  }

  @Override
  public RecordMeasurement measurement() {
    RecordSettings.checkReference(referenceLevelDbm);
    return new ListenMeasurement(
        new ListenSettings(
            Choices.named(Mode.values(), Mode::label, "mode", mode),
            centreHz,
            bandHz,
            seconds,
            startSeconds,
            new AudioFilter(audioLowHz, audioHighHz, deEmphasisSeconds, false),
            new Squelch(
                Choices.named(Squelch.By.values(), Squelch.By::label, "squelchBy", squelchBy),
                squelch)));
  }
}
