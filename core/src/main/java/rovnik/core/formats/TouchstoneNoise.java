package rovnik.core.formats;

import java.util.ArrayList;
import java.util.List;
import rovnik.core.network.NoiseParameters;

/** The noise part of a two-port's file: five numbers a line. */
final class TouchstoneNoise {
  private final double unitHz;
  private final List<double[]> rows = new ArrayList<>();

  TouchstoneNoise(double unitHz) {
    this.unitHz = unitHz;
  }

  void line(TouchstoneLines lines, int count) {
    if (count != 5) {
      throw TouchstoneReader.refuse(
          lines.number(),
          "a line of noise data has 5 numbers (frequency, lowest noise figure in dB, magnitude and"
              + " angle of the source reflection, noise resistance); this one has "
              + count);
    }
    double[] row = new double[5];
    for (int i = 0; i < 5; i++) {
      row[i] = lines.number(i);
    }
    row[0] *= unitHz;
    if (!rows.isEmpty() && !(row[0] > rows.get(rows.size() - 1)[0])) {
      throw TouchstoneReader.refuse(lines.number(), "the noise frequencies must rise");
    }
    rows.add(row);
  }

  int points() {
    return rows.size();
  }

  NoiseParameters toParameters() {
    int n = rows.size();
    double[] gamma = new double[2 * n];
    for (int i = 0; i < n; i++) {
      double angle = Math.toRadians(rows.get(i)[3]);
      gamma[2 * i] = rows.get(i)[2] * Math.cos(angle);
      gamma[2 * i + 1] = rows.get(i)[2] * Math.sin(angle);
    }
    return new NoiseParameters(column(0), column(1), gamma, column(4));
  }

  private double[] column(int c) {
    return rows.stream().mapToDouble(r -> r[c]).toArray();
  }
}
