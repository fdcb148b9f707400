package rovnik.server.live;

import io.swagger.v3.oas.annotations.media.Schema;
import rovnik.server.spectrum.SettingsDto;

/**
 * State of a live view.
 *
 * @param revision grows from state to state: an older one never replaces a newer one
 * @param source "i3" for instrument 3, "r7" for recording 7
 * @param sourceName as shown
 * @param phase what it is doing
 * @param message why it stands still, "" if all is well
 * @param field the field that the message concerns, or ""
 * @param holder who may change the settings, "" if nobody does
 * @param holderName shown name of the holder
 * @param jobId the job whose path and limits apply, null before the first start
 * @param widestSpanHz widest span that the source can show
 * @param widestAtOnceHz widest span of a single record; wider ones are stitched
 * @param levelUnit "dBm" or "dBFS"
 * @param guided how far guided work is, null if there is none
 * @param findingId of the newest finding, 0 if there is none
 */
@Schema(name = "LiveState")
public record LiveState(
    long revision,
    String source,
    String sourceName,
    Phase phase,
    String message,
    String field,
    String holder,
    String holderName,
    Long jobId,
    SettingsDto settings,
    double widestSpanHz,
    double widestAtOnceHz,
    String levelUnit,
    String overrideReason,
    GuidedProgress guided,
    long findingId) {

  /** What a live view is doing. */
  public enum Phase {
    /** Not started. */
    IDLE,
    RUNNING,
    HELD,
    /** The level plan or a setting stands in the way. */
    REFUSED,
    /** The instrument is gone; it goes on by itself when it is back. */
    LOST,
    /** A recording: computed whole, nothing runs. */
    STILL
  }
}
