package rovnik.server.live;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import rovnik.core.Refusal;
import rovnik.server.bench.BenchService;
import rovnik.server.bench.InstrumentDto;

/** Switches whatever can be switched on an instrument. */
@RestController
class ControlController {
  private final Sessions sessions;
  private final BenchService bench;

  ControlController(Sessions sessions, BenchService bench) {
    this.sessions = sessions;
    this.bench = bench;
  }

  /**
   * What to switch.
   *
   * @param values what each control shall be by its id, such as {"output": "on"}
   * @param jobId the job that the instrument works for; null for those that are measured now
   * @param overrideReason why power shall flow although the level plan says no
   */
  @Schema(name = "ControlChange")
  record Change(
      Map<String, String> values, @Nullable Long jobId, @Nullable String overrideReason) {}

  @PutMapping("/api/instruments/{id}/controls")
  InstrumentDto set(@PathVariable long id, Client client, @RequestBody Change change) {
    if (change.values() == null || change.values().isEmpty()) {
      throw new Refusal("values", "Say what to switch, for example {\"output\": \"on\"}.");
    }
    sessions.control(id, change.values(), change.jobId(), change.overrideReason(), client);
    return bench.one(id);
  }
}
