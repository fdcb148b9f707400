package rovnik.core.receiver;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.Optional;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import org.hipparchus.distribution.discrete.BinomialDistribution;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.modulation.Format;

public class LevelSearchTest {
  private static final double BIT_RATE = 1e6;
  private static final Criterion TWELVE = new Criterion(Criterion.Of.SINAD, 12);

  /** Eb/N0 for 1e-5, Gray-coded (Q-function bound, Proakis): the table of the trade. */
  @DataProvider
  public Object[][] atTenToMinusFive() {
    return new Object[][] {
      {Format.QPSK, 9.59}, {Format.QAM16, 13.43}, {Format.QAM64, 17.79}, {Format.QAM256, 22.50}
    };
  }

  @Test(dataProvider = "atTenToMinusFive")
  public void theoryIsThatOfTheTable(Format format, double ebN0Db) {
    assertEquals(ErrorTheory.of(format).orElseThrow().ebN0Db(1e-5), ebN0Db, 0.03);
  }

  @Test
  public void everyBitOfSixteenPointsIsCounted() {
    // Each axis of Gray-coded 16-QAM, from the three distances to its boundaries.
    double g = Math.pow(10, 0.2);
    double s = Math.sqrt(0.8 * g);
    double expected = 0.75 * q(s) + 0.5 * q(3 * s) - 0.25 * q(5 * s);
    assertEquals(ErrorTheory.of(Format.QAM16).orElseThrow().ratio(2), expected, 1e-4 * expected);
  }

  private static double q(double x) {
    return 0.5 * org.hipparchus.special.Erf.erfc(x / Math.sqrt(2));
  }

  /** A receiver whose bits are wrong as theory says, this much worse and this much less steep. */
  private record Receiver(DoubleUnaryOperator ratio, Random random, double dropsDbm) {
    Quality look(double dbm, double seconds) {
      if (dbm < dropsDbm) {
        return Quality.nothing("out of step");
      }
      long bits = Math.round(seconds * BIT_RATE);
      double p = ratio.applyAsDouble(dbm);
      long errors = binomial(bits, p);
      long packets = bits / 1024;
      return Quality.ofBits(
          bits, errors, packets, binomial(packets, -Math.expm1(1024 * Math.log1p(-p))));
    }

    private long binomial(long n, double p) {
      double mean = n * p;
      if (mean > 200) {
        return Math.max(
            0, Math.min(n, Math.round(mean + Math.sqrt(mean * (1 - p)) * random.nextGaussian())));
      }
      return new BinomialDistribution((int) n, p).inverseCumulativeProbability(random.nextDouble());
    }
  }

  private static Receiver sixteen(double n0Dbm, double steepness, long seed) {
    ErrorTheory t = ErrorTheory.of(Format.QAM16).orElseThrow();
    return new Receiver(
        dbm -> t.ratio(10 + steepness * (dbm - n0Dbm - 10)), new Random(seed), n0Dbm + 2);
  }

  private static double found(LevelSearch search, Receiver r, double mostSeconds) {
    double spent = 0;
    for (Optional<LevelSearch.Step> s = search.next(); s.isPresent(); s = search.next()) {
      search.add(s.get().dbm(), r.look(s.get().dbm(), s.get().seconds()));
      spent += s.get().seconds();
      assertTrue(spent < mostSeconds, "looked for " + spent + " s");
    }
    return spent;
  }

  @DataProvider
  public Object[][] targets() {
    return new Object[][] {
      {1, 1e-2, 1.0, 10},
      {1, 1e-3, 1.0, 20},
      {1, 1e-3, 0.85, 20},
      {1, 1e-5, 1.0, 400},
      {1024, 0.1, 1.0, 100}
    };
  }

  /**
   * The level is inside its interval as often as k = 2 claims, and the interval is no wider than
   * asked.
   */
  @Test(dataProvider = "targets")
  public void theLevelOfAnErrorRatioIsInside(
      int packet, double target, double steepness, double seconds) {
    int inside = 0;
    int trials = 120;
    double sum = 0;
    ErrorTheory theory = ErrorTheory.of(Format.QAM16).orElseThrow();
    double bits = packet == 1 ? target : -Math.expm1(Math.log1p(-target) / packet);
    for (int i = 0; i < trials; i++) {
      Receiver r = sixteen(-108.97, steepness, 500 + i);
      double truth = -108.97 + 10 + (theory.ebN0Db(bits) - 10) / steepness;
      CountSearch search =
          new CountSearch(theory, packet, target, BIT_RATE, -80 - i % 7, -140, -20, 0.2);
      sum += found(search, r, seconds * 3);
      LevelEstimate e = search.estimate();
      assertTrue(2 * e.standardDb() <= 0.2);
      inside += Math.abs(e.dbm() - truth) <= 2 * e.standardDb() ? 1 : 0;
    }
    assertTrue(sum / trials < seconds, "looked for " + sum / trials + " s");
    assertTrue(
        inside >= 0.90 * trials, inside + " of " + trials + " inside, " + sum / trials + " s");
  }

  @Test
  public void aReceiverThatNeverWorksIsSaid() {
    CountSearch search =
        new CountSearch(ErrorTheory.plain(), 1, 1e-3, BIT_RATE, -60, -140, -20, 0.2);
    Receiver r = new Receiver(x -> 0.5, new Random(1), 0);
    Refusal said = expectThrows(Refusal.class, () -> found(search, r, 100));
    assertTrue(said.getMessage().contains("Even at -20.0 dBm it is not good enough"));
  }

  @Test
  public void aFloorOfErrorsIsNotTakenForTheEdge() {
    CountSearch search =
        new CountSearch(ErrorTheory.plain(), 1, 1e-4, BIT_RATE, -60, -140, -20, 0.2);
    Receiver r = new Receiver(x -> 2e-3, new Random(1), -100);
    expectThrows(Refusal.class, () -> found(search, r, 100));
  }

  @Test
  public void aLevelThatNeverFailsIsSaid() {
    CountSearch search =
        new CountSearch(ErrorTheory.plain(), 1, 1e-3, BIT_RATE, -60, -90, -20, 0.2);
    Receiver r = new Receiver(x -> 1e-12, new Random(1), -200);
    Refusal said = expectThrows(Refusal.class, () -> found(search, r, 100));
    assertTrue(said.getMessage().contains("Add a pad"));
  }

  /** A tone in FM near its threshold: 3 dB a dB, some curvature, 0.3 dB of scatter. */
  @Test
  public void theLevelOfTwelveDecibelsSinadIsInside() {
    int inside = 0;
    int trials = 200;
    for (int i = 0; i < trials; i++) {
      Random random = new Random(900 + i);
      LineSearch search = new LineSearch(TWELVE, 0.5, -90 - i % 5, -140, -20, 0.3, false);
      int looks = 0;
      for (Optional<LevelSearch.Step> s = search.next(); s.isPresent(); s = search.next()) {
        double above = s.get().dbm() + 119;
        double sinad =
            Math.max(0, Math.min(33, 12 + 3 * above - 0.15 * Math.min(9, above * above)));
        search.add(s.get().dbm(), Quality.ofSinad(sinad + 0.3 * random.nextGaussian(), 0.3));
        assertTrue(++looks < 60);
      }
      LevelEstimate e = search.estimate();
      inside += Math.abs(e.dbm() + 119) <= 2 * e.standardDb() ? 1 : 0;
    }
    assertTrue(inside >= 180, inside + " inside");
  }

  /** A neighbour 68 dB above the wanted signal brings SINAD down to 12 dB; a stronger one more. */
  @Test
  public void theLevelOfADisturbingSignalIsFound() {
    Random random = new Random(5);
    LineSearch search = new LineSearch(TWELVE, 0.5, -90, -120, 0, 0.3, true);
    for (Optional<LevelSearch.Step> s = search.next(); s.isPresent(); s = search.next()) {
      double over = s.get().dbm() + 48;
      double sinad = Math.max(0, Math.min(18, 12 - 2 * over));
      search.add(s.get().dbm(), Quality.ofSinad(sinad + 0.2 * random.nextGaussian(), 0.2));
    }
    assertEquals(search.estimate().dbm(), -48, 0.3);
    LineSearch deaf = new LineSearch(TWELVE, 0.5, -90, -120, -60, 0.3, true);
    Refusal said =
        expectThrows(
            Refusal.class,
            () -> {
              for (int i = 0; i < 20; i++) {
                deaf.add(deaf.next().orElseThrow().dbm(), Quality.ofSinad(18, 0.2));
              }
            });
    assertTrue(said.getMessage().contains("better than can be told"), said.getMessage());
  }

  @Test
  public void whatCannotBeSoughtIsRefused() {
    expectThrows(Refusal.class, () -> new Criterion(Criterion.Of.BER, 0.3));
    expectThrows(Refusal.class, () -> new Criterion(Criterion.Of.SINAD, 60));
    expectThrows(Refusal.class, () -> Criterion.Of.parse("evm"));
  }
}
