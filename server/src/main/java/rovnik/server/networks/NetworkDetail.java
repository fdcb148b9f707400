package rovnik.server.networks;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rovnik.core.network.NetworkData;
import rovnik.core.network.NetworkFigures.Figure;

/**
 * A network with its data.
 *
 * @param z0 reference impedance of each port in ohm
 * @param frequencyHz rising
 * @param s by name ("S21"): one pair of real and imaginary part a frequency
 * @param readings worst values in the band that was asked for; empty if none was
 */
@Schema(name = "Network")
public record NetworkDetail(
    long id,
    String name,
    int ports,
    double[] z0,
    double[] frequencyHz,
    Map<String, double[][]> s,
    List<NetworkReading> readings) {

  /**
   * One worst value.
   *
   * @param uncertainty expanded (k = 2), null if it is not known
   * @param value null where there is none, as the VSWR of a total reflection
   */
  @Schema(name = "NetworkReading")
  public record NetworkReading(
      String id,
      String label,
      @Nullable Double value,
      @Nullable Double uncertainty,
      String unit,
      double atHz) {
    static NetworkReading of(Figure f) {
      return new NetworkReading(
          f.id(),
          f.label(),
          Double.isFinite(f.value()) ? f.value() : null,
          Double.isFinite(f.uncertainty()) ? f.uncertainty() : null,
          f.unit(),
          f.atHz());
    }
  }

  static NetworkDetail of(NetworkDto summary, NetworkData n, List<Figure> figures) {
    Map<String, double[][]> s = new LinkedHashMap<>();
    for (int row = 1; row <= n.ports(); row++) {
      for (int column = 1; column <= n.ports(); column++) {
        double[][] pairs = new double[n.points()][];
        for (int i = 0; i < pairs.length; i++) {
          pairs[i] = new double[] {n.re(i, row, column), n.im(i, row, column)};
        }
        s.put(NetworkData.name(row, column), pairs);
      }
    }
    return new NetworkDetail(
        summary.id(),
        summary.name(),
        n.ports(),
        n.referenceOhm(),
        n.frequencyHz(),
        s,
        figures.stream().map(NetworkReading::of).toList());
  }
}
