package rovnik.server.jobs;

import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PatchMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/jobs")
class JobController {
  private final JobService jobs;

  JobController(JobService jobs) {
    this.jobs = jobs;
  }

  record JobNames(String name, String dut) {}

  record ReadingPlane(int plane) {}

  @GetMapping
  List<JobDto> all() {
    return jobs.all();
  }

  @PostMapping
  @ResponseStatus(HttpStatus.CREATED)
  JobDto create(@RequestBody JobNames names) {
    return jobs.create(names.name(), names.dut());
  }

  @GetMapping("/{id}")
  JobDto find(@PathVariable long id) {
    return jobs.find(id);
  }

  @PatchMapping("/{id}")
  JobDto rename(@PathVariable long id, @RequestBody JobNames names) {
    return jobs.rename(id, names.name(), names.dut());
  }

  @PutMapping("/{id}/path")
  JobDto savePath(@PathVariable long id, @RequestBody PathDto path) {
    return jobs.savePath(id, path);
  }

  @PutMapping("/{id}/reading-plane")
  JobDto moveReadingPlane(@PathVariable long id, @RequestBody ReadingPlane plane) {
    return jobs.moveReadingPlane(id, plane.plane());
  }

  @PutMapping("/{id}/limits")
  JobDto saveLimits(@PathVariable long id, @RequestBody LimitsDto limits) {
    return jobs.saveLimits(id, limits);
  }
}
