package rovnik.core.network;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import rovnik.core.Refusal;

/** A calibration under way: standards in any order, each again as often as wanted. */
public final class CalibrationWork {
  private static final double Z0 = 50;

  /** A through passes at least this much of what a test set lets by (common practice). */
  private static final double LEAST_THROUGH = 0.1;

  private static final double MOST_ISOLATION = 0.03;
  private final CalibrationMethod method;
  private final CalibrationKit kit;
  private final SweepSettings sweep;
  private final double throughSeconds;
  private final Map<CalibrationStep, RawSweep> measured = new EnumMap<>(CalibrationStep.class);

  /**
   * @param throughSeconds rough delay of an unknown through; not used by other methods
   */
  public CalibrationWork(
      CalibrationMethod method, CalibrationKit kit, SweepSettings sweep, double throughSeconds) {
    if (method.needsPort2() && !sweep.bothPorts()) {
      throw new Refusal(
          "bothPorts", "This calibration needs port 2 to send. Switch port 2 on, then calibrate.");
    }
    this.method = method;
    this.kit = kit;
    this.sweep = sweep;
    this.throughSeconds = throughSeconds;
  }

  public CalibrationMethod method() {
    return method;
  }

  public CalibrationKit kit() {
    return kit;
  }

  public SweepSettings sweep() {
    return sweep;
  }

  public boolean has(CalibrationStep step) {
    return measured.containsKey(step);
  }

  /** Whether all that is needed has been measured. */
  public boolean complete() {
    return method.steps().stream().allMatch(s -> s == CalibrationStep.ISOLATION || has(s));
  }

  /**
   * Takes what was measured for a step, in place of what was there before.
   *
   * @throws Refusal if it does not look like what should have been plugged in
   */
  public void take(CalibrationStep step, RawSweep raw) {
    if (!method.steps().contains(step)) {
      throw new Refusal("step", "This calibration has no step \"" + step.label() + "\".");
    }
    String doubt = doubt(step, raw);
    if (!doubt.isEmpty()) {
      throw new Refusal("step", step.label() + ": " + doubt);
    }
    measured.put(step, raw);
  }

  private String doubt(CalibrationStep step, RawSweep raw) {
    if (step.port() > 0) {
      List<Calibration.Measured> before = new ArrayList<>();
      measured.forEach(
          (s, r) -> {
            if (s.port() == step.port() && s != step) {
              before.add(standard(s, r));
            }
          });
      return Calibration.doubt(step.standard(), raw.parameter(step.port(), step.port()), before);
    }
    double mean = 0;
    NetworkData n = raw.ratios();
    for (int p = 0; p < n.points(); p++) {
      mean += n.magnitude(p, 2, 1) / n.points();
    }
    if (step == CalibrationStep.THROUGH && mean < LEAST_THROUGH) {
      return String.format(
          Locale.ROOT,
          "hardly anything passes (%.0f dB). Join the two ports.",
          20 * Math.log10(mean + 1e-12));
    }
    if (step == CalibrationStep.ISOLATION && mean > MOST_ISOLATION) {
      return "the ports are joined. Put a load on each.";
    }
    return "";
  }

  private Calibration.Measured standard(CalibrationStep step, RawSweep raw) {
    return new Calibration.Measured(
        kit.standards().get(step.standard()), raw.parameter(step.port(), step.port()));
  }

  private List<Calibration.Measured> standards(int port) {
    return measured.entrySet().stream()
        .filter(e -> e.getKey().port() == port)
        .map(e -> standard(e.getKey(), e.getValue()))
        .toList();
  }

  /**
   * The error terms.
   *
   * @throws Refusal if something is missing
   */
  public ErrorTerms solve() {
    for (CalibrationStep s : method.steps()) {
      if (s != CalibrationStep.ISOLATION && !has(s)) {
        throw new Refusal("step", "Still to be measured: " + s.label() + ".");
      }
    }
    double[] hz = sweep.frequencies();
    RawSweep through = measured.get(CalibrationStep.THROUGH);
    RawSweep loads = measured.get(CalibrationStep.ISOLATION);
    NetworkData isolation = loads == null ? null : loads.ratios();
    return switch (method) {
      case ONE_PORT -> Calibration.onePort(hz, standards(1), Z0);
      case THROUGH_RESPONSE ->
          Calibration.response(hz, List.of(), kit.through(hz), through.ratios(), Z0);
      case ENHANCED_RESPONSE ->
          Calibration.response(hz, standards(1), kit.through(hz), through.ratios(), Z0);
      case TWO_PORT ->
          Calibration.twoPort(
              hz, standards(1), standards(2), kit.through(hz), through.ratios(), isolation, Z0);
      case UNKNOWN_THROUGH -> {
        if (through.switch1().length == 0) {
          throw new Refusal(
              "method", "This analyzer does not tell what its switch does. Use a known through.");
        }
        yield Calibration.unknownThrough(
            hz,
            standards(1),
            standards(2),
            through.ratios(),
            through.switch1(),
            through.switch2(),
            isolation,
            throughSeconds,
            Z0);
      }
    };
  }
}
