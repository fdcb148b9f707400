package rovnik.core.places;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.function.ToDoubleFunction;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.result.Axis;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.result.ResultTable.Cell;
import rovnik.core.result.ResultTable.Column;
import rovnik.core.result.ResultTable.Row;
import rovnik.core.result.Series;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.PlacedSeries;
import rovnik.core.spectrum.PlaneReadings;
import rovnik.core.uncertainty.UncertaintyBudget;

/** Map, table, readings and words of levels by place. */
final class PlaceOutcome {
  private static final String PLACE = "Place";

  private final PlaceSettings settings;
  private final IqRecord record;
  private final MeasurementContext context;
  private final PlaneReadings maker;
  private final List<PlaceMap.Spot> ranked;
  private final PlaceMap.Spot here;
  private final Set<String> states = new LinkedHashSet<>();

  PlaceOutcome(
      PlaceSettings settings,
      IqRecord record,
      MeasurementContext context,
      PlaneReadings maker,
      List<PlaceMap.Spot> ranked) {
    this.settings = settings;
    this.record = record;
    this.context = context;
    this.maker = maker;
    this.ranked = ranked;
    this.here =
        ranked.stream().filter(s -> s.name().equals(settings.place())).findFirst().orElseThrow();
    ranked.forEach(s -> states.addAll(s.levels().keySet()));
  }

  Outcome outcome() {
    return new Outcome(
        PlaceMeasurement.KIND,
        PlaceMeasurement.TITLE,
        summary(),
        series(),
        List.of(table()),
        readings(),
        maker.levelMarks(),
        List.of());
  }

  private String unit() {
    return record.calibrated() ? "dBm" : "dBFS";
  }

  private String state() {
    return settings.state();
  }

  /** The state that this one is compared with: the last other one at this place. */
  private String other() {
    return states.stream().filter(s -> !s.equals(state())).reduce((a, b) -> b).orElse("");
  }

  private String summary() {
    PlaceMap.Level level = here.levels().get(state());
    StringBuilder out = new StringBuilder();
    out.append(
        String.format(
            Locale.ROOT,
            "%s: %.1f %s%s",
            here.name(),
            level.db(),
            unit(),
            level.bursts() ? " while it is there" : ""));
    long seen = ranked.stream().filter(s -> s.levels().containsKey(state())).count();
    PlaceMap.Spot first = ranked.get(0);
    if (seen > 1) {
      out.append(
          first == here
              ? String.format(
                  Locale.ROOT,
                  ", the strongest of %d places, %.1f dB over %s",
                  seen,
                  level.db() - ranked.get(1).db(state()),
                  ranked.get(1).name())
              : String.format(
                  Locale.ROOT,
                  ", %.1f dB below %s, the strongest of %d places",
                  first.db(state()) - level.db(),
                  first.name(),
                  seen));
    }
    double before = here.db(other());
    if (!Double.isNaN(before)) {
      double change = level.db() - before;
      out.append(
          String.format(
              Locale.ROOT,
              "; %.1f dB %s than %s",
              Math.abs(change),
              change < 0 ? "less" : "more",
              other()));
    }
    return out.append('.').toString();
  }

  private List<Series> series() {
    List<Series> out = new ArrayList<>();
    PlacedSeries placed = PlacedSeries.of(record, context);
    double[] number = new double[ranked.size()];
    for (int i = 0; i < number.length; i++) {
      number[i] = i + 1.0;
    }
    Axis axis = Axis.own(PLACE, "", number);
    for (String s : states) {
      out.add(
          placed.curve(
              s.equals(state()) ? "map" : "map-" + s,
              "Level, " + s,
              axis,
              "Level",
              unit(),
              of(p -> p.db(s))));
    }
    out.add(Series.curve("across", "Across", axis, of(PlaceMap.Spot::acrossMetres), "m"));
    out.add(Series.curve("up", "Up", axis, of(PlaceMap.Spot::upMetres), "m").of("Up"));
    return out;
  }

  private double[] of(ToDoubleFunction<PlaceMap.Spot> value) {
    return ranked.stream().mapToDouble(value).toArray();
  }

  private ResultTable table() {
    boolean compares = states.size() > 1;
    List<Column> columns = new ArrayList<>();
    columns.add(new Column(PLACE, ""));
    states.forEach(s -> columns.add(new Column("Level, " + s, unit())));
    if (compares) {
      columns.add(new Column(state() + " less " + other(), "dB"));
    }
    columns.add(new Column("Across", "mm"));
    columns.add(new Column("Up", "mm"));
    columns.add(new Column("Looks", ""));
    List<Row> rows = new ArrayList<>();
    for (PlaceMap.Spot p : ranked) {
      List<Cell> cells = new ArrayList<>();
      cells.add(Cell.of(p.name()));
      states.forEach(s -> cells.add(Cell.of(p.db(s))));
      if (compares) {
        cells.add(Cell.of(p.db(state()) - p.db(other())));
      }
      cells.add(Cell.of(Math.rint(1e4 * p.acrossMetres()) / 10));
      cells.add(Cell.of(Math.rint(1e4 * p.upMetres()) / 10));
      cells.add(Cell.of(p.levels().values().stream().mapToInt(PlaceMap.Level::looks).sum()));
      rows.add(new Row(cells, Verdict.NONE));
    }
    return new ResultTable("places", "Places, the strongest first", columns, rows);
  }

  private List<Reading> readings() {
    List<Reading> out = new ArrayList<>();
    List<String> marks = maker.levelMarks();
    PlaceMap.Level level = here.levels().get(state());
    out.add(
        maker.level(
            "placeLevel",
            "Level at " + here.name(),
            level.db(),
            unit(),
            scatter(level),
            Limit.NONE,
            marks));
    PlaceMap.Spot first = ranked.get(0);
    if (first != here) {
      out.add(
          difference(
              "overStrongest",
              "Over " + first.name() + ", the strongest",
              level.db() - first.db(state()),
              first.levels().get(state())));
    }
    double before = here.db(other());
    if (!Double.isNaN(before)) {
      out.add(
          difference(
              "change",
              "Over " + other() + ", here",
              level.db() - before,
              here.levels().get(other())));
    }
    return out;
  }

  /** Between two levels of one receiver at one frequency: what the path does to both cancels. */
  private Reading difference(String id, String label, double db, PlaceMap.Level from) {
    return maker.reading(
        id,
        label,
        db,
        "dB",
        new UncertaintyBudget()
            .rectangular("instrument linearity", context.accuracy().linearityDb())
            .normal("looks", scatter(here.levels().get(state())))
            .normal("looks before", scatter(from)),
        Limit.NONE,
        maker.levelMarks());
  }

  private static double scatter(PlaceMap.Level level) {
    double standard = level.standardDb();
    return Double.isNaN(standard) ? 0 : standard;
  }
}
