package rovnik.core.modulation;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import rovnik.core.limits.Verdict;
import rovnik.core.result.ResultTable;
import rovnik.core.result.ResultTable.Cell;
import rovnik.core.result.ResultTable.Column;
import rovnik.core.result.ResultTable.Row;

/**
 * What an error vector is made of, as mean squares.
 *
 * @param meanSquare of all of it
 * @param causes the largest first
 */
public record Causes(double meanSquare, List<Cause> causes) {
  private static final double WORTH_NAMING = 1e-9;

  /**
   * One cause.
   *
   * @param id stable key
   * @param meanSquare its part of the error's mean square
   * @param evidence what it was told by, with its size
   * @param remedy what to do
   */
  public record Cause(String id, String label, double meanSquare, String evidence, String remedy) {}

  /** Puts them in order and leaves out what is not there. */
  public Causes {
    double least = WORTH_NAMING * meanSquare;
    causes =
        causes.stream()
            .filter(c -> c.meanSquare() > least)
            .sorted(Comparator.comparingDouble(Cause::meanSquare).reversed())
            .toList();
  }

  /** What they do to each other, and what none of them is; it may be below 0. */
  public double unexplained() {
    return meanSquare - causes.stream().mapToDouble(Cause::meanSquare).sum();
  }

  /** The largest: ", 83 % of its power from noise"; nothing if there is none. */
  public String words() {
    return causes.isEmpty()
        ? ""
        : String.format(
            Locale.ROOT,
            ", %.0f %% of its power from %s",
            100 * causes.get(0).meanSquare() / meanSquare,
            causes.get(0).label().toLowerCase(Locale.ROOT));
  }

  /**
   * Each with its share, the error that it makes alone, and the one that is left without it.
   *
   * @param percent error vector of mean square 1, %
   */
  public ResultTable table(double percent) {
    List<Row> rows = new ArrayList<>();
    for (Cause c : causes) {
      rows.add(
          new Row(
              List.of(
                  Cell.of(c.label()),
                  Cell.of(100 * c.meanSquare() / meanSquare),
                  Cell.of(percent * Math.sqrt(c.meanSquare())),
                  Cell.of(percent * Math.sqrt(Math.max(0, meanSquare - c.meanSquare()))),
                  Cell.of(c.evidence()),
                  Cell.of(c.remedy())),
              Verdict.NONE));
    }
    double rest = unexplained();
    rows.add(
        new Row(
            List.of(
                Cell.of("Not explained"),
                Cell.of(100 * rest / meanSquare),
                Cell.of(percent * Math.sqrt(Math.abs(rest))),
                Cell.of(Double.NaN),
                Cell.of("what the causes above do to each other, and what none of them is"),
                Cell.of("")),
            Verdict.NONE));
    return new ResultTable(
        "causes",
        "Why it is not better",
        List.of(
            new Column("Cause", ""),
            new Column("Share of power", "%"),
            new Column("EVM by it", "%"),
            new Column("EVM without it", "%"),
            new Column("Told by", ""),
            new Column("What to do", "")),
        rows);
  }
}
