package rovnik.server.spectrum;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Reading;
import rovnik.core.limits.Verdict;
import rovnik.core.uncertainty.UncertaintyBudget.Contribution;

/**
 * A reading as sent and stored; null where a number is not known.
 *
 * @param uncertainty expanded, k = 2
 * @param margin distance to the limit, positive inside
 */
@Schema(name = "Reading")
public record ReadingDto(
    String id,
    String label,
    Double value,
    String unit,
    String plane,
    Double uncertainty,
    List<Part> contributions,
    Double lower,
    Double upper,
    Double margin,
    Verdict verdict,
    String verdictText,
    List<String> marks) {

  /** One contribution to the uncertainty, as a standard uncertainty. */
  @Schema(name = "UncertaintyPart")
  public record Part(String name, double standard) {}

  public static ReadingDto of(Reading r) {
    return new ReadingDto(
        r.id(),
        r.label(),
        orNull(r.value()),
        r.unit(),
        r.plane(),
        r.uncertainty() > 0 ? orNull(r.uncertainty()) : null,
        r.contributions().stream().map(c -> new Part(c.name(), c.standard())).toList(),
        orNull(r.limit().lower()),
        orNull(r.limit().upper()),
        orNull(r.margin()),
        r.verdict(),
        r.verdict().label(),
        r.marks());
  }

  /** Back to the core's reading, as for a comparison of kept runs. */
  public Reading toCore() {
    return new Reading(
        id,
        label,
        orNan(value),
        unit,
        plane,
        orNan(uncertainty),
        contributions.stream().map(p -> new Contribution(p.name(), p.standard())).toList(),
        new Limit(orNan(lower), orNan(upper)),
        verdict,
        marks);
  }

  private static Double orNull(double v) {
    return Double.isFinite(v) ? v : null;
  }

  private static double orNan(Double v) {
    return v == null ? Double.NaN : v;
  }
}
