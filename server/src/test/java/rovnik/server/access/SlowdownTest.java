package rovnik.server.access;

import static org.testng.Assert.assertEquals;

import org.testng.annotations.Test;

public class SlowdownTest {
  private long nanos = 77;

  @Test
  public void theWaitDoublesUpToAMinuteAndEndsWithTheRightPassword() {
    Slowdown slow = new Slowdown(() -> nanos);
    long[] waits = {0, 0, 1, 2, 4, 8, 16, 32, 60, 60};
    for (long wait : waits) {
      slow.wrong("a");
      assertEquals(slow.waitSeconds("a"), wait);
    }
    assertEquals(slow.waitSeconds("b"), 0);
    nanos += 59_000_000_001L;
    assertEquals(slow.waitSeconds("a"), 1);
    nanos += 1_000_000_000L;
    assertEquals(slow.waitSeconds("a"), 0);
    slow.right("a");
    slow.wrong("a");
    assertEquals(slow.waitSeconds("a"), 0);
  }
}
