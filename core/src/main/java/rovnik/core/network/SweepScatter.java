package rovnik.core.network;

import rovnik.core.Refusal;

/**
 * How far the complex values of repeated sweeps scatter about their mean, point by point, by
 * Welford's running sums (Technometrics 4 (1962) 419, from memory).
 */
public final class SweepScatter {
  private final int ports;
  private final double[] frequencyHz;
  private final double[] mean;
  private final double[] squares; // of the distance from the mean, one a complex value
  private int taken;

  public SweepScatter(int ports, double[] frequencyHz) {
    this.ports = ports;
    this.frequencyHz = frequencyHz;
    this.mean = new double[2 * ports * ports * frequencyHz.length];
    this.squares = new double[ports * ports * frequencyHz.length];
  }

  public int taken() {
    return taken;
  }

  /** Takes one more sweep of the same points. */
  public void take(NetworkData n) {
    if (n.s().length != mean.length) {
      throw new Refusal("points", "The sweep changed meanwhile. Start again.");
    }
    taken++;
    for (int k = 0; k < squares.length; k++) {
      double re = n.s()[2 * k] - mean[2 * k];
      double im = n.s()[2 * k + 1] - mean[2 * k + 1];
      mean[2 * k] += re / taken;
      mean[2 * k + 1] += im / taken;
      squares[k] += re * (n.s()[2 * k] - mean[2 * k]) + im * (n.s()[2 * k + 1] - mean[2 * k + 1]);
    }
  }

  /** Standard deviation of one sweep's complex value, linear; a value a point. */
  public double[] standard(int row, int column) {
    double[] all = new double[frequencyHz.length];
    for (int p = 0; p < all.length; p++) {
      all[p] = Math.sqrt(squares[at(p, row, column)] / Math.max(1, taken - 1));
    }
    return all;
  }

  /** The same as a standard deviation of the magnitude, in dB; half of it lies along the phase. */
  public double[] standardDb(int row, int column) {
    double[] all = standard(row, column);
    for (int p = 0; p < all.length; p++) {
      int k = at(p, row, column);
      double size = Math.hypot(mean[2 * k], mean[2 * k + 1]);
      all[p] = 20 / Math.log(10) * all[p] / Math.sqrt(2) / Math.max(size, 1e-300);
    }
    return all;
  }

  private int at(int point, int row, int column) {
    return (point * ports + row - 1) * ports + column - 1;
  }

  /** Root of the mean of the squares. */
  public static double rootMeanSquare(double[] values) {
    double sum = 0;
    for (double v : values) {
      sum += v * v;
    }
    return Math.sqrt(sum / values.length);
  }
}
