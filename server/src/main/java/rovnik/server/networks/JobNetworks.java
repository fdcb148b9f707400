package rovnik.server.networks;

import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.springframework.stereotype.Service;
import rovnik.core.Refusal;
import rovnik.server.config.Conflict;
import tools.jackson.databind.json.JsonMapper;

/** Limits, bands and fixture of a job's networks. */
@Service
public class JobNetworks {
  /** Table job_network. */
  @Mapper
  interface JobNetworkMapper {
    @Select("select settings_json from job_network where job_id = #{id}")
    String find(long id);

    @Select("select count(*) from job where id = #{id}")
    int jobs(long id);

    @Insert("merge into job_network (job_id, settings_json) key (job_id) values (#{id}, #{json})")
    void save(@Param("id") long id, @Param("json") String json);
  }

  private final JobNetworkMapper mapper;
  private final JsonMapper json;

  JobNetworks(JobNetworkMapper mapper, JsonMapper json) {
    this.mapper = mapper;
    this.json = json;
  }

  /** What the job asks; nothing if it was never told. */
  public JobNetwork find(long id) {
    String text = mapper.find(id);
    return text == null ? JobNetwork.NONE : json.readValue(text, JobNetwork.class);
  }

  /** Stores it if it makes sense. */
  public JobNetwork save(long id, JobNetwork wanted) {
    if (mapper.jobs(id) == 0) {
      throw Conflict.notFound("job", id);
    }
    wanted.limits().forEach(NetworkViewDto.LimitDto::toCore);
    for (NetworkViewDto.Band b : wanted.bands()) {
      if (!(b.toHz() > b.fromHz()) || b.name() == null || b.name().isBlank()) {
        throw new Refusal("bands", "A band needs a name, and an end above its beginning.");
      }
    }
    mapper.save(id, json.writeValueAsString(wanted));
    return wanted;
  }
}
