package rovnik.server.runs;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import java.util.Map;
import rovnik.core.runs.RunComparison;
import rovnik.core.spectrum.Curve;
import rovnik.core.spectrum.Peak;
import rovnik.core.spectrum.Trace;
import rovnik.server.jobs.LimitsDto;
import rovnik.server.jobs.PathDto;
import rovnik.server.spectrum.ReadingDto;
import rovnik.server.spectrum.SettingsDto;
import rovnik.server.spectrum.TableDto;

/** What runs look like outside. */
public final class RunDtos {
  private RunDtos() {}

  /**
   * A run on the tape.
   *
   * @param picture levels of a small picture, lowest to highest of each piece of the trace
   * @param verdict worst verdict of its readings
   * @param networkId its S-parameters as a file, null if it is a spectrum
   */
  @Schema(name = "RunSummary")
  public record Summary(
      long id,
      long jobId,
      String name,
      String note,
      String keptAt,
      String verdict,
      String verdictText,
      String headline,
      String unit,
      float[] picture,
      Long networkId) {}

  /**
   * A whole run.
   *
   * @param networkId its S-parameters as a file, null if it is a spectrum
   */
  @Schema(name = "Run")
  public record Detail(
      long id,
      long jobId,
      Long recordingId,
      String name,
      String note,
      String keptAt,
      String verdict,
      String verdictText,
      SettingsDto settings,
      PathDto path,
      LimitsDto limits,
      Map<String, String> conditions,
      String sourceName,
      String identity,
      String overrideReason,
      Trace trace,
      List<Peak> peaks,
      List<ReadingDto> readings,
      List<RowDto> rows,
      Extras extras,
      Long networkId) {}

  /** One more trace of the view. */
  @Schema(name = "RunRow")
  public record RowDto(String label, Trace trace) {}

  /** Tables and limit lines as they were. */
  @Schema(name = "RunExtras")
  public record Extras(List<TableDto> tables, List<Curve> limitLines) {}

  /**
   * Two runs compared: second minus first.
   *
   * @param difference empty list if the runs share no band or unit
   */
  @Schema(name = "Comparison")
  public record Comparison(
      Summary first,
      Summary second,
      List<Trace> difference,
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
