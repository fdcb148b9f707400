package rovnik.core.network;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.network.TimeDomain.Fault;
import rovnik.core.network.TimeDomain.Mode;
import rovnik.core.network.TimeDomain.Response;
import rovnik.core.network.TimeDomain.Shape;

/** Known lines in closed form, over time and back. */
public class TimeDomainTest {
  /** Reflections of given size at given times: gamma exp(-j 2 pi f t), added up. */
  private static NetworkData line(double start, double stop, int points, double[]... echoes) {
    double[] f = new double[points];
    double[] s = new double[2 * points];
    for (int i = 0; i < points; i++) {
      f[i] = start + (stop - start) * i / (points - 1);
      for (double[] e : echoes) {
        double a = -2 * Math.PI * f[i] * e[1];
        s[2 * i] += e[0] * Math.cos(a);
        s[2 * i + 1] += e[0] * Math.sin(a);
      }
    }
    return new NetworkData(1, new double[] {50}, f, s);
  }

  private static double at(Response r, double seconds) {
    double step = r.seconds()[1] - r.seconds()[0];
    double x = (seconds - r.seconds()[0]) / step;
    int i = (int) x;
    return r.value()[i] + (x - i) * (r.value()[i + 1] - r.value()[i]);
  }

  /**
   * I0(1) = 1.2660658778, I0(5) = 27.2398718236 (Abramowitz and Stegun, table 9.8, from memory).
   */
  @Test
  public void besselFunction() {
    assertEquals(TimeDomain.besselI0(1), 1.2660658777520084, 1e-14);
    assertEquals(TimeDomain.besselI0(5), 27.239871823604442, 1e-12);
  }

  @DataProvider
  public Object[][] shapes() {
    return new Object[][] {{Shape.SHARP}, {Shape.BALANCED}, {Shape.CLEAN}};
  }

  /** Two reflections far enough apart stand at their times with their sizes. */
  @Test(dataProvider = "shapes")
  public void bandPassShowsSizeAndTime(Shape shape) {
    NetworkData n =
        line(400e6, 600e6, 801, new double[] {0.3, 100e-9}, new double[] {-0.1, 310e-9});
    Response r = TimeDomain.of(n, 1, 1).response(Mode.BAND_PASS, shape);
    assertEquals(at(r, 100e-9), 0.3, 0.01);
    assertEquals(at(r, 310e-9), 0.1, 0.01);
    assertEquals(r.rangeSeconds(), 800 / 200e6, 1e-12);
    List<Fault> faults = TimeDomain.faults(r, 0.08, 10e-9);
    if (shape != Shape.SHARP) {
      assertEquals(faults.size(), 2);
      assertEquals(faults.get(0).seconds(), 100e-9, 1e-9);
      assertEquals(faults.get(1).seconds(), 310e-9, 1e-9);
    }
  }

  /** Without a window the width at half height is 1.207 / span (sinc), and a window widens it. */
  @Test
  public void theResolutionIsThatOfTheWindow() {
    NetworkData n = line(400e6, 600e6, 2001, new double[] {1, 50e-9});
    TimeDomain t = TimeDomain.of(n, 1, 1);
    double span = 200e6 * 2001 / 2000;
    assertEquals(t.response(Mode.BAND_PASS, Shape.SHARP).resolutionSeconds(), 1.207 / span, 5e-11);
    double balanced = t.response(Mode.BAND_PASS, Shape.BALANCED).resolutionSeconds();
    double clean = t.response(Mode.BAND_PASS, Shape.CLEAN).resolutionSeconds();
    assertTrue(balanced > 1.5 / span && clean > 1.3 * balanced, balanced + " " + clean);
  }

  /** Impulse and step know the sign: a short is -1 from its time on, 25 ohm is -1/3 (identity). */
  @Test(dataProvider = "shapes")
  public void lowPassKnowsTheSign(Shape shape) {
    NetworkData n = line(1e6, 1000e6, 1000, new double[] {-1.0 / 3, 40e-9});
    TimeDomain t = TimeDomain.of(n, 1, 1);
    assertEquals(at(t.response(Mode.IMPULSE, shape), 40e-9), -1.0 / 3, 0.01);
    Response step = t.response(Mode.STEP, shape);
    assertEquals(at(step, 20e-9), 0, 0.01);
    assertEquals(at(step, 70e-9), -1.0 / 3, 0.01);
    double ohm = new Fault(0, at(step, 70e-9)).impedanceOhm(50);
    assertEquals(ohm, 25, 0.7);
  }

  /** A grid that does not begin at one step is brought onto one that does. */
  @Test
  public void anyLowStartWillDo() {
    NetworkData n = line(0.3e6, 1000e6, 2001, new double[] {0.5, 30e-9});
    TimeDomain t = TimeDomain.of(n, 1, 1);
    assertEquals(at(t.response(Mode.IMPULSE, Shape.BALANCED), 30e-9), 0.5, 0.01);
    assertEquals(at(t.response(Mode.STEP, Shape.BALANCED), 60e-9), 0.5, 0.02);
  }

  /** Rise time of the ideal low pass, 10 to 90 %: 0.446 / (cut-off frequency) (handbook). */
  @Test
  public void theStepRisesAsTheBandAllows() {
    NetworkData n = line(1e6, 1000e6, 1000, new double[] {1, 40e-9});
    double rise = TimeDomain.of(n, 1, 1).response(Mode.STEP, Shape.SHARP).resolutionSeconds();
    assertEquals(rise, 0.446e-9, 0.25e-9);
  }

  /** Common practice: two faults closer than the step's rise allows are not told apart. */
  @Test
  public void twoFaultsNearerThanTheResolutionAreOne() {
    double width =
        TimeDomain.of(line(400e6, 600e6, 401, new double[] {1, 0}), 1, 1)
            .response(Mode.BAND_PASS, Shape.BALANCED)
            .resolutionSeconds();
    for (double apart : new double[] {0.5, 3}) {
      NetworkData n =
          line(
              400e6,
              600e6,
              401,
              new double[] {0.2, 100e-9},
              new double[] {0.2, 100e-9 + apart * width});
      Response r = TimeDomain.of(n, 1, 1).response(Mode.BAND_PASS, Shape.BALANCED);
      assertEquals(TimeDomain.faults(r, 0.08, 0).size(), apart < 1 ? 1 : 2, "apart " + apart);
    }
  }

  /** The gate leaves the one reflection it is laid over, with size and phase, also at the edges. */
  @Test
  public void theGateLeavesOneReflection() {
    double[] near = {0.3, 40e-9};
    double[] far = {0.2, 200e-9};
    NetworkData both = line(400e6, 600e6, 801, near, far);
    NetworkData alone = line(400e6, 600e6, 801, far);
    double[] gated = TimeDomain.of(both, 1, 1).gated(160e-9, 240e-9);
    for (int i = 0; i < 801; i++) {
      double off =
          Math.hypot(gated[2 * i] - alone.re(i, 1, 1), gated[2 * i + 1] - alone.im(i, 1, 1));
      boolean edge = i < 64 || i > 736;
      assertTrue(off < (edge ? 0.06 : 0.006), "point " + i + " off by " + off);
    }
  }

  /** What stands alone in the middle of a gate comes back whole, also from beyond the range. */
  @Test
  public void aLoneReflectionInTheMiddleComesBackWhole() {
    for (double at : new double[] {90e-9, 0, -15e-9}) {
      NetworkData n = line(400e6, 600e6, 777, new double[] {0.4, at});
      double[] gated = TimeDomain.of(n, 1, 1).gated(at - 21e-9, at + 21e-9);
      for (int i = 0; i < n.points(); i++) {
        assertEquals(gated[2 * i], n.re(i, 1, 1), 1e-11, "point " + i);
        assertEquals(gated[2 * i + 1], n.im(i, 1, 1), 1e-11, "point " + i);
      }
    }
  }

  /**
   * Any response is the sum over the frequencies, written out: h(t) = sum w S exp(j 2 pi f t) / sum
   * w, here at times taken at random.
   */
  @Test(dataProvider = "shapes")
  public void theTransformIsTheSumWrittenOut(Shape shape) {
    java.util.Random random = new java.util.Random(4);
    int points = 120;
    double[] f = new double[points];
    double[] s = new double[2 * points];
    for (int i = 0; i < points; i++) {
      f[i] = 1e6 * (i + 1);
      s[2 * i] = random.nextGaussian();
      s[2 * i + 1] = random.nextGaussian();
    }
    Response r =
        TimeDomain.of(new NetworkData(1, new double[] {50}, f, s), 1, 1)
            .response(Mode.BAND_PASS, shape);
    double[] w = shape.samples(points);
    for (int trial = 0; trial < 30; trial++) {
      int k = random.nextInt(r.seconds().length);
      double re = 0;
      double im = 0;
      double sum = 0;
      for (int i = 0; i < points; i++) {
        double a = 2 * Math.PI * f[i] * r.seconds()[k];
        re += w[i] * (s[2 * i] * Math.cos(a) - s[2 * i + 1] * Math.sin(a));
        im += w[i] * (s[2 * i] * Math.sin(a) + s[2 * i + 1] * Math.cos(a));
        sum += w[i];
      }
      assertEquals(r.value()[k], Math.hypot(re, im) / sum, 1e-12);
    }
  }

  /** The same question twice has the same answer, and another number of points its own. */
  @Test
  public void keptWindowsAreOfTheirOwnSweep() {
    double[] echo = {0.5, 60e-9};
    NetworkData n = line(1e6, 1000e6, 1000, echo);
    NetworkData other = line(1e6, 500e6, 500, echo);
    Response first = TimeDomain.of(n, 1, 1).response(Mode.STEP, Shape.CLEAN);
    Response between = TimeDomain.of(other, 1, 1).response(Mode.STEP, Shape.CLEAN);
    Response again = TimeDomain.of(n, 1, 1).response(Mode.STEP, Shape.CLEAN);
    assertEquals(again.value(), first.value());
    assertEquals(between.resolutionSeconds(), 2 * first.resolutionSeconds(), 0.1e-9);
    assertEquals(at(between, 120e-9), 0.5, 0.01);
  }

  @Test
  public void whatCannotBeIsRefused() {
    NetworkData band = line(400e6, 600e6, 401, new double[] {1, 1e-9});
    assertEquals(
        expectThrows(
                Refusal.class, () -> TimeDomain.of(band, 1, 1).response(Mode.STEP, Shape.SHARP))
            .field(),
        "mode");
    NetworkData uneven =
        new NetworkData(
            1, new double[] {50}, new double[] {1, 2, 3, 4, 5, 6, 7, 9}, new double[16]);
    assertEquals(
        expectThrows(Refusal.class, () -> TimeDomain.of(uneven, 1, 1)).field(), "frequencyHz");
    assertEquals(
        expectThrows(Refusal.class, () -> TimeDomain.of(band, 1, 1).gated(2e-9, 1e-9)).field(),
        "gate");
  }
}
