package rovnik.core.emission;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.Random;
import org.testng.annotations.Test;
import rovnik.core.emission.NoiseFigure.Noise;
import rovnik.core.uncertainty.UncertaintyBudget;
import rovnik.core.units.Decibels;

/** Seeded trials: the truth lies inside as often as k = 2 claims, and not always. */
public class NoiseFigureTest {
  private static final double ENR_DB = 15;
  private static final double STANDARD_DB = 0.06;

  /** Powers after Friis (Proc. IRE 32, 1944): k T0 B G (F + ENR) in units of k T0 B. */
  private static Noise seen(double figureDb, double gainDb, Random random) {
    double f = Decibels.toPowerRatio(figureDb);
    double cold = Decibels.fromPowerRatio(f) + gainDb;
    double hot = Decibels.fromPowerRatio(f + Decibels.toPowerRatio(ENR_DB)) + gainDb;
    return new Noise(
        cold + STANDARD_DB * random.nextGaussian(),
        hot + STANDARD_DB * random.nextGaussian(),
        STANDARD_DB);
  }

  private static double figure(Noise n) {
    return NoiseFigure.byYFactor(n.hotDbm(), n.coldDbm(), ENR_DB, NoiseFigure.STANDARD_KELVIN);
  }

  @Test
  public void figureAndGainOfAFirstStageLieInsideAsOftenAsClaimed() {
    double receiver = 18;
    double part = 1.3;
    double gain = 19.5;
    double f =
        Decibels.toPowerRatio(part)
            + (Decibels.toPowerRatio(receiver) - 1) / Decibels.toPowerRatio(gain);
    Random random = new Random(20261125);
    int trials = 2000;
    int figureInside = 0;
    int gainInside = 0;
    for (int i = 0; i < trials; i++) {
      Noise alone = seen(receiver, 0, random);
      Noise both = seen(Decibels.fromPowerRatio(f), gain, random);
      double foundGain = NoiseFigure.gainDb(alone, both);
      double found = NoiseFigure.ofFirstStage(figure(both), figure(alone), foundGain);
      double expanded = NoiseFigure.ofFirstStage(alone, both, 0).expanded();
      double gainExpanded =
          UncertaintyBudget.K * Math.hypot(alone.riseStandardDb(), both.riseStandardDb());
      figureInside += Math.abs(found - part) <= expanded ? 1 : 0;
      gainInside += Math.abs(foundGain - gain) <= gainExpanded ? 1 : 0;
    }
    assertEquals(100.0 * figureInside / trials, 95.4, 2, "figure");
    assertEquals(100.0 * gainInside / trials, 95.4, 2, "gain");
  }

  @Test
  public void aSmallRiseOverTheReceiversOwnNoiseIsKnownBadly() {
    double noisy = seen(18, 0, new Random(1)).riseStandardDb();
    double quiet = seen(3, 0, new Random(1)).riseStandardDb();
    assertTrue(noisy > 2 * quiet, noisy + " against " + quiet);
  }
}
