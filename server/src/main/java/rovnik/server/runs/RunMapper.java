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
import org.jspecify.annotations.Nullable;
import rovnik.server.results.ArrayBlob;

/** Tables run, run_array, note. */
@Mapper
interface RunMapper {
  /** What the tape shows. */
  record TapeRow(
      long id,
      long jobId,
      String kind,
      String name,
      OffsetDateTime keptAt,
      String keptBy,
      String verdict,
      String headline,
      String unit,
      String pictureJson,
      @Nullable Long acquisitionId,
      @Nullable Long networkId,
      String note) {}

  /** The rest. */
  record RunRow(
      int version,
      String settingsJson,
      @Nullable String workJson,
      String wordsJson,
      String pathJson,
      String limitsJson,
      String conditionsJson,
      String sourceName,
      String identity,
      String overrideReason,
      String outcomeJson) {}

  /** Carries the generated id out of an insert. */
  final class NewRun {
    Long id;
    final TapeRow tape;
    final RunRow row;

    NewRun(TapeRow tape, RunRow row) {
      this.tape = tape;
      this.row = row;
    }
  }

  String TAPE =
      "select r.id, r.job_id, r.kind, r.name, r.kept_at, r.kept_by, r.verdict, r.headline, r.unit,"
          + " r.picture_json, r.acquisition_id, r.network_id, coalesce(n.text, '') as note"
          + " from run r left join note n on n.run_id = r.id";

  @Select(TAPE + " where r.job_id = #{jobId} order by r.id desc")
  List<TapeRow> ofJob(long jobId);

  @Select(TAPE + " where r.id = #{id}")
  TapeRow tape(long id);

  @Select(
      "select version, settings_json, work_json, words_json, path_json, limits_json,"
          + " conditions_json, source_name, identity, override_reason, outcome_json from run"
          + " where id = #{id}")
  RunRow find(long id);

  @Select("select count(*) from run where job_id = #{jobId}")
  int countOfJob(long jobId);

  @Select("select count(*) from run where acquisition_id = #{id}")
  int countOfAcquisition(long id);

  @Insert(
      "insert into run (job_id, acquisition_id, network_id, kind, version, name, kept_at, kept_by,"
          + " settings_json, work_json, words_json, path_json, limits_json, conditions_json,"
          + " source_name, identity, override_reason, verdict, headline, unit, picture_json,"
          + " outcome_json) values (#{tape.jobId}, #{tape.acquisitionId}, #{tape.networkId},"
          + " #{tape.kind}, #{row.version}, #{tape.name}, #{tape.keptAt}, #{tape.keptBy}, #{row.settingsJson},"
          + " #{row.workJson}, #{row.wordsJson}, #{row.pathJson}, #{row.limitsJson},"
          + " #{row.conditionsJson}, #{row.sourceName}, #{row.identity}, #{row.overrideReason},"
          + " #{tape.verdict}, #{tape.headline}, #{tape.unit}, #{tape.pictureJson},"
          + " #{row.outcomeJson})")
  @Options(useGeneratedKeys = true, keyProperty = "id", keyColumn = "id")
  void insert(NewRun run);

  /** An array with its name. */
  record ArrayRow(String name, String type, int points, long crc32, byte[] deflated) {}

  @Insert(
      "insert into run_array (run_id, name, type, points, crc32, deflated) values (#{runId},"
          + " #{name}, #{a.type}, #{a.points}, #{a.crc32}, #{a.deflated})")
  void insertArray(
      @Param("runId") long runId, @Param("name") String name, @Param("a") ArrayBlob array);

  @Select("select name, type, points, crc32, deflated from run_array where run_id = #{runId}")
  List<ArrayRow> arrays(long runId);

  @Update("update run set name = #{name} where id = #{id}")
  int rename(@Param("id") long id, @Param("name") String name);

  @Insert("merge into note (run_id, text) key (run_id) values (#{id}, #{text})")
  void saveNote(@Param("id") long id, @Param("text") String text);

  @Delete("delete from run where id = #{id}")
  int delete(long id);
}
