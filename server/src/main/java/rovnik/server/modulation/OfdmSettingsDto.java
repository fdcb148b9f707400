package rovnik.server.modulation;

import io.swagger.v3.oas.annotations.media.Schema;
import org.jspecify.annotations.Nullable;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.modulation.ofdm.OfdmMeasurement;
import rovnik.core.modulation.ofdm.OfdmSettings;
import rovnik.server.config.Choices;

/**
 * Settings of the measurement of OFDM packets, as sent and stored.
 *
 * @param centreHz middle of the channel, at the reading plane; 0 for the middle of a recording
 * @param channelHz its width: 5, 10, 20, 40, 80, 160 or 320 MHz
 * @param seconds that are searched, 5 us to 100 ms
 * @param startSeconds where in a recording that begins
 * @param packet which of those found is shown, the first is 1
 * @param estimate what the channel is found from: training, or training and data
 * @param trackPhase pilots turn each symbol back, as the standard has it
 * @param trackLevel pilots set the level of each symbol, which the standard does not
 * @param description what the frames are; null for packets of IEEE 802.11 clause 17, which say it
 *     themselves. With one, channelHz does not count
 * @param trigger what HE packets answer that do not say themselves which units they fill; null if
 *     that is not known
 * @param referenceLevelDbm highest level that is expected at the reading plane
 */
@Schema(name = "OfdmSettings")
public record OfdmSettingsDto(
    double centreHz,
    double channelHz,
    double seconds,
    double startSeconds,
    int packet,
    String estimate,
    boolean trackPhase,
    boolean trackLevel,
    @Nullable OfdmDescriptionDto description,
    @Nullable TriggerDto trigger,
    double referenceLevelDbm)
    implements RecordSettings<OfdmSettingsDto> {

  static final OfdmSettingsDto FIRST =
      new OfdmSettingsDto(458.525e6, 20e6, 1e-3, 0, 1, "training", true, false, null, null, 33);

  /** Packets of a channel, the first within a millisecond. */
  public static OfdmSettingsDto of(double centreHz, double channelHz, double referenceLevelDbm) {
    return new OfdmSettingsDto(
        centreHz, channelHz, 1e-3, 0, 1, "training", true, false, null, null, referenceLevelDbm);
  }

  @Override
  public OfdmSettingsDto ofWhole() {
    return new OfdmSettingsDto(
        0,
        channelHz,
        seconds,
        startSeconds,
        packet,
        estimate,
        trackPhase,
        trackLevel,
        description,
        trigger,
        referenceLevelDbm);
  }

  @Override
  public OfdmSettingsDto withReference(double levelDbm) {
    return new OfdmSettingsDto(
        centreHz,
        channelHz,
        seconds,
        startSeconds,
        packet,
        estimate,
        trackPhase,
        trackLevel,
        description,
        trigger,
        levelDbm);
  }

  @Override
  public RecordMeasurement measurement() {
    RecordSettings.checkReference(referenceLevelDbm);
    return new OfdmMeasurement(
        new OfdmSettings(
            centreHz,
            channelHz,
            seconds,
            startSeconds,
            packet,
            Choices.named(
                OfdmSettings.Estimate.values(), OfdmSettings.Estimate::label, "estimate", estimate),
            trackPhase,
            trackLevel,
            description == null ? null : description.told(),
            trigger == null ? null : trigger.toCore()));
  }
}
