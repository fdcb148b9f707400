package rovnik.core.signal;

import jdk.incubator.vector.DoubleVector;
import jdk.incubator.vector.VectorOperators;
import jdk.incubator.vector.VectorSpecies;

/** Whole registers of products, two at once. */
final class VectorProducts extends Products {
  private static final VectorSpecies<Double> SPECIES = DoubleVector.SPECIES_PREFERRED;
  private static final int LANES = SPECIES.length();

  @Override
  double of(double[] x, int xAt, double[] y, int yAt, int length) {
    DoubleVector a = DoubleVector.zero(SPECIES);
    DoubleVector b = a;
    int k = 0;
    for (; k + 2 * LANES <= length; k += 2 * LANES) {
      a =
          DoubleVector.fromArray(SPECIES, x, xAt + k)
              .fma(DoubleVector.fromArray(SPECIES, y, yAt + k), a);
      b =
          DoubleVector.fromArray(SPECIES, x, xAt + k + LANES)
              .fma(DoubleVector.fromArray(SPECIES, y, yAt + k + LANES), b);
    }
    double sum = a.add(b).reduceLanes(VectorOperators.ADD);
    for (; k < length; k++) {
      sum += x[xAt + k] * y[yAt + k];
    }
    return sum;
  }
}
