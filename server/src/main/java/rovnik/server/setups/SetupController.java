package rovnik.server.setups;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import rovnik.server.config.Conflict;
import rovnik.server.desk.Tiles;
import rovnik.server.jobs.JobService;
import tools.jackson.databind.JsonNode;

/** Named setups of a job for any measurement, and settings as a file. */
@RestController
@RequestMapping("/api")
class SetupController {
  private final SetupMapper mapper;
  private final JobService jobs;
  private final Setups setups;
  private final SettingsFile file;

  SetupController(SetupMapper mapper, JobService jobs, Setups setups, SettingsFile file) {
    this.mapper = mapper;
    this.jobs = jobs;
    this.setups = setups;
    this.file = file;
  }

  /** A setup: settings and the arrangement of tiles. */
  @Schema(name = "Setup")
  record Setup(
      long id, String measurement, String name, JsonNode settings, @Nullable Tiles tiles) {}

  /**
   * What to keep.
   *
   * @param measurement kind; null for "spectrum"
   * @param tiles arrangement of the desk, null for none
   */
  @Schema(name = "NewSetup")
  record NewSetup(
      @Nullable String measurement,
      @Nullable String name,
      @Nullable JsonNode settings,
      @Nullable Tiles tiles) {
    String kind() {
      return measurement == null ? "spectrum" : measurement;
    }
  }

  @GetMapping("/jobs/{jobId}/setups")
  List<Setup> ofJob(
      @PathVariable long jobId, @RequestParam(defaultValue = "spectrum") String measurement) {
    jobs.find(jobId);
    return mapper.ofJob(jobId, measurement).stream()
        .map(
            r -> {
              SettingsFile.Content c = file.read(r.settingsJson());
              return new Setup(r.id(), r.kind(), r.name(), c.settings(), c.tiles());
            })
        .toList();
  }

  /** Keeps settings under a name; the same name again replaces them. */
  @PostMapping("/jobs/{jobId}/setups")
  @ResponseStatus(HttpStatus.CREATED)
  List<Setup> save(@PathVariable long jobId, @RequestBody NewSetup setup) {
    jobs.find(jobId);
    setups.keep(jobId, setup.kind(), setup.name(), setup.settings(), setup.tiles());
    return ofJob(jobId, setup.kind());
  }

  @DeleteMapping("/jobs/{jobId}/setups/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void remove(@PathVariable long jobId, @PathVariable long id) {
    if (mapper.delete(jobId, id) == 0) {
      throw Conflict.notFound("setup", id);
    }
  }

  /** Settings as a file to keep. */
  @PostMapping("/settings-file/write")
  ResponseEntity<String> write(@RequestBody NewSetup setup) {
    return ResponseEntity.ok()
        .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"settings.json\"")
        .contentType(MediaType.APPLICATION_JSON)
        .body(file.write(setup.kind(), setup.settings(), setup.tiles()));
  }

  /** Reads a file; refuses another version, an unknown word, or nonsense, with the field named. */
  @PostMapping(value = "/settings-file/read", consumes = MediaType.TEXT_PLAIN_VALUE)
  SettingsFile.Content read(@RequestBody String text) {
    return file.read(text);
  }
}
