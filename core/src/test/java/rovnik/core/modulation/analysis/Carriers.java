package rovnik.core.modulation.analysis;

import java.util.Map;
import java.util.Random;
import java.util.concurrent.ConcurrentHashMap;
import rovnik.core.modulation.Constellation;
import rovnik.core.modulation.Format;

/**
 * Carriers made for trials, sample by sample from their definition in double precision, with faults
 * of known size; nothing of this is shared with what makes waveforms or what analyses them.
 */
public final class Carriers {
  /** Faults and unknowns of a carrier, all of them off to begin with. */
  public static final class Faults {
    public double delaySymbols = 0.37;
    public double phase = 1.1;
    public double frequency = 0.0;
    public double level = 0.3;
    public double clockPpm;
    public double imbalanceDb;
    public double quadratureDegrees;
    public double leakDb = -300;
    public double delayQSymbols;
    public double noiseDb = -300;

    /** Phase noise in radians rms, and after how many symbols it has forgotten itself to 1/e. */
    public double phaseNoise;

    public double phaseMemorySymbols = 20;
  }

  private static final int TAIL = 400;
  private static final int FINE = 1024;
  private static final Map<Double, double[][]> PULSES = new ConcurrentHashMap<>();

  private Carriers() {}

  /** Random values of a format. */
  public static int[] values(Random random, int size, int count) {
    return random.ints(count, 0, size).toArray();
  }

  /** Root-raised-cosine symbols; time in symbols, frequency in symbol rates. */
  public static float[] make(
      Format format,
      int[] values,
      double rollOff,
      double samplesPerSymbol,
      Faults f,
      Random random) {
    int n = values.length;
    double[] i = new double[n];
    double[] q = new double[n];
    Constellation points = format.constellation();
    double angle = 0;
    for (int k = 0; k < n; k++) {
      if (format == Format.D8PSK) {
        angle += Math.PI / 4 * new int[] {0, 1, 3, 2, 7, 6, 4, 5}[values[k]];
        i[k] = Math.cos(angle);
        q[k] = Math.sin(angle);
      } else if (format == Format.PI4_DQPSK) {
        angle += Math.PI / 4 * new int[] {1, 3, -1, -3}[values[k]];
        i[k] = Math.cos(angle);
        q[k] = Math.sin(angle);
      } else {
        i[k] = points.re(values[k]);
        q[k] = points.im(values[k]);
      }
    }
    int samples = (int) (n * samplesPerSymbol);
    float[] iq = new float[2 * samples];
    double g = Math.pow(10, f.imbalanceDb / 40);
    double phi = Math.toRadians(f.quadratureDegrees) / 2;
    double late = format == Format.OFFSET_QPSK ? 0.5 : 0;
    double noise = Math.pow(10, f.noiseDb / 20) * Math.sqrt(samplesPerSymbol / 2);
    double leak = Math.pow(10, f.leakDb / 20);
    double[][] pulses = pulses(rollOff);
    double keep = Math.exp(-1 / f.phaseMemorySymbols / samplesPerSymbol);
    double kick = f.phaseNoise * Math.sqrt(1 - keep * keep);
    double wander = f.phaseNoise > 0 ? f.phaseNoise * random.nextGaussian() : 0;
    for (int m = 0; m < samples; m++) {
      double t = m / samplesPerSymbol * (1 + f.clockPpm * 1e-6) - f.delaySymbols;
      double x = g * sum(i, t, pulses);
      double y = sum(q, t - late - f.delayQSymbols, pulses) / g;
      // I leans back by half of the angle, Q forward.
      double re = x * Math.cos(phi) - y * Math.sin(phi) + leak * Math.cos(0.7);
      double im = -x * Math.sin(phi) + y * Math.cos(phi) + leak * Math.sin(0.7);
      wander = keep * wander + (kick > 0 ? kick * random.nextGaussian() : 0);
      double turn = f.phase + 2 * Math.PI * f.frequency * m / samplesPerSymbol + wander;
      double c = Math.cos(turn);
      double s = Math.sin(turn);
      double nr = noise > 1e-10 ? noise * random.nextGaussian() : 0;
      double ni = noise > 1e-10 ? noise * random.nextGaussian() : 0;
      iq[2 * m] = (float) (f.level * (re * c - im * s + nr));
      iq[2 * m + 1] = (float) (f.level * (re * s + im * c + ni));
    }
    return iq;
  }

  private static double sum(double[] s, double t, double[][] pulses) {
    int here = (int) Math.floor(t);
    double place = (t - here) * FINE;
    int row = (int) place;
    double part = place - row;
    double[] a = pulses[row];
    double[] b = pulses[row + 1];
    double low = 0;
    double high = 0;
    for (int k = Math.max(0, here - TAIL); k <= Math.min(s.length - 1, here + TAIL); k++) {
      low += s[k] * a[here - k + TAIL];
      high += s[k] * b[here - k + TAIL];
    }
    return low + part * (high - low);
  }

  /** Pulses by fraction of a symbol; between two of them a straight line errs by less than 1e-6. */
  private static double[][] pulses(double rollOff) {
    return PULSES.computeIfAbsent(
        rollOff,
        a -> {
          double[][] out = new double[FINE + 1][2 * TAIL + 1];
          for (int row = 0; row <= FINE; row++) {
            for (int k = -TAIL; k <= TAIL; k++) {
              out[row][k + TAIL] = pulse(k + (double) row / FINE, a);
            }
          }
          return out;
        });
  }

  /** Root-raised cosine with a response of 1 at 0 Hz (Proakis, from memory). */
  static double pulse(double t, double a) {
    if (Math.abs(t) < 1e-9) {
      return 1 - a + 4 * a / Math.PI;
    }
    double d = 1 - 16 * a * a * t * t;
    if (Math.abs(d) < 1e-7) {
      double e = 1e-4;
      return (pulse(t + e, a) + pulse(t - e, a)) / 2;
    }
    return (Math.sin(Math.PI * t * (1 - a)) + 4 * a * t * Math.cos(Math.PI * t * (1 + a)))
        / (Math.PI * t * d);
  }
}
