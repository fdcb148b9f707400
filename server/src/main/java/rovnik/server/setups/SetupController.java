package rovnik.server.setups;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
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
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import rovnik.core.Refusal;
import rovnik.server.config.Conflict;
import rovnik.server.jobs.JobService;
import rovnik.server.spectrum.SettingsDto;

/** Named setups of a job, and settings as a file. */
@RestController
@RequestMapping("/api")
class SetupController {
  private final SetupMapper mapper;
  private final JobService jobs;
  private final SettingsFile file;

  SetupController(SetupMapper mapper, JobService jobs, SettingsFile file) {
    this.mapper = mapper;
    this.jobs = jobs;
    this.file = file;
  }

  /** A setup with its settings. */
  @Schema(name = "Setup")
  record Setup(long id, String name, SettingsDto settings) {}

  @Schema(name = "NewSetup")
  record NewSetup(String name, SettingsDto settings) {}

  @GetMapping("/jobs/{jobId}/setups")
  List<Setup> ofJob(@PathVariable long jobId) {
    jobs.find(jobId);
    return mapper.ofJob(jobId).stream()
        .map(r -> new Setup(r.id(), r.name(), file.read(r.settingsJson())))
        .toList();
  }

  /** Keeps settings under a name; the same name again replaces them. */
  @PostMapping("/jobs/{jobId}/setups")
  @ResponseStatus(HttpStatus.CREATED)
  List<Setup> save(@PathVariable long jobId, @RequestBody NewSetup setup) {
    jobs.find(jobId);
    if (setup.name() == null || setup.name().isBlank() || setup.name().length() > 200) {
      throw new Refusal("name", "Give the setup a name of 1 to 200 characters.");
    }
    if (setup.settings() == null) {
      throw new Refusal("settings", "There are no settings to keep.");
    }
    setup.settings().toCore();
    setup.settings().viewToCore();
    mapper.save(jobId, setup.name().strip(), file.write(setup.settings()));
    return ofJob(jobId);
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
  ResponseEntity<String> write(@RequestBody SettingsDto settings) {
    settings.toCore();
    settings.viewToCore();
    return ResponseEntity.ok()
        .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"settings.json\"")
        .contentType(MediaType.APPLICATION_JSON)
        .body(file.write(settings));
  }

  /** Reads a file; refuses another version, an unknown word, or nonsense, with the field named. */
  @PostMapping(value = "/settings-file/read", consumes = MediaType.TEXT_PLAIN_VALUE)
  SettingsDto read(@RequestBody String text) {
    return file.read(text);
  }
}
