package rovnik.core.modulation.analysis;

import java.util.Arrays;
import rovnik.core.modulation.Constellation;
import rovnik.core.modulation.SingleCarrier;

/**
 * Levels that a frequency is keyed to: decisions and least squares over all symbols take turns,
 * with what neighbours leave of each other taken into account.
 */
final class KeyedLevels {
  private static final int ROUNDS = 12;
  private static final double SETTLED = 1e-4;

  /** Responses of keyed shapes are counted up to here, in symbol rates. */
  private static final double WIDEST = 8;

  private final Constellation levels;
  private final ReferenceShape shape;
  private final Discriminator frequency;
  private final double[] read;
  private final int count;

  /** What was found: middle and outermost deviation in symbol rates, instants in samples. */
  private double middle;

  private double deviation;
  private double first;
  private double symbol;
  private double left;
  private int[] values;

  /**
   * @param symbol samples a symbol
   * @param first sample of the first symbol
   */
  KeyedLevels(
      SingleCarrier carrier,
      java.util.function.DoubleUnaryOperator measured,
      Discriminator frequency,
      double first,
      double symbol,
      int count) {
    this.levels = carrier.constellation();
    this.frequency = frequency;
    this.first = first;
    this.symbol = symbol;
    this.count = count;
    this.read = new double[count];
    double half = carrier.filter().bandLimited() ? carrier.filter().halfWidth() : WIDEST;
    this.shape =
        new ReferenceShape(carrier.filter()::keyedResponse, measured, Math.min(half, symbol / 2));
    settle();
  }

  double middle() {
    return middle;
  }

  double deviation() {
    return deviation;
  }

  double first() {
    return first;
  }

  double symbol() {
    return symbol;
  }

  /** Mean square error, as a share of that of levels anywhere. */
  double share() {
    double step = 2.0 / (levels.size() - 1) * shape.height();
    return left / (deviation * deviation) / (step * step / 12);
  }

  int[] values() {
    return values;
  }

  private void settle() {
    read();
    double[] sorted = read.clone();
    Arrays.sort(sorted);
    double low = sorted[count / 50];
    double high = sorted[count - 1 - count / 50];
    middle = (low + high) / 2;
    deviation = Math.max(1e-6, (high - low) / 2);
    double[] neighbours = new double[count];
    int[] before = null;
    for (int round = 0; round < ROUNDS; round++) {
      read();
      values = decide(neighbours);
      double[] level = new double[count];
      for (int k = 0; k < count; k++) {
        level[k] = levels.re(values[k]) / levels.largest();
      }
      double[] u = shape.atSymbols(level);
      double[] slope = shape.slopeAtSymbols(level);
      for (int k = 0; k < count; k++) {
        neighbours[k] = shape.height() * (u[k] - level[k]);
      }
      double late = fit(u, slope, round == 0);
      if (Arrays.equals(values, before) && Math.abs(late) < SETTLED) {
        break;
      }
      before = values;
    }
  }

  private void read() {
    for (int k = 0; k < count; k++) {
      read[k] = frequency.at(first + k * symbol);
    }
  }

  private int[] decide(double[] neighbours) {
    int[] out = new int[count];
    double scale = levels.largest() / shape.height();
    for (int k = 0; k < count; k++) {
      double x = (read[k] - middle) / deviation - neighbours[k];
      out[k] = levels.decide(scale * x, 0);
    }
    return out;
  }

  /** How late the instants were, in symbols. */
  private double fit(double[] u, double[] slope, boolean rough) {
    LeastSquares sum = new LeastSquares(rough ? 2 : 5);
    double[] row = new double[5];
    for (int k = 0; k < count; k++) {
      double x = ErrorModel.time(k, count);
      row[0] = shape.height() * u[k];
      row[1] = 1;
      row[2] = x;
      row[3] = -shape.height() * slope[k];
      row[4] = row[3] * x;
      sum.add(row, read[k]);
    }
    LeastSquares.Solution v = sum.solve();
    deviation = Math.max(1e-6, v.factor()[0]);
    middle = v.factor()[1];
    left = v.left();
    if (rough) {
      return 1;
    }
    double late = bounded(v.factor()[3] / deviation);
    double clock = bounded(v.factor()[4] / deviation);
    first += (late - clock) * symbol;
    symbol += 2 * clock * symbol / Math.max(1, count - 1);
    return Math.abs(late) + Math.abs(clock);
  }

  private static double bounded(double symbols) {
    return Math.max(-0.25, Math.min(0.25, symbols));
  }
}
