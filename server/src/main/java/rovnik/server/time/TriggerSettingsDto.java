package rovnik.server.time;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rovnik.core.Refusal;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.time.IntervalPattern;
import rovnik.core.time.TriggerMask;
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
 * @param triggerBy what is waited for: none, rises or falls (the power of the band), mask (a
 *     spectrum that rises over it) or external (an edge at the trigger input of a stream)
 * @param levelDb where, in dBm at the reading plane (dBFS of a recording without levels)
 * @param leastSeconds it stays there at least so long, 0 for any
 * @param mostSeconds it stays there at most so long, null for any
 * @param pauseSeconds it may leave for so long without having left, 0 for none
 * @param holdOffSeconds after one trigger the next one comes no sooner
 * @param beforeSeconds that belong to a trigger
 * @param afterSeconds that belong to a trigger
 * @param mostKept so many triggers of a stream are kept as recordings each
 * @param referenceLevelDbm highest level that is expected at the reading plane
 * @param mask levels over frequency, from low to high, at least two points; null or empty for the
 *     trigger level all over the band
 * @param rbwHz of the spectra that are held against it; 0 for a hundredth of its width
 * @param intervals only what comes such times after one another, in this order; null or empty for
 *     any
 * @param intervalsWithinSeconds each of them may be off by so much
 * @param intervalsBroken true to wait for what breaks the one interval: one that comes too soon, or
 *     none that comes in time
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
    double referenceLevelDbm,
    @Nullable List<TriggerMaskPointDto> mask,
    double rbwHz,
    @Nullable List<Double> intervals,
    double intervalsWithinSeconds,
    boolean intervalsBroken)
    implements RecordSettings<TriggerSettingsDto> {
  private static final int MOST_KEPT = 100;

  static final TriggerSettingsDto FIRST =
      new TriggerSettingsDto(
          164.2e6, 25e3, 10, 0, "rises", -100, 0, null, 0, 0, 0.1, 0.4, 0, 0, List.of(), 0,
          List.of(), 0, false);

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
        referenceDbm,
        FIRST.mask,
        0,
        FIRST.intervals,
        0,
        false);
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
        newReferenceDbm,
        mask,
        rbwHz,
        intervals,
        intervalsWithinSeconds,
        intervalsBroken);
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
            afterSeconds,
            new TriggerMask(points(), rbwHz),
            new IntervalPattern(times(), intervalsWithinSeconds, intervalsBroken)));
  }

  private List<Double> times() {
    if (intervals == null) {
      return List.of();
    }
    if (intervals.stream().anyMatch(Objects::isNull)) {
      throw new Refusal("intervals", "Each interval is a number of seconds, such as 0.0031.");
    }
    return intervals;
  }

  private List<TriggerMask.Point> points() {
    List<TriggerMask.Point> out = new ArrayList<>();
    for (TriggerMaskPointDto p : mask == null ? List.<TriggerMaskPointDto>of() : mask) {
      if (p == null) {
        throw new Refusal("mask", "A point of the mask has a frequency and a level.");
      }
      out.add(new TriggerMask.Point(p.hz(), p.levelDb()));
    }
    return out;
  }
}
