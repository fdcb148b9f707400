package rovnik.core.time;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.List;
import java.util.Random;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.limits.KnownRate;
import rovnik.core.time.RateCauses.Cause;
import rovnik.core.time.RateCauses.Fit;

/** Intervals against clocks that are known. */
public class RateCausesTest {
  private static final KnownRate SLEEP = new KnownRate("radio sleep", 1 / 3.1e-3);
  private static final KnownRate TICK = new KnownRate("tick", 10_000);
  private static final KnownRate SLOW = new KnownRate("beacon", 1 / 12.4e-3);
  private static final KnownRate CORE = new KnownRate("core clock", 26e6);
  private static final KnownRate OTHER = new KnownRate("strobe", 1000);

  private static Cause cause(KnownRate rate, double interval) {
    return RateCauses.of(interval, 1e-9, List.of(rate)).get(0);
  }

  @Test
  public void whatFitsIsNamedByItsCycles() {
    assertEquals(cause(SLEEP, 3.1e-3).words(), "radio sleep");
    assertEquals(cause(TICK, 3.1e-3).words(), "31 cycles of tick");
    assertEquals(cause(SLOW, 3.1e-3).words(), "4 times a cycle of beacon");
    for (KnownRate r : List.of(SLEEP, TICK, SLOW)) {
      assertEquals(cause(r, 3.1e-3).fit(), Fit.FITS, r.name());
      assertEquals(cause(r, 3.1001e-3).offPpm(), 32.3, 0.1, r.name());
      // A crystal is not off by so much.
      assertEquals(cause(r, 3.1e-3 * 1.0003).fit(), Fit.OTHER, r.name());
    }
    assertEquals(cause(OTHER, 3.1e-3).fit(), Fit.OTHER);
  }

  /** A fast clock fits everything: it is not blamed. */
  @Test
  public void whatCannotBeToldIsNotBlamed() {
    assertEquals(cause(CORE, 3.1e-3).fit(), Fit.TOO_FAST);
    List<Cause> all = RateCauses.of(3.1e-3, 1e-9, List.of(CORE, OTHER, SLEEP));
    assertEquals(all.get(0).rate(), SLEEP);
    assertEquals(
        RateCauses.words(all),
        " That is radio sleep; nothing else that is known of the job has this rate.");
    assertTrue(RateCauses.words(RateCauses.of(7e-3, 1e-9, List.of(SLEEP))).contains("Nothing"));
    assertEquals(RateCauses.words(List.of()), "");
    // An interval that is not known well blames nobody either.
    assertEquals(RateCauses.of(3.1e-3, 1e-3, List.of(SLEEP)).get(0).fit(), Fit.TOO_FAST);
  }

  /** Rates of chance are blamed as seldom as is said. */
  @Test
  public void chanceIsSeldomBlamed() {
    Random random = new Random(4);
    int blamed = 0;
    int told = 0;
    for (int k = 0; k < 10_000; k++) {
      double hertz = Math.pow(10, 6 * random.nextDouble());
      Cause c = cause(new KnownRate("x", hertz), 3.1e-3);
      told += c.fit() != Fit.TOO_FAST ? 1 : 0;
      blamed += c.fits() ? 1 : 0;
    }
    assertTrue(told > 5000, told + " told");
    assertTrue(blamed < 0.05 * told, blamed + " of " + told);
  }

  @Test
  public void ratesThatAreNoneAreRefused() {
    for (double hertz : new double[] {0, -1, 1e30, Double.NaN}) {
      assertEquals(expectThrows(Refusal.class, () -> new KnownRate("x", hertz)).field(), "rates");
    }
    assertEquals(expectThrows(Refusal.class, () -> new KnownRate(" ", 1)).field(), "rates");
  }
}
