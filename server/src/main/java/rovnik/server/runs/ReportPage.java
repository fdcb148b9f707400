package rovnik.server.runs;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rovnik.core.spectrum.Curve;
import rovnik.core.spectrum.PointReducer;
import rovnik.core.spectrum.Trace;
import rovnik.core.units.Frequency;
import rovnik.server.jobs.PathElementDto;
import rovnik.server.spectrum.ReadingDto;
import rovnik.server.spectrum.SettingsDto;
import rovnik.server.spectrum.TableDto;

/** A run on one page: a single HTML file without scripts or anything from elsewhere. */
final class ReportPage {
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

  private ReportPage(RunDtos.Detail run) {
    this.run = run;
  }

  static String of(RunDtos.Detail run, String jobName, String dut) {
    return new ReportPage(run).page(jobName, dut);
  }

  private String page(String jobName, String dut) {
    out.append("<!doctype html><html lang=\"en\"><head><meta charset=\"utf-8\"><title>")
        .append(safe(run.name()))
        .append("</title><style>")
        .append(STYLE)
        .append("</style></head><body>");
    out.append("<h1>").append(safe(run.name())).append("</h1>");
    out.append("<div class=\"soft\">")
        .append(safe(jobName))
        .append(", ")
        .append(safe(dut))
        .append("; kept ")
        .append(safe(run.keptAt().replaceFirst("T", " ").replaceFirst("\\..*|Z$", "")))
        .append(" UTC from ")
        .append(safe(run.sourceName()))
        .append(" (")
        .append(safe(run.identity()))
        .append(")</div>");
    out.append("<div class=\"verdict\">")
        .append(
            run.verdict().equals("NONE")
                ? "no verdict"
                : safe(run.verdictText().toUpperCase(Locale.ROOT)))
        .append("</div>");
    if (!run.overrideReason().isEmpty()) {
      out.append("<div><b>Levels overridden: ")
          .append(safe(run.overrideReason()))
          .append("</b></div>");
    }
    if (!run.note().isEmpty()) {
      out.append("<p>").append(safe(run.note()).replace("\n", "<br>")).append("</p>");
    }
    picture();
    readings();
    run.extras().tables().forEach(this::table);
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
    for (ReadingDto r : run.readings()) {
      String marks = r.marks().isEmpty() ? "" : " \u26a0 " + String.join(", ", r.marks());
      cells(
          safe(r.label() + " at " + r.plane()),
          safe(value(r.value(), r.unit()) + marks),
          r.value() == null ? "" : safe(difference(r.uncertainty(), r.unit(), "not known")),
          safe(limit(r)),
          safe(difference(r.margin(), r.unit(), "")),
          safe(r.verdictText()));
    }
    out.append("</table>");
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
    SettingsDto s = run.settings();
    Trace t = run.trace();
    out.append("<h2>Settings</h2><table>");
    cells("centre", safe(value(s.centreHz(), "Hz")));
    cells("span", safe(value(s.spanHz(), "Hz")));
    cells("RBW (3 dB)", safe(value(rounded(t.rbwHz()), "Hz")));
    cells("window, detector", safe(t.window() + ", " + t.detector()));
    cells("averages", String.valueOf(t.segments()));
    cells("reference level", safe(value(s.referenceLevelDbm(), "dBm")));
    run.conditions().forEach((k, v) -> cells(safe(k), safe(v)));
    out.append("</table>");
  }

  private static double rounded(double hz) {
    return new java.math.BigDecimal(hz).round(new java.math.MathContext(4)).doubleValue();
  }

  private void path() {
    out.append("<h2>Path, read at ").append(safe(run.trace().plane())).append("</h2><table>");
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

  private void picture() {
    Trace t = PointReducer.PEAK.reduce(run.trace(), 1200);
    double low = Double.POSITIVE_INFINITY;
    double high = Double.NEGATIVE_INFINITY;
    for (float v : t.level()) {
      low = Math.min(low, v);
      high = Math.max(high, v);
    }
    low = Math.floor(low / 10) * 10;
    high = Math.ceil((high + 3) / 10) * 10;
    out.append("<svg viewBox=\"0 0 ").append(WIDTH).append(' ').append(HEIGHT).append("\">");
    for (double db = low; db <= high + 1e-9; db += 10) {
      double y = y(db, low, high);
      line(LEFT, y, LEFT + PLOT_WIDTH, y, "#e9dfc9");
      text(LEFT - 6, y + 4, "end", number(db, 0));
    }
    for (int i = 0; i <= 4; i++) {
      double hz = t.startHz() + (t.stopHz() - t.startHz()) * i / 4;
      double x = LEFT + PLOT_WIDTH * i / 4.0;
      line(x, TOP, x, TOP + PLOT_HEIGHT, "#e9dfc9");
      text(x, HEIGHT - 22, i == 0 ? "start" : i == 4 ? "end" : "middle", value(rounded7(hz), "Hz"));
    }
    text(LEFT + PLOT_WIDTH / 2.0, HEIGHT - 5, "middle", "Level (" + t.unit() + ") at " + t.plane());
    polyline(t, low, high, "#0072b2");
    for (RunDtos.RowDto r : run.rows()) {
      if (r.trace().unit().equals(t.unit())) {
        polyline(PointReducer.PEAK.reduce(r.trace(), 1200), low, high, "#b07a00");
      }
    }
    for (Curve c : run.extras().limitLines()) {
      if (c.xUnit().equals("Hz") && c.yUnit().equals(t.unit()) && c.id().equals("mask")) {
        line(
            x(c.x()[0], t),
            y(c.y()[0], low, high),
            x(c.x()[1], t),
            y(c.y()[1], low, high),
            "#d55e00");
      }
    }
    out.append("</svg>");
  }

  private static double rounded7(double hz) {
    return new java.math.BigDecimal(hz).round(new java.math.MathContext(7)).doubleValue();
  }

  private static double x(double hz, Trace t) {
    double share = (hz - t.startHz()) / Math.max(t.stopHz() - t.startHz(), 1e-9);
    return LEFT + PLOT_WIDTH * Math.min(Math.max(share, 0), 1);
  }

  private static double y(double db, double low, double high) {
    return TOP + PLOT_HEIGHT * (high - Math.min(Math.max(db, low), high)) / (high - low);
  }

  private void polyline(Trace t, double low, double high, String colour) {
    out.append("<polyline fill=\"none\" stroke=\"").append(colour).append("\" points=\"");
    for (int i = 0; i < t.points(); i++) {
      out.append(
          String.format(
              Locale.ROOT, "%.1f,%.1f ", x(t.frequencyHz(i), t), y(t.level()[i], low, high)));
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
