package rovnik.core.network;

import java.util.ArrayList;
import java.util.List;
import java.util.function.IntToDoubleFunction;
import java.util.function.ToDoubleFunction;
import rovnik.core.Refusal;
import rovnik.core.units.Frequency;

/** The worst values of a network over a band, each with the frequency it lies at. */
public final class NetworkFigures {
  /**
   * One figure.
   *
   * @param value worst in the band; infinite where the part reflects everything
   * @param atHz where it lies
   * @param uncertainty expanded (k = 2), in its unit; NaN if it is not known
   */
  public record Figure(
      String id, String label, double value, String unit, double atHz, double uncertainty) {}

  /** How nearly S11 + S21 is 1 for a part to count as one in series. */
  private static final double SERIES_WITHIN = 0.02;

  private final NetworkData network;
  private final int first;
  private final int last;
  private final List<Figure> figures = new ArrayList<>();

  private final double otherVswr;

  private final FigureUncertainty unsure;

  private NetworkFigures(
      NetworkData network, int first, int last, double otherVswr, Residuals trust) {
    this.otherVswr = otherVswr;
    this.unsure = new FigureUncertainty(network, trust);
    this.network = network;
    this.first = first;
    this.last = last;
  }

  /** Figures between two frequencies, without a mismatch uncertainty. */
  public static List<Figure> of(NetworkData n, double fromHz, double toHz) {
    return of(n, fromHz, toHz, 0, null);
  }

  /**
   * Figures between two frequencies.
   *
   * @param otherVswr VSWR of what the part is joined to, for the mismatch uncertainty; 0 for none
   * @param trust errors left in the data, null if they are not known
   * @throws Refusal if no point of the network lies there
   */
  public static List<Figure> of(
      NetworkData n, double fromHz, double toHz, double otherVswr, Residuals trust) {
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
    return new NetworkFigures(n, first, last, otherVswr, trust).all();
  }

  private List<Figure> all() {
    for (int port = 1; port <= network.ports(); port++) {
      int p = port;
      String at = " at port " + p;
      lowest(
          "returnLoss" + p,
          "Return loss" + at,
          "dB",
          i -> reflection(i, p).returnLossDb(),
          i -> unsure.decibels(i, p, p));
      highest(
          "vswr" + p,
          "VSWR" + at,
          "",
          i -> reflection(i, p).vswr(),
          i -> unsure.ofReflection(i, p, Reflection::vswr));
      lowest(
          "accepted" + p,
          "Power accepted" + at,
          "%",
          i -> 100 * reflection(i, p).acceptedShare(),
          i -> unsure.ofReflection(i, p, r -> 100 * r.acceptedShare()));
      highest(
          "mismatchLoss" + p,
          "Mismatch loss" + at,
          "dB",
          i -> loss(i, p),
          i -> unsure.ofReflection(i, p, Reflection::mismatchLossDb));
      if (otherVswr > 1) {
        double other = Reflection.ofVswr(otherVswr).magnitude();
        highest(
            "mismatchUnsure" + p,
            "Mismatch uncertainty" + at,
            "dB",
            i -> -20 * Math.log10(1 - Math.min(0.999, other * network.magnitude(i, p, p))),
            i -> Double.NaN);
      }
    }
    if (network.ports() == 2) {
      lowest("gainLowest", "Lowest gain, port 1 to 2", "dB", this::gainDb, i -> unsure.gainDb(i));
      highest(
          "gainHighest", "Highest gain, port 1 to 2", "dB", this::gainDb, i -> unsure.gainDb(i));
      highest(
          "isolation",
          "Highest gain, port 2 to 1",
          "dB",
          i -> network.magnitudeDb(i, 1, 2),
          i -> unsure.decibels(i, 1, 2));
      highest(
          "reciprocity",
          "Difference of S12 and S21",
          "",
          this::difference,
          i -> Math.hypot(unsure.linear(i, 1, 2), unsure.linear(i, 2, 1)));
      ripple();
      passBand();
      seriesElement();
      twoPort("stabilityMu", "Stability mu", -1, TwoPort::mu);
      twoPort("stabilityK", "Stability K", -1, TwoPort::rollettK);
      twoPort("powerOut", "Highest power out over in", 1, TwoPort::largestPowerGain);
    }
    return List.copyOf(figures);
  }

  private double gainDb(int point) {
    return network.magnitudeDb(point, 2, 1);
  }

  private void twoPort(String id, String label, int sign, ToDoubleFunction<TwoPort> value) {
    add(
        id,
        label,
        "",
        i -> value.applyAsDouble(TwoPort.of(network, i)),
        i -> unsure.ofTwoPort(i, value),
        sign);
  }

  private void ripple() {
    if (last > first) {
      int low = first;
      int high = first;
      for (int i = first; i <= last; i++) {
        low = gainDb(i) < gainDb(low) ? i : low;
        high = gainDb(i) > gainDb(high) ? i : high;
      }
      double middle = (network.frequencyHz()[first] + network.frequencyHz()[last]) / 2;
      figures.add(
          new Figure(
              "ripple",
              "Ripple of the gain in the band",
              gainDb(high) - gainDb(low),
              "dB",
              middle,
              unsure.rippleDb(first, last, low, high)));
      double[] phase = NetworkFormat.unwrapped(network, 2, 1);
      double width = network.frequencyHz()[last] - network.frequencyHz()[first];
      double delay = -(phase[last] - phase[first]) / (2 * Math.PI * width);
      figures.add(
          new Figure(
              "delay", "Delay, port 1 to 2", delay, "s", middle, unsure.delay(first, last, 2, 1)));
    }
  }

  /** Of a filter: what the whole file shows, whatever band was asked for. */
  private void passBand() {
    PassBand three = PassBand.of(network, 2, 1, 3);
    if (three == null) {
      return;
    }
    double centre = three.centreHz();
    double wide = unsure.widthHz(three);
    band("centre", "Middle of the pass band", centre, "Hz", centre, unsure.centreHz(three));
    band("bandwidth3", "Width at \u22123 dB", three.widthHz(), "Hz", centre, wide);
    band(
        "quality",
        "Q, loaded",
        three.quality(),
        "",
        centre,
        wide / three.widthHz() * three.quality());
    PassBand six = PassBand.of(network, 2, 1, 6);
    if (six != null) {
      band("bandwidth6", "Width at \u22126 dB", six.widthHz(), "Hz", centre, unsure.widthHz(six));
    }
    PassBand sixty = PassBand.of(network, 2, 1, 60);
    if (sixty != null) {
      double ofSixty = unsure.widthHz(sixty);
      double shape = sixty.widthHz() / six.widthHz();
      band("bandwidth60", "Width at \u221260 dB", sixty.widthHz(), "Hz", centre, ofSixty);
      band(
          "shape",
          "Shape factor, \u221260 to \u22126 dB",
          shape,
          "",
          centre,
          shape * Math.hypot(ofSixty / sixty.widthHz(), unsure.widthHz(six) / six.widthHz()));
    }
  }

  private void band(
      String id, String label, double value, String unit, double atHz, double uncertainty) {
    figures.add(new Figure(id, label, value, unit, atHz, uncertainty));
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
    add(
        "seriesImpedance",
        "Lowest impedance in series",
        "\u03A9",
        i -> seriesOhm(TwoPort.of(network, i)),
        i -> unsure.ofTwoPort(i, this::seriesOhm),
        -1);
  }

  private double seriesOhm(TwoPort t) {
    return 2 * network.referenceOhm()[0] * t.s21().reciprocal().subtract(1).norm();
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

  private void lowest(
      String id, String label, String unit, IntToDoubleFunction value, IntToDoubleFunction u) {
    add(id, label, unit, value, u, -1);
  }

  private void highest(
      String id, String label, String unit, IntToDoubleFunction value, IntToDoubleFunction u) {
    add(id, label, unit, value, u, 1);
  }

  private void add(
      String id,
      String label,
      String unit,
      IntToDoubleFunction value,
      IntToDoubleFunction uncertainty,
      int sign) {
    int worst = first;
    double most = value.applyAsDouble(first);
    for (int i = first + 1; i <= last; i++) {
      double v = value.applyAsDouble(i);
      if (sign * v > sign * most) {
        most = v;
        worst = i;
      }
    }
    figures.add(
        new Figure(
            id, label, most, unit, network.frequencyHz()[worst], uncertainty.applyAsDouble(worst)));
  }
}
