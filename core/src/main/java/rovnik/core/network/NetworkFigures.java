package rovnik.core.network;

import java.util.ArrayList;
import java.util.List;
import java.util.function.IntToDoubleFunction;
import rovnik.core.Refusal;
import rovnik.core.units.Frequency;

/** The worst values of a network over a band, each with the frequency it lies at. */
public final class NetworkFigures {
  /**
   * One figure.
   *
   * @param value worst in the band; infinite where the part reflects everything
   * @param atHz where it lies
   */
  public record Figure(String id, String label, double value, String unit, double atHz) {}

  /** How nearly S11 + S21 is 1 for a part to count as one in series. */
  private static final double SERIES_WITHIN = 0.02;

  private final NetworkData network;
  private final int first;
  private final int last;
  private final List<Figure> figures = new ArrayList<>();

  private final double otherVswr;

  private NetworkFigures(NetworkData network, int first, int last, double otherVswr) {
    this.otherVswr = otherVswr;
    this.network = network;
    this.first = first;
    this.last = last;
  }

  /** Figures between two frequencies, without a mismatch uncertainty. */
  public static List<Figure> of(NetworkData n, double fromHz, double toHz) {
    return of(n, fromHz, toHz, 0);
  }

  /**
   * Expanded uncertainty (k = 2) of a figure of this network, in its unit; NaN if it is not known.
   *
   * @param trust errors left in the data
   */
  public static double uncertainty(Figure f, NetworkData n, Residuals trust) {
    int p = java.util.Arrays.binarySearch(n.frequencyHz(), f.atHz());
    if (p < 0) {
      return Double.NaN;
    }
    String what = f.id().replaceAll("\\d", "");
    switch (what) {
      case "returnLoss", "vswr", "accepted", "mismatchLoss" -> {
        int port = f.id().charAt(f.id().length() - 1) - '0';
        double gamma = n.magnitude(p, port, port);
        double left = trust.reflectionAt(n, p, port);
        double more = Math.min(0.99999, gamma + left);
        double u =
            switch (what) {
              case "returnLoss" -> Residuals.inDb(gamma, left);
              case "vswr" -> new Reflection(more).vswr() - new Reflection(gamma).vswr();
              case "accepted" -> 100 * (more * more - gamma * gamma);
              default ->
                  new Reflection(more).mismatchLossDb() - new Reflection(gamma).mismatchLossDb();
            };
        // Near total reflection the linear model says nothing any more.
        return gamma > 0.9 && !what.equals("returnLoss") ? Double.NaN : u;
      }
      case "gainLowest", "gainHighest", "isolation" -> {
        int row = what.equals("isolation") ? 1 : 2;
        double s = n.magnitude(p, row, 3 - row);
        return Residuals.inDb(s, trust.transmission(s, n.magnitude(p, 1, 1), n.magnitude(p, 2, 2)));
      }
      default -> {
        return Double.NaN;
      }
    }
  }

  /**
   * Figures between two frequencies.
   *
   * @param otherVswr VSWR of what the part is joined to, for the mismatch uncertainty; 0 for none
   * @throws Refusal if no point of the network lies there
   */
  public static List<Figure> of(NetworkData n, double fromHz, double toHz, double otherVswr) {
    int first = 0;
    while (first < n.points() && n.frequencyHz()[first] < fromHz) {
      first++;
    }
    int last = n.points() - 1;
    while (last >= 0 && n.frequencyHz()[last] > toHz) {
      last--;
    }
    if (first > last) {
      throw new Refusal(
          "fromHz",
          "No point lies in this band; there are points from "
              + Frequency.ofHertz(n.frequencyHz()[0])
              + " to "
              + Frequency.ofHertz(n.frequencyHz()[n.points() - 1])
              + ".");
    }
    return new NetworkFigures(n, first, last, otherVswr).all();
  }

  private List<Figure> all() {
    for (int port = 1; port <= network.ports(); port++) {
      int p = port;
      String at = " at port " + p;
      lowest("returnLoss" + p, "Return loss" + at, "dB", i -> reflection(i, p).returnLossDb());
      highest("vswr" + p, "VSWR" + at, "", i -> reflection(i, p).vswr());
      lowest(
          "accepted" + p, "Power accepted" + at, "%", i -> 100 * reflection(i, p).acceptedShare());
      highest("mismatchLoss" + p, "Mismatch loss" + at, "dB", i -> loss(i, p));
      if (otherVswr > 1) {
        double other = Reflection.ofVswr(otherVswr).magnitude();
        highest(
            "mismatchUnsure" + p,
            "Mismatch uncertainty" + at,
            "dB",
            i -> -20 * Math.log10(1 - Math.min(0.999, other * network.magnitude(i, p, p))));
      }
    }
    if (network.ports() == 2) {
      lowest("gainLowest", "Lowest gain, port 1 to 2", "dB", i -> network.magnitudeDb(i, 2, 1));
      highest("gainHighest", "Highest gain, port 1 to 2", "dB", i -> network.magnitudeDb(i, 2, 1));
      highest("isolation", "Highest gain, port 2 to 1", "dB", i -> network.magnitudeDb(i, 1, 2));
      highest("reciprocity", "Difference of S12 and S21", "", this::difference);
      ripple();
      passBand();
      seriesElement();
      lowest("stabilityMu", "Stability mu", "", i -> TwoPort.of(network, i).mu());
      lowest("stabilityK", "Stability K", "", i -> TwoPort.of(network, i).rollettK());
      highest(
          "powerOut",
          "Highest power out over in",
          "",
          i -> TwoPort.of(network, i).largestPowerGain());
    }
    return List.copyOf(figures);
  }

  private void ripple() {
    if (last > first) {
      double low = Double.POSITIVE_INFINITY;
      double high = Double.NEGATIVE_INFINITY;
      for (int i = first; i <= last; i++) {
        low = Math.min(low, network.magnitudeDb(i, 2, 1));
        high = Math.max(high, network.magnitudeDb(i, 2, 1));
      }
      double middle = (network.frequencyHz()[first] + network.frequencyHz()[last]) / 2;
      figures.add(new Figure("ripple", "Ripple of the gain in the band", high - low, "dB", middle));
      double[] phase = NetworkFormat.unwrapped(network, 2, 1);
      double width = network.frequencyHz()[last] - network.frequencyHz()[first];
      double delay = -(phase[last] - phase[first]) / (2 * Math.PI * width);
      figures.add(new Figure("delay", "Delay, port 1 to 2", delay, "s", middle));
    }
  }

  /** Of a filter: what the whole file shows, whatever band was asked for. */
  private void passBand() {
    PassBand three = PassBand.of(network, 2, 1, 3);
    if (three == null) {
      return;
    }
    double centre = three.centreHz();
    figures.add(new Figure("centre", "Middle of the pass band", centre, "Hz", centre));
    figures.add(new Figure("bandwidth3", "Width at \u22123 dB", three.widthHz(), "Hz", centre));
    figures.add(new Figure("quality", "Q, loaded", three.quality(), "", centre));
    PassBand six = PassBand.of(network, 2, 1, 6);
    if (six != null) {
      figures.add(new Figure("bandwidth6", "Width at \u22126 dB", six.widthHz(), "Hz", centre));
    }
    PassBand sixty = PassBand.of(network, 2, 1, 60);
    if (sixty != null) {
      figures.add(new Figure("bandwidth60", "Width at \u221260 dB", sixty.widthHz(), "Hz", centre));
      figures.add(
          new Figure(
              "shape",
              "Shape factor, \u221260 to \u22126 dB",
              sixty.widthHz() / six.widthHz(),
              "",
              centre));
    }
  }

  /** A part in series between equal references has S11 + S21 = 1; then Z = 2 Z0 (1 / S21 - 1). */
  private void seriesElement() {
    for (int i = first; i <= last; i++) {
      double re = network.re(i, 1, 1) + network.re(i, 2, 1) - 1;
      double im = network.im(i, 1, 1) + network.im(i, 2, 1);
      if (Math.hypot(re, im) > SERIES_WITHIN) {
        return;
      }
    }
    lowest("seriesImpedance", "Lowest impedance in series", "\u03A9", this::seriesOhm);
  }

  private double seriesOhm(int point) {
    double re = network.re(point, 2, 1);
    double im = network.im(point, 2, 1);
    double square = re * re + im * im;
    return 2 * network.referenceOhm()[0] * Math.hypot(re / square - 1, im / square);
  }

  private double loss(int point, int port) {
    if (network.magnitude(point, port, port) >= 1) {
      return Double.POSITIVE_INFINITY;
    }
    return reflection(point, port).mismatchLossDb();
  }

  private Reflection reflection(int point, int port) {
    return new Reflection(network.magnitude(point, port, port));
  }

  private double difference(int point) {
    return Math.hypot(
        network.re(point, 1, 2) - network.re(point, 2, 1),
        network.im(point, 1, 2) - network.im(point, 2, 1));
  }

  private void lowest(String id, String label, String unit, IntToDoubleFunction value) {
    add(id, label, unit, value, -1);
  }

  private void highest(String id, String label, String unit, IntToDoubleFunction value) {
    add(id, label, unit, value, 1);
  }

  private void add(String id, String label, String unit, IntToDoubleFunction value, int sign) {
    int worst = first;
    double most = value.applyAsDouble(first);
    for (int i = first + 1; i <= last; i++) {
      double v = value.applyAsDouble(i);
      if (sign * v > sign * most) {
        most = v;
        worst = i;
      }
    }
    figures.add(new Figure(id, label, most, unit, network.frequencyHz()[worst]));
  }
}
