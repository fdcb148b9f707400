package rovnik.server.spectrum;

import java.util.List;
import rovnik.server.live.GuidedKind;

/** The kinds of guided work that spectra offer. */
final class SpectrumWorks {
  private static final int ROUNDS = 2;

  static final List<GuidedKind> ALL =
      List.of(
          new GuidedKind(
              "auto-frame",
              "Auto frame",
              "Finds reference level, centre and span for whatever is there.",
              new AutoFrame.Form()),
          new GuidedKind(
              "whose-line",
              "Whose line is it?",
              "Labels every line by what it does when attenuation, tuning and source change.",
              new WhoseLine.Form(10)),
          new GuidedKind(
              "harmonics",
              "Harmonics",
              "Levels of the harmonics of the strongest line, and their distortion.",
              new Harmonics.Form(5, null, null)),
          new GuidedKind(
              "drive-sweep",
              "Drive against harmonics",
              "Level of the source against its harmonics.",
              new DriveSweep.Form(20, 29, 8)),
          new GuidedKind(
              "phase-noise",
              "Phase noise",
              "Phase noise of the strongest line in view, with jitter and residual FM.",
              new PhaseNoiseWork.Form(1e6)),
          new GuidedKind(
              "line-trim",
              "Trim by carrier and image",
              "Turns leakage, gain and quadrature of the generator until the lines beside one tone"
                  + " are least.",
              new LineTrim.Form(false, ROUNDS)),
          new GuidedKind(
              "survey",
              "Spurious survey",
              "Spurious emissions over ranges, each with its own RBW, limit and detector.",
              new Survey.Form(List.of(), null, null)),
          new GuidedKind(
              "weighted",
              "Quasi-peak and average",
              "Peak, quasi-peak and average of one frequency after CISPR 16-1-1.",
              new WeightedLevels.Form(null, null, 2, null)),
          new GuidedKind(
              "noise-figure",
              "Noise figure by the Y factor",
              "Noise figure and gain by the Y factor.",
              new YFactor.Form(false, null, 290, null)));

  private SpectrumWorks() {}
}
