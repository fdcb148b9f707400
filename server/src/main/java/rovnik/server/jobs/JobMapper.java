package rovnik.server.jobs;

import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** Tables job, dut, job_limits, path, path_element. */
@Mapper
interface JobMapper {
  record JobRow(long id, String name, String dut, boolean archived) {}

  record PathRow(int readingPlane, long revision) {}

  /** Carries the generated id out of an insert. */
  final class NewJob {
    Long id;
    final String name;

    NewJob(String name) {
      this.name = name;
    }
  }

  @Select(
      "select j.id, j.name, d.name as dut, j.archived from job j join dut d on d.job_id = j.id"
          + " order by j.id")
  List<JobRow> jobs();

  @Select(
      "select j.id, j.name, d.name as dut, j.archived from job j join dut d on d.job_id = j.id"
          + " where j.id = #{id}")
  JobRow job(long id);

  @Insert("insert into job (name, created_at) values (#{name}, current_timestamp)")
  @Options(useGeneratedKeys = true, keyProperty = "id", keyColumn = "id")
  void insertJob(NewJob job);

  @Insert("insert into dut (job_id, name) values (#{jobId}, #{name})")
  void insertDut(@Param("jobId") long jobId, @Param("name") String name);

  @Update("update job set name = #{name} where id = #{id}")
  int rename(@Param("id") long id, @Param("name") String name);

  @Update("update job set archived = #{archived} where id = #{id}")
  int archive(@Param("id") long id, @Param("archived") boolean archived);

  @Select("select count(*) from run where job_id = #{id}")
  int runs(long id);

  @Select("select count(*) from setup where job_id = #{id}")
  int setups(long id);

  @Select("select count(*) from watch where job_id = #{id}")
  int watches(long id);

  @Delete("delete from job where id = #{id}")
  int delete(long id);

  @Update("update dut set name = #{name} where job_id = #{id}")
  int renameDut(@Param("id") long id, @Param("name") String name);

  @Select("select json from job_limits where job_id = #{jobId} and kind = #{kind}")
  String limits(@Param("jobId") long jobId, @Param("kind") String kind);

  @Insert(
      "merge into job_limits (job_id, kind, json) key (job_id, kind)"
          + " values (#{jobId}, #{kind}, #{json})")
  void saveLimits(
      @Param("jobId") long jobId, @Param("kind") String kind, @Param("json") String json);

  @Select("select reading_plane, revision from path where job_id = #{jobId}")
  PathRow path(long jobId);

  @Insert(
      "merge into path (job_id, reading_plane, revision) key (job_id)"
          + " values (#{jobId}, #{plane}, #{revision})")
  void savePath(
      @Param("jobId") long jobId, @Param("plane") int plane, @Param("revision") long revision);

  @Select(
      "select name, kind, gain_kind, gain_db, gain_table, shift_hz, tolerance_db,"
          + " highest_level_dbm, damage_level_dbm, dc_allowed, return_loss_db, output_level_dbm,"
          + " instrument_id, network_id, side_gain_db, supply_lowest_volts,"
          + " supply_highest_volts, supply_damage_volts from path_element where job_id = #{jobId} order by position")
  List<PathElementDto> elements(long jobId);

  @Delete("delete from path_element where job_id = #{jobId}")
  void deleteElements(long jobId);

  @Insert(
      "insert into path_element (job_id, position, name, kind, gain_kind, gain_db, gain_table,"
          + " shift_hz, tolerance_db, highest_level_dbm, damage_level_dbm, dc_allowed,"
          + " return_loss_db, output_level_dbm, instrument_id, network_id, side_gain_db,"
          + " supply_lowest_volts, supply_highest_volts, supply_damage_volts)"
          + " values (#{jobId}, #{position},"
          + " #{e.name}, #{e.kind}, #{e.gainKind}, #{e.gainDb}, #{e.gainTable}, #{e.shiftHz},"
          + " #{e.toleranceDb}, #{e.highestLevelDbm}, #{e.damageLevelDbm}, #{e.dcAllowed},"
          + " #{e.returnLossDb}, #{e.outputLevelDbm}, #{e.instrumentId}, #{e.networkId}, #{e.sideGainDb},"
          + " #{e.supplyLowestVolts}, #{e.supplyHighestVolts}, #{e.supplyDamageVolts})")
  void insertElement(
      @Param("jobId") long jobId,
      @Param("position") int position,
      @Param("e") PathElementDto element);
}
