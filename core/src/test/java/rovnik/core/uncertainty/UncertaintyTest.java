package rovnik.core.uncertainty;

import static org.testng.Assert.assertEquals;

import java.util.List;
import org.testng.annotations.Test;
import rovnik.core.path.ElementKind;
import rovnik.core.path.PathElement;
import rovnik.core.path.SignalPath;

public class UncertaintyTest {
  /** VSWR 1.5 on both sides: +0.341 / -0.355 dB, 20 log10(1 +- 0.04). */
  @Test
  public void mismatchLimits() {
    assertEquals(Mismatch.highestDb(0.2, 0.2), 0.341, 0.0005);
    assertEquals(Mismatch.lowestDb(0.2, 0.2), -0.355, 0.0005);
  }

  /** JCGM 100:2008 4.3.7 (a / sqrt 3), 4.3.5 note (a / sqrt 2), 5.1.2 (root sum of squares). */
  @Test
  public void combinesAsTheGuide() {
    UncertaintyBudget b =
        new UncertaintyBudget().rectangular("a", 0.3).ushaped("b", 0.2).normal("c", 0.1);
    assertEquals(b.combined(), Math.sqrt(0.03 + 0.02 + 0.01), 1e-12);
    assertEquals(b.expanded(), 2 * b.combined(), 1e-12);
    assertEquals(b.contributions().size(), 3);
    assertEquals(new UncertaintyBudget().rectangular("x", Double.NaN).expanded(), 0, 0);
  }

  @Test
  public void onlyElementsBetweenPlaneAndPortCount() {
    SignalPath path =
        new SignalPath(
            List.of(
                PathElement.source("TX", 27, 20),
                PathElement.of("Pad", ElementKind.PAD, -30, 0.3),
                PathElement.of("Feeder", ElementKind.CABLE, -1.2, 0.2),
                PathElement.port("RX", 0, 20, 20)),
            0);
    InstrumentAccuracy accuracy = new InstrumentAccuracy(0.4, 1e-9);
    double atSource = LevelUncertainty.of(path, accuracy, 0).combined();
    double atPort = LevelUncertainty.of(path.withReadingPlane(2), accuracy, 0).combined();
    assertEquals(atSource, Math.sqrt((0.09 + 0.04 + 0.16) / 3), 1e-9);
    assertEquals(atPort, 0.4 / Math.sqrt(3), 1e-9);
  }
}
