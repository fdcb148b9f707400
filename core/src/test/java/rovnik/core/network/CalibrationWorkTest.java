package rovnik.core.network;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.hipparchus.complex.Complex;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.network.CalibrationStandard.Kind;
import rovnik.core.network.KeptCalibration.Trust;
import rovnik.core.network.SweepSettings.Type;
import rovnik.core.path.ElementKind;
import rovnik.core.path.PathElement;
import rovnik.core.path.SignalPath;

/** A whole calibration behind random error boxes with a switch, apart from the code under test. */
public class CalibrationWorkTest {
  private static final SweepSettings SWEEP =
      new SweepSettings(100e6, 3e9, 59, Type.LINEAR, List.of(), 1e3, 1, -10, true);
  private static final double[] HZ = SWEEP.frequencies();
  private static final CalibrationKit KIT =
      new CalibrationKit(
          "t",
          "test",
          Map.of(
              Kind.OPEN,
              new CalibrationStandard(Kind.OPEN, 30e-12, 2e9, 50, new double[] {50e-15}, 50),
              Kind.SHORT,
              new CalibrationStandard(Kind.SHORT, 32e-12, 2e9, 50, new double[] {5e-12}, 50),
              Kind.LOAD,
              CalibrationStandard.ideal(Kind.LOAD)),
          0,
          0);

  /** Two boxes, a switch and what is between, by cascading their T-matrices. */
  private static final class Set {
    private final Random r = new Random(11);
    private final Complex[][] left = new Complex[HZ.length][];
    private final Complex[][] right = new Complex[HZ.length][];
    private final Complex[][] ends = new Complex[HZ.length][];

    Set() {
      for (int p = 0; p < HZ.length; p++) {
        left[p] = box();
        right[p] = box();
        ends[p] = new Complex[] {random(0.1), random(0.1)};
      }
    }

    private Complex random(double size) {
      return new Complex(size * r.nextGaussian(), size * r.nextGaussian());
    }

    private Complex[] box() {
      // Not reciprocal: a receiver's gain differs from the source's.
      return new Complex[] {random(0.1), random(0.1).add(0.9), random(0.1).add(1.1), random(0.1)};
    }

    /** S of two two-ports in a row, {s11, s12, s21, s22}. */
    private static Complex[] row(Complex[] a, Complex[] b) {
      Complex loop = Complex.ONE.subtract(a[3].multiply(b[0]));
      return new Complex[] {
        a[0].add(a[1].multiply(a[2]).multiply(b[0]).divide(loop)),
        a[1].multiply(b[1]).divide(loop),
        a[2].multiply(b[2]).divide(loop),
        b[3].add(b[1].multiply(b[2]).multiply(a[3]).divide(loop))
      };
    }

    RawSweep see(NetworkData part) {
      double[] s = new double[8 * HZ.length];
      double[] g1 = new double[2 * HZ.length];
      double[] g2 = new double[2 * HZ.length];
      for (int p = 0; p < HZ.length; p++) {
        TwoPort t = TwoPort.of(part, p);
        Complex[] all =
            row(row(left[p], new Complex[] {t.s11(), t.s12(), t.s21(), t.s22()}), right[p]);
        Complex e1 = ends[p][0];
        Complex e2 = ends[p][1];
        Complex f = Complex.ONE.subtract(all[3].multiply(e2));
        Complex b = Complex.ONE.subtract(all[0].multiply(e1));
        Complex around = all[1].multiply(all[2]);
        Complex[] seen = {
          all[0].add(around.multiply(e2).divide(f)),
          all[1].divide(b),
          all[2].divide(f),
          all[3].add(around.multiply(e1).divide(b))
        };
        for (int k = 0; k < 4; k++) {
          s[8 * p + 2 * k] = seen[k].getReal();
          s[8 * p + 2 * k + 1] = seen[k].getImaginary();
        }
        g1[2 * p] = e1.getReal();
        g1[2 * p + 1] = e1.getImaginary();
        g2[2 * p] = e2.getReal();
        g2[2 * p + 1] = e2.getImaginary();
      }
      return new RawSweep(new NetworkData(2, new double[] {50, 50}, HZ, s), g1, g2);
    }
  }

  private static NetworkData both(Kind kind) {
    double[] s = new double[8 * HZ.length];
    for (int p = 0; p < HZ.length; p++) {
      Complex g = KIT.standards().get(kind).reflection(HZ[p], 50);
      s[8 * p] = g.getReal();
      s[8 * p + 1] = g.getImaginary();
      s[8 * p + 6] = g.getReal();
      s[8 * p + 7] = g.getImaginary();
    }
    return new NetworkData(2, new double[] {50, 50}, HZ, s);
  }

  /** An adapter: reciprocal, 170 ps long, not quite matched. */
  private static NetworkData adapter() {
    NetworkData line = new CalibrationKit("a", "a", KIT.standards(), 170e-12, 3e9).through(HZ);
    return new MatchElement(MatchElement.Place.SHUNT, MatchElement.Part.CAPACITOR, 0.1e-12)
        .before(line);
  }

  private static NetworkData dut() {
    Random r = new Random(4);
    double[] s = new double[8 * HZ.length];
    for (int i = 0; i < s.length; i++) {
      s[i] = 0.4 * r.nextGaussian();
    }
    return new NetworkData(2, new double[] {50, 50}, HZ, s);
  }

  @DataProvider
  public static Object[][] methods() {
    return new Object[][] {{CalibrationMethod.TWO_PORT}, {CalibrationMethod.UNKNOWN_THROUGH}};
  }

  /** Whatever the order of the steps, the part comes back to 1e-9. */
  @Test(dataProvider = "methods")
  public void partBehindErrorsComesBack(CalibrationMethod method) {
    Set set = new Set();
    CalibrationWork work = new CalibrationWork(method, KIT, SWEEP, 170e-12);
    List<CalibrationStep> steps = new ArrayList<>(method.steps());
    java.util.Collections.shuffle(steps, new Random(2));
    for (CalibrationStep step : steps) {
      if (step == CalibrationStep.ISOLATION) {
        continue;
      }
      boolean unknown = method == CalibrationMethod.UNKNOWN_THROUGH;
      NetworkData what =
          step == CalibrationStep.THROUGH
              ? unknown ? adapter() : KIT.through(HZ)
              : both(step.standard());
      work.take(step, set.see(what));
    }
    assertTrue(work.complete());
    KeptCalibration c = new KeptCalibration(1, "", method, "", 0, SWEEP, "x", work.solve());
    NetworkData back = c.correct(set.see(dut()).ratios());
    for (int i = 0; i < back.s().length; i++) {
      assertEquals(back.s()[i], dut().s()[i], 1e-9, "value " + i);
    }
  }

  @Test
  public void enhancedResponseSeesSourceMatchAndOneWay() {
    Set set = new Set();
    CalibrationWork work = new CalibrationWork(CalibrationMethod.ENHANCED_RESPONSE, KIT, SWEEP, 0);
    work.take(CalibrationStep.OPEN_1, set.see(both(Kind.OPEN)));
    work.take(CalibrationStep.SHORT_1, set.see(both(Kind.SHORT)));
    work.take(CalibrationStep.LOAD_1, set.see(both(Kind.LOAD)));
    Refusal early = expectThrows(Refusal.class, work::solve);
    assertTrue(early.getMessage().contains("Through between the ports"));
    work.take(CalibrationStep.THROUGH, set.see(KIT.through(HZ)));
    KeptCalibration c =
        new KeptCalibration(
            1, "", CalibrationMethod.ENHANCED_RESPONSE, "", 0, SWEEP, "x", work.solve());
    // The through itself reads 1 in transmission, and a load alone reads its own reflection.
    NetworkData through = c.correct(set.see(KIT.through(HZ)).ratios());
    NetworkData open = c.correct(set.see(both(Kind.OPEN)).ratios());
    for (int p = 0; p < HZ.length; p++) {
      assertEquals(through.magnitude(p, 2, 1), 1, 1e-9);
      Complex known = KIT.standards().get(Kind.OPEN).reflection(HZ[p], 50);
      assertEquals(open.re(p, 1, 1), known.getReal(), 1e-9);
      assertEquals(open.im(p, 1, 1), known.getImaginary(), 1e-9);
    }
    assertTrue(CalibrationMethod.ENHANCED_RESPONSE.corrects(2, 1));
    assertTrue(!CalibrationMethod.ENHANCED_RESPONSE.corrects(1, 2));
  }

  @Test
  public void wrongStandardsAndWrongStepsAreRefused() {
    Set set = new Set();
    CalibrationWork work = new CalibrationWork(CalibrationMethod.TWO_PORT, KIT, SWEEP, 0);
    work.take(CalibrationStep.SHORT_1, set.see(both(Kind.SHORT)));
    RawSweep again = set.see(both(Kind.SHORT));
    Refusal same = expectThrows(Refusal.class, () -> work.take(CalibrationStep.OPEN_1, again));
    assertTrue(same.getMessage().contains("just like the short"), same.getMessage());
    Refusal none = expectThrows(Refusal.class, () -> work.take(CalibrationStep.THROUGH, again));
    assertTrue(none.getMessage().contains("Join the two ports"), none.getMessage());
    RawSweep joined = set.see(KIT.through(HZ));
    Refusal leak = expectThrows(Refusal.class, () -> work.take(CalibrationStep.ISOLATION, joined));
    assertTrue(leak.getMessage().contains("Put a load on each"));
    CalibrationWork one = new CalibrationWork(CalibrationMethod.ONE_PORT, KIT, SWEEP, 0);
    assertEquals(
        expectThrows(Refusal.class, () -> one.take(CalibrationStep.OPEN_2, again)).field(), "step");
    SweepSettings alone =
        new SweepSettings(1e6, 2e6, 11, Type.LINEAR, List.of(), 1e3, 1, -10, false);
    assertEquals(
        expectThrows(
                Refusal.class, () -> new CalibrationWork(CalibrationMethod.TWO_PORT, KIT, alone, 0))
            .field(),
        "bothPorts");
  }

  @Test
  public void trustFallsWithPointsRangeAgeAndPower() {
    ErrorTerms terms = Calibration.response(HZ, List.of(), KIT.through(HZ), KIT.through(HZ), 50);
    KeptCalibration c =
        new KeptCalibration(
            1, "", CalibrationMethod.THROUGH_RESPONSE, "", 1000, SWEEP, "me", terms);
    assertEquals(c.state(SWEEP, "me", 2000, 5000).trust(), Trust.VALID);
    assertEquals(c.state(SWEEP, "other", 2000, 5000).trust(), Trust.STALE);
    assertEquals(c.state(SWEEP, "me", 7000, 5000).trust(), Trust.STALE);
    SweepSettings inner =
        new SweepSettings(200e6, 1e9, 11, Type.LOGARITHMIC, List.of(), 1e3, 1, -10, true);
    assertEquals(c.state(inner, "me", 2000, 5000).trust(), Trust.INTERPOLATED);
    SweepSettings wider =
        new SweepSettings(200e6, 4e9, 11, Type.LINEAR, List.of(), 1e3, 1, -10, true);
    assertEquals(c.state(wider, "me", 2000, 5000).trust(), Trust.EXTRAPOLATED);
    SweepSettings strong =
        new SweepSettings(100e6, 3e9, 59, Type.LINEAR, List.of(), 1e3, 1, 5, true);
    assertEquals(c.state(strong, "me", 2000, 5000).trust(), Trust.STALE);
    // Beyond its ends the last terms are held, and the numbers say that they are not to be trusted.
    NetworkData far = KIT.through(wider.frequencies());
    assertEquals(c.correct(far).magnitude(10, 2, 1), 1, 1e-9);
    Residuals raw = Residuals.ofDb(20, 15, 2, 15, 90);
    Residuals fresh = Residuals.ofDb(44, 40, 0.05, 40, 90);
    Residuals at = Residuals.after(c.method(), Trust.EXTRAPOLATED, raw, fresh, 0);
    assertEquals(at, raw);
    Residuals seen = Residuals.after(CalibrationMethod.TWO_PORT, Trust.VALID, raw, fresh, 0.02);
    assertEquals(seen.directivity(), 0.02, 1e-12, "what a verification found counts");
    // A return loss of 20 dB with a directivity of 40 dB: +0.83 / -0.92 dB (common practice).
    Residuals forty = new Residuals(0.01, 0, 0, 0, 0);
    assertEquals(Residuals.inDb(0.1, forty.reflection(0.1)), 0.828, 0.001);
  }

  @Test
  public void sweepsAreCheckedAndLieAsAsked() {
    SweepSettings log =
        new SweepSettings(1e6, 100e6, 3, Type.LOGARITHMIC, List.of(), 1e3, 1, 0, true);
    assertEquals(log.frequencies()[1], 10e6, 1e-3);
    List<SweepSettings.Segment> falling =
        List.of(new SweepSettings.Segment(2e6, 3e6, 5), new SweepSettings.Segment(1e6, 1.5e6, 5));
    Refusal r =
        expectThrows(
            Refusal.class,
            () -> new SweepSettings(0, 0, 0, Type.SEGMENTS, falling, 1e3, 1, 0, true));
    assertEquals(r.field(), "segments");
    assertEquals(
        expectThrows(
                Refusal.class,
                () -> new SweepSettings(1e6, 2e6, 20_002, Type.LINEAR, List.of(), 1e3, 1, 0, true))
            .field(),
        "points");
  }

  /** 10 dB before and 20 dB behind 23 dB of gain: -7 dB at the ports, -20 dBm at the input. */
  @Test
  public void levelsOfBothPorts() {
    PathElement amplifier =
        PathElement.of("Amplifier", ElementKind.DUT, 23, 0.5).withLimits(-6, 10);
    SignalPath path =
        new SignalPath(
            List.of(
                PathElement.source("Port 1", -10, 20),
                PathElement.of("Pad 10 dB", ElementKind.PAD, -10, 0.2),
                amplifier,
                PathElement.of("Pad 20 dB", ElementKind.PAD, -20, 0.2),
                PathElement.port("Port 2", 5, 20, 20)),
            0);
    PortLevels levels = PortLevels.of(path, SWEEP);
    assertEquals(levels.forward().levelDbm()[1], -20, 1e-9);
    assertEquals(levels.forward().levelDbm()[3], -17, 1e-9);
    assertEquals(levels.blocking(), "");
    assertTrue(levels.backward().get(0).contains("-30.0 dBm into the output of Amplifier"));
    assertTrue(levels.dcQuestion().contains("Amplifier may put dc"));
    SweepSettings hot = new SweepSettings(100e6, 3e9, 59, Type.LINEAR, List.of(), 1e3, 1, 8, true);
    assertTrue(PortLevels.of(path, hot).blocking().contains("overloaded"));
    SignalPath bare =
        new SignalPath(
            List.of(
                PathElement.source("Port 1", -10, 20),
                PathElement.of("Pad 40 dB", ElementKind.PAD, -40, 0.2),
                amplifier,
                PathElement.port("Port 2", 5, 20, 20)),
            0);
    PortLevels wrongSide = PortLevels.of(bare, hot);
    assertTrue(wrongSide.blocking().contains("+8.0 dBm into the output"), wrongSide.blocking());
  }
}
