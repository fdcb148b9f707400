package rovnik.instruments.sweep;

import rovnik.core.Refusal;
import rovnik.core.spectrum.Detector;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.units.Frequency;

/**
 * What a swept analyzer is told.
 *
 * @param startHz at its port
 * @param stopHz at its port
 * @param rbwHz wanted; the analyzer takes the nearest it has
 * @param detector for each point
 */
public record SweepSetup(
    double startHz,
    double stopHz,
    double rbwHz,
    int points,
    Detector detector,
    double attenuationDb) {

  /** Points of a sweep unless the RBW needs more. */
  private static final int USUAL_POINTS = 1001;

  /** Points in one RBW: a line between two of them is 0.75 dB down, which is interpolated. */
  private static final double POINTS_A_RBW = 1;

  /**
   * Follows from settings at the port.
   *
   * @throws Refusal if the analyzer cannot
   */
  public static SweepSetup of(SpectrumSettings atPort, SweepCapabilities able) {
    double start = atPort.centreHz() - atPort.spanHz() / 2;
    double stop = atPort.centreHz() + atPort.spanHz() / 2;
    if (start < able.lowestHz() || stop > able.highestHz()) {
      throw new Refusal(
          "spanHz",
          "The analyzer sweeps from "
              + Frequency.ofHertz(able.lowestHz())
              + " to "
              + Frequency.ofHertz(able.highestHz())
              + ". Choose start and stop within at its port.");
    }
    double rbw =
        Math.min(Math.max(atPort.effectiveRbwHz(), able.finestRbwHz()), able.coarsestRbwHz());
    if (atPort.rbwHz() > 0
        && (atPort.rbwHz() < able.finestRbwHz() * 0.99
            || atPort.rbwHz() > able.coarsestRbwHz() * 1.01)) {
      throw new Refusal(
          "rbwHz",
          "The analyzer has RBWs from "
              + Frequency.ofHertz(able.finestRbwHz())
              + " to "
              + Frequency.ofHertz(able.coarsestRbwHz())
              + ".");
    }
    long points =
        Math.max(USUAL_POINTS, (long) Math.ceil(POINTS_A_RBW * atPort.spanHz() / rbw) + 1);
    if (points > able.mostPoints()) {
      throw new Refusal(
          "rbwHz",
          "This RBW over this span needs "
              + points
              + " points; the analyzer has "
              + able.mostPoints()
              + ". Choose an RBW of at least "
              + Frequency.ofHertz(
                  Math.ceil(POINTS_A_RBW * atPort.spanHz() / (able.mostPoints() - 1)))
              + ", or a narrower span.");
    }
    return new SweepSetup(
        start,
        stop,
        rbw,
        (int) points,
        atPort.detector(),
        able.attenuationFor(atPort.referenceLevelDbm()));
  }
}
