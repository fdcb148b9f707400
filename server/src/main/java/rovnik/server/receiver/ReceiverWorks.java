package rovnik.server.receiver;

import java.util.List;
import rovnik.server.live.GuidedKind;

/** The kinds of guided work that receivers offer. */
public final class ReceiverWorks {
  /** Also offered by what measures a generator's carrier itself. */
  public static final GuidedKind LEVEL_RUN =
      new GuidedKind(
          "level-run",
          "Level against quality",
          "Lowers the level step by step and reads quality at each.",
          LevelRunWork.Form.FIRST);

  /** The same. */
  public static final GuidedKind SENSITIVITY =
      new GuidedKind(
          "sensitivity",
          "Sensitivity",
          "Seeks the level at which the receiver is just good enough.",
          SensitivityWork.Form.FIRST);

  static final List<GuidedKind> ALL =
      List.of(
          LEVEL_RUN,
          SENSITIVITY,
          new GuidedKind(
              "squelch",
              "Squelch",
              "Finds where the squelch opens and closes.",
              SquelchWork.Form.FIRST),
          new GuidedKind(
              "rejection",
              "Rejection of another signal",
              "Raises a second generator beside the wanted signal until quality is just reached.",
              RejectionWork.Form.FIRST));

  private ReceiverWorks() {}
}
