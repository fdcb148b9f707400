package rovnik.core.emission;

import rovnik.core.Refusal;
import rovnik.core.signal.Window;
import rovnik.core.units.Decibels;

/**
 * The second input of a receiver with two, looked at together with the first: same tuning, same
 * transform, everything else its own.
 *
 * @param window window function of its trace
 * @param referenceLevelDbm highest level expected at the probe's tip
 * @param probeRatio how many times the probe divides the voltage: 1 or 10, or another
 */
public record SecondInput(Window window, double referenceLevelDbm, double probeRatio) {
  public SecondInput {
    Refusal.finite("second.referenceLevelDbm", referenceLevelDbm);
    if (window == null) {
      throw new Refusal("second.window", "Choose a window for the second input, for example HANN.");
    }
    if (!(probeRatio >= 1) || probeRatio > 1e4) {
      throw new Refusal(
          "second.probeRatio", "A probe divides by 1 to 10000; most are 1 (1:1) or 10 (10:1).");
    }
  }

  /** Gain of the probe from its tip to the port. */
  public double probeGainDb() {
    return -Decibels.fromAmplitudeRatio(probeRatio);
  }

  /** The plane that levels of the second input refer to. */
  public String plane() {
    return probeRatio == 1 ? "tip of probe 2, 1:1" : "tip of probe 2, " + text() + ":1";
  }

  private String text() {
    return probeRatio == Math.rint(probeRatio) ? "" + (long) probeRatio : "" + probeRatio;
  }
}
