package rovnik.server.results;

import org.jspecify.annotations.Nullable;

/** JSON knows no NaN: what is not known is null there. */
public final class Nulls {
  private Nulls() {}

  public static @Nullable Double orNull(double v) {
    return Double.isFinite(v) ? v : null;
  }

  public static double orNan(@Nullable Double v) {
    return v == null ? Double.NaN : v;
  }

  static @Nullable Double[] orNull(double[] values) {
    @Nullable Double[] all = new Double[values.length];
    for (int i = 0; i < all.length; i++) {
      all[i] = orNull(values[i]);
    }
    return all;
  }

  static double[] orNan(@Nullable Double[] values) {
    double[] all = new double[values.length];
    for (int i = 0; i < all.length; i++) {
      all[i] = orNan(values[i]);
    }
    return all;
  }
}
