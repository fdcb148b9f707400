package rovnik.core.result;

/** The values of a series. Arrays are shared, not copied; NaN where there is no value. */
public sealed interface Values {
  int points();

  /** One number a place. */
  record Real(double[] y) implements Values {
    @Override
    public int points() {
      return y.length;
    }
  }

  /** One complex number a place, such as S-parameters or symbols. */
  record Complex(double[] re, double[] im) implements Values {
    @Override
    public int points() {
      return re.length;
    }
  }

  /**
   * A row of numbers a place, such as a density or a spectrogram.
   *
   * @param z as many numbers as there are rows, place after place
   * @param rows what the rows stand for
   */
  record Matrix(float[] z, Axis rows) implements Values {
    @Override
    public int points() {
      return rows.points() == 0 ? 0 : z.length / rows.points();
    }
  }
}
