package rovnik.core.signal;

import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.VectorMask;
import jdk.incubator.vector.VectorOperators;
import jdk.incubator.vector.VectorShuffle;
import jdk.incubator.vector.VectorSpecies;

/** Whole registers of samples; what is left of a block goes one after the other. */
final class VectorPowers extends Powers {
  private static final VectorSpecies<Float> SPECIES = FloatVector.SPECIES_PREFERRED;
  private static final int LANES = SPECIES.length();

  // Every second lane, in the lower half and in the upper one again; the upper half is of the
  // register that follows.
  private static final VectorShuffle<Float> EVEN =
      VectorShuffle.fromOp(SPECIES, lane -> 2 * lane % LANES);
  private static final VectorShuffle<Float> ODD =
      VectorShuffle.fromOp(SPECIES, lane -> (2 * lane + 1) % LANES);
  private static final VectorMask<Float> UPPER =
      VectorMask.fromLong(SPECIES, (1L << LANES) - (1L << LANES / 2));

  @Override
  public void of(
      float[] iq,
      int from,
      int samples,
      float[] power,
      float[] highest,
      float[] lowest,
      float[] sum) {
    int whole = samples / TOGETHER;
    for (int b = 0; b < whole; b++) {
      one(iq, 2 * (from + b * TOGETHER), power, b, highest, lowest, sum);
    }
    int done = whole * TOGETHER;
    if (done < samples) {
      for (int i = done, at = 2 * (from + done); i < samples; i++, at += 2) {
        power[i] = iq[at] * iq[at] + iq[at + 1] * iq[at + 1];
      }
      block(power, done, samples, whole, highest, lowest, sum);
    }
  }

  @Override
  public float gather(
      float[] power, int points, float[] sum, float[] lowest, float[] highest, int first) {
    FloatVector most = FloatVector.zero(SPECIES);
    int i = 0;
    for (; i + LANES <= points; i += LANES) {
      FloatVector p = FloatVector.fromArray(SPECIES, power, i);
      most = most.max(p);
      FloatVector.fromArray(SPECIES, sum, i).add(p).intoArray(sum, i);
      FloatVector.fromArray(SPECIES, lowest, i).min(p).intoArray(lowest, i);
      FloatVector.fromArray(SPECIES, highest, first + i).max(p).intoArray(highest, first + i);
    }
    float left = gather(power, i, points, sum, lowest, highest, first);
    return Math.max(left, most.reduceLanes(VectorOperators.MAX));
  }

  private static void one(
      float[] iq,
      int first,
      float[] power,
      int block,
      float[] highest,
      float[] lowest,
      float[] sum) {
    FloatVector high = FloatVector.zero(SPECIES);
    FloatVector low = FloatVector.broadcast(SPECIES, Float.POSITIVE_INFINITY);
    FloatVector all = high;
    int out = block * TOGETHER;
    for (int at = first, end = first + 2 * TOGETHER; at < end; at += 2 * LANES, out += LANES) {
      FloatVector x = FloatVector.fromArray(SPECIES, iq, at);
      FloatVector y = FloatVector.fromArray(SPECIES, iq, at + LANES);
      FloatVector re = x.rearrange(EVEN).blend(y.rearrange(EVEN), UPPER);
      FloatVector im = x.rearrange(ODD).blend(y.rearrange(ODD), UPPER);
      FloatVector p = re.mul(re).add(im.mul(im));
      p.intoArray(power, out);
      high = high.max(p);
      low = low.min(p);
      all = all.add(p);
    }
    highest[block] = high.reduceLanes(VectorOperators.MAX);
    lowest[block] = low.reduceLanes(VectorOperators.MIN);
    sum[block] = all.reduceLanes(VectorOperators.ADD);
  }
}
