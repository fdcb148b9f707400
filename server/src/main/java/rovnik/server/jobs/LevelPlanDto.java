package rovnik.server.jobs;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import rovnik.core.path.LevelFinding;
import rovnik.core.path.LevelPlan;
import rovnik.core.path.SignalPath;
import rovnik.server.results.Nulls;

/**
 * The level plan of a path.
 *
 * @param planes one a plane, with its mean level
 * @param crestDb how far the peaks are above the mean; limits are held against the peaks
 * @param headroomDb one an element, null where it has no limit
 * @param worstHeadroomDb the smallest, null if nothing has a limit
 * @param blocked true if an acquisition needs an override
 */
@Schema(name = "LevelPlan")
public record LevelPlanDto(
    List<Plane> planes,
    double crestDb,
    List<@Nullable Double> headroomDb,
    @Nullable Double worstHeadroomDb,
    boolean blocked,
    List<Finding> findings) {

  /** A plane with its expected level. */
  @Schema(name = "PlanePlan")
  public record Plane(String name, double levelDbm, double frequencyHz) {}

  /** Something wrong; padDb is the pad to add before the element, null if none helps. */
  @Schema(name = "LevelFinding")
  public record Finding(
      int element, LevelFinding.Severity severity, @Nullable Double padDb, String sentence) {}

  public static LevelPlanDto of(SignalPath path, LevelPlan plan, double sourceHz) {
    List<Plane> planes = new ArrayList<>();
    for (int i = 0; i < path.planes(); i++) {
      planes.add(
          new Plane(path.planeName(i), plan.levelDbm()[i], path.frequencyBetween(0, i, sourceHz)));
    }
    List<@Nullable Double> headroom = new ArrayList<>();
    for (double h : plan.headroomDb()) {
      headroom.add(Nulls.orNull(h));
    }
    return new LevelPlanDto(
        planes,
        plan.crestDb(),
        headroom,
        Nulls.orNull(plan.worstHeadroomDb()),
        !plan.blocking().isEmpty(),
        plan.findings().stream()
            .map(f -> new Finding(f.element(), f.severity(), Nulls.orNull(f.padDb()), f.sentence()))
            .toList());
  }
}
