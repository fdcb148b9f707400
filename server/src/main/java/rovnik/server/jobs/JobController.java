package rovnik.server.jobs;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PatchMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/jobs")
class JobController {
  private final JobService jobs;

  JobController(JobService jobs) {
    this.jobs = jobs;
  }

  @Schema(name = "NewJob")
  record NewJob(String name, @Nullable String dut) {}

  /** What to change of a job; null leaves a thing as it is. */
  @Schema(name = "JobChange")
  record Change(@Nullable String name, @Nullable String dut, @Nullable Boolean archived) {}

  /** What hangs on a job, in words; "" if nothing does. */
  @Schema(name = "Belongings")
  record Belongings(String words) {}

  record ReadingPlane(int plane) {}

  @GetMapping
  List<JobDto> all() {
    return jobs.all();
  }

  @PostMapping
  @ResponseStatus(HttpStatus.CREATED)
  JobDto create(@RequestBody NewJob names) {
    return jobs.create(names.name(), names.dut());
  }

  @GetMapping("/{id}")
  JobDto find(@PathVariable long id) {
    return jobs.find(id);
  }

  /** Renames a job or its device, archives it, or brings it back. */
  @PatchMapping("/{id}")
  JobDto change(@PathVariable long id, @RequestBody Change c) {
    return jobs.change(id, c.name(), c.dut(), c.archived());
  }

  @GetMapping("/{id}/belongings")
  Belongings belongings(@PathVariable long id) {
    return new Belongings(jobs.belongings(id));
  }

  /**
   * Removes a job.
   *
   * @param belongings true lets its runs and setups go with it; false refuses if there are any
   */
  @DeleteMapping("/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void remove(@PathVariable long id, @RequestParam(defaultValue = "false") boolean belongings) {
    jobs.remove(id, belongings);
  }

  @PutMapping("/{id}/path")
  JobDto savePath(@PathVariable long id, @RequestBody PathDto path) {
    return jobs.savePath(id, path);
  }

  @PutMapping("/{id}/reading-plane")
  JobDto moveReadingPlane(@PathVariable long id, @RequestBody ReadingPlane plane) {
    return jobs.moveReadingPlane(id, plane.plane());
  }

  /** Clocks and intervals of the device under test: what is found is held against them. */
  @PutMapping("/{id}/rates")
  JobDto saveRates(@PathVariable long id, @RequestBody List<KnownRateDto> rates) {
    return jobs.saveRates(id, rates);
  }

  @PutMapping("/{id}/limits")
  JobDto saveLimits(@PathVariable long id, @RequestBody LimitsDto limits) {
    return jobs.saveLimits(id, limits);
  }
}
