package rovnik.server.setups;

import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** Table setup; each is stored as its file. */
@Mapper
interface SetupMapper {
  record SetupRow(long id, long jobId, String kind, String name, String settingsJson) {}

  @Select(
      "select id, job_id, kind, name, settings_json from setup where job_id = #{jobId}"
          + " and kind = #{kind} order by name")
  List<SetupRow> ofJob(@Param("jobId") long jobId, @Param("kind") String kind);

  @Insert(
      "merge into setup (job_id, kind, name, settings_json) key (job_id, kind, name)"
          + " values (#{jobId}, #{kind}, #{name}, #{json})")
  void save(
      @Param("jobId") long jobId,
      @Param("kind") String kind,
      @Param("name") String name,
      @Param("json") String json);

  @Delete("delete from setup where id = #{id} and job_id = #{jobId}")
  int delete(@Param("jobId") long jobId, @Param("id") long id);
}
