package rovnik.server.analyzer;

import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Limits, bands and fixture of a job's networks. */
@RestController
@RequestMapping("/api/jobs/{id}/network")
class JobNetworkController {
  private final JobNetworks jobs;

  JobNetworkController(JobNetworks jobs) {
    this.jobs = jobs;
  }

  @GetMapping
  JobNetwork find(@PathVariable long id) {
    return jobs.find(id);
  }

  @PutMapping
  JobNetwork save(@PathVariable long id, @RequestBody JobNetwork wanted) {
    return jobs.save(id, wanted);
  }
}
