package rovnik.server.results;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.jspecify.annotations.Nullable;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.result.Reading;
import rovnik.core.uncertainty.UncertaintyBudget.Contribution;

/**
 * A reading as sent and stored; null where a number is not known.
 *
 * @param uncertainty expanded, k = 2
 * @param margin distance to the limit, positive inside
 * @param limitPlane plane that the limit is stated at, null if it is the same or there is no limit;
 *     the verdict is that of the value there
 * @param limitUncertainty expanded uncertainty of the value at that plane, null as before
 */
@Schema(name = "Reading")
public record ReadingDto(
    String id,
    String label,
    @Nullable Double value,
    String unit,
    String plane,
    @Nullable Double uncertainty,
    List<Part> contributions,
    @Nullable Double lower,
    @Nullable Double upper,
    @Nullable Double margin,
    Verdict verdict,
    String verdictText,
    List<String> marks,
    @Nullable String limitPlane,
    @Nullable Double limitUncertainty) {

  /** One contribution to the uncertainty, as a standard uncertainty. */
  @Schema(name = "UncertaintyPart")
  public record Part(String name, double standard) {}

  public static ReadingDto of(Reading r) {
    boolean elsewhere = !r.limit().open() && !r.limitPlane().equals(r.plane());
    return new ReadingDto(
        r.id(),
        r.label(),
        Nulls.orNull(r.value()),
        r.unit(),
        r.plane(),
        r.uncertainty() > 0 ? Nulls.orNull(r.uncertainty()) : null,
        r.contributions().stream().map(c -> new Part(c.name(), c.standard())).toList(),
        Nulls.orNull(r.limit().lower()),
        Nulls.orNull(r.limit().upper()),
        Nulls.orNull(r.margin()),
        r.verdict(),
        r.verdict().label(),
        r.marks(),
        elsewhere ? r.limitPlane() : null,
        elsewhere ? Nulls.orNull(r.limitUncertainty()) : null);
  }

  /** Back to the core's reading, as for a comparison of kept runs. */
  public Reading toCore() {
    return new Reading(
        id,
        label,
        Nulls.orNan(value),
        unit,
        plane,
        Nulls.orNan(uncertainty),
        contributions.stream().map(p -> new Contribution(p.name(), p.standard())).toList(),
        new Limit(Nulls.orNan(lower), Nulls.orNan(upper)),
        verdict,
        marks,
        limitPlane == null ? plane : limitPlane,
        Nulls.orNan(limitPlane == null ? uncertainty : limitUncertainty));
  }
}
