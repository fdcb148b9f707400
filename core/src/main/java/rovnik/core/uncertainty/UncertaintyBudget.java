package rovnik.core.uncertainty;

import java.util.ArrayList;
import java.util.List;

/**
 * Contributions to the uncertainty of one number, combined as in JCGM 100:2008 (the GUM) 5.1.2 for
 * uncorrelated contributions with sensitivity 1; expanded with k = 2.
 */
public final class UncertaintyBudget {
  /** Coverage factor. */
  public static final double K = 2;

  /**
   * One contribution.
   *
   * @param name what it comes from
   * @param standard its standard uncertainty, in the unit of the number
   */
  public record Contribution(String name, double standard) {}

  private final List<Contribution> contributions = new ArrayList<>();

  /** A value known to lie within plus or minus a half-width, all values alike: a / sqrt 3. */
  public UncertaintyBudget rectangular(String name, double halfWidth) {
    return add(name, halfWidth / Math.sqrt(3));
  }

  /** A sine of unknown phase, as a mismatch error: a / sqrt 2 (GUM 4.3.5, U-shaped). */
  public UncertaintyBudget ushaped(String name, double halfWidth) {
    return add(name, halfWidth / Math.sqrt(2));
  }

  /** A standard deviation from statistics. */
  public UncertaintyBudget normal(String name, double standard) {
    return add(name, standard);
  }

  private UncertaintyBudget add(String name, double standard) {
    if (standard > 0) {
      contributions.add(new Contribution(name, standard));
    }
    return this;
  }

  public List<Contribution> contributions() {
    return List.copyOf(contributions);
  }

  /** Combined standard uncertainty: root of the sum of squares. */
  public double combined() {
    double sum = 0;
    for (Contribution c : contributions) {
      sum += c.standard() * c.standard();
    }
    return Math.sqrt(sum);
  }

  /** Expanded uncertainty, k = 2. */
  public double expanded() {
    return K * combined();
  }
}
