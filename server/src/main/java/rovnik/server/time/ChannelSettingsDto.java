package rovnik.server.time;

import io.swagger.v3.oas.annotations.media.Schema;
import org.jspecify.annotations.Nullable;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.time.ChannelMeasurement;
import rovnik.core.time.ChannelSettings;
import rovnik.server.live.LookSamples;
import rovnik.server.modulation.RecordSettings;

/**
 * Settings of the levels of channels, as sent and stored.
 *
 * @param centreHz middle of the own channel, at the reading plane; 0 for the middle of a recording
 * @param spanHz that is looked at around it; 0 for all that a recording holds
 * @param channelHz from one channel to the next
 * @param bandHz in which the power of a channel is taken; 0 for two thirds of that distance
 * @param firstHz middle of channel 1, at the reading plane; 0 to count from the own channel, 0
 * @param seconds of one look, or of a recording
 * @param startSeconds where in a recording it begins
 * @param overNoiseDb how far over the noise a channel is used; null for as far as chance does not
 * @param mostNeighbourDb most that the channels beside the own one may have, in dB of it; null for
 *     no limit
 * @param referenceLevelDbm highest level that is expected at the reading plane
 */
@Schema(name = "ChannelSettings")
public record ChannelSettingsDto(
    double centreHz,
    double spanHz,
    double channelHz,
    double bandHz,
    double firstHz,
    double seconds,
    double startSeconds,
    @Nullable Double overNoiseDb,
    @Nullable Double mostNeighbourDb,
    double referenceLevelDbm)
    implements RecordSettings<ChannelSettingsDto> {
  static final ChannelSettingsDto FIRST =
      new ChannelSettingsDto(458.525e6, 500e3, 25e3, 0, 0, 0.25, 0, null, null, 33);

  /** Channels around one that is known. */
  public static ChannelSettingsDto of(
      double centreHz, double spanHz, double channelHz, double referenceDbm) {
    return new ChannelSettingsDto(
        centreHz, spanHz, channelHz, 0, 0, FIRST.seconds, 0, null, null, referenceDbm);
  }

  private ChannelSettingsDto at(double centre, double span, double look, double reference) {
    return new ChannelSettingsDto(
        centre,
        span,
        channelHz,
        bandHz,
        firstHz,
        look,
        startSeconds,
        overNoiseDb,
        mostNeighbourDb,
        reference);
  }

  @Override
  public ChannelSettingsDto ofWhole() {
    return at(0, 0, seconds, referenceLevelDbm);
  }

  @Override
  public ChannelSettingsDto ofSamples(LookSamples samples, double longest) {
    return at(samples.centreHz(), 0, longest, referenceLevelDbm);
  }

  @Override
  public ChannelSettingsDto withReference(double levelDbm) {
    return at(centreHz, spanHz, seconds, levelDbm);
  }

  @Override
  public RecordMeasurement measurement() {
    RecordSettings.checkReference(referenceLevelDbm);
    return new ChannelMeasurement(
        new ChannelSettings(
            centreHz,
            spanHz,
            channelHz,
            bandHz,
            firstHz,
            seconds,
            startSeconds,
            RecordSettings.number(overNoiseDb),
            RecordSettings.limit("mostNeighbourDb", null, mostNeighbourDb)));
  }
}
