package rovnik.core.watch;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import rovnik.core.limits.Limit;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;

/**
 * A number of one outcome that can be followed from look to look: a reading, or a number in a table
 * whose rows keep their names, such as the share of time of channel 12.
 *
 * @param id of a reading, or {@code table:<table>:<first cell of the row>:<head of the column>}
 * @param label as shown
 * @param value in {@code unit}
 * @param plane that the number is referred to, "" if to none
 * @param uncertainty expanded uncertainty (k = 2), NaN if not known
 * @param limit that its measurement judges it by
 * @param whyNot why it must not be trusted, "" if it may
 * @param gone nothing is wrong with the look, but what the number is of is not there
 */
public record Followed(
    String id,
    String label,
    double value,
    String unit,
    String plane,
    double uncertainty,
    Limit limit,
    String whyNot,
    boolean gone) {

  /** A longer table is a list of what happened, whose rows mean something else each time. */
  private static final int MOST_ROWS = 200;

  private static final String TABLE = "table:";

  /** All numbers of an outcome that can be followed, readings first. */
  public static List<Followed> all(Outcome o) {
    List<Followed> out = new ArrayList<>();
    o.readings().forEach(r -> out.add(of(r, o)));
    o.tables().forEach(t -> addCells(out, t, o));
    return out;
  }

  /** The number with this id, if the outcome has it. */
  public static Optional<Followed> find(Outcome o, String id) {
    if (id.startsWith(TABLE)) {
      List<Followed> cells = new ArrayList<>();
      o.tables().stream()
          .filter(t -> id.startsWith(TABLE + t.id() + ":"))
          .forEach(t -> addCells(cells, t, o));
      return cells.stream().filter(f -> f.id().equals(id)).findFirst();
    }
    return o.reading(id).map(r -> of(r, o));
  }

  private static Followed of(Reading r, Outcome o) {
    return new Followed(
        r.id(),
        r.label(),
        r.value(),
        r.unit(),
        r.plane(),
        r.uncertainty(),
        r.limitPlane().equals(r.plane()) ? r.limit() : Limit.NONE,
        why(r.marks().isEmpty() ? o.marks() : r.marks(), r.value()),
        o.marks().isEmpty() && !Double.isFinite(r.value()));
  }

  private static void addCells(List<Followed> out, ResultTable t, Outcome o) {
    if (t.rows().size() > MOST_ROWS || t.columns().size() < 2) {
      return;
    }
    Set<String> seen = new HashSet<>();
    for (ResultTable.Row row : t.rows()) {
      String name = name(row.cells().get(0));
      if (name.isEmpty() || !seen.add(name)) {
        continue;
      }
      for (int c = 1; c < t.columns().size(); c++) {
        ResultTable.Cell cell = row.cells().get(c);
        ResultTable.Column column = t.columns().get(c);
        if (cell.text().isEmpty()) {
          out.add(
              new Followed(
                  TABLE + t.id() + ":" + name + ":" + column.label(),
                  t.columns().get(0).label() + " " + name + ", " + column.label(),
                  cell.value(),
                  column.unit(),
                  "",
                  Double.NaN,
                  Limit.NONE,
                  why(o.marks(), cell.value()),
                  o.marks().isEmpty() && !Double.isFinite(cell.value())));
        }
      }
    }
  }

  private static String name(ResultTable.Cell cell) {
    return !cell.text().isEmpty() || Double.isNaN(cell.value())
        ? cell.text()
        : BigDecimal.valueOf(cell.value()).stripTrailingZeros().toPlainString();
  }

  private static String why(List<String> marks, double value) {
    return !marks.isEmpty() ? marks.get(0) : Double.isFinite(value) ? "" : "it could not be read";
  }
}
