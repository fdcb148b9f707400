package rovnik.server.modulation;

import io.swagger.v3.oas.annotations.media.Schema;
import org.jspecify.annotations.Nullable;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.modulation.analog.AnalogMeasurement;
import rovnik.core.modulation.analog.AnalogSettings;
import rovnik.core.modulation.analog.AudioFilter;
import rovnik.server.config.Choices;

/**
 * Settings of the measurement of AM, FM and PM, as sent and stored.
 *
 * @param modulation am, fm or pm
 * @param centreHz where the carrier is, at the reading plane; 0 for the middle of a recording
 * @param bandHz channel that is looked at
 * @param seconds length of the result
 * @param startSeconds where in a recording it begins
 * @param audioLowHz lowest frequency that passes to the readings, 0 for all
 * @param audioHighHz highest, 0 for all
 * @param deEmphasisSeconds time constant, 0 for none
 * @param weighted psophometric weighting (ITU-T O.41)
 * @param highestAmount most that passes: depth in percent, deviation in Hz or rad; null for no
 *     limit
 * @param leastSinadDb least that passes, null for no limit
 * @param referenceLevelDbm highest level that is expected at the reading plane
 */
@Schema(name = "AnalogSettings")
public record AnalogSettingsDto(
    String modulation,
    double centreHz,
    double bandHz,
    double seconds,
    double startSeconds,
    double audioLowHz,
    double audioHighHz,
    double deEmphasisSeconds,
    boolean weighted,
    @Nullable Double highestAmount,
    @Nullable Double leastSinadDb,
    double referenceLevelDbm)
    implements RecordSettings<AnalogSettingsDto> {

  /** A voice channel. */
  static final AnalogSettingsDto FIRST =
      new AnalogSettingsDto("fm", 458.525e6, 25e3, 0.2, 0, 0, 0, 0, false, null, null, 33);

  /** Settings of which the rest is as usual. */
  public static AnalogSettingsDto near(
      String modulation, double centreHz, double referenceLevelDbm) {
    return new AnalogSettingsDto(
        modulation,
        centreHz,
        FIRST.bandHz,
        FIRST.seconds,
        0,
        0,
        0,
        0,
        false,
        null,
        null,
        referenceLevelDbm);
  }

  @Override
  public AnalogSettingsDto ofWhole() {
    return new AnalogSettingsDto(
        modulation,
        0,
        bandHz,
        seconds,
        startSeconds,
        audioLowHz,
        audioHighHz,
        deEmphasisSeconds,
        weighted,
        highestAmount,
        leastSinadDb,
        referenceLevelDbm);
  }

  @Override
  public AnalogSettingsDto withReference(double levelDbm) {
    return new AnalogSettingsDto(
        modulation,
        centreHz,
        bandHz,
        seconds,
        startSeconds,
        audioLowHz,
        audioHighHz,
        deEmphasisSeconds,
        weighted,
        highestAmount,
        leastSinadDb,
        levelDbm);
  }

  @Override
  public RecordMeasurement measurement() {
    RecordSettings.checkReference(referenceLevelDbm);
    AnalogSettings.Kind kind =
        Choices.named(
            AnalogSettings.Kind.values(), AnalogSettings.Kind::label, "modulation", modulation);
    double most = highestAmount == null ? Double.NaN : highestAmount;
    return new AnalogMeasurement(
        new AnalogSettings(
            kind,
            centreHz,
            bandHz,
            seconds,
            startSeconds,
            new AudioFilter(audioLowHz, audioHighHz, deEmphasisSeconds, weighted),
            kind == AnalogSettings.Kind.AM ? most / 100 : most,
            leastSinadDb == null ? Double.NaN : leastSinadDb));
  }
}
