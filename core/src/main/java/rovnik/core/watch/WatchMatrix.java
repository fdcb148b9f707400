package rovnik.core.watch;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import rovnik.core.result.Axis;
import rovnik.core.result.Series;
import rovnik.core.result.Values;
import rovnik.core.units.Moment;

/**
 * Numbers of one column of a table over time, all rows of it together: such as the share of time of
 * each channel. A cell is the mean of the points of its time, nothing where there are none.
 */
final class WatchMatrix {
  /** Fewer curves are told apart one by one. */
  private static final int LEAST_ROWS = 4;

  private static final int MOST_TIMES = 300;

  private WatchMatrix() {}

  /** One series for each column that enough rows of are followed. */
  static List<Series> of(WatchSettings settings, List<WatchStretch> stretches) {
    Map<String, List<Integer>> columns = new LinkedHashMap<>();
    for (int i = 0; i < settings.readings().size(); i++) {
      Watched w = settings.readings().get(i);
      int last = w.id().lastIndexOf(':');
      String[] parts = w.id().split(":", 3);
      if (parts.length == 3 && parts[0].equals("table")) {
        String column = parts[1] + ":" + w.id().substring(last + 1) + ":" + w.shownUnit();
        columns.computeIfAbsent(column, c -> new ArrayList<>()).add(i);
      }
    }
    List<Series> out = new ArrayList<>();
    columns.forEach(
        (column, readings) -> {
          if (readings.size() >= LEAST_ROWS) {
            out.add(series(column, settings, readings, stretches));
          }
        });
    return out;
  }

  private static Series series(
      String column, WatchSettings settings, List<Integer> readings, List<WatchStretch> stretches) {
    boolean none = stretches.isEmpty();
    long from = none ? 0 : stretches.get(0).fromMillis();
    long to = none ? 0 : stretches.get(stretches.size() - 1).toMillis();
    int times = Math.max(1, Math.min(MOST_TIMES, stretches.size()));
    double width = (to - from + 1.0) / times;
    double[] sum = new double[times];
    int[] count = new int[times];
    float[] z = new float[times * readings.size()];
    for (int k = 0; k < readings.size(); k++) {
      int reading = readings.get(k);
      Arrays.fill(sum, 0);
      Arrays.fill(count, 0);
      for (WatchStretch s : stretches) {
        if (s.has(reading)) {
          int t = (int) ((s.fromMillis() - from) / width);
          sum[t] += s.mean(reading) * s.points();
          count[t] += s.points();
        }
      }
      for (int t = 0; t < times; t++) {
        z[k * times + t] = count[t] == 0 ? Float.NaN : (float) (sum[t] / count[t]);
      }
    }
    Watched first = settings.readings().get(readings.get(0));
    String head = column.split(":")[1];
    return new Series(
        "each:" + column.substring(0, column.lastIndexOf(':')),
        head + " of each",
        Series.Role.DATA,
        "",
        true,
        rows(first, settings, readings),
        head,
        first.shownUnit(),
        new Values.Matrix(
            z, Axis.even("Time", Moment.UNIT, (from + width / 2) / 1000, width / 1000, times)),
        List.of());
  }

  /** Rows by their number where that is what they are called, else by their place. */
  private static Axis rows(Watched first, WatchSettings settings, List<Integer> readings) {
    int n = readings.size();
    double[] name = new double[n];
    boolean even = true;
    for (int k = 0; k < n; k++) {
      String id = settings.readings().get(readings.get(k)).id();
      String row = id.substring(id.indexOf(':', 6) + 1, id.lastIndexOf(':'));
      name[k] = row.matches("-?\\d{1,9}") ? Double.parseDouble(row) : Double.NaN;
      even &= k < 2 ? !Double.isNaN(name[k]) : name[k] - name[k - 1] == name[1] - name[0];
    }
    String quantity = first.label().split(" ")[0];
    return even && name[1] > name[0]
        ? Axis.even(quantity, "", name[0], name[1] - name[0], n)
        : Axis.even(quantity, "", 1, 1, n);
  }
}
