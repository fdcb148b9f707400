package rovnik.core.receiver;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.function.DoubleUnaryOperator;
import java.util.function.ToDoubleFunction;
import rovnik.core.limits.Verdict;
import rovnik.core.modulation.analysis.BitErrorRatio;
import rovnik.core.result.Axis;
import rovnik.core.result.ResultTable;
import rovnik.core.result.ResultTable.Cell;
import rovnik.core.result.ResultTable.Column;
import rovnik.core.result.ResultTable.Row;
import rovnik.core.result.Series;

/** Quality over level, as curves and as a table. */
final class LevelCurves {
  /** Error ratios are drawn as their logarithm. */
  static final String POWER_OF_TEN = "Error ratio, power of ten";

  private static final String LEVEL = "Level at the receiver";
  private static final double THEORY_STEP_DB = 0.25;
  private static final double BESIDE_DB = 3;
  private static final int DIGITS = 4;
  private static final double LEAST_RATIO = 1e-9;

  private final List<LevelPoint> points;
  private final ReceiverModel model;
  private final String plane;

  LevelCurves(List<LevelPoint> looks, ReceiverModel model, String plane) {
    this.points = together(looks);
    this.model = model;
    this.plane = plane;
  }

  /** Looks at one level count together. */
  private static List<LevelPoint> together(List<LevelPoint> looks) {
    List<LevelPoint> out = new ArrayList<>();
    looks.stream()
        .sorted(Comparator.comparingDouble(LevelPoint::dbm))
        .forEach(
            p -> {
              int last = out.size() - 1;
              if (last >= 0 && Math.abs(out.get(last).dbm() - p.dbm()) < 0.005) {
                out.set(last, out.get(last).plus(p.quality()));
              } else {
                out.add(p);
              }
            });
    return out;
  }

  List<LevelPoint> points() {
    return points;
  }

  /** All curves that there is something of. */
  List<Series> series() {
    List<Series> out = new ArrayList<>();
    add(out, "ber", "Bit error ratio", POWER_OF_TEN, "", q -> log(q.errors(), q.bits()));
    if (!out.isEmpty() && model.comparable()) {
      out.add(theory());
    }
    add(
        out,
        "per",
        "Packet error ratio",
        POWER_OF_TEN,
        "",
        q -> log(q.wrongPackets(), q.packets()));
    add(out, "sinad", "SINAD", "SINAD", "dB", Quality::sinadDb);
    add(out, "evm", "EVM rms", "EVM rms", "%", Quality::evmPercent);
    return out;
  }

  /** The curve of what was sought alone, with what was fitted to it. */
  List<Series> series(Criterion criterion, LevelEstimate found, DoubleUnaryOperator fit) {
    String id =
        switch (criterion.of()) {
          case BER -> "ber";
          case PER -> "per";
          case SINAD -> "sinad";
        };
    List<Series> out =
        new ArrayList<>(
            series().stream()
                .filter(s -> s.id().equals(id) || s.id().equals("theory") && id.equals("ber"))
                .toList());
    if (fit != null && found.known() && !out.isEmpty()) {
      List<double[]> at = new ArrayList<>();
      for (double l = found.dbm() - BESIDE_DB; l <= found.dbm() + BESIDE_DB; l += 0.1) {
        double p = fit.applyAsDouble(l);
        if (p > LEAST_RATIO && p < 0.5) {
          at.add(new double[] {l, Math.log10(p)});
        }
      }
      double[] x = at.stream().mapToDouble(v -> v[0]).toArray();
      double[] y = at.stream().mapToDouble(v -> v[1]).toArray();
      out.add(
          1,
          Series.curve("fit", "fitted to all counts", Axis.own(LEVEL, "dBm", x), y, "")
              .of(POWER_OF_TEN));
    }
    return out;
  }

  private static double rounded(double v) {
    return Double.isFinite(v) ? new BigDecimal(v).round(new MathContext(DIGITS)).doubleValue() : v;
  }

  private static double log(long wrong, long all) {
    return wrong == 0 ? Double.NaN : Math.log10((double) wrong / all);
  }

  private void add(
      List<Series> out,
      String id,
      String label,
      String quantity,
      String unit,
      ToDoubleFunction<Quality> value) {
    List<LevelPoint> known =
        points.stream().filter(p -> !Double.isNaN(value.applyAsDouble(p.quality()))).toList();
    if (known.isEmpty()) {
      return;
    }
    double[] x = known.stream().mapToDouble(LevelPoint::dbm).toArray();
    double[] y = known.stream().mapToDouble(p -> value.applyAsDouble(p.quality())).toArray();
    out.add(Series.curve(id, label, Axis.own(LEVEL, "dBm", x), y, unit).of(quantity));
  }

  /** What perfect timing and carrier would have, with the noise figure that is stated. */
  private Series theory() {
    double first = points.get(0).dbm() - BESIDE_DB;
    double last = points.get(points.size() - 1).dbm() + BESIDE_DB;
    List<double[]> at = new ArrayList<>();
    for (double l = first; l <= last; l += THEORY_STEP_DB) {
      double p = model.theory().orElseThrow().ratio(model.ebN0Db(l));
      if (p > LEAST_RATIO) {
        at.add(new double[] {l, Math.log10(p)});
      }
    }
    double[] x = at.stream().mapToDouble(v -> v[0]).toArray();
    double[] y = at.stream().mapToDouble(v -> v[1]).toArray();
    return Series.curve(
            "theory",
            String.format(
                Locale.ROOT, "theory at a noise figure of %.1f dB", model.noiseFigureDb()),
            Axis.own(LEVEL, "dBm", x),
            y,
            "")
        .of(POWER_OF_TEN)
        .as(Series.Role.LIMIT);
  }

  ResultTable table() {
    boolean bits = points.stream().anyMatch(p -> p.quality().bits() > 0);
    boolean packets = points.stream().anyMatch(p -> p.quality().packets() > 0);
    boolean sinad = points.stream().anyMatch(p -> !Double.isNaN(p.quality().sinadDb()));
    boolean evm = points.stream().anyMatch(p -> !Double.isNaN(p.quality().evmPercent()));
    boolean squelch = points.stream().anyMatch(p -> p.quality().squelchOpen() != null);
    List<Column> columns = new ArrayList<>();
    columns.add(new Column("Level", "dBm"));
    if (evm) {
      columns.add(new Column("EVM rms", "%"));
    }
    if (bits) {
      columns.add(new Column("Bit error ratio", ""));
      columns.add(new Column("95 % from", ""));
      columns.add(new Column("to", ""));
      columns.add(new Column("bits", ""));
      columns.add(new Column("errors", ""));
    }
    if (packets) {
      columns.add(new Column("Packet error ratio", ""));
    }
    if (sinad) {
      columns.add(new Column("SINAD", "dB"));
    }
    if (squelch) {
      columns.add(new Column("Squelch", ""));
    }
    boolean lost = points.stream().anyMatch(p -> !p.quality().lost().isEmpty());
    if (lost) {
      columns.add(new Column("", ""));
    }
    List<Row> rows = new ArrayList<>();
    for (LevelPoint p : points) {
      Quality q = p.quality();
      List<Cell> cells = new ArrayList<>();
      cells.add(Cell.of(p.dbm()));
      if (evm) {
        cells.add(Cell.of(rounded(q.evmPercent())));
      }
      if (bits) {
        boolean any = q.bits() > 0;
        BitErrorRatio r = any ? BitErrorRatio.of(q.errors(), q.bits()) : null;
        cells.add(Cell.of(rounded(any ? r.ratio() : Double.NaN)));
        cells.add(Cell.of(rounded(any ? r.low() : Double.NaN)));
        cells.add(Cell.of(rounded(any ? r.high() : Double.NaN)));
        cells.add(Cell.of((double) q.bits()));
        cells.add(Cell.of((double) q.errors()));
      }
      if (packets) {
        cells.add(
            Cell.of(
                rounded(q.packets() > 0 ? (double) q.wrongPackets() / q.packets() : Double.NaN)));
      }
      if (sinad) {
        cells.add(Cell.of(rounded(q.sinadDb())));
      }
      if (squelch) {
        cells.add(Cell.of(q.squelchOpen() == null ? "" : q.squelchOpen() ? "open" : "closed"));
      }
      if (lost) {
        cells.add(Cell.of(q.lost()));
      }
      rows.add(new Row(cells, Verdict.NONE));
    }
    return new ResultTable("levels", "Level against quality", columns, rows);
  }
}
