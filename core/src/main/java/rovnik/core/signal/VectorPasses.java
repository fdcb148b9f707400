package rovnik.core.signal;

import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.VectorMask;
import jdk.incubator.vector.VectorShuffle;
import jdk.incubator.vector.VectorSpecies;

/**
 * The passes of {@link VectorFft}. A pass by r takes what lies {@code q} apart, r times, and leaves
 * its outputs in the same places, turned by their twiddle factors.
 *
 * <p>They are written out: C2 inlines no helper of ours once a method has grown past its limits,
 * and vectors that are handed to one are then made into objects, which costs five times.
 */
final class VectorPasses {
  private static final VectorSpecies<Float> SPECIES = FloatVector.SPECIES_PREFERRED;
  static final int LANES = SPECIES.length();
  private static final float HALF_ROOT = (float) Math.sqrt(0.5);

  // Every second lane, in the lower half and in the upper one again; the upper half is of another
  // register. JDK 17 works the indices of a rearrangement of two out anew each time.
  private static final VectorShuffle<Float> EVEN =
      VectorShuffle.fromOp(SPECIES, lane -> 2 * lane % LANES);
  private static final VectorShuffle<Float> ODD =
      VectorShuffle.fromOp(SPECIES, lane -> (2 * lane + 1) % LANES);
  private static final VectorMask<Float> UPPER =
      VectorMask.fromLong(SPECIES, (1L << LANES) - (1L << LANES / 2));

  // Across lanes: partners so far apart, the sign of the upper one, and its twiddle factors.
  private static final VectorShuffle<Float> SWAP_8 = swap(8);
  private static final VectorShuffle<Float> SWAP_4 = swap(4);
  private static final VectorShuffle<Float> SWAP_2 = swap(2);
  private static final VectorShuffle<Float> SWAP_1 = swap(1);
  private static final FloatVector SIGN_8 = sign(8);
  private static final FloatVector SIGN_4 = sign(4);
  private static final FloatVector SIGN_2 = sign(2);
  private static final FloatVector SIGN_1 = sign(1);
  private static final FloatVector COS_8 = lanes(8, true);
  private static final FloatVector COS_4 = lanes(4, true);
  private static final FloatVector COS_2 = lanes(2, true);
  private static final FloatVector SIN_8 = lanes(8, false);
  private static final FloatVector SIN_4 = lanes(4, false);
  private static final FloatVector SIN_2 = lanes(2, false);
  private static final FloatVector MINUS_SIN_8 = SIN_8.neg();
  private static final FloatVector MINUS_SIN_4 = SIN_4.neg();
  private static final FloatVector MINUS_SIN_2 = SIN_2.neg();

  private VectorPasses() {}

  private static VectorShuffle<Float> swap(int apart) {
    int within = apart < LANES ? apart : 0;
    return VectorShuffle.fromOp(SPECIES, lane -> lane ^ within);
  }

  private static FloatVector sign(int apart) {
    float[] a = new float[LANES];
    for (int i = 0; i < LANES; i++) {
      a[i] = (i & apart) == 0 ? 1 : -1;
    }
    return FloatVector.fromArray(SPECIES, a, 0);
  }

  private static FloatVector lanes(int apart, boolean cosine) {
    float[] a = new float[LANES];
    for (int i = 0; i < LANES; i++) {
      double angle = (i & apart) == 0 ? 0 : -Math.PI * (i & apart - 1) / apart;
      a[i] = (float) (cosine ? Math.cos(angle) : Math.sin(angle));
    }
    return FloatVector.fromArray(SPECIES, a, 0);
  }

  /** Sum of all lanes: halves are laid on each other, which is quicker than one after the other. */
  static float total(FloatVector v) {
    FloatVector a = LANES > 8 ? v.add(v.rearrange(SWAP_8)) : v;
    FloatVector b = LANES > 4 ? a.add(a.rearrange(SWAP_4)) : a;
    FloatVector c = b.add(b.rearrange(SWAP_2));
    return c.add(c.rearrange(SWAP_1)).lane(0);
  }

  static void first8(
      float[] iq,
      int first,
      float[] window,
      float[] re,
      float[] im,
      int q,
      float[] cos,
      float[] sin) {
    for (int o = 0, t = 0; o < q; o += LANES, t += 7 * LANES) {
      int g = first + 2 * o;
      FloatVector w0 = FloatVector.fromArray(SPECIES, window, o);
      FloatVector x0 = FloatVector.fromArray(SPECIES, iq, g);
      FloatVector y0 = FloatVector.fromArray(SPECIES, iq, g + LANES);
      FloatVector a0r = x0.rearrange(EVEN).blend(y0.rearrange(EVEN), UPPER).mul(w0);
      FloatVector a0i = x0.rearrange(ODD).blend(y0.rearrange(ODD), UPPER).mul(w0);
      FloatVector w4 = FloatVector.fromArray(SPECIES, window, o + 4 * q);
      FloatVector x4 = FloatVector.fromArray(SPECIES, iq, g + 2 * (4 * q));
      FloatVector y4 = FloatVector.fromArray(SPECIES, iq, g + 2 * (4 * q) + LANES);
      FloatVector a4r = x4.rearrange(EVEN).blend(y4.rearrange(EVEN), UPPER).mul(w4);
      FloatVector a4i = x4.rearrange(ODD).blend(y4.rearrange(ODD), UPPER).mul(w4);
      FloatVector p0r = a0r.add(a4r);
      FloatVector p0i = a0i.add(a4i);
      FloatVector m0r = a0r.sub(a4r);
      FloatVector m0i = a0i.sub(a4i);
      FloatVector w2 = FloatVector.fromArray(SPECIES, window, o + 2 * q);
      FloatVector x2 = FloatVector.fromArray(SPECIES, iq, g + 2 * (2 * q));
      FloatVector y2 = FloatVector.fromArray(SPECIES, iq, g + 2 * (2 * q) + LANES);
      FloatVector a2r = x2.rearrange(EVEN).blend(y2.rearrange(EVEN), UPPER).mul(w2);
      FloatVector a2i = x2.rearrange(ODD).blend(y2.rearrange(ODD), UPPER).mul(w2);
      FloatVector w6 = FloatVector.fromArray(SPECIES, window, o + 6 * q);
      FloatVector x6 = FloatVector.fromArray(SPECIES, iq, g + 2 * (6 * q));
      FloatVector y6 = FloatVector.fromArray(SPECIES, iq, g + 2 * (6 * q) + LANES);
      FloatVector a6r = x6.rearrange(EVEN).blend(y6.rearrange(EVEN), UPPER).mul(w6);
      FloatVector a6i = x6.rearrange(ODD).blend(y6.rearrange(ODD), UPPER).mul(w6);
      FloatVector p2r = a2r.add(a6r);
      FloatVector p2i = a2i.add(a6i);
      FloatVector m2r = a2r.sub(a6r);
      FloatVector m2i = a2i.sub(a6i);
      FloatVector w1 = FloatVector.fromArray(SPECIES, window, o + q);
      FloatVector x1 = FloatVector.fromArray(SPECIES, iq, g + 2 * q);
      FloatVector y1 = FloatVector.fromArray(SPECIES, iq, g + 2 * q + LANES);
      FloatVector a1r = x1.rearrange(EVEN).blend(y1.rearrange(EVEN), UPPER).mul(w1);
      FloatVector a1i = x1.rearrange(ODD).blend(y1.rearrange(ODD), UPPER).mul(w1);
      FloatVector w5 = FloatVector.fromArray(SPECIES, window, o + 5 * q);
      FloatVector x5 = FloatVector.fromArray(SPECIES, iq, g + 2 * (5 * q));
      FloatVector y5 = FloatVector.fromArray(SPECIES, iq, g + 2 * (5 * q) + LANES);
      FloatVector a5r = x5.rearrange(EVEN).blend(y5.rearrange(EVEN), UPPER).mul(w5);
      FloatVector a5i = x5.rearrange(ODD).blend(y5.rearrange(ODD), UPPER).mul(w5);
      FloatVector p1r = a1r.add(a5r);
      FloatVector p1i = a1i.add(a5i);
      FloatVector m1r = a1r.sub(a5r);
      FloatVector m1i = a1i.sub(a5i);
      FloatVector w3 = FloatVector.fromArray(SPECIES, window, o + 3 * q);
      FloatVector x3 = FloatVector.fromArray(SPECIES, iq, g + 2 * (3 * q));
      FloatVector y3 = FloatVector.fromArray(SPECIES, iq, g + 2 * (3 * q) + LANES);
      FloatVector a3r = x3.rearrange(EVEN).blend(y3.rearrange(EVEN), UPPER).mul(w3);
      FloatVector a3i = x3.rearrange(ODD).blend(y3.rearrange(ODD), UPPER).mul(w3);
      FloatVector w7 = FloatVector.fromArray(SPECIES, window, o + 7 * q);
      FloatVector x7 = FloatVector.fromArray(SPECIES, iq, g + 2 * (7 * q));
      FloatVector y7 = FloatVector.fromArray(SPECIES, iq, g + 2 * (7 * q) + LANES);
      FloatVector a7r = x7.rearrange(EVEN).blend(y7.rearrange(EVEN), UPPER).mul(w7);
      FloatVector a7i = x7.rearrange(ODD).blend(y7.rearrange(ODD), UPPER).mul(w7);
      FloatVector p3r = a3r.add(a7r);
      FloatVector p3i = a3i.add(a7i);
      FloatVector m3r = a3r.sub(a7r);
      FloatVector m3i = a3i.sub(a7i);
      FloatVector t0r = p0r.add(p2r);
      FloatVector t0i = p0i.add(p2i);
      FloatVector t1r = p0r.sub(p2r);
      FloatVector t1i = p0i.sub(p2i);
      FloatVector t2r = p1r.add(p3r);
      FloatVector t2i = p1i.add(p3i);
      FloatVector t3r = p1r.sub(p3r);
      FloatVector t3i = p1i.sub(p3i);
      t0r.add(t2r).intoArray(re, o);
      t0i.add(t2i).intoArray(im, o);
      FloatVector b4r = t0r.sub(t2r);
      FloatVector b4i = t0i.sub(t2i);
      FloatVector c4 = FloatVector.fromArray(SPECIES, cos, t + 3 * LANES);
      FloatVector s4 = FloatVector.fromArray(SPECIES, sin, t + 3 * LANES);
      b4r.mul(c4).sub(b4i.mul(s4)).intoArray(re, o + 4 * q);
      b4r.fma(s4, b4i.mul(c4)).intoArray(im, o + 4 * q);
      FloatVector b2r = t1r.add(t3i);
      FloatVector b2i = t1i.sub(t3r);
      FloatVector c2 = FloatVector.fromArray(SPECIES, cos, t + LANES);
      FloatVector s2 = FloatVector.fromArray(SPECIES, sin, t + LANES);
      b2r.mul(c2).sub(b2i.mul(s2)).intoArray(re, o + 2 * q);
      b2r.fma(s2, b2i.mul(c2)).intoArray(im, o + 2 * q);
      FloatVector b6r = t1r.sub(t3i);
      FloatVector b6i = t1i.add(t3r);
      FloatVector c6 = FloatVector.fromArray(SPECIES, cos, t + 5 * LANES);
      FloatVector s6 = FloatVector.fromArray(SPECIES, sin, t + 5 * LANES);
      b6r.mul(c6).sub(b6i.mul(s6)).intoArray(re, o + 6 * q);
      b6r.fma(s6, b6i.mul(c6)).intoArray(im, o + 6 * q);
      FloatVector u0r = m0r.add(m2i);
      FloatVector u0i = m0i.sub(m2r);
      FloatVector u1r = m0r.sub(m2i);
      FloatVector u1i = m0i.add(m2r);
      FloatVector e1r = m1r.add(m1i);
      FloatVector e1i = m1i.sub(m1r);
      FloatVector e3r = m3i.sub(m3r);
      FloatVector e3i = m3r.add(m3i);
      FloatVector u2r = e1r.add(e3r).mul(HALF_ROOT);
      FloatVector u2i = e1i.sub(e3i).mul(HALF_ROOT);
      FloatVector u3r = e1r.sub(e3r).mul(HALF_ROOT);
      FloatVector u3i = e1i.add(e3i).mul(HALF_ROOT);
      FloatVector b1r = u0r.add(u2r);
      FloatVector b1i = u0i.add(u2i);
      FloatVector c1 = FloatVector.fromArray(SPECIES, cos, t);
      FloatVector s1 = FloatVector.fromArray(SPECIES, sin, t);
      b1r.mul(c1).sub(b1i.mul(s1)).intoArray(re, o + q);
      b1r.fma(s1, b1i.mul(c1)).intoArray(im, o + q);
      FloatVector b5r = u0r.sub(u2r);
      FloatVector b5i = u0i.sub(u2i);
      FloatVector c5 = FloatVector.fromArray(SPECIES, cos, t + 4 * LANES);
      FloatVector s5 = FloatVector.fromArray(SPECIES, sin, t + 4 * LANES);
      b5r.mul(c5).sub(b5i.mul(s5)).intoArray(re, o + 5 * q);
      b5r.fma(s5, b5i.mul(c5)).intoArray(im, o + 5 * q);
      FloatVector b3r = u1r.add(u3i);
      FloatVector b3i = u1i.sub(u3r);
      FloatVector c3 = FloatVector.fromArray(SPECIES, cos, t + 2 * LANES);
      FloatVector s3 = FloatVector.fromArray(SPECIES, sin, t + 2 * LANES);
      b3r.mul(c3).sub(b3i.mul(s3)).intoArray(re, o + 3 * q);
      b3r.fma(s3, b3i.mul(c3)).intoArray(im, o + 3 * q);
      FloatVector b7r = u1r.sub(u3i);
      FloatVector b7i = u1i.add(u3r);
      FloatVector c7 = FloatVector.fromArray(SPECIES, cos, t + 6 * LANES);
      FloatVector s7 = FloatVector.fromArray(SPECIES, sin, t + 6 * LANES);
      b7r.mul(c7).sub(b7i.mul(s7)).intoArray(re, o + 7 * q);
      b7r.fma(s7, b7i.mul(c7)).intoArray(im, o + 7 * q);
    }
  }

  static void first4(
      float[] iq,
      int first,
      float[] window,
      float[] re,
      float[] im,
      int q,
      float[] cos,
      float[] sin) {
    for (int o = 0, t = 0; o < q; o += LANES, t += 3 * LANES) {
      int g = first + 2 * o;
      FloatVector w0 = FloatVector.fromArray(SPECIES, window, o);
      FloatVector x0 = FloatVector.fromArray(SPECIES, iq, g);
      FloatVector y0 = FloatVector.fromArray(SPECIES, iq, g + LANES);
      FloatVector a0r = x0.rearrange(EVEN).blend(y0.rearrange(EVEN), UPPER).mul(w0);
      FloatVector a0i = x0.rearrange(ODD).blend(y0.rearrange(ODD), UPPER).mul(w0);
      FloatVector w1 = FloatVector.fromArray(SPECIES, window, o + q);
      FloatVector x1 = FloatVector.fromArray(SPECIES, iq, g + 2 * q);
      FloatVector y1 = FloatVector.fromArray(SPECIES, iq, g + 2 * q + LANES);
      FloatVector a1r = x1.rearrange(EVEN).blend(y1.rearrange(EVEN), UPPER).mul(w1);
      FloatVector a1i = x1.rearrange(ODD).blend(y1.rearrange(ODD), UPPER).mul(w1);
      FloatVector w2 = FloatVector.fromArray(SPECIES, window, o + 2 * q);
      FloatVector x2 = FloatVector.fromArray(SPECIES, iq, g + 2 * (2 * q));
      FloatVector y2 = FloatVector.fromArray(SPECIES, iq, g + 2 * (2 * q) + LANES);
      FloatVector a2r = x2.rearrange(EVEN).blend(y2.rearrange(EVEN), UPPER).mul(w2);
      FloatVector a2i = x2.rearrange(ODD).blend(y2.rearrange(ODD), UPPER).mul(w2);
      FloatVector w3 = FloatVector.fromArray(SPECIES, window, o + 3 * q);
      FloatVector x3 = FloatVector.fromArray(SPECIES, iq, g + 2 * (3 * q));
      FloatVector y3 = FloatVector.fromArray(SPECIES, iq, g + 2 * (3 * q) + LANES);
      FloatVector a3r = x3.rearrange(EVEN).blend(y3.rearrange(EVEN), UPPER).mul(w3);
      FloatVector a3i = x3.rearrange(ODD).blend(y3.rearrange(ODD), UPPER).mul(w3);
      FloatVector t0r = a0r.add(a2r);
      FloatVector t0i = a0i.add(a2i);
      FloatVector t1r = a0r.sub(a2r);
      FloatVector t1i = a0i.sub(a2i);
      FloatVector t2r = a1r.add(a3r);
      FloatVector t2i = a1i.add(a3i);
      FloatVector t3r = a1r.sub(a3r);
      FloatVector t3i = a1i.sub(a3i);
      t0r.add(t2r).intoArray(re, o);
      t0i.add(t2i).intoArray(im, o);
      FloatVector b2r = t0r.sub(t2r);
      FloatVector b2i = t0i.sub(t2i);
      FloatVector c2 = FloatVector.fromArray(SPECIES, cos, t + LANES);
      FloatVector s2 = FloatVector.fromArray(SPECIES, sin, t + LANES);
      b2r.mul(c2).sub(b2i.mul(s2)).intoArray(re, o + 2 * q);
      b2r.fma(s2, b2i.mul(c2)).intoArray(im, o + 2 * q);
      FloatVector b1r = t1r.add(t3i);
      FloatVector b1i = t1i.sub(t3r);
      FloatVector c1 = FloatVector.fromArray(SPECIES, cos, t);
      FloatVector s1 = FloatVector.fromArray(SPECIES, sin, t);
      b1r.mul(c1).sub(b1i.mul(s1)).intoArray(re, o + q);
      b1r.fma(s1, b1i.mul(c1)).intoArray(im, o + q);
      FloatVector b3r = t1r.sub(t3i);
      FloatVector b3i = t1i.add(t3r);
      FloatVector c3 = FloatVector.fromArray(SPECIES, cos, t + 2 * LANES);
      FloatVector s3 = FloatVector.fromArray(SPECIES, sin, t + 2 * LANES);
      b3r.mul(c3).sub(b3i.mul(s3)).intoArray(re, o + 3 * q);
      b3r.fma(s3, b3i.mul(c3)).intoArray(im, o + 3 * q);
    }
  }

  static void pass8(float[] re, float[] im, int from, int q, float[] cos, float[] sin) {
    for (int o = from, t = 0; o < from + q; o += LANES, t += 7 * LANES) {
      FloatVector a0r = FloatVector.fromArray(SPECIES, re, o);
      FloatVector a0i = FloatVector.fromArray(SPECIES, im, o);
      FloatVector a4r = FloatVector.fromArray(SPECIES, re, o + 4 * q);
      FloatVector a4i = FloatVector.fromArray(SPECIES, im, o + 4 * q);
      FloatVector p0r = a0r.add(a4r);
      FloatVector p0i = a0i.add(a4i);
      FloatVector m0r = a0r.sub(a4r);
      FloatVector m0i = a0i.sub(a4i);
      FloatVector a2r = FloatVector.fromArray(SPECIES, re, o + 2 * q);
      FloatVector a2i = FloatVector.fromArray(SPECIES, im, o + 2 * q);
      FloatVector a6r = FloatVector.fromArray(SPECIES, re, o + 6 * q);
      FloatVector a6i = FloatVector.fromArray(SPECIES, im, o + 6 * q);
      FloatVector p2r = a2r.add(a6r);
      FloatVector p2i = a2i.add(a6i);
      FloatVector m2r = a2r.sub(a6r);
      FloatVector m2i = a2i.sub(a6i);
      FloatVector a1r = FloatVector.fromArray(SPECIES, re, o + q);
      FloatVector a1i = FloatVector.fromArray(SPECIES, im, o + q);
      FloatVector a5r = FloatVector.fromArray(SPECIES, re, o + 5 * q);
      FloatVector a5i = FloatVector.fromArray(SPECIES, im, o + 5 * q);
      FloatVector p1r = a1r.add(a5r);
      FloatVector p1i = a1i.add(a5i);
      FloatVector m1r = a1r.sub(a5r);
      FloatVector m1i = a1i.sub(a5i);
      FloatVector a3r = FloatVector.fromArray(SPECIES, re, o + 3 * q);
      FloatVector a3i = FloatVector.fromArray(SPECIES, im, o + 3 * q);
      FloatVector a7r = FloatVector.fromArray(SPECIES, re, o + 7 * q);
      FloatVector a7i = FloatVector.fromArray(SPECIES, im, o + 7 * q);
      FloatVector p3r = a3r.add(a7r);
      FloatVector p3i = a3i.add(a7i);
      FloatVector m3r = a3r.sub(a7r);
      FloatVector m3i = a3i.sub(a7i);
      FloatVector t0r = p0r.add(p2r);
      FloatVector t0i = p0i.add(p2i);
      FloatVector t1r = p0r.sub(p2r);
      FloatVector t1i = p0i.sub(p2i);
      FloatVector t2r = p1r.add(p3r);
      FloatVector t2i = p1i.add(p3i);
      FloatVector t3r = p1r.sub(p3r);
      FloatVector t3i = p1i.sub(p3i);
      t0r.add(t2r).intoArray(re, o);
      t0i.add(t2i).intoArray(im, o);
      FloatVector b4r = t0r.sub(t2r);
      FloatVector b4i = t0i.sub(t2i);
      FloatVector c4 = FloatVector.fromArray(SPECIES, cos, t + 3 * LANES);
      FloatVector s4 = FloatVector.fromArray(SPECIES, sin, t + 3 * LANES);
      b4r.mul(c4).sub(b4i.mul(s4)).intoArray(re, o + 4 * q);
      b4r.fma(s4, b4i.mul(c4)).intoArray(im, o + 4 * q);
      FloatVector b2r = t1r.add(t3i);
      FloatVector b2i = t1i.sub(t3r);
      FloatVector c2 = FloatVector.fromArray(SPECIES, cos, t + LANES);
      FloatVector s2 = FloatVector.fromArray(SPECIES, sin, t + LANES);
      b2r.mul(c2).sub(b2i.mul(s2)).intoArray(re, o + 2 * q);
      b2r.fma(s2, b2i.mul(c2)).intoArray(im, o + 2 * q);
      FloatVector b6r = t1r.sub(t3i);
      FloatVector b6i = t1i.add(t3r);
      FloatVector c6 = FloatVector.fromArray(SPECIES, cos, t + 5 * LANES);
      FloatVector s6 = FloatVector.fromArray(SPECIES, sin, t + 5 * LANES);
      b6r.mul(c6).sub(b6i.mul(s6)).intoArray(re, o + 6 * q);
      b6r.fma(s6, b6i.mul(c6)).intoArray(im, o + 6 * q);
      FloatVector u0r = m0r.add(m2i);
      FloatVector u0i = m0i.sub(m2r);
      FloatVector u1r = m0r.sub(m2i);
      FloatVector u1i = m0i.add(m2r);
      FloatVector e1r = m1r.add(m1i);
      FloatVector e1i = m1i.sub(m1r);
      FloatVector e3r = m3i.sub(m3r);
      FloatVector e3i = m3r.add(m3i);
      FloatVector u2r = e1r.add(e3r).mul(HALF_ROOT);
      FloatVector u2i = e1i.sub(e3i).mul(HALF_ROOT);
      FloatVector u3r = e1r.sub(e3r).mul(HALF_ROOT);
      FloatVector u3i = e1i.add(e3i).mul(HALF_ROOT);
      FloatVector b1r = u0r.add(u2r);
      FloatVector b1i = u0i.add(u2i);
      FloatVector c1 = FloatVector.fromArray(SPECIES, cos, t);
      FloatVector s1 = FloatVector.fromArray(SPECIES, sin, t);
      b1r.mul(c1).sub(b1i.mul(s1)).intoArray(re, o + q);
      b1r.fma(s1, b1i.mul(c1)).intoArray(im, o + q);
      FloatVector b5r = u0r.sub(u2r);
      FloatVector b5i = u0i.sub(u2i);
      FloatVector c5 = FloatVector.fromArray(SPECIES, cos, t + 4 * LANES);
      FloatVector s5 = FloatVector.fromArray(SPECIES, sin, t + 4 * LANES);
      b5r.mul(c5).sub(b5i.mul(s5)).intoArray(re, o + 5 * q);
      b5r.fma(s5, b5i.mul(c5)).intoArray(im, o + 5 * q);
      FloatVector b3r = u1r.add(u3i);
      FloatVector b3i = u1i.sub(u3r);
      FloatVector c3 = FloatVector.fromArray(SPECIES, cos, t + 2 * LANES);
      FloatVector s3 = FloatVector.fromArray(SPECIES, sin, t + 2 * LANES);
      b3r.mul(c3).sub(b3i.mul(s3)).intoArray(re, o + 3 * q);
      b3r.fma(s3, b3i.mul(c3)).intoArray(im, o + 3 * q);
      FloatVector b7r = u1r.sub(u3i);
      FloatVector b7i = u1i.add(u3r);
      FloatVector c7 = FloatVector.fromArray(SPECIES, cos, t + 6 * LANES);
      FloatVector s7 = FloatVector.fromArray(SPECIES, sin, t + 6 * LANES);
      b7r.mul(c7).sub(b7i.mul(s7)).intoArray(re, o + 7 * q);
      b7r.fma(s7, b7i.mul(c7)).intoArray(im, o + 7 * q);
    }
  }

  static void pass2(float[] re, float[] im, int from, int q, float[] cos, float[] sin) {
    for (int o = from, t = 0; o < from + q; o += LANES, t += LANES) {
      FloatVector a0r = FloatVector.fromArray(SPECIES, re, o);
      FloatVector a0i = FloatVector.fromArray(SPECIES, im, o);
      FloatVector a1r = FloatVector.fromArray(SPECIES, re, o + q);
      FloatVector a1i = FloatVector.fromArray(SPECIES, im, o + q);
      a0r.add(a1r).intoArray(re, o);
      a0i.add(a1i).intoArray(im, o);
      FloatVector b1r = a0r.sub(a1r);
      FloatVector b1i = a0i.sub(a1i);
      FloatVector c1 = FloatVector.fromArray(SPECIES, cos, t);
      FloatVector s1 = FloatVector.fromArray(SPECIES, sin, t);
      b1r.mul(c1).sub(b1i.mul(s1)).intoArray(re, o + q);
      b1r.fma(s1, b1i.mul(c1)).intoArray(im, o + q);
    }
  }

  static void pass4(float[] re, float[] im, int from, int q, float[] cos, float[] sin) {
    for (int o = from, t = 0; o < from + q; o += LANES, t += 3 * LANES) {
      FloatVector a0r = FloatVector.fromArray(SPECIES, re, o);
      FloatVector a0i = FloatVector.fromArray(SPECIES, im, o);
      FloatVector a1r = FloatVector.fromArray(SPECIES, re, o + q);
      FloatVector a1i = FloatVector.fromArray(SPECIES, im, o + q);
      FloatVector a2r = FloatVector.fromArray(SPECIES, re, o + 2 * q);
      FloatVector a2i = FloatVector.fromArray(SPECIES, im, o + 2 * q);
      FloatVector a3r = FloatVector.fromArray(SPECIES, re, o + 3 * q);
      FloatVector a3i = FloatVector.fromArray(SPECIES, im, o + 3 * q);
      FloatVector t0r = a0r.add(a2r);
      FloatVector t0i = a0i.add(a2i);
      FloatVector t1r = a0r.sub(a2r);
      FloatVector t1i = a0i.sub(a2i);
      FloatVector t2r = a1r.add(a3r);
      FloatVector t2i = a1i.add(a3i);
      FloatVector t3r = a1r.sub(a3r);
      FloatVector t3i = a1i.sub(a3i);
      t0r.add(t2r).intoArray(re, o);
      t0i.add(t2i).intoArray(im, o);
      FloatVector b2r = t0r.sub(t2r);
      FloatVector b2i = t0i.sub(t2i);
      FloatVector c2 = FloatVector.fromArray(SPECIES, cos, t + LANES);
      FloatVector s2 = FloatVector.fromArray(SPECIES, sin, t + LANES);
      b2r.mul(c2).sub(b2i.mul(s2)).intoArray(re, o + 2 * q);
      b2r.fma(s2, b2i.mul(c2)).intoArray(im, o + 2 * q);
      FloatVector b1r = t1r.add(t3i);
      FloatVector b1i = t1i.sub(t3r);
      FloatVector c1 = FloatVector.fromArray(SPECIES, cos, t);
      FloatVector s1 = FloatVector.fromArray(SPECIES, sin, t);
      b1r.mul(c1).sub(b1i.mul(s1)).intoArray(re, o + q);
      b1r.fma(s1, b1i.mul(c1)).intoArray(im, o + q);
      FloatVector b3r = t1r.sub(t3i);
      FloatVector b3i = t1i.add(t3r);
      FloatVector c3 = FloatVector.fromArray(SPECIES, cos, t + 2 * LANES);
      FloatVector s3 = FloatVector.fromArray(SPECIES, sin, t + 2 * LANES);
      b3r.mul(c3).sub(b3i.mul(s3)).intoArray(re, o + 3 * q);
      b3r.fma(s3, b3i.mul(c3)).intoArray(im, o + 3 * q);
    }
  }

  /** The last pass by 4, the lanes, and the powers. */
  static void lastAndPower(float[] re, float[] im, float[] sum, float[] cos, float[] sin) {
    for (int o = 0; o < re.length; o += 4 * LANES) {
      FloatVector a0r = FloatVector.fromArray(SPECIES, re, o);
      FloatVector a0i = FloatVector.fromArray(SPECIES, im, o);
      FloatVector a1r = FloatVector.fromArray(SPECIES, re, o + LANES);
      FloatVector a1i = FloatVector.fromArray(SPECIES, im, o + LANES);
      FloatVector a2r = FloatVector.fromArray(SPECIES, re, o + 2 * LANES);
      FloatVector a2i = FloatVector.fromArray(SPECIES, im, o + 2 * LANES);
      FloatVector a3r = FloatVector.fromArray(SPECIES, re, o + 3 * LANES);
      FloatVector a3i = FloatVector.fromArray(SPECIES, im, o + 3 * LANES);
      FloatVector t0r = a0r.add(a2r);
      FloatVector t0i = a0i.add(a2i);
      FloatVector t1r = a0r.sub(a2r);
      FloatVector t1i = a0i.sub(a2i);
      FloatVector t2r = a1r.add(a3r);
      FloatVector t2i = a1i.add(a3i);
      FloatVector t3r = a1r.sub(a3r);
      FloatVector t3i = a1i.sub(a3i);
      FloatVector r0 = t0r.add(t2r);
      FloatVector i0 = t0i.add(t2i);
      FloatVector v0;
      FloatVector z0;
      if (LANES > 8) {
        v0 = r0.fma(SIGN_8, r0.rearrange(SWAP_8));
        z0 = i0.fma(SIGN_8, i0.rearrange(SWAP_8));
        r0 = z0.fma(MINUS_SIN_8, v0.mul(COS_8));
        i0 = v0.fma(SIN_8, z0.mul(COS_8));
      }
      if (LANES > 4) {
        v0 = r0.fma(SIGN_4, r0.rearrange(SWAP_4));
        z0 = i0.fma(SIGN_4, i0.rearrange(SWAP_4));
        r0 = z0.fma(MINUS_SIN_4, v0.mul(COS_4));
        i0 = v0.fma(SIN_4, z0.mul(COS_4));
      }
      v0 = r0.fma(SIGN_2, r0.rearrange(SWAP_2));
      z0 = i0.fma(SIGN_2, i0.rearrange(SWAP_2));
      r0 = z0.fma(MINUS_SIN_2, v0.mul(COS_2));
      i0 = v0.fma(SIN_2, z0.mul(COS_2));
      r0 = r0.fma(SIGN_1, r0.rearrange(SWAP_1));
      i0 = i0.fma(SIGN_1, i0.rearrange(SWAP_1));
      r0.fma(r0, i0.fma(i0, FloatVector.fromArray(SPECIES, sum, o))).intoArray(sum, o);
      FloatVector b1r = t1r.add(t3i);
      FloatVector b1i = t1i.sub(t3r);
      FloatVector c1 = FloatVector.fromArray(SPECIES, cos, 0);
      FloatVector s1 = FloatVector.fromArray(SPECIES, sin, 0);
      FloatVector r1 = b1r.mul(c1).sub(b1i.mul(s1));
      FloatVector i1 = b1r.fma(s1, b1i.mul(c1));
      FloatVector v1;
      FloatVector z1;
      if (LANES > 8) {
        v1 = r1.fma(SIGN_8, r1.rearrange(SWAP_8));
        z1 = i1.fma(SIGN_8, i1.rearrange(SWAP_8));
        r1 = z1.fma(MINUS_SIN_8, v1.mul(COS_8));
        i1 = v1.fma(SIN_8, z1.mul(COS_8));
      }
      if (LANES > 4) {
        v1 = r1.fma(SIGN_4, r1.rearrange(SWAP_4));
        z1 = i1.fma(SIGN_4, i1.rearrange(SWAP_4));
        r1 = z1.fma(MINUS_SIN_4, v1.mul(COS_4));
        i1 = v1.fma(SIN_4, z1.mul(COS_4));
      }
      v1 = r1.fma(SIGN_2, r1.rearrange(SWAP_2));
      z1 = i1.fma(SIGN_2, i1.rearrange(SWAP_2));
      r1 = z1.fma(MINUS_SIN_2, v1.mul(COS_2));
      i1 = v1.fma(SIN_2, z1.mul(COS_2));
      r1 = r1.fma(SIGN_1, r1.rearrange(SWAP_1));
      i1 = i1.fma(SIGN_1, i1.rearrange(SWAP_1));
      r1.fma(r1, i1.fma(i1, FloatVector.fromArray(SPECIES, sum, o + LANES)))
          .intoArray(sum, o + LANES);
      FloatVector b2r = t0r.sub(t2r);
      FloatVector b2i = t0i.sub(t2i);
      FloatVector c2 = FloatVector.fromArray(SPECIES, cos, LANES);
      FloatVector s2 = FloatVector.fromArray(SPECIES, sin, LANES);
      FloatVector r2 = b2r.mul(c2).sub(b2i.mul(s2));
      FloatVector i2 = b2r.fma(s2, b2i.mul(c2));
      FloatVector v2;
      FloatVector z2;
      if (LANES > 8) {
        v2 = r2.fma(SIGN_8, r2.rearrange(SWAP_8));
        z2 = i2.fma(SIGN_8, i2.rearrange(SWAP_8));
        r2 = z2.fma(MINUS_SIN_8, v2.mul(COS_8));
        i2 = v2.fma(SIN_8, z2.mul(COS_8));
      }
      if (LANES > 4) {
        v2 = r2.fma(SIGN_4, r2.rearrange(SWAP_4));
        z2 = i2.fma(SIGN_4, i2.rearrange(SWAP_4));
        r2 = z2.fma(MINUS_SIN_4, v2.mul(COS_4));
        i2 = v2.fma(SIN_4, z2.mul(COS_4));
      }
      v2 = r2.fma(SIGN_2, r2.rearrange(SWAP_2));
      z2 = i2.fma(SIGN_2, i2.rearrange(SWAP_2));
      r2 = z2.fma(MINUS_SIN_2, v2.mul(COS_2));
      i2 = v2.fma(SIN_2, z2.mul(COS_2));
      r2 = r2.fma(SIGN_1, r2.rearrange(SWAP_1));
      i2 = i2.fma(SIGN_1, i2.rearrange(SWAP_1));
      r2.fma(r2, i2.fma(i2, FloatVector.fromArray(SPECIES, sum, o + 2 * LANES)))
          .intoArray(sum, o + 2 * LANES);
      FloatVector b3r = t1r.sub(t3i);
      FloatVector b3i = t1i.add(t3r);
      FloatVector c3 = FloatVector.fromArray(SPECIES, cos, 2 * LANES);
      FloatVector s3 = FloatVector.fromArray(SPECIES, sin, 2 * LANES);
      FloatVector r3 = b3r.mul(c3).sub(b3i.mul(s3));
      FloatVector i3 = b3r.fma(s3, b3i.mul(c3));
      FloatVector v3;
      FloatVector z3;
      if (LANES > 8) {
        v3 = r3.fma(SIGN_8, r3.rearrange(SWAP_8));
        z3 = i3.fma(SIGN_8, i3.rearrange(SWAP_8));
        r3 = z3.fma(MINUS_SIN_8, v3.mul(COS_8));
        i3 = v3.fma(SIN_8, z3.mul(COS_8));
      }
      if (LANES > 4) {
        v3 = r3.fma(SIGN_4, r3.rearrange(SWAP_4));
        z3 = i3.fma(SIGN_4, i3.rearrange(SWAP_4));
        r3 = z3.fma(MINUS_SIN_4, v3.mul(COS_4));
        i3 = v3.fma(SIN_4, z3.mul(COS_4));
      }
      v3 = r3.fma(SIGN_2, r3.rearrange(SWAP_2));
      z3 = i3.fma(SIGN_2, i3.rearrange(SWAP_2));
      r3 = z3.fma(MINUS_SIN_2, v3.mul(COS_2));
      i3 = v3.fma(SIN_2, z3.mul(COS_2));
      r3 = r3.fma(SIGN_1, r3.rearrange(SWAP_1));
      i3 = i3.fma(SIGN_1, i3.rearrange(SWAP_1));
      r3.fma(r3, i3.fma(i3, FloatVector.fromArray(SPECIES, sum, o + 3 * LANES)))
          .intoArray(sum, o + 3 * LANES);
    }
  }

  static void acrossLanes(float[] re, float[] im) {
    for (int o = 0; o < re.length; o += LANES) {
      FloatVector r0 = FloatVector.fromArray(SPECIES, re, o);
      FloatVector i0 = FloatVector.fromArray(SPECIES, im, o);
      FloatVector v0;
      FloatVector z0;
      if (LANES > 8) {
        v0 = r0.fma(SIGN_8, r0.rearrange(SWAP_8));
        z0 = i0.fma(SIGN_8, i0.rearrange(SWAP_8));
        r0 = z0.fma(MINUS_SIN_8, v0.mul(COS_8));
        i0 = v0.fma(SIN_8, z0.mul(COS_8));
      }
      if (LANES > 4) {
        v0 = r0.fma(SIGN_4, r0.rearrange(SWAP_4));
        z0 = i0.fma(SIGN_4, i0.rearrange(SWAP_4));
        r0 = z0.fma(MINUS_SIN_4, v0.mul(COS_4));
        i0 = v0.fma(SIN_4, z0.mul(COS_4));
      }
      v0 = r0.fma(SIGN_2, r0.rearrange(SWAP_2));
      z0 = i0.fma(SIGN_2, i0.rearrange(SWAP_2));
      r0 = z0.fma(MINUS_SIN_2, v0.mul(COS_2));
      i0 = v0.fma(SIN_2, z0.mul(COS_2));
      r0 = r0.fma(SIGN_1, r0.rearrange(SWAP_1));
      i0 = i0.fma(SIGN_1, i0.rearrange(SWAP_1));

      r0.intoArray(re, o);
      i0.intoArray(im, o);
    }
  }
}
