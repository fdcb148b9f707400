package rovnik.core.modulation.analysis;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Random;
import org.hipparchus.distribution.continuous.NormalDistribution;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.modulation.Format;
import rovnik.core.modulation.Framing;
import rovnik.core.modulation.Payload;
import rovnik.core.modulation.Prbs;
import rovnik.core.modulation.PulseShape;
import rovnik.core.modulation.SingleCarrier;
import rovnik.core.modulation.SymbolStream;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;

/** Known data found in symbols, bits counted, against theory. */
public class BitErrorTest {
  private static final String WORD =
      "1011001110001111010000101101100100110101111000100110101011000111";

  private static SingleCarrier carrier(Format format, Framing framing) {
    return new SingleCarrier(
        format, 48e3, PulseShape.rootRaisedCosine(0.35), List.of(), Payload.of(Prbs.PN15), framing);
  }

  /** The interval holds the truth at least as often as it says (300 repeats at each). */
  @Test
  public void theIntervalCovers() {
    Random random = new Random(3);
    for (double truth : new double[] {0.2, 0.01, 1e-3}) {
      int bits = 5000;
      int inside = 0;
      double width = 0;
      for (int trial = 0; trial < 300; trial++) {
        int errors = 0;
        for (int i = 0; i < bits; i++) {
          errors += random.nextDouble() < truth ? 1 : 0;
        }
        BitErrorRatio r = BitErrorRatio.of(errors, bits);
        inside += r.low() <= truth && truth <= r.high() ? 1 : 0;
        width += (r.high() - r.low()) / 300;
      }
      assertTrue(inside >= 280, truth + ": " + inside + " of 300");
      // A normal interval of 2 standard deviations is the width to be near.
      double normal = 4 * Math.sqrt(truth * (1 - truth) / bits);
      assertTrue(width < 1.4 * normal, truth + ": " + width / normal);
    }
  }

  /** No error in n bits: below 3 / n at 95 % (the rule of three, common practice). */
  @Test
  public void withoutAnErrorThereIsAnUpperEnd() {
    BitErrorRatio none = BitErrorRatio.of(0, 1_000_000);
    assertEquals(none.low(), 0);
    assertEquals(none.high() * 1e6, -Math.log((1 - BitErrorRatio.CONFIDENCE) / 2), 1e-3);
    BitErrorRatio all = BitErrorRatio.of(10, 10);
    assertEquals(all.high(), 1);
  }

  @DataProvider
  public Object[][] theory() {
    return new Object[][] {
      {Format.QPSK, 4.32},
      {Format.QPSK, 6.0},
      {Format.QAM16, 7.9},
      {Format.QAM16, 10.5},
      {Format.QAM64, 12.0},
      {Format.QAM64, 14.5},
      {Format.QAM256, 17.0}
    };
  }

  /**
   * From samples at an energy per bit over noise to a ratio, within the bounds of the counted bits
   * of Gray-coded square QAM (Cho and Yoon 2002, exact sum; for QPSK Q(sqrt(2 Eb/N0)), Proakis).
   */
  @Test(dataProvider = "theory")
  public void theRatioIsThatOfTheory(Format format, double ebN0Db) {
    SingleCarrier c = carrier(format, Framing.NONE);
    int bits = c.constellation().bitsPerSymbol();
    Random random = new Random(format.ordinal() + (long) ebN0Db);
    int symbols = 9000;
    Carriers.Faults f = new Carriers.Faults();
    f.noiseDb = -(ebN0Db + 10 * Math.log10(bits));
    f.frequency = 0.03;
    int[] values = SymbolStream.values(c, symbols);
    Outcome o =
        SingleCarrierMeasurementTest.measure(
            c, Carriers.make(format, values, 0.35, 4, f, random), true);
    Reading ber = o.reading("ber").orElseThrow();
    double expected = squareQam(1 << bits, Math.pow(10, ebN0Db / 10));
    double counted = (symbols - 60.0) * bits;
    double sigma = Math.sqrt(expected / counted);
    assertEquals(ber.value(), expected, 4 * sigma + 0.02 * expected, ber.label());
    // Errors from what was sent are those of the noise, however many decisions are wrong.
    double evm = o.reading("evm").orElseThrow().value();
    assertEquals(evm, 100 * Math.pow(10, f.noiseDb / 20), 0.04 * evm, "EVM");
  }

  /** Ratios of 10^-4 and 10^-5, counted over many records. */
  @DataProvider
  public Object[][] rare() {
    return new Object[][] {
      {Format.QPSK, 8.4, 24},
      {Format.QAM16, 12.2, 14},
      {Format.QAM64, 16.5, 10},
      {Format.QAM256, 21.1, 7},
      {Format.QAM256, 22.4, 24}
    };
  }

  @Test(dataProvider = "rare")
  public void rareErrorsAreThoseOfTheory(Format format, double ebN0Db, int records) {
    SingleCarrier c = carrier(format, Framing.NONE);
    int bits = c.constellation().bitsPerSymbol();
    long wrong = 0;
    long counted = 0;
    for (int r = 0; r < records; r++) {
      Carriers.Faults f = new Carriers.Faults();
      f.noiseDb = -(ebN0Db + 10 * Math.log10(bits));
      Outcome o =
          SingleCarrierMeasurementTest.measure(
              c,
              Carriers.make(
                  format, SymbolStream.values(c, 9000), 0.35, 4, f, new Random(77L * r + bits)),
              true);
      Reading ber = o.reading("ber").orElseThrow();
      String[] words = ber.label().split(" ");
      wrong += Long.parseLong(words[3]);
      counted += Long.parseLong(words[5]);
    }
    double expected = squareQam(1 << bits, Math.pow(10, ebN0Db / 10)) * counted;
    assertTrue(expected > 8, "enough to count: " + expected);
    assertEquals(wrong, expected, 3.5 * Math.sqrt(expected) + 0.03 * expected, "of " + counted);
  }

  /** Exact for Gray-coded square QAM: Cho and Yoon, IEEE Trans. Commun. 50 (2002), eq. 14, 16. */
  private static double squareQam(int m, double ebN0) {
    int side = (int) Math.sqrt(m);
    int bits = Integer.numberOfTrailingZeros(side);
    double sum = 0;
    for (int k = 1; k <= bits; k++) {
      double ofBit = 0;
      for (int i = 0; i < (1 - Math.pow(2, -k)) * side; i++) {
        int half = i * (1 << (k - 1)) / side;
        double weight = (1 << (k - 1)) - Math.floor((double) i * (1 << (k - 1)) / side + 0.5);
        double x = (2 * i + 1) * Math.sqrt(6 * 2.0 * bits * ebN0 / (2 * (m - 1.0)));
        ofBit += (half % 2 == 0 ? 1 : -1) * weight * 2 * q(x);
      }
      sum += ofBit / side;
    }
    return sum / bits;
  }

  private static double q(double x) {
    return new NormalDistribution().cumulativeProbability(-x);
  }

  @DataProvider
  public Object[][] turned() {
    return new Object[][] {
      {Format.BPSK}, {Format.QPSK}, {Format.OFFSET_QPSK}, {Format.PI4_DQPSK}, {Format.PSK8},
      {Format.D8PSK}, {Format.QAM16}, {Format.QAM32}, {Format.QAM64}, {Format.APSK16}
    };
  }

  /** Whatever phase the carrier has: what was sent is found, and not a bit is wrong. */
  @Test(dataProvider = "turned")
  public void knownDataAreFoundInEveryPhase(Format format) {
    SingleCarrier c = carrier(format, Framing.NONE);
    Random random = new Random(2);
    for (int quarter = 0; quarter < 4; quarter++) {
      Carriers.Faults f = new Carriers.Faults();
      f.phase = 0.3 + quarter * Math.PI / 2;
      f.noiseDb = -40;
      int[] values = SymbolStream.values(c, 1500);
      Outcome o =
          SingleCarrierMeasurementTest.measure(
              c, Carriers.make(format, values, 0.35, 4, f, random), true);
      Reading ber = o.reading("ber").orElseThrow();
      assertEquals(ber.value(), 0.0, ber.label());
    }
  }

  /** A word in each frame is found, and its bits are not counted. */
  /** A word that the description does not know makes the data slip: no ratio, and no wrong bits. */
  @Test
  public void dataThatSlipAreNotCounted() {
    SingleCarrier framed = carrier(Format.QPSK, new Framing(WORD, 1400));
    Carriers.Faults f = new Carriers.Faults();
    f.noiseDb = -40;
    int[] values = SymbolStream.values(framed, 2000);
    Outcome o =
        SingleCarrierMeasurementTest.measure(
            carrier(Format.QPSK, Framing.NONE),
            Carriers.make(Format.QPSK, values, 0.35, 4, f, new Random(4)),
            false);
    assertTrue(o.reading("ber").isEmpty(), o.readings().toString());
    assertTrue(o.summary().contains("What was sent was not found"), o.summary());
  }

  @Test
  public void framesAreFound() {
    Framing framing = new Framing(WORD, 400);
    SingleCarrier c = carrier(Format.QPSK, framing);
    Carriers.Faults f = new Carriers.Faults();
    f.noiseDb = -20;
    int[] values = SymbolStream.values(c, 2400);
    int[] later = java.util.Arrays.copyOfRange(values, 150, 2400);
    Outcome o =
        SingleCarrierMeasurementTest.measure(
            c, Carriers.make(Format.QPSK, later, 0.35, 4, f, new Random(1)), true);
    Reading ber = o.reading("ber").orElseThrow();
    assertEquals(ber.value(), 0.0, ber.label());
    assertTrue(o.series().stream().anyMatch(s -> s.id().equals("wrongBits")));
    // Without the right word there is no comparison, and the summary says what that means.
    SingleCarrier other =
        carrier(Format.QPSK, new Framing(new StringBuilder(WORD).reverse().toString(), 400));
    Outcome without =
        SingleCarrierMeasurementTest.measure(
            other, Carriers.make(Format.QPSK, later, 0.35, 4, f, new Random(1)), true);
    assertTrue(without.reading("ber").isEmpty());
    assertTrue(without.summary().contains("not found"), without.summary());
    // A record that is too short for a word says how long it must be: a frame and a word.
    int[] few = java.util.Arrays.copyOfRange(values, 40, 390);
    Outcome brief =
        SingleCarrierMeasurementTest.measure(
            c, Carriers.make(Format.QPSK, few, 0.35, 4, f, new Random(1)), true);
    assertTrue(brief.summary().contains("Only 432 symbols"), brief.summary());
  }
}
