package rovnik.core.path;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import org.testng.annotations.Test;
import rovnik.core.Refusal;

/** A level plan in volts. */
public class SupplyTest {
  private static final Supply PART = new Supply(4.5, 5.5, 6);
  private static final Supply.Accuracy SOURCE = new Supply.Accuracy(0.01, 0.01);

  @Test
  public void staysWithinWhateverTheSourceErrsBy() {
    assertEquals(PART.trouble("Osc", SOURCE.of(5, 0.4)), "");
    // 5.46 V of 5.5, but the source may be 0.0646 V off.
    String near = PART.trouble("Osc", SOURCE.of(5, 0.46));
    assertTrue(near.contains("4.54 to 5.46 V") && near.contains("works from 4.5 V to 5.5 V"), near);
    assertTrue(PART.trouble("Osc", SOURCE.of(5, 1)).contains("must not see 6 V or more"));
    assertTrue(PART.trouble("Osc", SOURCE.of(0.5, 1)).contains("less than 0 V"));
    // Too little does no harm, but the part does not work.
    assertTrue(PART.trouble("Osc", SOURCE.of(4, 0)).contains("works from 4.5 V"));
    assertEquals(PART.harm("Osc", SOURCE.of(4, 0)), "");
    assertEquals(PART.harm("Osc", SOURCE.of(0, 0)), "");
    assertTrue(!PART.harm("Osc", SOURCE.of(5, 0.46)).isEmpty());
    assertTrue(PART.stressVolts(SOURCE.of(5, 0.4)) < 0);
    assertTrue(PART.stressVolts(SOURCE.of(5, 1)) > 0.5);
  }

  /** The best drive is in the middle, troubles nothing, and one more step of it would. */
  @Test
  public void theBestUsesAllOfIt() {
    Supply.Drive best = PART.best(SOURCE);
    assertEquals(best.offsetVolts(), 5, 1e-9);
    assertEquals(PART.trouble("Osc", best), "");
    assertTrue(!PART.trouble("Osc", SOURCE.of(5, best.amplitudeVolts() + 0.002)).isEmpty());
    assertEquals(best.amplitudeVolts(), 0.435, 0.0011);
    assertEquals(new Supply(4.99, 5.01, 6).best(SOURCE).amplitudeVolts(), 0);
  }

  @Test
  public void whatCannotBe() {
    expectThrows(Refusal.class, () -> new Supply(5, 4, 6));
    expectThrows(Refusal.class, () -> new Supply(4, 5, 4.5));
    expectThrows(Refusal.class, () -> new Supply(-1, 5, 6));
    assertEquals(new Supply(4, 5, Double.NaN).damageVolts(), 5);
  }
}
