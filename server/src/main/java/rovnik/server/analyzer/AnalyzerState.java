package rovnik.server.analyzer;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import rovnik.core.network.CalibrationMethod;
import rovnik.core.network.CalibrationStep;
import rovnik.core.network.KeptCalibration;
import rovnik.server.jobs.LevelPlanDto;
import rovnik.server.live.LiveState;

/**
 * State of a network analyzer.
 *
 * @param revision grows from state to state: an older one never replaces a newer one
 * @param source "n8" for instrument 8
 * @param message why it stands still, "" if all is well
 * @param field the field that the message concerns, or ""
 * @param holder who may change the settings, "" if nobody does
 * @param jobId the job whose path and limits apply, null before the first start
 * @param single true if it holds after one sweep
 * @param progress of the sweep under way, 0 to 1
 * @param sweeps finished ones since the server started
 * @param calibrationId in use, null if none is
 * @param trustWhy why the trust is not better, "" if it is the best
 * @param calibrating what is being calibrated, null if nothing
 * @param levels expected levels, null if the path of the job does not lead through this analyzer
 * @param atPart true if readings are at the part, pads and cables of the path taken off
 * @param dcChecked whether the user said that no dc reaches a port
 */
@Schema(name = "AnalyzerState")
record AnalyzerState(
    long revision,
    String source,
    String sourceName,
    LiveState.Phase phase,
    String message,
    String field,
    String holder,
    String holderName,
    Long jobId,
    SweepDto sweep,
    boolean single,
    double progress,
    long sweeps,
    double remainingSeconds,
    Long calibrationId,
    KeptCalibration.Trust trust,
    String trustText,
    String trustWhy,
    String calibrationText,
    CalibratingDto calibrating,
    LevelsDto levels,
    boolean atPart,
    boolean dcChecked,
    String overrideReason) {

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
      CalibrationStep measuring,
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
