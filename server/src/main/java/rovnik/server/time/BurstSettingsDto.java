package rovnik.server.time;

import io.swagger.v3.oas.annotations.media.Schema;
import org.jspecify.annotations.Nullable;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.time.BurstMeasurement;
import rovnik.core.time.BurstSettings;
import rovnik.server.live.LookSamples;
import rovnik.server.modulation.RecordSettings;

/**
 * Settings of the measurement of bursts, as sent and stored.
 *
 * @param centreHz middle of the band, at the reading plane; 0 for the middle of a recording
 * @param bandHz that is looked at, 3 dB down at its edges
 * @param seconds length of the result
 * @param startSeconds where in a recording it begins
 * @param overNoiseDb how far over the noise a burst rises; null for as far as chance does not
 * @param leastSeconds shorter ones do not count, 0 for none
 * @param pauseSeconds shorter pauses are a part of the burst, 0 for none
 * @param leastPeriodSeconds least time from burst to burst that passes, null for no limit
 * @param mostPeriodSeconds most that passes, null for no limit
 * @param leastLengthSeconds least length that passes, null for no limit
 * @param mostLengthSeconds most that passes, null for no limit
 * @param referenceLevelDbm highest level that is expected at the reading plane
 */
@Schema(name = "BurstSettings")
public record BurstSettingsDto(
    double centreHz,
    double bandHz,
    double seconds,
    double startSeconds,
    @Nullable Double overNoiseDb,
    double leastSeconds,
    double pauseSeconds,
    @Nullable Double leastPeriodSeconds,
    @Nullable Double mostPeriodSeconds,
    @Nullable Double leastLengthSeconds,
    @Nullable Double mostLengthSeconds,
    double referenceLevelDbm)
    implements RecordSettings<BurstSettingsDto> {
  static final BurstSettingsDto FIRST =
      new BurstSettingsDto(458.525e6, 500e3, 0.05, 0, null, 0, 0, null, null, null, null, 33);

  /** The widest band of a record. */
  private static final double RATE_OVER_BAND = 2.5;

  /** Bursts near a frequency. */
  public static BurstSettingsDto of(
      double centreHz, double bandHz, double seconds, double referenceDbm) {
    return new BurstSettingsDto(
        centreHz, bandHz, seconds, 0, null, 0, 0, null, null, null, null, referenceDbm);
  }

  private BurstSettingsDto at(
      double newCentreHz, double newBandHz, double newSeconds, double newReferenceDbm) {
    return new BurstSettingsDto(
        newCentreHz,
        newBandHz,
        newSeconds,
        startSeconds,
        overNoiseDb,
        leastSeconds,
        pauseSeconds,
        leastPeriodSeconds,
        mostPeriodSeconds,
        leastLengthSeconds,
        mostLengthSeconds,
        newReferenceDbm);
  }

  @Override
  public BurstSettingsDto ofWhole() {
    return at(0, bandHz, seconds, referenceLevelDbm);
  }

  @Override
  public BurstSettingsDto ofSamples(LookSamples samples, double longest) {
    double widest = samples.record().sampleRateHz() / RATE_OVER_BAND;
    return at(samples.centreHz(), Math.min(samples.bandHz(), widest), longest, referenceLevelDbm);
  }

  @Override
  public BurstSettingsDto withReference(double levelDbm) {
    return at(centreHz, bandHz, seconds, levelDbm);
  }

  @Override
  public RecordMeasurement measurement() {
    RecordSettings.checkReference(referenceLevelDbm);
    return new BurstMeasurement(
        new BurstSettings(
            centreHz,
            bandHz,
            seconds,
            startSeconds,
            RecordSettings.number(overNoiseDb),
            leastSeconds,
            pauseSeconds,
            RecordSettings.limit("leastPeriodSeconds", leastPeriodSeconds, mostPeriodSeconds),
            RecordSettings.limit("leastLengthSeconds", leastLengthSeconds, mostLengthSeconds)));
  }
}
