package rovnik.server.analyzer;

import io.swagger.v3.oas.annotations.media.Schema;
import rovnik.core.network.CalibrationMethod;

/**
 * A kept calibration.
 *
 * @param identity of the analyzer it was made with
 * @param verified largest residual that a verification found, linear; null if none was made
 */
@Schema(name = "KeptCalibration")
record CalibrationDto(
    long id,
    String name,
    CalibrationMethod method,
    String methodText,
    String kit,
    String identity,
    long madeAtMillis,
    SweepDto sweep,
    Double verified) {}
