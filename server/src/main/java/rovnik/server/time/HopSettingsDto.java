package rovnik.server.time;

import io.swagger.v3.oas.annotations.media.Schema;
import org.jspecify.annotations.Nullable;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.time.HopMeasurement;
import rovnik.core.time.HopSettings;
import rovnik.server.modulation.RecordSettings;

/**
 * Settings of the measurement of hops, as sent and stored.
 *
 * @param centreHz middle of the span, at the reading plane; 0 for the middle of a recording
 * @param spanHz that is looked at; 0 for all that a recording holds
 * @param channelHz from one channel to the next
 * @param firstHz middle of channel 1, at the reading plane; 0 for the lowest that is seen
 * @param channels that there are; 0 for as many as reach to the highest that is seen
 * @param seconds of one look, or of a recording
 * @param startSeconds where in a recording it begins
 * @param leastSeconds shorter ones do not count
 * @param overNoiseDb how far over the noise a hop rises; null for as far as chance does not
 * @param leastDwellSeconds least stay on a channel that passes, null for no limit
 * @param mostDwellSeconds most that passes, null for no limit
 * @param referenceLevelDbm highest level that is expected at the reading plane
 */
@Schema(name = "HopSettings")
public record HopSettingsDto(
    double centreHz,
    double spanHz,
    double channelHz,
    double firstHz,
    int channels,
    double seconds,
    double startSeconds,
    double leastSeconds,
    @Nullable Double overNoiseDb,
    @Nullable Double leastDwellSeconds,
    @Nullable Double mostDwellSeconds,
    double referenceLevelDbm)
    implements RecordSettings<HopSettingsDto> {
  static final HopSettingsDto FIRST =
      new HopSettingsDto(2.441e9, 80e6, 2e6, 0, 0, 0.05, 0, 5e-4, null, null, null, 10);

  /** Channels of a plan that is known. */
  public static HopSettingsDto of(
      double centreHz, double channelHz, double firstHz, int channels, double referenceDbm) {
    return new HopSettingsDto(
        centreHz,
        channelHz * channels,
        channelHz,
        firstHz,
        channels,
        FIRST.seconds,
        0,
        FIRST.leastSeconds,
        null,
        null,
        null,
        referenceDbm);
  }

  private HopSettingsDto at(double centre, double span, double look, double reference) {
    return new HopSettingsDto(
        centre,
        span,
        channelHz,
        firstHz,
        channels,
        look,
        startSeconds,
        leastSeconds,
        overNoiseDb,
        leastDwellSeconds,
        mostDwellSeconds,
        reference);
  }

  @Override
  public HopSettingsDto ofWhole() {
    return at(0, 0, 60, referenceLevelDbm);
  }

  @Override
  public HopSettingsDto withReference(double levelDbm) {
    return at(centreHz, spanHz, seconds, levelDbm);
  }

  @Override
  public RecordMeasurement measurement() {
    RecordSettings.checkReference(referenceLevelDbm);
    return new HopMeasurement(
        new HopSettings(
            centreHz,
            spanHz,
            channelHz,
            firstHz,
            channels,
            seconds,
            startSeconds,
            leastSeconds,
            RecordSettings.number(overNoiseDb),
            RecordSettings.limit("leastDwellSeconds", leastDwellSeconds, mostDwellSeconds)));
  }
}
