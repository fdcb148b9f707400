package rovnik.server.analyzer;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.jspecify.annotations.Nullable;
import rovnik.core.network.CalibrationMethod;
import rovnik.core.network.CalibrationStep;
import rovnik.core.network.KeptCalibration;
import rovnik.server.jobs.LevelPlanDto;

/**
 * Further state of a live network analyzer.
 *
 * @param progress of the sweep under way, 0 to 1
 * @param sweeps finished ones since the server started
 * @param calibrationId in use, null if none is
 * @param trustWhy why the trust is not better, "" if it is the best
 * @param calibrating what is being calibrated, null if nothing
 * @param levels expected levels, null if the path of the job does not lead through this analyzer
 * @param subject what is plugged in, as far as the path tells; "" if it does not
 */
@Schema(name = "NetworkFacts")
record NetworkFacts(
    double progress,
    long sweeps,
    double remainingSeconds,
    @Nullable Long calibrationId,
    KeptCalibration.Trust trust,
    String trustText,
    String trustWhy,
    String calibrationText,
    @Nullable CalibratingDto calibrating,
    @Nullable LevelsDto levels,
    String subject) {

  /**
   * A calibration under way.
   *
   * @param measuring the step that is being measured, null if none is
   * @param partQuestion what the user must say before a step sends power, "" if nothing
   */
  @Schema(name = "Calibrating")
  record CalibratingDto(
      CalibrationMethod method,
      String methodText,
      String kit,
      List<StepDto> steps,
      @Nullable CalibrationStep measuring,
      boolean complete,
      String partQuestion) {}

  /**
   * One step.
   *
   * @param doubt why the last attempt was not taken, "" if it was
   */
  @Schema(name = "CalibrationStep")
  record StepDto(
      CalibrationStep step, String label, boolean measured, boolean optional, String doubt) {}

  /**
   * Levels of both ports.
   *
   * @param backward what port 2 does
   * @param blocking why no power must flow, "" if it may
   * @param dcQuestion what to check for dc, "" if nothing
   */
  @Schema(name = "PortLevels")
  record LevelsDto(LevelPlanDto plan, List<String> backward, String blocking, String dcQuestion) {}
}
