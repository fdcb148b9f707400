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

  private final NetworkData network;
  private final int first;
  private final int last;
  private final List<Figure> figures = new ArrayList<>();

  private NetworkFigures(NetworkData network, int first, int last) {
    this.network = network;
    this.first = first;
    this.last = last;
  }

  /**
   * Figures between two frequencies.
   *
   * @throws Refusal if no point of the network lies there
   */
  public static List<Figure> of(NetworkData n, double fromHz, double toHz) {
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
          "No point of the file lies in this band; it holds "
              + Frequency.ofHertz(n.frequencyHz()[0])
              + " to "
              + Frequency.ofHertz(n.frequencyHz()[n.points() - 1])
              + ".");
    }
    return new NetworkFigures(n, first, last).all();
  }

  private List<Figure> all() {
    for (int port = 1; port <= network.ports(); port++) {
      int p = port;
      String at = " at port " + p;
      lowest("returnLoss" + p, "Return loss" + at, "dB", i -> reflection(i, p).returnLossDb());
      highest("vswr" + p, "VSWR" + at, "", i -> reflection(i, p).vswr());
      lowest(
          "accepted" + p, "Power accepted" + at, "%", i -> 100 * reflection(i, p).acceptedShare());
    }
    if (network.ports() == 2) {
      lowest("gainLowest", "Lowest gain, port 1 to 2", "dB", i -> network.magnitudeDb(i, 2, 1));
      highest("gainHighest", "Highest gain, port 1 to 2", "dB", i -> network.magnitudeDb(i, 2, 1));
      highest("isolation", "Highest gain, port 2 to 1", "dB", i -> network.magnitudeDb(i, 1, 2));
      highest("reciprocity", "Difference of S12 and S21", "", this::difference);
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
