package rovnik.server.watch;

import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;
import rovnik.server.config.Conflict;
import rovnik.server.results.ArrayBlob;

/** Tables watch, watch_point, watch_chunk, watch_event, watch_gap. */
@Mapper
interface WatchMapper {
  /**
   * A watch.
   *
   * @param endedMillis null while it goes on
   * @param seenSeconds how long the samples of all its looks last together; null if nobody counted
   */
  record WatchRow(
      long id,
      long jobId,
      String name,
      String source,
      String sourceName,
      String measurement,
      String title,
      String settingsJson,
      String planJson,
      String answersJson,
      String overrideReason,
      long pathRevision,
      long beganMillis,
      @Nullable Long endedMillis,
      String whyEnded,
      @Nullable Double seenSeconds) {}

  /** Carries the generated id out of an insert. */
  final class Inserted<T> {
    Long id;
    final T row;

    Inserted(T row) {
      this.row = row;
    }
  }

  record PointRow(long atMillis, byte[] numbers) {}

  /** What a chunk came to, without its points. */
  record ChunkRow(long firstMillis, long lastMillis, int points, byte[] stretch) {}

  record BlobRow(String type, int numbers, long crc32, byte[] deflated) {}

  record EventRow(
      long id, int reading, long fromMillis, @Nullable Long toMillis, double worst, String kept) {}

  record GapRow(long fromMillis, @Nullable Long toMillis, String why) {}

  String COLUMNS =
      "select id, job_id, name, source, source_name, measurement, title, settings_json, plan_json,"
          + " answers_json, override_reason, path_revision, began_millis, ended_millis, why_ended,"
          + " seen_seconds from watch";

  @Select(COLUMNS + " where job_id = #{jobId} order by id desc")
  List<WatchRow> ofJob(long jobId);

  @Select(COLUMNS + " where ended_millis is null order by id")
  List<WatchRow> goingOn();

  @Select(COLUMNS + " where id = #{id}")
  @Nullable WatchRow find(long id);

  /** The watch; not found is a {@link Conflict}. */
  default WatchRow one(long id) {
    WatchRow row = find(id);
    if (row == null) {
      throw Conflict.notFound("watch", id);
    }
    return row;
  }

  @Insert(
      "insert into watch (job_id, name, source, source_name, measurement, title, settings_json,"
          + " plan_json, answers_json, override_reason, path_revision, began_millis, ended_millis,"
          + " why_ended, seen_seconds) values (#{row.jobId}, #{row.name}, #{row.source}, #{row.sourceName},"
          + " #{row.measurement}, #{row.title}, #{row.settingsJson}, #{row.planJson},"
          + " #{row.answersJson}, #{row.overrideReason}, #{row.pathRevision}, #{row.beganMillis},"
          + " #{row.endedMillis}, #{row.whyEnded}, #{row.seenSeconds})")
  @Options(useGeneratedKeys = true, keyProperty = "id", keyColumn = "id")
  void insert(Inserted<WatchRow> watch);

  @Update(
      "update watch set ended_millis = #{millis}, why_ended = #{why}"
          + " where id = #{id} and ended_millis is null")
  int end(@Param("id") long id, @Param("millis") long millis, @Param("why") String why);

  @Update("update watch set seen_seconds = seen_seconds + #{seconds} where id = #{id}")
  void saw(@Param("id") long id, @Param("seconds") double seconds);

  @Delete("delete from watch where id = #{id}")
  int delete(long id);

  // Points and chunks.

  @Insert(
      "insert into watch_point (watch_id, at_millis, numbers) values (#{id}, #{at}, #{numbers})")
  void insertPoint(
      @Param("id") long id, @Param("at") long atMillis, @Param("numbers") byte[] numbers);

  @Select("select count(*) from watch_point where watch_id = #{id}")
  int countOfPoints(long id);

  @Select(
      "select at_millis, numbers from watch_point where watch_id = #{id} and at_millis between"
          + " #{from} and #{to} order by at_millis")
  List<PointRow> points(@Param("id") long id, @Param("from") long from, @Param("to") long to);

  @Delete("delete from watch_point where watch_id = #{id} and at_millis <= #{to}")
  void deletePoints(@Param("id") long id, @Param("to") long to);

  @Insert(
      "insert into watch_chunk (watch_id, first_millis, last_millis, points, stretch, type, numbers,"
          + " crc32, deflated) values (#{id}, #{c.firstMillis}, #{c.lastMillis}, #{c.points},"
          + " #{c.stretch}, #{b.type}, #{b.points}, #{b.crc32}, #{b.deflated})")
  void insertChunk(@Param("id") long id, @Param("c") ChunkRow chunk, @Param("b") ArrayBlob numbers);

  @Select(
      "select first_millis, last_millis, points, stretch from watch_chunk where watch_id = #{id}"
          + " and last_millis >= #{from} and first_millis <= #{to} order by first_millis")
  List<ChunkRow> chunks(@Param("id") long id, @Param("from") long from, @Param("to") long to);

  @Select(
      "select type, numbers, crc32, deflated from watch_chunk where watch_id = #{id}"
          + " and first_millis = #{first}")
  BlobRow blob(@Param("id") long id, @Param("first") long firstMillis);

  @Select(
      "select greatest(coalesce((select max(last_millis) from watch_chunk where watch_id = #{id}), 0),"
          + " coalesce((select max(at_millis) from watch_point where watch_id = #{id}), 0))")
  long lastMillis(long id);

  // Events and gaps.

  @Insert(
      "insert into watch_event (watch_id, reading, from_millis, to_millis, worst, kept) values"
          + " (#{id}, #{e.row.reading}, #{e.row.fromMillis}, #{e.row.toMillis}, #{e.row.worst},"
          + " #{e.row.kept})")
  @Options(useGeneratedKeys = true, keyProperty = "e.id", keyColumn = "id")
  void insertEvent(@Param("id") long id, @Param("e") Inserted<EventRow> event);

  @Update(
      "update watch_event set to_millis = #{e.toMillis}, worst = #{e.worst}, kept = #{e.kept}"
          + " where id = #{e.id}")
  void updateEvent(@Param("e") EventRow event);

  @Select(
      "select id, reading, from_millis, to_millis, worst, kept from watch_event where watch_id ="
          + " #{id} and from_millis <= #{to} and (to_millis is null or to_millis >= #{from})"
          + " order by from_millis, id")
  List<EventRow> events(@Param("id") long id, @Param("from") long from, @Param("to") long to);

  @Select("select count(*) from watch_event where watch_id = #{id} and kept <> ''")
  int countOfKept(long id);

  @Insert(
      "merge into watch_gap (watch_id, from_millis, to_millis, why) key (watch_id, from_millis)"
          + " values (#{id}, #{g.fromMillis}, #{g.toMillis}, #{g.why})")
  void saveGap(@Param("id") long id, @Param("g") GapRow gap);

  @Select(
      "select from_millis, to_millis, why from watch_gap where watch_id = #{id} and from_millis <="
          + " #{to} and (to_millis is null or to_millis >= #{from}) order by from_millis")
  List<GapRow> gaps(@Param("id") long id, @Param("from") long from, @Param("to") long to);
}
