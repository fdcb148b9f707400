package rovnik.core.network;

import java.util.Arrays;
import org.hipparchus.complex.Complex;
import org.hipparchus.complex.ComplexField;
import org.hipparchus.linear.FieldLUDecomposition;
import org.hipparchus.linear.FieldMatrix;
import org.hipparchus.linear.MatrixUtils;
import rovnik.core.Refusal;
import rovnik.core.units.Frequency;

/** Networks made from networks: moved planes, other references, parts put on or taken off. */
public final class NetworkChange {
  private NetworkChange() {}

  /**
   * A length of line at one port that is taken away from what was measured.
   *
   * @param delaySeconds one way
   * @param lossDb one way at {@code atHz}, growing with the root of the frequency; 0 for none
   */
  public record Extension(double delaySeconds, double lossDb, double atHz) {
    public static final Extension NONE = new Extension(0, 0, 1e9);

    public Extension {
      Refusal.finite("delaySeconds", delaySeconds);
      Refusal.finite("lossDb", lossDb);
      if (!(atHz > 0)) {
        throw new Refusal("atHz", "Say at which frequency the line has this loss, such as 1G.");
      }
    }
  }

  /** Moves the reference planes; one extension a port. */
  public static NetworkData extended(NetworkData n, Extension... ports) {
    if (ports.length != n.ports()) {
      throw new Refusal("extension", "Give an extension for each of the " + n.ports() + " ports.");
    }
    double[] s = n.s().clone();
    for (int p = 0; p < n.points(); p++) {
      double hz = n.frequencyHz()[p];
      for (int r = 1; r <= n.ports(); r++) {
        for (int c = 1; c <= n.ports(); c++) {
          Extension a = ports[r - 1];
          Extension b = ports[c - 1];
          double angle = 2 * Math.PI * hz * (a.delaySeconds + b.delaySeconds);
          double gain = Math.pow(10, (lossDb(a, hz) + lossDb(b, hz)) / 20);
          int at = n.at(p, r, c);
          double re = s[at];
          double im = s[at + 1];
          s[at] = gain * (re * Math.cos(angle) - im * Math.sin(angle));
          s[at + 1] = gain * (re * Math.sin(angle) + im * Math.cos(angle));
        }
      }
    }
    return new NetworkData(n.ports(), n.referenceOhm(), n.frequencyHz(), s);
  }

  private static double lossDb(Extension e, double hz) {
    return e.lossDb * Math.sqrt(hz / e.atHz);
  }

  /** The extension that turns what was measured at a port into an open or a short at its plane. */
  public static Extension extensionOf(NetworkData n, int port) {
    double[] phase = NetworkFormat.unwrapped(n, port, port);
    double meanHz = Arrays.stream(n.frequencyHz()).average().orElse(0);
    double meanPhase = Arrays.stream(phase).average().orElse(0);
    double top = 0;
    double below = 0;
    double lossDb = 0;
    double weight = 0;
    for (int i = 0; i < phase.length; i++) {
      double x = n.frequencyHz()[i] - meanHz;
      top += x * (phase[i] - meanPhase);
      below += x * x;
      double root = Math.sqrt(n.frequencyHz()[i] / 1e9);
      lossDb -= n.magnitudeDb(i, port, port) / 2 * root;
      weight += root * root;
    }
    if (phase.length < 2) {
      throw new Refusal("extension", "The delay of a line shows over at least two frequencies.");
    }
    return new Extension(-top / below / (4 * Math.PI), Math.max(0, lossDb / weight), 1e9);
  }

  /** The same network for other real reference impedances (Kurokawa, IEEE Trans. MTT 13, 1965). */
  public static NetworkData renormalised(NetworkData n, double... ohm) {
    int ports = n.ports();
    if (ohm.length != ports) {
      throw new Refusal("z0", "Give a reference impedance for each of the " + ports + " ports.");
    }
    double[] gamma = new double[ports];
    for (int i = 0; i < ports; i++) {
      if (!(ohm[i] > 0) || Double.isInfinite(ohm[i])) {
        throw new Refusal("z0", "A reference impedance must be more than 0 ohm, such as 75.");
      }
      gamma[i] = (ohm[i] - n.referenceOhm()[i]) / (ohm[i] + n.referenceOhm()[i]);
    }
    double[] out = new double[n.s().length];
    for (int p = 0; p < n.points(); p++) {
      // S' = D (S - G) (1 - G S)^-1 D^-1 with D = 1 / sqrt(1 - G^2).
      FieldMatrix<Complex> above = matrix(ports);
      FieldMatrix<Complex> below = matrix(ports);
      for (int r = 0; r < ports; r++) {
        for (int c = 0; c < ports; c++) {
          Complex s = new Complex(n.re(p, r + 1, c + 1), n.im(p, r + 1, c + 1));
          double one = r == c ? 1 : 0;
          above.setEntry(r, c, s.subtract(one * gamma[r]));
          below.setEntry(r, c, s.multiply(-gamma[r]).add(one));
        }
      }
      FieldMatrix<Complex> x =
          above.multiply(new FieldLUDecomposition<>(below).getSolver().getInverse());
      for (int r = 0; r < ports; r++) {
        for (int c = 0; c < ports; c++) {
          double scale = share(gamma[c]) / share(gamma[r]);
          Complex v = x.getEntry(r, c).multiply(scale);
          int at = n.at(p, r + 1, c + 1);
          out[at] = v.getReal();
          out[at + 1] = v.getImaginary();
        }
      }
    }
    return new NetworkData(ports, ohm.clone(), n.frequencyHz(), out);
  }

  private static double share(double gamma) {
    return Math.sqrt(1 - gamma * gamma);
  }

  private static FieldMatrix<Complex> matrix(int n) {
    return MatrixUtils.createFieldMatrix(ComplexField.getInstance(), n, n);
  }

  /** Two two-ports in a row on the frequencies of a third, which is one of them. */
  public static NetworkData cascade(NetworkData first, NetworkData second, NetworkData like) {
    return cascade(on(twoPort(first), like), on(twoPort(second), like));
  }

  /** Two two-ports in a row: port 2 of the first to port 1 of the second. */
  public static NetworkData cascade(NetworkData first, NetworkData second) {
    NetworkData b = on(twoPort(second), twoPort(first));
    return each(
        first,
        (p, m) -> {
          TwoPort x = TwoPort.of(first, p);
          TwoPort y = TwoPort.of(b, p);
          Complex loop = Complex.ONE.subtract(x.s22().multiply(y.s11()));
          return new TwoPort(
              x.s11().add(x.s12().multiply(x.s21()).multiply(y.s11()).divide(loop)),
              x.s12().multiply(y.s12()).divide(loop),
              x.s21().multiply(y.s21()).divide(loop),
              y.s22().add(y.s12().multiply(y.s21()).multiply(x.s22()).divide(loop)));
        });
  }

  /** A matched two-port of a gain that is known in dB only; it does not turn the phase. */
  public static NetworkData matched(
      java.util.function.DoubleUnaryOperator gainDb, NetworkData like) {
    double[] s = new double[8 * like.points()];
    for (int p = 0; p < like.points(); p++) {
      double g = Math.pow(10, gainDb.applyAsDouble(like.frequencyHz()[p]) / 20);
      s[8 * p + 2] = g;
      s[8 * p + 4] = g;
    }
    double z0 = like.referenceOhm()[0];
    return new NetworkData(2, new double[] {z0, z0}, like.frequencyHz(), s);
  }

  /** Takes a part off port 1: what is left when {@code part} was measured before it. */
  public static NetworkData withoutFirst(NetworkData measured, NetworkData part) {
    NetworkData a = on(twoPort(part), twoPort(measured));
    return each(
        measured,
        (p, m) -> {
          TwoPort x = TwoPort.of(a, p);
          Complex through = x.s12().multiply(x.s21());
          if (through.norm() == 0) {
            throw new Refusal("part", "The part passes nothing: it cannot be taken off.");
          }
          Complex rest = m.s11().subtract(x.s11());
          Complex s11 = rest.divide(through.add(x.s22().multiply(rest)));
          Complex loop = Complex.ONE.subtract(x.s22().multiply(s11));
          Complex s21 = m.s21().multiply(loop).divide(x.s21());
          Complex s12 = m.s12().multiply(loop).divide(x.s12());
          Complex s22 = m.s22().subtract(s12.multiply(s21).multiply(x.s22()).divide(loop));
          return new TwoPort(s11, s12, s21, s22);
        });
  }

  /** Takes a part off port 2; its port 2 was towards the instrument. */
  public static NetworkData withoutLast(NetworkData measured, NetworkData part) {
    return turned(withoutFirst(turned(twoPort(measured)), turned(twoPort(part))));
  }

  /** The two-port with its ports exchanged. */
  public static NetworkData turned(NetworkData n) {
    NetworkData t =
        new NetworkData(
            2, new double[] {n.referenceOhm()[1], n.referenceOhm()[0]}, n.frequencyHz(), n.s());
    return each(
        t,
        (p, m) -> {
          TwoPort x = TwoPort.of(n, p);
          return new TwoPort(x.s22(), x.s21(), x.s12(), x.s11());
        });
  }

  private static NetworkData twoPort(NetworkData n) {
    if (n.ports() != 2) {
      throw new Refusal("ports", "This needs a two-port; the network has " + n.ports() + " ports.");
    }
    return n;
  }

  private interface Point {
    TwoPort at(int point, TwoPort measured);
  }

  private static NetworkData each(NetworkData n, Point change) {
    double[] s = new double[n.s().length];
    for (int p = 0; p < n.points(); p++) {
      TwoPort t = change.at(p, TwoPort.of(n, p));
      put(s, n.at(p, 1, 1), t.s11());
      put(s, n.at(p, 1, 2), t.s12());
      put(s, n.at(p, 2, 1), t.s21());
      put(s, n.at(p, 2, 2), t.s22());
    }
    return new NetworkData(2, n.referenceOhm(), n.frequencyHz(), s);
  }

  private static void put(double[] s, int at, Complex v) {
    s[at] = v.getReal();
    s[at + 1] = v.getImaginary();
  }

  /**
   * A network on the frequencies of another, straight between its points.
   *
   * @throws Refusal if it does not reach that far, or its reference differs
   */
  static NetworkData on(NetworkData n, NetworkData like) {
    double[] f = n.frequencyHz();
    double[] wanted = like.frequencyHz();
    if (!Arrays.equals(n.referenceOhm(), like.referenceOhm())) {
      throw new Refusal(
          "z0", "The two networks have different reference impedances. Renormalise one of them.");
    }
    if (Arrays.equals(f, wanted)) {
      return n;
    }
    double slack = 1e-6 * (f[f.length - 1] - f[0]);
    if (wanted[0] < f[0] - slack || wanted[wanted.length - 1] > f[f.length - 1] + slack) {
      throw new Refusal(
          "part",
          "The part is known from "
              + Frequency.ofHertz(f[0])
              + " to "
              + Frequency.ofHertz(f[f.length - 1])
              + " only. Measure it over the whole band.");
    }
    int per = 2 * n.ports() * n.ports();
    double[] s = new double[per * wanted.length];
    int i = 0;
    for (int p = 0; p < wanted.length; p++) {
      while (i < f.length - 2 && f[i + 1] < wanted[p]) {
        i++;
      }
      double share = f.length == 1 ? 0 : (wanted[p] - f[i]) / (f[i + 1] - f[i]);
      for (int k = 0; k < per; k++) {
        double a = n.s()[per * i + k];
        double b = f.length == 1 ? a : n.s()[per * (i + 1) + k];
        s[per * p + k] = a + share * (b - a);
      }
    }
    return new NetworkData(n.ports(), n.referenceOhm(), wanted, s);
  }
}
