package rovnik.core.result;

import java.util.ArrayList;
import java.util.List;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.uncertainty.UncertaintyBudget;
import rovnik.core.uncertainty.UncertaintyBudget.Contribution;

/**
 * One measured number with its trust.
 *
 * @param id stable key, such as "carrierPower"
 * @param label as shown
 * @param value in {@code unit}; NaN if it cannot be read
 * @param unit "Hz", "dBm", "dBFS", "ppm", "dBm/Hz"
 * @param plane plane that the number is referred to
 * @param uncertainty expanded uncertainty (k = 2) in the same unit, NaN if not known
 * @param contributions where the uncertainty comes from
 * @param limit in the same unit, referred to the same plane
 * @param verdict what the limit says
 * @param marks why the number must not be trusted; empty if it may
 * @param limitPlane plane that the limit is stated at: the verdict is that of the value there, and
 *     does not change with the plane that is read
 * @param limitUncertainty expanded uncertainty of the value at that plane
 */
public record Reading(
    String id,
    String label,
    double value,
    String unit,
    String plane,
    double uncertainty,
    List<Contribution> contributions,
    Limit limit,
    Verdict verdict,
    List<String> marks,
    String limitPlane,
    double limitUncertainty) {

  /** A reading whose limit, if it has one, is stated at the plane that it is read at. */
  public Reading(
      String id,
      String label,
      double value,
      String unit,
      String plane,
      double uncertainty,
      List<Contribution> contributions,
      Limit limit,
      Verdict verdict,
      List<String> marks) {
    this(
        id,
        label,
        value,
        unit,
        plane,
        uncertainty,
        contributions,
        limit,
        verdict,
        marks,
        plane,
        uncertainty);
  }

  /**
   * The same reading with one more contribution to its uncertainty, or another instead of one of
   * that name; the verdict follows.
   *
   * @param standard standard uncertainty in the reading's unit
   */
  public Reading widened(String name, double standard) {
    List<Contribution> all = new ArrayList<>(contributions);
    double before =
        all.stream().filter(c -> c.name().equals(name)).mapToDouble(Contribution::standard).sum();
    all.removeIf(c -> c.name().equals(name));
    if (standard > 0) {
      all.add(new Contribution(name, standard));
    }
    double more =
        UncertaintyBudget.K * UncertaintyBudget.K * (standard * standard - before * before);
    double widened = Math.sqrt(Math.max(0, uncertainty * uncertainty + more));
    double atLimit = Math.sqrt(Math.max(0, limitUncertainty * limitUncertainty + more));
    return new Reading(
        id,
        label,
        value,
        unit,
        plane,
        widened,
        List.copyOf(all),
        limit,
        limit.judge(marks.isEmpty() ? value : Double.NaN, atLimit),
        marks,
        limitPlane,
        atLimit);
  }

  /** Distance to the limit, positive inside, NaN if there is none. */
  public double margin() {
    return limit.margin(value);
  }
}
