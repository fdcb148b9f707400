package rovnik.server.jobs;

import io.swagger.v3.oas.annotations.media.Schema;

/** A job with all that belongs to it. */
@Schema(name = "Job")
public record JobDto(long id, String name, String dut, PathDto path, LimitsDto limits) {}
