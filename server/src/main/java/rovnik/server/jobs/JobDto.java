package rovnik.server.jobs;

import io.swagger.v3.oas.annotations.media.Schema;

/** A job with all that belongs to it. */
@Schema(name = "Job")
public record JobDto(long id, String name, String dut, PathDto path, LimitsDto limits) {
  /** One path of one job as it was between two changes. */
  public record PathVersion(long job, long revision) {}

  /** Which path this is: what was said of it holds for no other. */
  public PathVersion pathVersion() {
    return new PathVersion(id, path.revision());
  }
}
