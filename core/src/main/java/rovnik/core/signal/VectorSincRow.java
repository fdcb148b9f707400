package rovnik.core.signal;

import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.VectorSpecies;

/** All weights of a place in a few registers, in single precision: rounding is 130 dB down. */
final class VectorSincRow extends SincRow {
  // The same registers as all other vectors here: the compiler is quick with one kind only.
  private static final VectorSpecies<Float> SPECIES = FloatVector.SPECIES_PREFERRED;
  private static final int LANES = SPECIES.length();

  /** Whole registers make a row here. */
  static boolean fits() {
    return WIDTH % LANES == 0;
  }

  private final float[] table = SincSampler.wide(false);
  private final float[] steps = SincSampler.wide(true);

  @Override
  void read(
      float[] x, float[] y, int samples, double first, double step, double[] outX, double[] outY) {
    double last = last(samples);
    // A row reads further than its taps.
    int lastWhole = Math.min(x.length, y.length) - WIDTH + SincSampler.REACH - 1;
    double[] z = new double[2];
    for (int i = 0; i < outX.length; i++) {
      double place = clamped(first + i * step, last);
      int whole = (int) place;
      if (whole > lastWhole) {
        SincSampler.both(x, y, place, z);
        outX[i] = z[0];
        outY[i] = z[1];
        continue;
      }
      double fine = (place - whole) * SincSampler.PLACES;
      int row = (int) fine;
      FloatVector share = FloatVector.broadcast(SPECIES, (float) (fine - row));
      int t = row * WIDTH;
      int from = whole - SincSampler.REACH + 1;
      FloatVector sumX = FloatVector.zero(SPECIES);
      FloatVector sumY = sumX;
      for (int k = 0; k < WIDTH; k += LANES) {
        FloatVector weight =
            FloatVector.fromArray(SPECIES, steps, t + k)
                .fma(share, FloatVector.fromArray(SPECIES, table, t + k));
        sumX = weight.fma(FloatVector.fromArray(SPECIES, x, from + k), sumX);
        sumY = weight.fma(FloatVector.fromArray(SPECIES, y, from + k), sumY);
      }
      outX[i] = VectorPasses.total(sumX);
      outY[i] = VectorPasses.total(sumY);
    }
  }
}
