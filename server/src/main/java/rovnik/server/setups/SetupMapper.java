package rovnik.server.setups;

import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** Table setup. */
@Mapper
interface SetupMapper {
  record SetupRow(long id, long jobId, String name, String settingsJson) {}

  @Select("select id, job_id, name, settings_json from setup where job_id = #{jobId} order by name")
  List<SetupRow> ofJob(long jobId);

  @Insert(
      "merge into setup (job_id, name, settings_json) key (job_id, name)"
          + " values (#{jobId}, #{name}, #{json})")
  void save(@Param("jobId") long jobId, @Param("name") String name, @Param("json") String json);

  @Delete("delete from setup where id = #{id} and job_id = #{jobId}")
  int delete(@Param("jobId") long jobId, @Param("id") long id);
}
