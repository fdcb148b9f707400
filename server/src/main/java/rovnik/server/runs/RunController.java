package rovnik.server.runs;

import java.util.List;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PatchMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import rovnik.core.formats.TraceCsv;
import rovnik.server.jobs.JobDto;
import rovnik.server.jobs.JobService;

@RestController
@RequestMapping("/api")
class RunController {
  private final RunService runs;
  private final JobService jobs;

  RunController(RunService runs, JobService jobs) {
    this.runs = runs;
    this.jobs = jobs;
  }

  record Description(String name, String note) {}

  @GetMapping("/jobs/{jobId}/runs")
  List<RunDtos.Summary> ofJob(@PathVariable long jobId) {
    return runs.ofJob(jobId);
  }

  @GetMapping("/runs/{id}")
  RunDtos.Detail detail(@PathVariable long id) {
    return runs.detail(id);
  }

  @PatchMapping("/runs/{id}")
  RunDtos.Summary describe(@PathVariable long id, @RequestBody Description d) {
    return runs.describe(id, d.name(), d.note());
  }

  @DeleteMapping("/runs/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void remove(@PathVariable long id) {
    runs.remove(id);
  }

  @GetMapping("/runs/compare")
  RunDtos.Comparison compare(@RequestParam long first, @RequestParam long second) {
    return runs.compare(first, second);
  }

  @GetMapping("/runs/{id}/trace.csv")
  ResponseEntity<String> csv(@PathVariable long id) {
    return ResponseEntity.ok()
        .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"run-" + id + ".csv\"")
        .contentType(MediaType.parseMediaType("text/csv"))
        .body(TraceCsv.write(runs.traceOf(id)));
  }

  /** The run on one page, to print or to send: a file that needs nothing else. */
  @GetMapping(value = "/runs/{id}/report.html", produces = "text/html;charset=UTF-8")
  String report(@PathVariable long id) {
    RunDtos.Detail run = runs.detail(id);
    JobDto job = jobs.find(run.jobId());
    return ReportPage.of(run, job.name(), job.dut());
  }
}
