package rovnik.core.emission;

import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import rovnik.core.spectrum.Trace;

/** Traces written down from a formula instead of measured. */
final class Made {
  private Made() {}

  /** A trace in dBm whose RBW is its step and whose ENBW is 1.5 steps, as a Hann window's. */
  static Trace trace(double startHz, double stepHz, int points, DoubleUnaryOperator dbm) {
    float[] level = new float[points];
    for (int i = 0; i < points; i++) {
      level[i] = (float) dbm.applyAsDouble(startHz + i * stepHz);
    }
    return new Trace(
        startHz, stepHz, level, "dBm", "plane", stepHz, 1.5 * stepHz, 100, "Hann", "RMS");
  }

  /** A density in mW/Hz with the scatter of {@code averages} averaged periodograms. */
  static Trace noisy(
      double startHz, double stepHz, int points, int averages, DoubleUnaryOperator density) {
    return noisy(new Random(points), startHz, stepHz, points, averages, density);
  }

  static Trace noisy(
      Random random,
      double startHz,
      double stepHz,
      int points,
      int averages,
      DoubleUnaryOperator density) {
    return trace(
        startHz,
        stepHz,
        points,
        hz -> {
          double chi = 0;
          for (int k = 0; k < averages; k++) {
            chi -= Math.log(1 - random.nextDouble());
          }
          return 10 * Math.log10(density.applyAsDouble(hz) * 1.5 * stepHz * chi / averages);
        });
  }
}
