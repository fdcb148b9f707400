package rovnik.server.runs;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rovnik.core.limits.Verdict;
import rovnik.core.result.Axis;
import rovnik.core.result.Fact;
import rovnik.core.result.Outcome;
import rovnik.core.result.Series;
import rovnik.core.units.Frequency;
import rovnik.core.units.Moment;
import rovnik.server.jobs.PathElementDto;
import rovnik.server.results.ReadingDto;
import rovnik.server.results.TableDto;

/** A run on one page: a single HTML file without scripts or anything from elsewhere. */
final class ReportPage {
  private static final int MOST_LINES = 30;
  private static final int MOST_PIECES = 900;
  private static final int WIDTH = 980;
  private static final int HEIGHT = 360;
  private static final int LEFT = 62;
  private static final int TOP = 14;
  private static final int PLOT_WIDTH = WIDTH - LEFT - 14;
  private static final int PLOT_HEIGHT = HEIGHT - TOP - 40;

  private static final String STYLE =
      """
      body{font:14px/1.4 sans-serif;color:#1b2540;margin:24px auto;max-width:980px}
      h1{font-size:22px;margin:0}h2{font-size:15px;margin:16px 0 4px}
      .verdict{font-size:24px;font-weight:700}.soft{color:#565f78}
      table{border-collapse:collapse;width:100%}th,td{text-align:left;padding:2px 8px;border-bottom:1px solid #e6ddc8}
      td:first-child{min-width:210px}td.n{font-family:monospace}svg{width:100%;height:auto}
      .two{display:grid;grid-template-columns:1fr 1fr;gap:0 24px}
      @media print{body{margin:0;font-size:11px}h2{margin-top:8px}}
      """;

  private final StringBuilder out = new StringBuilder(1 << 16);
  private final RunDtos.Detail run;
  private final Outcome outcome;

  private ReportPage(RunDtos.Detail run, Outcome outcome) {
    this.run = run;
    this.outcome = outcome;
  }

  static String of(RunDtos.Detail run, Outcome outcome, String jobName, String dut) {
    return new ReportPage(run, outcome).page(jobName, dut);
  }

  private String page(String jobName, String dut) {
    out.append("<!doctype html><html lang=\"en\"><head><meta charset=\"utf-8\"><title>")
        .append(safe(run.summary().name()))
        .append("</title><style>")
        .append(STYLE)
        .append("</style></head><body>");
    out.append("<h1>").append(safe(run.summary().name())).append("</h1>");
    out.append("<div class=\"soft\">")
        .append(safe(jobName))
        .append(", ")
        .append(safe(dut))
        .append("; kept ")
        .append(safe(run.summary().keptAt().replaceFirst("T", " ").replaceFirst("\\..*|Z$", "")))
        .append(" UTC")
        .append(run.summary().keptBy().isEmpty() ? "" : safe(" by " + run.summary().keptBy()))
        .append(" from ")
        .append(safe(run.sourceName()))
        .append(" (")
        .append(safe(run.identity()))
        .append(")</div>");
    out.append("<div class=\"verdict\">")
        .append(
            run.summary().verdict() == Verdict.NONE
                ? "no verdict"
                : safe(run.summary().verdictText().toUpperCase(Locale.ROOT)))
        .append("</div>");
    if (!run.overrideReason().isEmpty()) {
      out.append("<div><b>Levels overridden: ")
          .append(safe(run.overrideReason()))
          .append("</b></div>");
    }
    if (!run.summary().note().isEmpty()) {
      out.append("<p>").append(safe(run.summary().note()).replace("\n", "<br>")).append("</p>");
    }
    if (!outcome.summary().isEmpty()) {
      out.append("<p>").append(safe(outcome.summary())).append("</p>");
    }
    outcome.main().ifPresent(this::picture);
    readings();
    run.outcome().tables().stream().filter(t -> !t.rows().isEmpty()).forEach(this::table);
    out.append("<div class=\"two\"><div>");
    settings();
    out.append("</div><div>");
    path();
    out.append("</div></div></body></html>");
    return out.toString();
  }

  private static String safe(String text) {
    return text.replace("&", "&amp;")
        .replace("<", "&lt;")
        .replace(">", "&gt;")
        .replace("\"", "&quot;");
  }

  private static String number(Double v, int digits) {
    return v == null ? "\u2014" : String.format(Locale.ROOT, "%." + digits + "f", v);
  }

  private static String value(Double v, String unit) {
    if (v == null) {
      return "\u2014";
    }
    if (unit.equals("Hz")) {
      return Frequency.ofHertz(
              new java.math.BigDecimal(v).round(new java.math.MathContext(11)).doubleValue())
          .toString();
    }
    if (unit.equals(Moment.UNIT)) {
      return Moment.words(v);
    }
    String digits = Math.abs(v) < 1e-3 && v != 0 ? "%.3g" : "%.2f";
    return String.format(Locale.ROOT, digits, v) + (unit.isEmpty() ? "" : " " + unit);
  }

  /** A difference of levels is in dB; three digits say enough. */
  private static String difference(Double v, String unit, String none) {
    if (v == null) {
      return none;
    }
    double rounded = new java.math.BigDecimal(v).round(new java.math.MathContext(3)).doubleValue();
    return value(rounded, unit.startsWith("dB") ? "dB" : unit);
  }

  private void readings() {
    out.append(
        "<h2>Readings</h2><table><tr><th>Reading</th><th>Value</th><th>U (k = 2)</th><th>Limit</th>"
            + "<th>Margin</th><th>Verdict</th></tr>");
    for (ReadingDto r : run.outcome().readings()) {
      String marks = r.marks().isEmpty() ? "" : " \u26a0 " + String.join(", ", r.marks());
      cells(
          safe(r.label() + " at " + r.plane()),
          safe(value(r.value(), r.unit()) + marks),
          r.value() == null ? "" : safe(difference(r.uncertainty(), r.unit(), "not known")),
          safe(limit(r)),
          safe(difference(r.margin(), r.unit(), "")),
          safe(r.verdictText() + judgedElsewhere(r)));
    }
    out.append("</table>");
  }

  private static String judgedElsewhere(ReadingDto r) {
    return r.limitPlane() == null
        ? ""
        : " (at " + r.limitPlane() + ", U " + difference(r.limitUncertainty(), r.unit(), "") + ")";
  }

  private static String limit(ReadingDto r) {
    if (r.lower() == null && r.upper() == null) {
      return "";
    }
    if (r.lower() != null && r.upper() != null) {
      return value(r.lower(), r.unit()) + " to " + value(r.upper(), r.unit());
    }
    return r.upper() != null
        ? "at most " + value(r.upper(), r.unit())
        : "at least " + value(r.lower(), r.unit());
  }

  private void cells(String... cells) {
    out.append("<tr>");
    for (int i = 0; i < cells.length; i++) {
      out.append(i == 0 ? "<td>" : "<td class=\"n\">").append(cells[i]).append("</td>");
    }
    out.append("</tr>");
  }

  private void table(TableDto t) {
    out.append("<h2>").append(safe(t.title())).append("</h2><table><tr>");
    t.columns().forEach(c -> out.append("<th>").append(safe(c.label())).append("</th>"));
    out.append("<th>Verdict</th></tr>");
    for (TableDto.RowDto row : t.rows()) {
      List<String> cells = new ArrayList<>();
      for (int i = 0; i < row.cells().size(); i++) {
        TableDto.CellDto c = row.cells().get(i);
        cells.add(
            safe(
                c.value() == null && !c.text().isEmpty()
                    ? c.text()
                    : value(c.value(), t.columns().get(i).unit())));
      }
      cells.add(safe(row.verdict().label()));
      cells(cells.toArray(String[]::new));
    }
    out.append("</table>");
  }

  private void settings() {
    out.append("<h2>Settings</h2><table>");
    run.words().forEach(f -> cells(safe(f.label()), safe(f.toCore().words())));
    outcome
        .main()
        .ifPresent(
            s ->
                s.facts().stream()
                    .filter(f -> run.words().stream().noneMatch(w -> w.label().equals(f.label())))
                    .forEach(f -> cells(safe(f.label()), safe(rounded(f)))));
    run.conditions().forEach((k, v) -> cells(safe(k), safe(v)));
    out.append("</table>");
  }

  private static String rounded(Fact f) {
    return Double.isNaN(f.value())
        ? f.text()
        : Fact.of(
                f.label(),
                new java.math.BigDecimal(f.value())
                    .round(new java.math.MathContext(4))
                    .doubleValue(),
                f.unit())
            .words();
  }

  private void path() {
    String plane = outcome.main().map(Series::plane).orElse("");
    out.append("<h2>Path")
        .append(plane.isEmpty() ? "" : ", read at " + safe(plane))
        .append("</h2><table>");
    for (PathElementDto e : run.path().elements()) {
      String what =
          e.outputLevelDbm() != null
              ? number(e.outputLevelDbm(), 1) + " dBm expected"
              : "number".equals(e.gainKind())
                  ? number(e.gainDb(), 2) + " dB \u00b1 " + e.toleranceDb() + " dB"
                  : "gain over frequency \u00b1 " + e.toleranceDb() + " dB";
      cells(safe(e.name()), safe(what));
    }
    out.append("</table>");
  }

  /** The main series with all that can be drawn beside it: of the same axis and unit. */
  private void picture(Series main) {
    if (!main.real() || main.x().points() == 0) {
      return;
    }
    List<Series> drawn =
        outcome.series().stream()
            .filter(s -> s.real() && s.x().like(main.x()) && s.unit().equals(main.unit()))
            .filter(s -> s.x().points() > 0)
            .toList();
    double low = Double.POSITIVE_INFINITY;
    double high = Double.NEGATIVE_INFINITY;
    for (Series s : drawn) {
      if (!s.role().line()) {
        for (double v : s.y()) {
          if (Double.isFinite(v)) {
            low = Math.min(low, v);
            high = Math.max(high, v);
          }
        }
      }
    }
    if (!(high >= low)) {
      return;
    }
    // Of a level line, or of values so large that their differences vanish, some step is drawn.
    double least = Math.max(1e-9, Math.max(Math.abs(low), Math.abs(high)) * 1e-9);
    double step = step(Math.max((high - low) / 8, least));
    low = Math.floor(low / step) * step;
    high = Math.ceil((high + 0.3 * step) / step) * step;
    Axis x = main.x();
    out.append("<svg viewBox=\"0 0 ").append(WIDTH).append(' ').append(HEIGHT).append("\">");
    long lines = Math.min(MOST_LINES, Math.round((high - low) / step));
    for (int i = 0; i <= lines; i++) {
      double v = low + i * step;
      double y = y(v, low, high);
      line(LEFT, y, LEFT + PLOT_WIDTH, y, "#e9dfc9");
      text(
          LEFT - 6,
          y + 4,
          "end",
          Double.toString(Math.rint(v * 1e6) / 1e6).replaceFirst("\\.0$", ""));
    }
    for (int i = 0; i <= 4; i++) {
      double place =
          x.logarithmic() && x.first() > 0
              ? x.first() * Math.pow(x.last() / x.first(), i / 4.0)
              : x.first() + (x.last() - x.first()) * i / 4;
      double at = LEFT + PLOT_WIDTH * i / 4.0;
      line(at, TOP, at, TOP + PLOT_HEIGHT, "#e9dfc9");
      text(
          at,
          HEIGHT - 22,
          i == 0 ? "start" : i == 4 ? "end" : "middle",
          value(x.unit().equals(Moment.UNIT) ? place : rounded7(place), x.unit()));
    }
    String plane = main.plane().isEmpty() ? "" : " at " + main.plane();
    text(
        LEFT + PLOT_WIDTH / 2.0,
        HEIGHT - 5,
        "middle",
        main.quantity()
            + (main.unit().isEmpty() ? "" : " (" + main.unit() + ")")
            + plane
            + " over "
            + x.quantity().toLowerCase(Locale.ROOT));
    for (Series s : drawn) {
      String colour = s.role().line() ? "#d55e00" : s == main ? "#0072b2" : "#b07a00";
      polyline(s, x, low, high, colour);
    }
    out.append("</svg>");
  }

  /** 1, 2 or 5 times a power of ten, at least this. */
  private static double step(double least) {
    if (!(least > 0)) {
      return 1;
    }
    double decade = Math.pow(10, Math.floor(Math.log10(least)));
    double times = least / decade;
    return (times <= 1 ? 1 : times <= 2 ? 2 : times <= 5 ? 5 : 10) * decade;
  }

  private static double rounded7(double hz) {
    return new java.math.BigDecimal(hz).round(new java.math.MathContext(7)).doubleValue();
  }

  private static double x(double place, Axis axis) {
    boolean decades = axis.logarithmic() && axis.first() > 0;
    double share =
        decades
            ? Math.log(place / axis.first()) / Math.log(axis.last() / axis.first())
            : (place - axis.first()) / (axis.last() - axis.first());
    return LEFT + PLOT_WIDTH * Math.min(Math.max(Double.isFinite(share) ? share : 0, 0), 1);
  }

  private static double y(double v, double low, double high) {
    return TOP + PLOT_HEIGHT * (high - Math.min(Math.max(v, low), high)) / (high - low);
  }

  /** A long series is drawn as the lowest and highest of each of its pieces. */
  private void polyline(Series s, Axis axis, double low, double high, String colour) {
    out.append("<polyline fill=\"none\" stroke=\"").append(colour).append("\" points=\"");
    int n = s.x().points();
    int pieces = Math.min(n, MOST_PIECES);
    for (int p = 0; p < pieces; p++) {
      int lowest = -1;
      int highest = -1;
      for (int i = (int) ((long) p * n / pieces); i < (long) (p + 1) * n / pieces; i++) {
        if (Double.isFinite(s.y()[i])) {
          lowest = lowest < 0 || s.y()[i] < s.y()[lowest] ? i : lowest;
          highest = highest < 0 || s.y()[i] > s.y()[highest] ? i : highest;
        }
      }
      if (lowest < 0) {
        out.append("\"/><polyline fill=\"none\" stroke=\"").append(colour).append("\" points=\"");
      }
      for (int i : lowest == highest ? new int[] {lowest} : new int[] {highest, lowest}) {
        if (i >= 0) {
          out.append(
              String.format(
                  Locale.ROOT, "%.1f,%.1f ", x(s.x().at(i), axis), y(s.y()[i], low, high)));
        }
      }
    }
    out.append("\"/>");
  }

  private void line(double x1, double y1, double x2, double y2, String colour) {
    out.append(
        String.format(
            Locale.ROOT,
            "<line x1=\"%.1f\" y1=\"%.1f\" x2=\"%.1f\" y2=\"%.1f\" stroke=\"%s\" stroke-width=\"1.3\"/>",
            x1,
            y1,
            x2,
            y2,
            colour));
  }

  private void text(double x, double y, String anchor, String words) {
    out.append(
        String.format(
            Locale.ROOT,
            "<text x=\"%.1f\" y=\"%.1f\" font-size=\"12\" text-anchor=\"%s\" fill=\"#1b2540\">%s</text>",
            x,
            y,
            anchor,
            safe(words)));
  }
}
