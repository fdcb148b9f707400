package rovnik.server.bench;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import rovnik.instruments.InstrumentKind;
import rovnik.server.jobs.JobDto;
import rovnik.server.jobs.JobService;
import rovnik.server.jobs.LevelPlanDto;
import rovnik.server.networks.NetworkService;

@RestController
@RequestMapping("/api")
class BenchController {
  private final BenchService bench;
  private final JobService jobs;

  private final NetworkService networks;

  BenchController(BenchService bench, JobService jobs, NetworkService networks) {
    this.networks = networks;
    this.bench = bench;
    this.jobs = jobs;
  }

  record NewInstrument(
      String name, InstrumentKind kind, String host, int port, String dialect, boolean connect) {}

  /** An address to ask. */
  @Schema(name = "InstrumentAddress")
  record Address(String host, int port) {}

  record PartFile(long networkId) {}

  record Identity(String identity) {}

  record Errors(List<String> errors) {}

  @GetMapping("/instruments")
  List<InstrumentDto> all() {
    return bench.all();
  }

  /** Kinds that can be added, each with its dialects. */
  @GetMapping("/instrument-kinds")
  List<KindDto> kinds() {
    return bench.kinds();
  }

  /** Asks an address who answers there, and proposes kind and dialect. */
  @PostMapping("/instruments/find")
  FoundDto find(@RequestBody Address at) {
    return bench.findAt(at.host(), at.port());
  }

  @PostMapping("/instruments")
  @ResponseStatus(HttpStatus.CREATED)
  InstrumentDto add(@RequestBody NewInstrument n) {
    return bench.add(n.name(), n.kind(), n.host(), n.port(), n.dialect(), n.connect());
  }

  @DeleteMapping("/instruments/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void remove(@PathVariable long id) {
    bench.remove(id);
  }

  @PostMapping("/instruments/{id}/connect")
  InstrumentDto connect(@PathVariable long id) {
    return bench.setConnected(id, true);
  }

  @PostMapping("/instruments/{id}/disconnect")
  InstrumentDto disconnect(@PathVariable long id) {
    return bench.setConnected(id, false);
  }

  @PostMapping("/instruments/{id}/identify")
  Identity identify(@PathVariable long id) {
    return new Identity(bench.identify(id));
  }

  @PostMapping("/instruments/{id}/reset")
  InstrumentDto reset(@PathVariable long id) {
    return bench.reset(id);
  }

  /** What the instrument has reported; reading its queue empties it. */
  @PostMapping("/instruments/{id}/errors")
  Errors errors(@PathVariable long id) {
    return new Errors(bench.errors(id));
  }

  /** Makes a Touchstone file a part that can be plugged in; stand-ins alone can do that. */
  @PostMapping("/instruments/{id}/load")
  InstrumentDto load(@PathVariable long id, @RequestBody PartFile c) {
    return bench.loadPart(
        id,
        networks.find(c.networkId()).name().replaceFirst("\\.\\w+$", ""),
        networks.data(c.networkId()));
  }

  @GetMapping("/jobs/{id}/level-plan")
  LevelPlanDto levelPlan(@PathVariable long id) {
    JobDto job = jobs.find(id);
    return jobs.planDto(bench.asItIs(job), bench.sourceLevel(job));
  }
}
