package rovnik.core.emission;

import java.util.ArrayList;
import java.util.List;
import rovnik.core.result.Fact;
import rovnik.core.result.Outcome;
import rovnik.core.result.ResultTable;
import rovnik.core.result.Series;
import rovnik.core.result.SpoiledBand;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.spectrum.Trace;
import rovnik.core.spectrum.TraceSeries;

/** A measured spectrum in the form that every measurement shares. */
public final class SpectrumOutcome {
  public static final String KIND = "spectrum";
  public static final String TITLE = "Spectrum";

  private SpectrumOutcome() {}

  /** One further trace. */
  public record Row(String label, Trace trace) {}

  /**
   * The main trace as "trace", further ones as "row0", "row1", ..., then limits and edges; the
   * table of lines is the first.
   */
  public static Outcome of(
      EmissionResult r, List<Row> rows, List<String> marks, List<SpoiledBand> spoiled) {
    Trace main = r.base().trace();
    List<Series> series = new ArrayList<>();
    series.add(TraceSeries.of("trace", "", main));
    for (int i = 0; i < rows.size(); i++) {
      series.add(TraceSeries.of("row" + i, rows.get(i).label(), rows.get(i).trace()));
    }
    series.addAll(r.limitLines());
    List<ResultTable> tables = new ArrayList<>();
    tables.add(TraceSeries.lines(r.base().peaks(), main.unit()));
    tables.addAll(r.tables());
    return new Outcome(KIND, TITLE, "", series, tables, r.readings(), marks, spoiled);
  }

  /** The settings in words, as runs keep and compare them. */
  public static List<Fact> words(SpectrumSettings s) {
    return List.of(
        Fact.of("centre", s.centreHz(), "Hz"),
        Fact.of("span", s.spanHz(), "Hz"),
        s.rbwHz() > 0
            ? Fact.of("RBW asked for", s.rbwHz(), "Hz")
            : Fact.of("RBW asked for", "automatic"),
        Fact.of("window", s.window().label()),
        Fact.of("detector", s.detector().label()),
        Fact.of("averages", s.averages(), ""),
        Fact.of("reference level", s.referenceLevelDbm(), "dBm"),
        Fact.of("channel width", s.channelWidthHz(), "Hz"));
  }
}
