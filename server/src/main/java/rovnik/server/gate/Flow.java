package rovnik.server.gate;

import rovnik.core.path.LevelPlan;
import rovnik.server.jobs.JobDto;

/**
 * Power that would flow.
 *
 * @param path through which, as it is now
 * @param trouble what the level plan says against it, "" if nothing
 * @param stressDb how hard it would press, one number for each place where it can enter: a reason
 *     that was given for one stress holds for no higher one
 */
public record Flow(JobDto.PathVersion path, String trouble, double... stressDb) {
  /** Nothing flows. */
  public static final Flow NONE = new Flow(new JobDto.PathVersion(0, 0), "");

  /** What a level plan says of a job's path. */
  public static Flow through(JobDto job, LevelPlan plan) {
    return new Flow(
        job.pathVersion(),
        plan.blocking().isEmpty() ? "" : plan.blocking().get(0).sentence(),
        -plan.worstHeadroomDb());
  }

  /** Within what an earlier flow was like. */
  boolean within(Flow given) {
    if (!path.equals(given.path) || stressDb.length != given.stressDb.length) {
      return false;
    }
    for (int i = 0; i < stressDb.length; i++) {
      if (!(stressDb[i] <= given.stressDb[i] + 0.05)) {
        return false;
      }
    }
    return true;
  }
}
