package rovnik.server.live;

import io.swagger.v3.oas.annotations.media.Schema;
import org.jspecify.annotations.Nullable;

/**
 * State of a measurement of one source.
 *
 * @param revision grows from state to state: an older one never replaces a newer one
 * @param source "i3" for instrument 3, "r7" for recording 7
 * @param sourceName as shown
 * @param measurement its kind, such as "spectrum"
 * @param phase what it is doing
 * @param message why it stands still, "" if all is well
 * @param field the field that the message concerns, or ""
 * @param holder who may change the settings of this source, "" if nobody does
 * @param holderName shown name of the holder
 * @param jobId the job whose path and limits apply, null for none
 * @param once it holds after the first settled outcome
 * @param overrideReason why power flows against the level plan, "" if it does not
 * @param guided how far guided work is, null if there is none
 * @param findingId of the newest finding, 0 if there is none
 * @param settings of the measurement; their form is that of its kind
 * @param facts further facts of its kind
 */
@Schema(name = "SessionState")
public record SessionState(
    long revision,
    String source,
    String sourceName,
    String measurement,
    Phase phase,
    String message,
    String field,
    String holder,
    String holderName,
    @Nullable Long jobId,
    boolean once,
    String overrideReason,
    @Nullable GuidedProgress guided,
    long findingId,
    Object settings,
    Object facts) {}
