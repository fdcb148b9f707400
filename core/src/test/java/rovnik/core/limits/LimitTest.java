package rovnik.core.limits;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import org.testng.annotations.Test;
import rovnik.core.Refusal;

public class LimitTest {
  private final LimitSet buoy = new LimitSet(458.525e6, 2.5, 27, 3, 0.5);

  @Test
  public void judgesWithUncertainty() {
    Limit l = buoy.levelAt(0);
    assertEquals(l, new Limit(24, 27.5));
    assertEquals(l.judge(26, 0.3), Verdict.PASS);
    assertEquals(l.judge(27.5, 0), Verdict.PASS);
    assertEquals(l.judge(27.4, 0.3), Verdict.PASS_UNSURE);
    assertEquals(l.judge(27.6, 0.3), Verdict.FAIL_UNSURE);
    assertEquals(l.judge(29, 0.3), Verdict.FAIL);
    assertEquals(l.judge(Double.NaN, 0.3), Verdict.INVALID);
    assertEquals(Limit.NONE.judge(1, 0), Verdict.NONE);
    assertEquals(l.margin(27), 0.5, 1e-12);
    assertEquals(l.margin(23), -1, 1e-12);
  }

  @Test
  public void limitsMoveWithThePlane() {
    assertEquals(buoy.levelAt(-31.2).upper(), -3.7, 1e-9);
  }

  @Test
  public void frequencyTolerance() {
    assertEquals(buoy.frequencyErrorHz().upper(), 1146.3, 0.05);
    assertTrue(LimitSet.NONE.frequencyErrorHz().open());
  }

  @Test
  public void refusesTheAbsurd() {
    assertThrows(Refusal.class, () -> new Limit(2, 1));
    assertThrows(Refusal.class, () -> new LimitSet(-1, 1, 1, 1, 1));
    assertThrows(Refusal.class, () -> new LimitSet(1, -1, 1, 1, 1));
  }
}
