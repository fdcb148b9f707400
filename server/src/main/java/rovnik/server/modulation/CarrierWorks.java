package rovnik.server.modulation;

import java.util.List;
import rovnik.core.modulation.analysis.OwnShare;
import rovnik.server.live.GuidedKind;
import rovnik.server.receiver.ReceiverWorks;

/** The kinds of guided work that carriers offer. */
final class CarrierWorks {
  private static final int ROUNDS = 2;
  private static final double ABOVE_DB = 30;
  private static final double STEP_DB = 2;

  static final List<GuidedKind> ALL =
      List.of(
          new GuidedKind(
              "what-is-it",
              "What is it?",
              "Tells symbol rate, format, roll-off and place of an unknown carrier, and how sure.",
              new WhatIsItWork.Form(0)),
          new GuidedKind(
              "trim",
              "Trim until it is best",
              "Turns leakage, gain, quadrature and delay of the generator until the errors are"
                  + " least; before and after are kept as runs.",
              new TrimWork.Form(false, ROUNDS)),
          new GuidedKind(
              "front-end",
              "Front end at its best",
              "Finds the reference level at which the receiver adds the least, and sets it.",
              new FrontEndWork.Form(ABOVE_DB, STEP_DB)),
          new GuidedKind(
              OwnShare.KIND,
              OwnShare.TITLE,
              "Tells how much of the EVM is this receiver's: by its noise with the source off, and"
                  + " by a run of another receiver.",
              OwnShareWork.Form.FIRST),
          ReceiverWorks.LEVEL_RUN,
          ReceiverWorks.SENSITIVITY);

  private CarrierWorks() {}
}
