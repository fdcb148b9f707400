package rovnik.server.runs;

import java.time.OffsetDateTime;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** Tables run, run_trace, note. */
@Mapper
interface RunMapper {
  record RunRow(
      long id,
      long jobId,
      Long acquisitionId,
      String name,
      OffsetDateTime keptAt,
      String settingsJson,
      String pathJson,
      String limitsJson,
      String conditionsJson,
      String readingsJson,
      String peaksJson,
      String sourceName,
      String identity,
      String overrideReason,
      String verdict,
      String extrasJson,
      Long networkId,
      String note) {}

  record TraceRow(
      String label,
      double startHz,
      double stepHz,
      String unit,
      String plane,
      double rbwHz,
      double enbwHz,
      int segments,
      String windowName,
      String detector,
      int points,
      long crc32,
      byte[] levelDeflated) {}

  /** Carries the generated id out of an insert. */
  final class NewRun {
    Long id;
    final RunRow row;

    NewRun(RunRow row) {
      this.row = row;
    }
  }

  String SELECT =
      "select r.id, r.job_id, r.acquisition_id, r.name, r.kept_at, r.settings_json, r.path_json,"
          + " r.limits_json, r.conditions_json, r.readings_json, r.peaks_json, r.source_name,"
          + " r.identity, r.override_reason, r.verdict, r.extras_json, r.network_id, coalesce(n.text, '') as note"
          + " from run r left join note n on n.run_id = r.id";

  @Select(SELECT + " where r.job_id = #{jobId} order by r.id desc")
  List<RunRow> ofJob(long jobId);

  @Select(SELECT + " where r.id = #{id}")
  RunRow find(long id);

  @Select("select count(*) from run where job_id = #{jobId}")
  int countOfJob(long jobId);

  @Insert(
      "insert into run (job_id, acquisition_id, name, kept_at, settings_json, path_json,"
          + " limits_json, conditions_json, readings_json, peaks_json, source_name, identity,"
          + " override_reason, verdict, extras_json, network_id) values (#{row.jobId}, #{row.acquisitionId}, #{row.name},"
          + " #{row.keptAt}, #{row.settingsJson}, #{row.pathJson}, #{row.limitsJson},"
          + " #{row.conditionsJson}, #{row.readingsJson}, #{row.peaksJson}, #{row.sourceName},"
          + " #{row.identity}, #{row.overrideReason}, #{row.verdict}, #{row.extrasJson}, #{row.networkId})")
  @Options(useGeneratedKeys = true, keyProperty = "id", keyColumn = "id")
  void insert(NewRun run);

  @Insert(
      "insert into run_trace (run_id, position, label, start_hz, step_hz, unit, plane, rbw_hz,"
          + " enbw_hz, segments, window_name, detector, points, crc32, level_deflated) values"
          + " (#{runId}, #{position}, #{t.label}, #{t.startHz}, #{t.stepHz}, #{t.unit}, #{t.plane}, #{t.rbwHz}, #{t.enbwHz},"
          + " #{t.segments}, #{t.windowName}, #{t.detector}, #{t.points}, #{t.crc32},"
          + " #{t.levelDeflated})")
  void insertTrace(
      @Param("runId") long runId, @Param("position") int position, @Param("t") TraceRow trace);

  String TRACE =
      "select label, start_hz, step_hz, unit, plane, rbw_hz, enbw_hz, segments, window_name,"
          + " detector, points, crc32, level_deflated from run_trace where run_id = #{runId}";

  @Select(TRACE + " and position = 0")
  TraceRow trace(long runId);

  @Select(TRACE + " and position > 0 order by position")
  List<TraceRow> moreTraces(long runId);

  @Update("update run set name = #{name} where id = #{id}")
  int rename(@Param("id") long id, @Param("name") String name);

  @Insert("merge into note (run_id, text) key (run_id) values (#{id}, #{text})")
  void saveNote(@Param("id") long id, @Param("text") String text);

  @Delete("delete from run where id = #{id}")
  int delete(long id);
}
