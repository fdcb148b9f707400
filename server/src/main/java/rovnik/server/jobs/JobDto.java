package rovnik.server.jobs;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import rovnik.core.limits.KnownRate;
import rovnik.core.path.ElementKind;

/**
 * A job with all that belongs to it.
 *
 * @param rates clocks and intervals of the device under test that are known
 * @param archived put away: it is not offered, but nothing of it is lost
 */
@Schema(name = "Job")
public record JobDto(
    long id,
    String name,
    String dut,
    PathDto path,
    LimitsDto limits,
    List<KnownRateDto> rates,
    boolean archived) {
  /** Where no job was chosen: a record by itself, without path or limits. */
  public static final JobDto NONE =
      without(
          PathElementDto.plain("Record", ElementKind.SOURCE, 0.0, null, null),
          PathElementDto.plain("Record", ElementKind.PORT, null, null, null));

  /** Measuring without a job: straight at a port, without limits. */
  public static JobDto without(PathElementDto source, PathElementDto port) {
    return new JobDto(
        0, "", "", new PathDto(List.of(source, port), 0, 0), LimitsDto.NONE, List.of(), false);
  }

  /** One path of one job as it was between two changes. */
  public record PathVersion(long job, long revision) {}

  /** The same with another path and other limits. */
  public JobDto with(PathDto otherPath, LimitsDto otherLimits) {
    return new JobDto(id, name, dut, otherPath, otherLimits, rates, archived);
  }

  /** What is known of the device under test. */
  public List<KnownRate> knownRates() {
    return rates.stream().map(KnownRateDto::toCore).toList();
  }

  /** Which path this is: what was said of it holds for no other. */
  public PathVersion pathVersion() {
    return new PathVersion(id, path.revision());
  }

  public boolean isNone() {
    return id == 0 && path.revision() == 0;
  }

  /** True if the path begins or ends at this instrument. */
  public boolean uses(long instrument) {
    return path.elements().stream()
        .anyMatch(e -> Long.valueOf(instrument).equals(e.instrumentId()));
  }

  /** This job for what was measured without one: its name, but the path that was measured. */
  public JobDto readAt(JobDto measured) {
    return new JobDto(id, name, dut, measured.path, measured.limits, rates, archived);
  }
}
