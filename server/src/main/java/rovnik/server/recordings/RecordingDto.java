package rovnik.server.recordings;

import io.swagger.v3.oas.annotations.media.Schema;
import org.jspecify.annotations.Nullable;

/**
 * A recording on file.
 *
 * @param fullScaleDbm level of a full-scale tone at the port, null without calibration
 * @param levelUnit "dBm" or "dBFS"
 * @param levelAccuracyDb how far off its level may be, plus or minus; null if that is not known
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
    String recordedAt,
    @Nullable Double levelAccuracyDb) {}
