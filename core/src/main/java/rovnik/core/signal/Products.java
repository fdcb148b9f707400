package rovnik.core.signal;

/** Sums of products of stretches of two arrays. */
public abstract class Products {
  private static final Products FASTEST =
      ComplexFft.vectors() ? new VectorProducts() : new PlainProducts();

  /**
   * Sum of {@code x[xAt + k] * y[yAt + k]}.
   *
   * @param length of the stretches
   */
  public static double sum(double[] x, int xAt, double[] y, int yAt, int length) {
    return FASTEST.of(x, xAt, y, yAt, length);
  }

  abstract double of(double[] x, int xAt, double[] y, int yAt, int length);
}
