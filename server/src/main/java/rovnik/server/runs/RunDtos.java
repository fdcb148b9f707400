package rovnik.server.runs;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rovnik.core.limits.Verdict;
import rovnik.core.runs.RunComparison;
import rovnik.server.jobs.LimitsDto;
import rovnik.server.jobs.PathDto;
import rovnik.server.results.OutcomeDto;
import rovnik.server.results.SeriesDto;
import tools.jackson.databind.JsonNode;

/** What runs look like outside. */
public final class RunDtos {
  private RunDtos() {}

  /**
   * A run on the tape.
   *
   * @param kind of its outcome, such as "spectrum" or "harmonics"
   * @param keptBy account that kept it; empty if nobody had to sign in
   * @param verdict worst verdict of its readings
   * @param headline its first reading, short
   * @param unit of the picture
   * @param picture a small picture of the main series: the highest value of each piece
   */
  @Schema(name = "RunSummary")
  public record Summary(
      long id,
      long jobId,
      String kind,
      String name,
      String note,
      String keptAt,
      String keptBy,
      Verdict verdict,
      String verdictText,
      String headline,
      String unit,
      float[] picture,
      Attachments attachments) {
    /** Files of before accounts do not say who. */
    public Summary {
      keptBy = keptBy == null ? "" : keptBy;
    }
  }

  /**
   * What was kept beside the outcome, as files that can be opened.
   *
   * @param recordingId its samples, null if there are none
   * @param networkId its S-parameters, null if there are none
   */
  @Schema(name = "Attachments")
  public record Attachments(@Nullable Long recordingId, @Nullable Long networkId) {}

  /**
   * A whole run.
   *
   * @param version of the form of its settings
   * @param settings of the measurement, in the form of its kind
   * @param work what guided work was told, null if it was none
   * @param words the settings in words
   * @param conditions state of sources and parts, identities and more, by name
   * @param overrideReason why power flowed against the level plan, "" if it did not
   */
  @Schema(name = "Run")
  public record Detail(
      Summary summary,
      int version,
      JsonNode settings,
      @Nullable JsonNode work,
      List<SeriesDto.FactDto> words,
      PathDto path,
      LimitsDto limits,
      Map<String, String> conditions,
      String sourceName,
      String identity,
      String overrideReason,
      OutcomeDto outcome) {}

  /**
   * Two runs compared: second minus first.
   *
   * @param difference one for each series that both have; empty if they share no stretch or unit
   */
  @Schema(name = "Comparison")
  public record Comparison(
      Summary first,
      Summary second,
      List<SeriesDto> difference,
      List<RunComparison.Change> changes,
      List<LineDto> lines) {}

  /** A line and where it stands. */
  @Schema(name = "ComparedLine")
  public record LineDto(
      double frequencyHz,
      double firstLevel,
      double secondLevel,
      RunComparison.Presence presence,
      String words) {}
}
