package rovnik.server.analyzer;

import rovnik.core.network.PortLevels;
import rovnik.core.network.SweepSettings;
import rovnik.server.config.Conflict;
import rovnik.server.jobs.JobDto;

/**
 * Whether the ports may send: what the level plan says, what the user answered, and for how much.
 */
final class PowerLeave {
  private volatile boolean dcChecked;
  private volatile String reason = "";
  private volatile Given given; // null if no reason was given
  private volatile boolean partOff;

  /** What a reason was given for: it holds for no other path and for no more power. */
  private record Given(JobDto.PathVersion path, double powerDbm, boolean bothPorts) {
    boolean covers(AnalyzerPath at, SweepSettings s) {
      return path.equals(at.version()) && s.powerDbm() <= powerDbm && (bothPorts || !s.bothPorts());
    }
  }

  private boolean covered(AnalyzerPath path, SweepSettings settings) {
    Given g = given;
    return g != null && path != null && g.covers(path, settings);
  }

  boolean dcChecked() {
    return dcChecked;
  }

  /** Why power flows against the plan, "" if it does not. */
  String reason() {
    return reason;
  }

  /** What the level plan says against these settings, "" if nothing or if a reason was given. */
  String trouble(AnalyzerPath path, SweepSettings settings) {
    return path == null || covered(path, settings) ? "" : path.levels(settings).blocking();
  }

  /** Asks for power into the part; refused with the question that is still open. */
  void ask(AnalyzerPath path, SweepSettings settings, String why, boolean dc) {
    dcChecked = dc;
    if (!covered(path, settings)) {
      reason = "";
    }
    String trouble = trouble(path, settings);
    if (!trouble.isEmpty()) {
      if (why == null || why.isBlank()) {
        throw Conflict.levels(trouble);
      }
      reason = why.strip();
      given = new Given(path.version(), settings.powerDbm(), settings.bothPorts());
    }
    String question = path == null ? "" : path.levels(settings).dcQuestion();
    if (!question.isEmpty() && !dc) {
      throw Conflict.named("dcCheck", question + " Then tick \"no dc\".");
    }
  }

  /** A calibration begins: what is at the ports must be said anew. */
  void standardsNext() {
    partOff = false;
  }

  /**
   * What must be said before standards are measured, "" if nothing: a part that is still plugged in
   * gets the power as well.
   */
  String partQuestion(AnalyzerPath path, SweepSettings settings) {
    if (path == null || partOff) {
      return "";
    }
    PortLevels levels = path.levels(settings);
    boolean mayStay = levels.blocking().isEmpty() && (levels.dcQuestion().isEmpty() || dcChecked);
    return mayStay
        ? ""
        : "Take "
            + (path.partName().isEmpty() ? "the part" : path.partName())
            + " off both ports first: a calibration sends power, and the ports bear no dc.";
  }

  /** Asks for power into standards alone. */
  void askForStandards(AnalyzerPath path, SweepSettings settings, boolean saidOff) {
    partOff = partOff || saidOff;
    String question = partQuestion(path, settings);
    if (!question.isEmpty()) {
      throw Conflict.named("partOff", question + " Then tick \"the part is off\".");
    }
  }
}
