package rovnik.core.spectrum;

import java.util.ArrayList;
import java.util.List;
import rovnik.core.limits.Limit;
import rovnik.core.path.PathCorrection;
import rovnik.core.path.SignalPath;
import rovnik.core.result.Reading;
import rovnik.core.uncertainty.LevelUncertainty;
import rovnik.core.uncertainty.UncertaintyBudget;

/** Makes readings at a plane: each with uncertainty, verdict and marks. */
public class PlaneReadings {
  private final PathCorrection correction;
  private final MeasurementContext context;
  private final String plane;
  private final List<String> levelMarks;

  /**
   * @param correction to the reading plane, null if there is none
   * @param plane its name
   * @param hertz where it is looked, at the plane: an element whose table ends there spoils levels
   */
  public PlaneReadings(
      PathCorrection correction, MeasurementContext context, String plane, double hertz) {
    this.correction = correction;
    this.context = context;
    this.plane = plane;
    this.levelMarks = new ArrayList<>(context.marks());
    if (correction != null) {
      String open = correction.uncovered(hertz);
      if (!open.isEmpty()) {
        levelMarks.add("outside the gain table of " + open);
      }
    }
  }

  /** Why levels must not be trusted. */
  public final List<String> levelMarks() {
    return levelMarks;
  }

  /** A level at the reading plane, with a limit that is stated there. */
  public final Reading level(
      String id,
      String label,
      double value,
      String unit,
      double statisticalDb,
      Limit limit,
      List<String> marks) {
    return reading(id, label, value, unit, levelBudget(statisticalDb), limit, marks);
  }

  private UncertaintyBudget levelBudget(double statisticalDb) {
    return correction == null
        ? new UncertaintyBudget()
            .rectangular("instrument level accuracy", context.accuracy().levelDb())
            .normal("average", statisticalDb)
        : LevelUncertainty.of(correction.path(), context.accuracy(), statisticalDb);
  }

  /**
   * A level at the reading plane whose limit is stated at the output of the source, as a licence
   * does: it is judged with the uncertainty that it has there, whatever plane is read.
   *
   * @param limit referred to the reading plane
   */
  public final Reading levelOfSource(
      String id,
      String label,
      double value,
      String unit,
      double statisticalDb,
      Limit limit,
      List<String> marks) {
    if (correction == null) {
      return level(id, label, value, unit, statisticalDb, limit, marks);
    }
    SignalPath path = correction.path().withReadingPlane(0);
    double there = LevelUncertainty.of(path, context.accuracy(), statisticalDb).expanded();
    return reading(
        id, label, value, unit, levelBudget(statisticalDb), limit, marks, path.planeName(0), there);
  }

  /** A ratio of two levels of one trace: what the path does to both cancels. */
  public final Reading ratio(
      String id,
      String label,
      double value,
      double statisticalDb,
      Limit limit,
      List<String> marks) {
    UncertaintyBudget budget =
        new UncertaintyBudget()
            .rectangular("instrument linearity", context.accuracy().linearityDb())
            .normal("average", statisticalDb);
    return reading(id, label, value, "dBc", budget, limit, marks);
  }

  /**
   * A ratio of two levels far apart in frequency, as of a harmonic: what the path and the
   * instrument do to one says little of what they do to the other, so that all of it stays between
   * them.
   */
  public final Reading farRatio(
      String id, String label, double value, double statisticalDb, List<String> marks) {
    return reading(id, label, value, "dBc", levelBudget(statisticalDb), Limit.NONE, marks);
  }

  /** Standard uncertainty of such a ratio, dB. */
  public final double farRatioDb(double statisticalDb) {
    return levelBudget(statisticalDb).combined();
  }

  /** A reading with its own budget; one with marks is not judged. */
  public final Reading reading(
      String id,
      String label,
      double value,
      String unit,
      UncertaintyBudget budget,
      Limit limit,
      List<String> marks) {
    return reading(id, label, value, unit, budget, limit, marks, plane, budget.expanded());
  }

  private Reading reading(
      String id,
      String label,
      double value,
      String unit,
      UncertaintyBudget budget,
      Limit limit,
      List<String> marks,
      String limitPlane,
      double limitUncertainty) {
    double judgedValue = marks.isEmpty() ? value : Double.NaN;
    return new Reading(
        id,
        label,
        value,
        unit,
        plane,
        budget.expanded(),
        budget.contributions(),
        limit,
        limit.judge(judgedValue, limitUncertainty),
        List.copyOf(marks),
        limitPlane,
        limitUncertainty);
  }
}
