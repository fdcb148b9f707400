package rovnik.core.emission;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.limits.Limit;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.result.Series;
import rovnik.core.spectrum.Peak;
import rovnik.core.spectrum.SpectrumResult;
import rovnik.core.spectrum.Trace;
import rovnik.core.uncertainty.UncertaintyBudget.Contribution;
import rovnik.core.units.LevelUnit;

/**
 * The unit that levels are shown in. Measured, judged and kept is always in dBm; this is the last
 * step before a screen. What has no level in dBm (dBFS, ratios, frequencies) stays as it is.
 *
 * @param ohm impedance that powers are shown for
 */
public record LevelDisplay(LevelUnit unit, double ohm) {
  public static final LevelDisplay PLAIN = new LevelDisplay(LevelUnit.DBM, LevelUnit.PORT_OHM);

  private static final String DBM = "dBm";

  public LevelDisplay {
    if (unit == null) {
      throw new Refusal("unit", "Choose the unit of levels, for example DBM or DBUV.");
    }
    if (!(ohm > 0) || ohm > 1e9) {
      throw new Refusal("impedanceOhm", "The impedance must be more than 0 ohm, such as 50 or 1M.");
    }
  }

  private boolean plain() {
    return equals(PLAIN);
  }

  /** A level in dBm in this unit. */
  public double of(double dbm) {
    return unit.fromDbm(dbm, ohm);
  }

  public EmissionResult of(EmissionResult r) {
    if (plain()) {
      return r;
    }
    boolean level = r.base().trace().unit().equals(DBM);
    List<Peak> peaks =
        level
            ? r.base().peaks().stream().map(p -> new Peak(p.frequencyHz(), of(p.level()))).toList()
            : r.base().peaks();
    return new EmissionResult(
        new SpectrumResult(
            of(r.base().trace()), peaks, r.base().readings().stream().map(this::of).toList()),
        r.tables().stream().map(this::of).toList(),
        r.limitLines().stream().map(this::of).toList());
  }

  public Trace of(Trace t) {
    if (plain() || !t.unit().equals(DBM)) {
      return t;
    }
    float[] level = new float[t.points()];
    for (int i = 0; i < level.length; i++) {
      level[i] = (float) of(t.level()[i]);
    }
    return t.with(level, unit.label());
  }

  /** A reading; a density keeps its dBm/Hz, in the impedance. */
  public Reading of(Reading r) {
    boolean level = r.unit().equals(DBM);
    if (plain() || !level && !r.unit().equals("dBm/Hz")) {
      return r;
    }
    LevelDisplay as = level ? this : new LevelDisplay(LevelUnit.DBM, ohm);
    double value = as.of(r.value());
    List<Contribution> parts = new ArrayList<>();
    r.contributions().stream()
        .filter(c -> !Double.isNaN(value))
        .forEach(c -> parts.add(new Contribution(c.name(), as.unit.stepOf(value, c.standard()))));
    return new Reading(
        r.id(),
        r.label(),
        value,
        level ? unit.label() : r.unit(),
        r.plane(),
        as.unit.stepOf(value, r.uncertainty()),
        parts,
        new Limit(as.of(r.limit().lower()), as.of(r.limit().upper())),
        r.verdict(),
        r.marks(),
        r.limitPlane(),
        as.unit.stepOf(value, r.limitUncertainty()));
  }

  private Series of(Series s) {
    return s.unit().equals(DBM)
        ? s.with(Arrays.stream(s.y()).map(this::of).toArray(), unit.label())
        : s;
  }

  private ResultTable of(ResultTable t) {
    List<ResultTable.Column> columns =
        t.columns().stream()
            .map(c -> c.unit().equals(DBM) ? new ResultTable.Column(c.label(), unit.label()) : c)
            .toList();
    List<ResultTable.Row> rows = new ArrayList<>();
    for (ResultTable.Row row : t.rows()) {
      List<ResultTable.Cell> cells = new ArrayList<>();
      for (int i = 0; i < row.cells().size(); i++) {
        ResultTable.Cell cell = row.cells().get(i);
        boolean level = t.columns().get(i).unit().equals(DBM) && Double.isFinite(cell.value());
        cells.add(level ? ResultTable.Cell.of(of(cell.value())) : cell);
      }
      rows.add(new ResultTable.Row(cells, row.verdict()));
    }
    return new ResultTable(t.id(), t.title(), columns, rows);
  }
}
