package rovnik.server.runs;

import io.swagger.v3.oas.annotations.media.Schema;
import java.io.IOException;
import java.io.InputStream;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PatchMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;
import rovnik.core.Refusal;
import rovnik.core.formats.SeriesCsv;
import rovnik.core.result.Outcome;
import rovnik.core.result.Series;
import rovnik.server.jobs.JobDto;
import rovnik.server.jobs.JobService;

@RestController
@RequestMapping("/api")
class RunController {
  private final RunService runs;
  private final RunFiles files;
  private final JobService jobs;

  RunController(RunService runs, RunFiles files, JobService jobs) {
    this.runs = runs;
    this.files = files;
    this.jobs = jobs;
  }

  /** What to change; null leaves a thing as it is. */
  @Schema(name = "RunDescription")
  record Description(@Nullable String name, @Nullable String note) {}

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

  /**
   * A series of the run as CSV.
   *
   * @param series its id; the main one if it is left out
   */
  @GetMapping("/runs/{id}/csv")
  ResponseEntity<String> csv(
      @PathVariable long id, @RequestParam(required = false) @Nullable String series) {
    Outcome outcome = runs.outcome(id);
    Series wanted =
        (series == null ? outcome.main() : outcome.series(series))
            .orElseThrow(
                () ->
                    new Refusal(
                        "series",
                        "The run has no series \""
                            + series
                            + "\"; it has "
                            + outcome.series().stream().map(Series::id).toList()
                            + "."));
    return ResponseEntity.ok()
        .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"run-" + id + ".csv\"")
        .contentType(MediaType.parseMediaType("text/csv"))
        .body(SeriesCsv.write(wanted));
  }

  /** The run on one page, to print or to send: a file that needs nothing else. */
  @GetMapping(value = "/runs/{id}/report.html", produces = "text/html;charset=UTF-8")
  String report(@PathVariable long id) {
    RunDtos.Detail run = runs.detail(id);
    JobDto job = jobs.find(run.summary().jobId());
    return ReportPage.of(run, runs.outcome(id), job.name(), job.dut());
  }

  /** The run with its outcome and attachments as one file, to be opened by another Rovnik. */
  @GetMapping("/runs/{id}/export")
  ResponseEntity<byte[]> export(@PathVariable long id) throws IOException {
    String name = runs.summary(id).name().replaceAll("[^\\w .+-]", "_");
    return ResponseEntity.ok()
        .header(
            HttpHeaders.CONTENT_DISPOSITION,
            ContentDisposition.attachment().filename(name + ".rovnik-run.zip").build().toString())
        .contentType(MediaType.parseMediaType("application/zip"))
        .body(files.write(id));
  }

  /** Takes a run from such a file into a job. */
  @PostMapping(value = "/jobs/{jobId}/runs", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
  @ResponseStatus(HttpStatus.CREATED)
  RunDtos.Summary take(
      @PathVariable long jobId,
      @RequestParam(name = "file", required = false) @Nullable MultipartFile file)
      throws IOException {
    jobs.find(jobId);
    if (file == null || file.isEmpty()) {
      throw new Refusal("file", "Choose the file of a run, such as run.rovnik-run.zip.");
    }
    try (InputStream in = file.getInputStream()) {
      return files.read(jobId, in);
    }
  }
}
