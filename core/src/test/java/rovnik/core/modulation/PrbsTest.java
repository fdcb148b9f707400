package rovnik.core.modulation;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.Optional;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Test sequences against what ITU-T O.150 says of them. */
public class PrbsTest {
  /** Order, the other tap of its polynomial, longest run of zeros (ITU-T O.150). */
  @DataProvider
  public Object[][] sequences() {
    return new Object[][] {
      {Prbs.PN9, 9, 5},
      {Prbs.PN11, 11, 9},
      {Prbs.PN15, 15, 14},
      {Prbs.PN20, 20, 3},
      {Prbs.PN23, 23, 18}
    };
  }

  /**
   * One period: 2^(n-1) ones, longest runs of n ones and n-1 zeros, the recursion at every bit, and
   * the same again afterwards.
   */
  @Test(dataProvider = "sequences")
  public void onePeriodIsAsTheStandardSays(Prbs prbs, int order, int tap) {
    int period = (1 << order) - 1;
    assertEquals(prbs.period(), period);
    long[] bits = prbs.bits(period + 64L);
    int ones = 0;
    int run = 0;
    int longestOnes = 0;
    int longestZeros = 0;
    boolean last = false;
    for (int i = 0; i < period; i++) {
      boolean b = Prbs.get(bits, i);
      ones += b ? 1 : 0;
      run = i > 0 && b == last ? run + 1 : 1;
      last = b;
      longestOnes = Math.max(longestOnes, b ? run : 0);
      longestZeros = Math.max(longestZeros, b ? 0 : run);
      if (i >= order) {
        assertEquals(b, Prbs.get(bits, i - order) ^ Prbs.get(bits, i - tap), "bit " + i);
      }
    }
    assertEquals(ones, 1 << (order - 1));
    assertEquals(longestOnes, order);
    assertEquals(longestZeros, order - 1);
    for (int i = 0; i < 64; i++) {
      assertEquals(Prbs.get(bits, period + i), Prbs.get(bits, i));
    }
  }

  @Test
  public void theLongestKeepsItsRecursion() {
    long[] bits = Prbs.PN31.bits(200_000);
    for (int i = 31; i < 200_000; i++) {
      assertEquals(Prbs.get(bits, i), Prbs.get(bits, i - 31) ^ Prbs.get(bits, i - 28));
    }
  }

  /** Received from somewhere within, with errors: found, and each error counted. */
  @Test(dataProvider = "sequences")
  public void isFoundFromAnyPlaceAndWithErrors(Prbs prbs, int order, int tap) {
    long from = prbs.period() / 3;
    int count = 5000;
    long[] received = Prbs.from(prbs.bits(from + count), from, count);
    int wrong = 0;
    for (int i = 7; i < count; i += 151) {
      received[i >> 6] ^= 1L << (i & 63);
      wrong++;
    }
    Optional<long[]> sent = prbs.matching(received, count);
    assertTrue(sent.isPresent());
    assertEquals(Prbs.errors(sent.get(), received, 0, count), wrong);
  }

  @Test
  public void anotherSequenceIsNotFound() {
    long[] other = Prbs.PN11.bits(5000);
    assertFalse(Prbs.PN9.matching(other, 5000).isPresent());
  }
}
