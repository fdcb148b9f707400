package rovnik.server.recordings;

import io.swagger.v3.oas.annotations.media.Schema;
import org.jspecify.annotations.Nullable;

/**
 * A recording on file.
 *
 * @param fullScaleDbm level of a full-scale tone at the port, null without calibration
 * @param levelUnit "dBm" or "dBFS"
 */
@Schema(name = "Recording")
public record RecordingDto(
    long id,
    String name,
    String datatype,
    double sampleRateHz,
    double centreHz,
    @Nullable Double fullScaleDbm,
    long samples,
    double seconds,
    String levelUnit,
    boolean overload,
    String description,
    String recordedAt) {}
