package rovnik.server.time;

import io.swagger.v3.oas.annotations.media.Schema;
import org.jspecify.annotations.Nullable;
import rovnik.core.Refusal;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.time.TriggerMeasurement;
import rovnik.core.time.TriggerSettings;
import rovnik.server.config.Choices;
import rovnik.server.modulation.RecordSettings;

/**
 * What is waited for, as sent and stored.
 *
 * @param centreHz middle of the band, at the reading plane; 0 for the middle of a recording
 * @param bandHz whose power is watched; 0 for all of a recording
 * @param seconds that are watched in a recording, and that the ring holds of a stream
 * @param startSeconds where in a recording it begins
 * @param triggerBy what the power does: none, rises or falls
 * @param levelDb where, in dBm at the reading plane (dBFS of a recording without levels)
 * @param leastSeconds it stays there at least so long, 0 for any
 * @param mostSeconds it stays there at most so long, null for any
 * @param pauseSeconds it may leave for so long without having left, 0 for none
 * @param holdOffSeconds after one trigger the next one comes no sooner
 * @param beforeSeconds that belong to a trigger
 * @param afterSeconds that belong to a trigger
 * @param mostKept so many triggers of a stream are kept as recordings each
 * @param referenceLevelDbm highest level that is expected at the reading plane
 */
@Schema(name = "TriggerSettings")
public record TriggerSettingsDto(
    double centreHz,
    double bandHz,
    double seconds,
    double startSeconds,
    String triggerBy,
    double levelDb,
    double leastSeconds,
    @Nullable Double mostSeconds,
    double pauseSeconds,
    double holdOffSeconds,
    double beforeSeconds,
    double afterSeconds,
    int mostKept,
    double referenceLevelDbm)
    implements RecordSettings<TriggerSettingsDto> {
  private static final int MOST_KEPT = 100;

  static final TriggerSettingsDto FIRST =
      new TriggerSettingsDto(164.2e6, 25e3, 10, 0, "rises", -100, 0, null, 0, 0, 0.1, 0.4, 0, 0);

  /** A rise over a level that lasts, of which the rest is as usual. */
  public static TriggerSettingsDto of(
      double centreHz, double bandHz, double levelDbm, double leastSeconds, double referenceDbm) {
    return new TriggerSettingsDto(
        centreHz,
        bandHz,
        FIRST.seconds,
        0,
        FIRST.triggerBy,
        levelDbm,
        leastSeconds,
        null,
        0,
        0,
        FIRST.beforeSeconds,
        FIRST.afterSeconds,
        0,
        referenceDbm);
  }

  private TriggerSettingsDto at(double newCentreHz, double newBandHz, double newReferenceDbm) {
    return new TriggerSettingsDto(
        newCentreHz,
        newBandHz,
        seconds,
        startSeconds,
        triggerBy,
        levelDb,
        leastSeconds,
        mostSeconds,
        pauseSeconds,
        holdOffSeconds,
        beforeSeconds,
        afterSeconds,
        mostKept,
        newReferenceDbm);
  }

  @Override
  public TriggerSettingsDto ofWhole() {
    return at(0, 0, referenceLevelDbm);
  }

  @Override
  public TriggerSettingsDto withReference(double levelDbm) {
    return at(centreHz, bandHz, levelDbm);
  }

  @Override
  public int keptWanted() {
    return triggerBy.equals(TriggerSettings.By.NONE.label()) ? 0 : Math.max(1, mostKept);
  }

  @Override
  public RecordMeasurement measurement() {
    RecordSettings.checkReference(referenceLevelDbm);
    if (!(mostKept >= 0 && mostKept <= MOST_KEPT)) {
      throw new Refusal("mostKept", "At most " + MOST_KEPT + " triggers are kept; 0 for none.");
    }
    return new TriggerMeasurement(
        new TriggerSettings(
            centreHz,
            bandHz,
            seconds,
            startSeconds,
            Choices.named(
                TriggerSettings.By.values(), TriggerSettings.By::label, "triggerBy", triggerBy),
            levelDb,
            leastSeconds,
            mostSeconds == null ? Double.POSITIVE_INFINITY : mostSeconds,
            pauseSeconds,
            holdOffSeconds,
            beforeSeconds,
            afterSeconds));
  }
}
