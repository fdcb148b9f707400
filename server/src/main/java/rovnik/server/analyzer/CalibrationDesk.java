package rovnik.server.analyzer;

import java.util.EnumMap;
import java.util.Map;
import rovnik.core.Refusal;
import rovnik.core.network.CalibrationStep;
import rovnik.core.network.CalibrationWork;
import rovnik.core.network.KeptCalibration;
import rovnik.core.network.RawSweep;
import rovnik.core.network.SweepSettings;
import rovnik.server.config.Conflict;

/**
 * The calibration under way: what is measured next, and why an attempt was not taken. Asked for by
 * requests, filled by the instrument's thread.
 */
final class CalibrationDesk {
  private CalibrationWork work;
  private CalibrationStep wanted;
  private final Map<CalibrationStep, String> doubts = new EnumMap<>(CalibrationStep.class);

  synchronized void begin(CalibrationWork fresh) {
    work = fresh;
    wanted = null;
    doubts.clear();
  }

  synchronized void drop() {
    work = null;
    wanted = null;
  }

  synchronized boolean busy() {
    return work != null;
  }

  /** Refuses settings other than those that the calibration is made with. */
  synchronized void allow(SweepSettings settings) {
    if (work != null && !settings.equals(work.sweep())) {
      throw Conflict.state(
          "A calibration is under way with the settings as they are. Finish or drop it first.");
    }
  }

  private CalibrationWork work() {
    if (work == null) {
      throw Conflict.state("No calibration is under way. Begin one first.");
    }
    return work;
  }

  /** Asks for a step to be measured. */
  synchronized void want(CalibrationStep step) {
    if (!work().method().steps().contains(step)) {
      throw new Refusal("step", "This calibration has no step \"" + step.label() + "\".");
    }
    doubts.remove(step);
    wanted = step;
  }

  /** The step that is measured next, null if none is. */
  synchronized CalibrationStep wanted() {
    return wanted;
  }

  synchronized void forget() {
    wanted = null;
  }

  /** Takes a finished sweep for a step; if it is doubtful, the doubt is kept instead. */
  synchronized void take(CalibrationStep step, RawSweep raw) {
    wanted = null;
    if (work == null) {
      return;
    }
    try {
      work.take(step, raw);
    } catch (Refusal r) {
      doubts.put(step, r.getMessage());
    }
  }

  /** The finished calibration, not stored yet; refused if something is missing. */
  synchronized KeptCalibration solved(String name, String identity) {
    CalibrationWork w = work();
    return new KeptCalibration(
        0,
        name,
        w.method(),
        w.kit().label(),
        System.currentTimeMillis(),
        w.sweep(),
        identity,
        w.solve());
  }

  /**
   * The work as it is told.
   *
   * @param partQuestion what must be said before power flows, "" if nothing
   */
  synchronized NetworkFacts.CalibratingDto dto(String partQuestion) {
    if (work == null) {
      return null;
    }
    return new NetworkFacts.CalibratingDto(
        work.method(),
        work.method().label(),
        work.kit().label(),
        work.method().steps().stream()
            .map(
                s ->
                    new NetworkFacts.StepDto(
                        s,
                        s.label(),
                        work.has(s),
                        s == CalibrationStep.ISOLATION,
                        doubts.getOrDefault(s, "")))
            .toList(),
        wanted,
        work.complete(),
        partQuestion);
  }
}
