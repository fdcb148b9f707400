package rovnik.core.modulation.analysis;

import java.util.Map;
import java.util.Random;
import java.util.concurrent.ConcurrentHashMap;
import rovnik.core.modulation.PulseShape;

/**
 * Carriers whose frequency is keyed, made for trials from their definition: the frequency is the
 * sum of pulses on a fine grid, the phase its running sum by the trapezoidal rule. A Gaussian pulse
 * is a rectangle convolved with the impulse response, numerically. Nothing of this is shared with
 * what makes waveforms or what analyses them.
 */
final class KeyedCarriers {
  private static final int FINE = 400;
  private static final int REACH = 80;

  private static final Map<PulseShape, double[]> PULSES = new ConcurrentHashMap<>();

  private KeyedCarriers() {}

  private static double[] pulse(PulseShape shape) {
    return PULSES.computeIfAbsent(shape, KeyedCarriers::made);
  }

  private static double[] made(PulseShape shape) {
    int half = REACH * FINE;
    double[] g = new double[2 * half + 1];
    for (int i = -half; i <= half; i++) {
      double t = (double) i / FINE;
      g[i + half] =
          switch (shape.kind()) {
            case ROOT_RAISED_COSINE -> Carriers.pulse(t, shape.parameter());
            case GAUSSIAN -> Math.abs(t) < 6 ? gaussian(t, shape.parameter()) : 0;
            // The two ends share a step of the grid.
            default -> Math.abs(t) < 0.5 ? 1 : Math.abs(t) == 0.5 ? 0.5 : 0;
          };
    }
    return g;
  }

  private static double gaussian(double t, double bt) {
    double b = Math.sqrt(2 * Math.PI / Math.log(2)) * bt;
    double sum = 0;
    int steps = 200;
    for (int i = 0; i <= steps; i++) {
      double u = t - 0.5 + (double) i / steps;
      double w = i == 0 || i == steps ? 0.5 : 1;
      sum += w * b * Math.exp(-2 * Math.PI * Math.PI * bt * bt * u * u / Math.log(2)) / steps;
    }
    return sum;
  }

  /** The same from eight times as many samples, so that nothing that lies beyond them folds. */
  static float[] clean(
      double[] levels,
      PulseShape shape,
      double deviation,
      double samplesPerSymbol,
      Carriers.Faults f,
      Random random) {
    int step = 8;
    float[] fine = make(levels, shape, deviation, step * samplesPerSymbol, f, random);
    float[] out = new float[fine.length / step / 2 * 2];
    int half = 20 * step;
    for (int m = 0; m < out.length / 2; m++) {
      double re = 0;
      double im = 0;
      double sum = 0;
      for (int i = -half; i <= half; i++) {
        double x = 0.8 * i / step;
        double w = Math.pow(Math.cos(Math.PI * i / 2 / (half + 1)), 4);
        double h = w * (i == 0 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x));
        int at = Math.max(0, Math.min(fine.length / 2 - 1, m * step + i));
        re += h * fine[2 * at];
        im += h * fine[2 * at + 1];
        sum += h;
      }
      out[2 * m] = (float) (re / sum);
      out[2 * m + 1] = (float) (im / sum);
    }
    return out;
  }

  /**
   * Makes one.
   *
   * @param levels of the symbols, the outermost 1
   * @param deviation in symbol rates
   */
  static float[] make(
      double[] levels,
      PulseShape shape,
      double deviation,
      double samplesPerSymbol,
      Carriers.Faults f,
      Random random) {
    double[] g = pulse(shape);
    int n = levels.length;
    double[] frequency = new double[n * FINE + 1];
    for (int k = 0; k < n; k++) {
      int middle = k * FINE;
      int from = Math.max(0, middle - REACH * FINE);
      int to = Math.min(n * FINE, middle + REACH * FINE);
      for (int i = from; i <= to; i++) {
        double v = g[i - middle + REACH * FINE];
        if (v != 0) {
          frequency[i] += deviation * levels[k] * v;
        }
      }
    }
    double[] cycles = new double[frequency.length];
    for (int i = 1; i < cycles.length; i++) {
      cycles[i] = cycles[i - 1] + (frequency[i - 1] + frequency[i]) / 2 / FINE;
    }
    int samples = (int) ((n - 2) * samplesPerSymbol);
    float[] iq = new float[2 * samples];
    double noise = Math.pow(10, f.noiseDb / 20) * Math.sqrt(samplesPerSymbol / 2);
    for (int m = 0; m < samples; m++) {
      double t = m / samplesPerSymbol * (1 + f.clockPpm * 1e-6) + f.delaySymbols;
      double place = t * FINE;
      int i = (int) place;
      double c = cycles[i] + (place - i) * (cycles[i + 1] - cycles[i]);
      double turn = f.phase + 2 * Math.PI * (c + f.frequency * m / samplesPerSymbol);
      double nr = noise > 1e-10 ? noise * random.nextGaussian() : 0;
      double ni = noise > 1e-10 ? noise * random.nextGaussian() : 0;
      iq[2 * m] = (float) (f.level * (Math.cos(turn) + nr));
      iq[2 * m + 1] = (float) (f.level * (Math.sin(turn) + ni));
    }
    return iq;
  }
}
