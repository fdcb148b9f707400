package rovnik.server.analyzer;

import org.springframework.stereotype.Service;
import rovnik.core.Refusal;
import rovnik.server.jobs.JobService;
import rovnik.server.networks.NetworkViewDto;

/** Limits, bands and fixture of a job's networks. */
@Service
public class JobNetworks {
  private static final String KIND = "network";
  private final JobService jobs;

  JobNetworks(JobService jobs) {
    this.jobs = jobs;
  }

  /** What the job asks; nothing if it was never told. */
  public JobNetwork find(long id) {
    JobNetwork asked = jobs.limits(id, KIND, JobNetwork.class);
    return asked == null ? JobNetwork.NONE : asked;
  }

  /** Stores it if it makes sense. */
  public JobNetwork save(long id, JobNetwork wanted) {
    wanted.limits().forEach(NetworkViewDto.LimitDto::toCore);
    for (NetworkViewDto.Band b : wanted.bands()) {
      if (!(b.toHz() > b.fromHz()) || b.name() == null || b.name().isBlank()) {
        throw new Refusal("bands", "A band needs a name, and an end above its beginning.");
      }
    }
    jobs.saveLimits(id, KIND, wanted);
    return wanted;
  }
}
