package rovnik.core.result;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import rovnik.core.limits.Verdict;

/**
 * What a measurement leads to, whatever it measured.
 *
 * @param kind of the measurement, such as "spectrum", "network" or "phase-noise"
 * @param title as shown
 * @param summary one sentence, "" where the numbers speak
 * @param series the first measured one is the main one
 * @param marks why nothing of it must be trusted
 * @param spoiled stretches that must not be trusted
 */
public record Outcome(
    String kind,
    String title,
    String summary,
    List<Series> series,
    List<ResultTable> tables,
    List<Reading> readings,
    List<String> marks,
    List<SpoiledBand> spoiled) {

  /** Id of the table of lines: frequency in Hz, then level. */
  public static final String LINES = "lines";

  public Outcome {
    series = List.copyOf(series);
    tables = List.copyOf(tables);
    readings = List.copyOf(readings);
    marks = List.copyOf(marks);
    spoiled = List.copyOf(spoiled);
  }

  /** Nothing was found but words. */
  public static Outcome words(String kind, String title, String summary) {
    return new Outcome(kind, title, summary, List.of(), List.of(), List.of(), List.of(), List.of());
  }

  /** The main series. */
  public Optional<Series> main() {
    return series.stream().filter(s -> s.role() == Series.Role.DATA).findFirst();
  }

  public Optional<Series> series(String id) {
    return series.stream().filter(s -> s.id().equals(id)).findFirst();
  }

  public Optional<ResultTable> table(String id) {
    return tables.stream().filter(t -> t.id().equals(id)).findFirst();
  }

  public Optional<Reading> reading(String id) {
    return readings.stream().filter(r -> r.id().equals(id)).findFirst();
  }

  /** The worst verdict of its readings. */
  public Verdict verdict() {
    return Verdict.worst(readings.stream().map(Reading::verdict).toList());
  }

  public Outcome withSummary(String words) {
    return new Outcome(kind, title, words, series, tables, readings, marks, spoiled);
  }

  /** With more readings behind those that are there. */
  public Outcome withReadings(List<Reading> more) {
    List<Reading> all = new ArrayList<>(readings);
    all.addAll(more);
    return new Outcome(kind, title, summary, series, tables, all, marks, spoiled);
  }
}
