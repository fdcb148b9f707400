package rovnik.core.network;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.hipparchus.complex.Complex;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.network.Calibration.Measured;
import rovnik.core.network.CalibrationStandard.Kind;

/** A part behind random errors comes out again; wrong standards are noticed. */
public class CalibrationTest {
  private static final int POINTS = 21;
  private static final double[] HERTZ = new double[POINTS];

  static {
    for (int i = 0; i < POINTS; i++) {
      HERTZ[i] = 10e6 + 95e6 * i;
    }
  }

  /** Errors of a test set, written as the flow graph has them, apart from the code under test. */
  private static final class TestSet {
    private final Complex[][] side = new Complex[2][6 * POINTS];

    TestSet(long seed) {
      Random r = new Random(seed);
      double[] size = {0.1, 0.2, 0.3, 0.15, 0.3, 1e-3};
      for (int d = 0; d < 2; d++) {
        for (int i = 0; i < 6 * POINTS; i++) {
          int term = i % 6;
          Complex noise = new Complex(r.nextGaussian() * size[term], r.nextGaussian() * size[term]);
          side[d][i] = term == 2 || term == 4 ? noise.add(0.9) : noise;
        }
      }
    }

    private Complex term(int direction, int point, int term) {
      return side[direction][6 * point + term];
    }

    /** ed + er g / (1 - es g). */
    Complex reflection(int direction, int p, Complex g) {
      Complex below = Complex.ONE.subtract(term(direction, p, 1).multiply(g));
      return term(direction, p, 0).add(term(direction, p, 2).multiply(g).divide(below));
    }

    double[] raw(int direction, CalibrationStandard standard) {
      double[] out = new double[2 * POINTS];
      for (int p = 0; p < POINTS; p++) {
        Complex m = reflection(direction, p, standard.reflection(HERTZ[p], 50));
        out[2 * p] = m.getReal();
        out[2 * p + 1] = m.getImaginary();
      }
      return out;
    }

    NetworkData raw(NetworkData dut) {
      double[] out = new double[8 * POINTS];
      for (int p = 0; p < POINTS; p++) {
        TwoPort s = TwoPort.of(dut, p);
        TwoPort turned = new TwoPort(s.s22(), s.s21(), s.s12(), s.s11());
        Complex[] one = sent(0, p, s);
        Complex[] two = sent(1, p, turned);
        Complex[] order = {one[0], two[1], one[1], two[0]};
        for (int k = 0; k < 4; k++) {
          out[8 * p + 2 * k] = order[k].getReal();
          out[8 * p + 2 * k + 1] = order[k].getImaginary();
        }
      }
      return new NetworkData(2, new double[] {50, 50}, HERTZ, out);
    }

    private Complex[] sent(int d, int p, TwoPort s) {
      Complex es = term(d, p, 1);
      Complex el = term(d, p, 3);
      Complex in =
          s.s11()
              .add(
                  s.s12()
                      .multiply(s.s21())
                      .multiply(el)
                      .divide(Complex.ONE.subtract(s.s22().multiply(el))));
      Complex loops =
          Complex.ONE
              .subtract(es.multiply(s.s11()))
              .multiply(Complex.ONE.subtract(el.multiply(s.s22())))
              .subtract(es.multiply(el).multiply(s.s12()).multiply(s.s21()));
      return new Complex[] {
        reflection(d, p, in), term(d, p, 5).add(term(d, p, 4).multiply(s.s21()).divide(loops))
      };
    }
  }

  private static CalibrationStandard open() {
    return new CalibrationStandard(
        Kind.OPEN, 29e-12, 2.2e9, 50, new double[] {49e-15, -310e-27, 23e-36, -0.16e-45}, 50);
  }

  private static CalibrationStandard shorted() {
    return new CalibrationStandard(
        Kind.SHORT, 31e-12, 2.36e9, 50, new double[] {2e-12, -108e-24, 2.2e-33, -0.01e-42}, 50);
  }

  private static CalibrationStandard load() {
    return CalibrationStandard.ideal(Kind.LOAD);
  }

  private static List<Measured> standards(TestSet set, int direction) {
    List<Measured> all = new ArrayList<>();
    for (CalibrationStandard s : List.of(load(), open(), shorted())) {
      all.add(new Measured(s, set.raw(direction, s)));
    }
    return all;
  }

  private static NetworkData random(long seed) {
    Random random = new Random(seed);
    double[] s = new double[8 * POINTS];
    for (int i = 0; i < s.length; i++) {
      s[i] = 0.5 * random.nextGaussian();
    }
    return new NetworkData(2, new double[] {50, 50}, HERTZ, s);
  }

  private static NetworkData through() {
    double[] s = new double[8 * POINTS];
    for (int p = 0; p < POINTS; p++) {
      double a = -2 * Math.PI * HERTZ[p] * 40e-12;
      s[8 * p + 2] = Math.cos(a);
      s[8 * p + 3] = Math.sin(a);
      s[8 * p + 4] = Math.cos(a);
      s[8 * p + 5] = Math.sin(a);
    }
    return new NetworkData(2, new double[] {50, 50}, HERTZ, s);
  }

  @Test
  public void twelveTermsGiveThePartBack() {
    for (long seed = 0; seed < 50; seed++) {
      TestSet set = new TestSet(seed);
      NetworkData isolation =
          set.raw(new NetworkData(2, new double[] {50, 50}, HERTZ, new double[8 * POINTS]));
      ErrorTerms terms =
          Calibration.twoPort(
              HERTZ,
              standards(set, 0),
              standards(set, 1),
              through(),
              set.raw(through()),
              isolation,
              50);
      NetworkData dut = random(1000 + seed);
      NetworkData back = terms.correct(set.raw(dut));
      for (int i = 0; i < dut.s().length; i++) {
        assertEquals(back.s()[i], dut.s()[i], 1e-9 * (1 + Math.abs(dut.s()[i])), "seed " + seed);
      }
    }
  }

  @Test
  public void threeTermsGiveAReflectionBack() {
    TestSet set = new TestSet(3);
    ErrorTerms terms = Calibration.onePort(HERTZ, standards(set, 0), 50);
    double[] raw = new double[2 * POINTS];
    Complex g = new Complex(0.3, -0.6);
    for (int p = 0; p < POINTS; p++) {
      Complex m = set.reflection(0, p, g);
      raw[2 * p] = m.getReal();
      raw[2 * p + 1] = m.getImaginary();
    }
    NetworkData back = terms.correct(new NetworkData(1, new double[] {50}, HERTZ, raw));
    for (int p = 0; p < POINTS; p++) {
      assertEquals(back.re(p, 1, 1), 0.3, 1e-9);
      assertEquals(back.im(p, 1, 1), -0.6, 1e-9);
    }
    assertEquals(expectThrows(Refusal.class, () -> terms.correct(random(1))).field(), "ports");
  }

  /** 100 fF at 1 GHz: -2 atan(w C Z0) = -3.60 degrees; 50 ps of line turn by 36 degrees. */
  @Test
  public void standardsFollowTheirPolynomials() {
    CalibrationStandard fringing =
        new CalibrationStandard(Kind.OPEN, 0, 0, 50, new double[] {100e-15}, 50);
    double degrees = Math.toDegrees(fringing.reflection(1e9, 50).getArgument());
    assertEquals(degrees, -2 * Math.toDegrees(Math.atan(2 * Math.PI * 1e9 * 100e-15 * 50)), 1e-9);
    CalibrationStandard line = new CalibrationStandard(Kind.OPEN, 50e-12, 0, 50, new double[0], 50);
    assertEquals(Math.toDegrees(line.reflection(1e9, 50).getArgument()), -36, 1e-9);
    assertEquals(line.reflection(1e9, 50).norm(), 1, 1e-12);
    assertEquals(CalibrationStandard.ideal(Kind.SHORT).reflection(5e9, 50).getReal(), -1, 1e-12);
    CalibrationStandard seventyFive =
        new CalibrationStandard(Kind.LOAD, 0, 0, 75, new double[0], 75);
    assertEquals(seventyFive.reflection(1e9, 50).getReal(), 0.2, 1e-12);
  }

  @Test
  public void wrongStandardsAreNoticed() {
    TestSet set = new TestSet(9);
    double[] rawOpen = set.raw(0, open());
    double[] rawShort = set.raw(0, shorted());
    double[] rawLoad = set.raw(0, load());
    List<Measured> before = List.of(new Measured(open(), rawOpen));
    assertEquals(Calibration.doubt(Kind.OPEN, rawOpen, List.of()), "");
    assertEquals(Calibration.doubt(Kind.SHORT, rawShort, before), "");
    assertEquals(Calibration.doubt(Kind.LOAD, rawLoad, before), "");
    assertTrue(Calibration.doubt(Kind.SHORT, rawOpen, before).contains("just like the open"));
    assertTrue(Calibration.doubt(Kind.LOAD, rawShort, before).contains("no load"));
    assertTrue(Calibration.doubt(Kind.OPEN, rawLoad, List.of()).contains("looks like the load"));
    Refusal r =
        expectThrows(
            Refusal.class,
            () ->
                Calibration.onePort(
                    HERTZ,
                    List.of(
                        new Measured(open(), rawOpen),
                        new Measured(open(), rawOpen),
                        new Measured(load(), rawLoad)),
                    50));
    assertEquals(r.field(), "standards");
  }

  @Test
  public void termsAreInterpolatedAndNeverStretched() {
    TestSet set = new TestSet(4);
    ErrorTerms terms = Calibration.onePort(HERTZ, standards(set, 0), 50);
    double[] middle = {(HERTZ[3] + HERTZ[4]) / 2};
    ErrorTerms between = terms.on(middle);
    double[] ed = terms.forward().directivity();
    assertEquals(between.forward().directivity()[0], (ed[6] + ed[8]) / 2, 1e-12);
    assertEquals(
        expectThrows(Refusal.class, () -> terms.on(new double[] {1e6})).field(), "frequencyHz");
    NetworkData elsewhere = new NetworkData(1, new double[] {50}, middle, new double[] {0, 0});
    assertEquals(
        expectThrows(Refusal.class, () -> terms.correct(elsewhere)).field(), "frequencyHz");
  }
}
