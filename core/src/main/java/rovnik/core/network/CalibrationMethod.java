package rovnik.core.network;

import java.util.ArrayList;
import java.util.List;

/** How a network analyzer is calibrated: what is measured, and what is known afterwards. */
public enum CalibrationMethod {
  ONE_PORT("one port: open, short, load at port 1", true, false, false),
  THROUGH_RESPONSE("through alone: only the transmission is put right", false, false, true),
  ENHANCED_RESPONSE("one port and through: S11 and S21 are put right", true, false, true),
  TWO_PORT("both ports and through: all is put right", true, true, true),
  UNKNOWN_THROUGH("both ports and any adapter as through", true, true, true);

  private final String label;
  private final boolean port1;
  private final boolean port2;
  private final boolean through;

  CalibrationMethod(String label, boolean port1, boolean port2, boolean through) {
    this.label = label;
    this.port1 = port1;
    this.port2 = port2;
    this.through = through;
  }

  public String label() {
    return label;
  }

  /** The steps, in a handy order; any other will do. */
  public List<CalibrationStep> steps() {
    List<CalibrationStep> steps = new ArrayList<>();
    for (CalibrationStep s : CalibrationStep.values()) {
      boolean needed =
          s.port() == 1 ? port1 : s.port() == 2 ? port2 : s != CalibrationStep.ISOLATION || port2;
      if (s.port() == 0 ? through && needed : needed) {
        steps.add(s);
      }
    }
    return steps;
  }

  /** Whether port 2 must send during the calibration. */
  public boolean needsPort2() {
    return port2;
  }

  /** What is put right: S11 alone, S21 alone, both, or all. */
  public boolean corrects(int row, int column) {
    return switch (this) {
      case ONE_PORT -> row == 1 && column == 1;
      case THROUGH_RESPONSE -> row != column;
      case ENHANCED_RESPONSE -> column == 1;
      case TWO_PORT, UNKNOWN_THROUGH -> true;
    };
  }
}
