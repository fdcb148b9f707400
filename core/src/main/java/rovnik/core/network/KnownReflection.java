package rovnik.core.network;

import org.hipparchus.complex.Complex;
import rovnik.core.Refusal;

/** A standard whose reflection is known at every frequency. */
public interface KnownReflection {
  CalibrationStandard.Kind kind();

  /** Reflection in {@code referenceOhm} at a frequency. */
  Complex reflection(double hertz, double referenceOhm);

  /** A standard that was measured somewhere; straight between its points. */
  static KnownReflection measured(CalibrationStandard.Kind kind, NetworkData n) {
    if (n.ports() != 1) {
      throw new Refusal("standards", "A standard's file has one port; this one has " + n.ports());
    }
    double[] f = n.frequencyHz();
    return new KnownReflection() {
      @Override
      public CalibrationStandard.Kind kind() {
        return kind;
      }

      @Override
      public Complex reflection(double hertz, double referenceOhm) {
        int i = java.util.Arrays.binarySearch(f, hertz);
        if (i < 0) {
          i = -i - 2;
          if (i < 0 || i >= f.length - 1) {
            throw new Refusal(
                "standards",
                "The file of the "
                    + kind.name().toLowerCase(java.util.Locale.ROOT)
                    + " does not reach over the whole sweep.");
          }
        }
        int k = Math.min(i + 1, f.length - 1);
        double share = k == i ? 0 : (hertz - f[i]) / (f[k] - f[i]);
        Complex a = new Complex(n.re(i, 1, 1), n.im(i, 1, 1));
        Complex b = new Complex(n.re(k, 1, 1), n.im(k, 1, 1));
        Complex gamma = a.add(b.subtract(a).multiply(share));
        double step = (n.referenceOhm()[0] - referenceOhm) / (n.referenceOhm()[0] + referenceOhm);
        return gamma.add(step).divide(gamma.multiply(step).add(1));
      }
    };
  }
}
