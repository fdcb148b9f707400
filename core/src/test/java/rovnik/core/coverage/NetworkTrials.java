package rovnik.core.coverage;

import java.util.List;
import java.util.Random;
import org.hipparchus.complex.Complex;
import rovnik.core.network.NetworkData;
import rovnik.core.network.NetworkFigures;
import rovnik.core.network.NetworkFigures.Figure;
import rovnik.core.network.NetworkFormat;
import rovnik.core.network.NetworkLimit;
import rovnik.core.network.Residuals;
import rovnik.core.network.SweepNoise;

/**
 * Networks whose true values are known, seen through what a calibration leaves: every error of a
 * port has a size that is normally distributed, with the stated bound as two standard deviations of
 * each part, and a phase that turns over the band, as reflections on lines do.
 */
final class NetworkTrials {
  private static final int POINTS = 201;
  private static final double LOW = 400e6;
  private static final double STEP = 0.5e6;
  private static final double NOISE = 2e-5;

  /** A part: four parameters at a frequency. */
  interface Part {
    Complex s(double hz, int row, int column);
  }

  private final Random random;
  private final Residuals left;

  NetworkTrials(Random random, Residuals left) {
    this.random = random;
    this.left = left;
  }

  private static Complex turned(double size, double degrees) {
    return new Complex(0, Math.toRadians(degrees)).exp().multiply(size);
  }

  /** A resonator between two lines: S21 = A / (1 + 2j Q (f - f0) / f0), what is left reflects. */
  static Complex filter(double hz, int row, int column) {
    Complex through = Complex.valueOf(0.8).divide(new Complex(1, 2 * 40 * (hz - 450e6) / 450e6));
    Complex line = new Complex(0, -2 * Math.PI * hz * 3e-9).exp();
    return row == column
        ? Complex.ONE.subtract(through.divide(0.8).multiply(0.95)).multiply(0.9).multiply(line)
        : through.multiply(line);
  }

  static Complex amplifier(double hz, int row, int column) {
    double turn = -360 * hz * 1e-9;
    return switch (10 * row + column) {
      case 11 -> turned(0.3, 40 + turn);
      case 12 -> turned(0.03, 60 + turn);
      case 21 -> turned(4, 120 + turn);
      default -> turned(0.25, -70 + turn);
    };
  }

  static Complex pad(double hz, int row, int column) {
    return row == column ? turned(0.05, 30) : turned(0.01, -360 * hz * 0.5e-9);
  }

  private NetworkData exact(Part part) {
    return network(part::s);
  }

  private static NetworkData network(Part part) {
    double[] hz = new double[POINTS];
    double[] s = new double[8 * POINTS];
    for (int p = 0; p < POINTS; p++) {
      hz[p] = LOW + p * STEP;
      for (int k = 0; k < 4; k++) {
        Complex v = part.s(hz[p], k / 2 + 1, k % 2 + 1);
        s[8 * p + 2 * k] = v.getReal();
        s[8 * p + 2 * k + 1] = v.getImaginary();
      }
    }
    return new NetworkData(2, new double[] {50, 50}, hz, s);
  }

  /** One error: it turns over the band. */
  private Part error(double bound) {
    Complex[] value = new Complex[4];
    double[] seconds = new double[4];
    for (int k = 0; k < 4; k++) {
      value[k] = new Complex(random.nextGaussian(), random.nextGaussian()).multiply(bound / 2);
      seconds[k] = 20e-9 * (random.nextDouble() + 0.2);
    }
    return (hz, row, column) -> {
      int k = 2 * row + column - 3;
      return value[k].multiply(new Complex(0, 2 * Math.PI * hz * seconds[k]).exp());
    };
  }

  private NetworkData noisy(NetworkData n, double sigma) {
    double[] s = n.s().clone();
    for (int i = 0; i < s.length; i++) {
      s[i] += sigma * random.nextGaussian();
    }
    return new NetworkData(2, new double[] {50, 50}, n.frequencyHz(), s);
  }

  private NetworkData seen(Part t) {
    Part directivity = error(left.directivity());
    Part match = error(left.match());
    Part load = error(left.load());
    Part tracking = error(left.tracking());
    Part reflecting = error(left.reflectionTracking());
    return network(
        (hz, row, column) -> {
          Complex own = t.s(hz, row, column);
          if (row == column) {
            int other = 3 - row;
            return own.add(directivity.s(hz, row, row))
                .add(own.multiply(reflecting.s(hz, row, row)))
                .add(own.multiply(own).multiply(match.s(hz, row, row)))
                .add(
                    t.s(hz, other, row)
                        .multiply(t.s(hz, row, other))
                        .multiply(load.s(hz, row, row)));
          }
          Complex off =
              tracking
                  .s(hz, row, column)
                  .add(match.s(hz, row, column).multiply(t.s(hz, column, column)))
                  .add(load.s(hz, row, column).multiply(t.s(hz, row, row)));
          return own.add(own.multiply(off));
        });
  }

  /** One part measured once; the noise is what two sweeps showed. */
  void trial(Coverage c, String name, Part part) {
    NetworkData truth = exact(part);
    NetworkData without = seen(part);
    SweepNoise shown = new SweepNoise();
    shown.take(noisy(without, NOISE));
    NetworkData n = noisy(without, NOISE);
    shown.take(n);
    Residuals trust = left.withNoise(shown.sigma(), 1);
    double at = LOW + STEP * random.nextInt(POINTS);
    note(
        c,
        name,
        NetworkFigures.of(n, at, at, 1, trust),
        NetworkFigures.of(truth, at, at),
        List.of("returnLoss1", "vswr1", "accepted1", "gainLowest", "stabilityMu", "stabilityK"));
    note(
        c,
        name,
        NetworkFigures.of(n, LOW, LOW + STEP * POINTS, 1, trust),
        NetworkFigures.of(truth, LOW, LOW + STEP * POINTS),
        List.of("delay", "ripple", "bandwidth3", "bandwidth6", "centre", "quality"));
    int point = (int) Math.round((at - LOW) / STEP);
    double off =
        NetworkFormat.PHASE.of(n, 2, 1, 0)[point] - NetworkFormat.PHASE.of(truth, 2, 1, 0)[point];
    NetworkLimit phase =
        new NetworkLimit("", 2, 1, NetworkFormat.PHASE, true, at - 1, at + 1, 180, 180);
    c.note(
        "Phase, " + name,
        Math.IEEEremainder(off, 360),
        phase.uncertaintyAt(n, point, trust),
        0,
        false);
  }

  private static void note(
      Coverage c, String name, List<Figure> read, List<Figure> truth, List<String> ids) {
    for (Figure f : read) {
      if (ids.contains(f.id())) {
        double wanted =
            truth.stream().filter(t -> t.id().equals(f.id())).findFirst().orElseThrow().value();
        boolean unknown = Double.isNaN(f.uncertainty());
        c.note(
            f.label().replaceFirst(",? (at|port).*", "") + ", " + name,
            f.value(),
            f.uncertainty(),
            wanted,
            unknown);
      }
    }
  }
}
