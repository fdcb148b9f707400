package rovnik.core.network;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.Random;
import org.hipparchus.complex.Complex;
import org.testng.annotations.Test;
import rovnik.core.network.KeptCalibration.Trust;

/** What a calibration leaves, and what it must not claim. */
public class ResidualsTest {
  private static final Residuals RAW = Residuals.ofDb(20, 15, 2, 15, 90);
  private static final Residuals FRESH = Residuals.ofDb(44, 40, 0.05, 40, 90);

  private static Residuals after(CalibrationMethod method) {
    return Residuals.after(method, Trust.VALID, RAW, FRESH, 0);
  }

  private static Complex polar(double size, Random random) {
    return Complex.valueOf(size).multiply(new Complex(0, 2 * Math.PI * random.nextDouble()).exp());
  }

  /**
   * A part with two ports behind a calibration of one: what the analyzer sees is S11 + S21 S12 L /
   * (1 - S22 L) with the load match L of the other port (common practice), beside noise.
   */
  @Test
  public void whatComesBackFromTheOtherPortIsCovered() {
    Random random = new Random(1);
    for (CalibrationMethod method :
        new CalibrationMethod[] {CalibrationMethod.ONE_PORT, CalibrationMethod.ENHANCED_RESPONSE}) {
      int inside = 0;
      int trials = 400;
      for (int k = 0; k < trials; k++) {
        Complex s11 = polar(0.3 * random.nextDouble(), random);
        Complex s22 = polar(0.3 * random.nextDouble(), random);
        Complex s21 = polar(0.5 + 0.49 * random.nextDouble(), random);
        Complex load = polar(RAW.load(), random);
        Complex back = s21.multiply(s21).multiply(load);
        Complex seen =
            s11.add(back.divide(Complex.ONE.subtract(s22.multiply(load))))
                .add(
                    new Complex(random.nextGaussian(), random.nextGaussian())
                        .multiply(RAW.floor()));
        NetworkData n =
            new NetworkData(
                2,
                new double[] {50, 50},
                new double[] {1e9},
                new double[] {
                  seen.getReal(), seen.getImaginary(), s21.getReal(), s21.getImaginary(),
                  s21.getReal(), s21.getImaginary(), s22.getReal(), s22.getImaginary()
                });
        double u = after(method).at(n, 0, 1, 1);
        inside += Math.abs(seen.norm() - s11.norm()) <= u ? 1 : 0;
      }
      assertTrue(inside >= 0.93 * trials, method + ": " + inside + " of " + trials);
    }
  }

  @Test
  public void aThroughPutsNoReflectionRight() {
    Residuals r = after(CalibrationMethod.THROUGH_RESPONSE);
    assertEquals(r.reflection(0.5), RAW.reflection(0.5), 1e-12);
    assertTrue(r.transmission(0.5, 0, 0) < RAW.transmission(0.5, 0, 0) / 10);
    assertEquals(
        after(CalibrationMethod.ONE_PORT).transmission(1, 0, 0),
        RAW.transmission(1, 0, 0),
        0.01,
        "one port says nothing of transmission");
  }

  /** Two standard deviations of the noise in phase with a small transmission. */
  @Test
  public void noiseIsCovered() {
    Random random = new Random(2);
    Residuals r = after(CalibrationMethod.TWO_PORT).withFloor(1e-3);
    int inside = 0;
    for (int k = 0; k < 1000; k++) {
      Complex seen =
          new Complex(0.02, 0)
              .add(new Complex(random.nextGaussian(), random.nextGaussian()).multiply(1e-3));
      inside += Math.abs(seen.norm() - 0.02) <= r.transmission(0.02, 0, 0) ? 1 : 0;
    }
    assertTrue(inside > 930 && inside < 985, "" + inside);
  }
}
