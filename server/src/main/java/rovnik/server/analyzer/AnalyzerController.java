package rovnik.server.analyzer;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import rovnik.core.network.CalibrationCheck;
import rovnik.core.network.CalibrationKit;
import rovnik.core.network.CalibrationMethod;
import rovnik.core.network.CalibrationStandard;
import rovnik.core.network.CalibrationStep;
import rovnik.server.live.Client;
import rovnik.server.live.SessionState;
import rovnik.server.live.Sessions;
import rovnik.server.networks.NetworkDto;
import rovnik.server.networks.NetworkOutcome;
import rovnik.server.networks.NetworkView;
import rovnik.server.networks.NetworkViewDto;
import rovnik.server.results.Nulls;

/**
 * What a network analyzer has beside any measurement: calibration, verification, fixture, memory.
 */
@RestController
@RequestMapping("/api/live/{source}/network")
class AnalyzerController {
  private final Sessions sessions;
  private final AnalyzerWork work;

  AnalyzerController(Sessions sessions, AnalyzerWork work) {
    this.sessions = sessions;
    this.work = work;
  }

  /**
   * A calibration to begin.
   *
   * @param kit of standards; null for ideal ones
   * @param files measured standards in place of the kit's, by kind; null for none
   * @param throughSeconds rough delay of an unknown through
   */
  @Schema(name = "CalibrationStart")
  record Begin(
      CalibrationMethod method,
      @Nullable String kit,
      @Nullable Map<CalibrationStandard.Kind, Long> files,
      @Nullable Double throughSeconds) {}

  /**
   * What a step is told.
   *
   * @param partOff true if the user says that the part is off the ports and standards alone are on
   */
  @Schema(name = "StepStart")
  record Step(@Nullable Boolean partOff) {}

  @Schema(name = "CalibrationName")
  record Name(@Nullable String name) {}

  /** The calibration to use, null for none. */
  @Schema(name = "CalibrationUse")
  record Use(@Nullable Long calibrationId) {}

  /**
   * What is plugged in to verify: OPEN, SHORT, LOAD, RIPPLE at a port; THROUGH; FILE.
   *
   * @param networkId the file of the known part
   */
  @Schema(name = "VerifyRequest")
  record Verify(String what, int port, @Nullable Long networkId) {}

  /** What a verification says. */
  @Schema(name = "VerifyReply")
  record Verified(double worst, @Nullable Double transmissionDb, boolean good, String words) {
    static Verified of(CalibrationCheck.Verdict v) {
      return new Verified(v.worst(), Nulls.orNull(v.transmissionDb()), v.good(), v.words());
    }
  }

  @Schema(name = "FixtureStep")
  record FixtureStep(boolean empty) {}

  private NetworkMeasuring measuring(String source) {
    return (NetworkMeasuring) sessions.session(source, NetworkOutcome.KIND).measuring();
  }

  private NetworkMeasuring held(String source, Client client) {
    NetworkMeasuring m = measuring(source);
    m.session().require(client);
    return m;
  }

  /** Begins a calibration with the sweep as it is set. */
  @PostMapping("/calibration")
  SessionState calibrate(@PathVariable String source, Client client, @RequestBody Begin begin) {
    NetworkMeasuring m = held(source, client);
    work.begin(m, begin);
    return m.session().state();
  }

  /** Measures a step; whether it was taken is in the state when the sweep is through. */
  @PostMapping("/calibration/steps/{step}")
  @ResponseStatus(HttpStatus.ACCEPTED)
  SessionState measure(
      @PathVariable String source,
      Client client,
      @PathVariable CalibrationStep step,
      @RequestBody(required = false) @Nullable Step said) {
    NetworkMeasuring m = held(source, client);
    m.measure(step, said != null && Boolean.TRUE.equals(said.partOff()));
    return m.session().state();
  }

  /** Keeps the calibration and uses it. */
  @PostMapping("/calibration/finish")
  @ResponseStatus(HttpStatus.CREATED)
  CalibrationDto finish(@PathVariable String source, Client client, @RequestBody Name name) {
    return work.finish(held(source, client), name.name());
  }

  @DeleteMapping("/calibration")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void drop(@PathVariable String source, Client client) {
    held(source, client).dropWork();
  }

  @PutMapping("/calibration/use")
  SessionState use(@PathVariable String source, Client client, @RequestBody Use use) {
    NetworkMeasuring m = held(source, client);
    work.use(m, use.calibrationId());
    return m.session().state();
  }

  /** Judges the calibration by the part that is plugged in, from the newest sweep. */
  @PostMapping("/verify")
  Verified verify(@PathVariable String source, Client client, @RequestBody Verify v) {
    return Verified.of(work.verify(held(source, client), v));
  }

  /** Takes the newest sweep as the job's fixture, empty or shorted. */
  @PostMapping("/fixture")
  JobNetwork fixture(@PathVariable String source, Client client, @RequestBody FixtureStep step) {
    return work.fixture(held(source, client), step.empty());
  }

  /** Stores the newest sweep as a file to compare with. */
  @PostMapping("/remember")
  @ResponseStatus(HttpStatus.CREATED)
  NetworkDto remember(@PathVariable String source, @RequestBody Name name) {
    return work.remember(measuring(source), name.name());
  }

  /** The newest sweep as its views show it, with stability, resonance and cable. */
  @GetMapping("/shown")
  NetworkViewDto.Shown shown(@PathVariable String source) {
    return AnalyzerWork.look(measuring(source)).drawn();
  }

  /** The port extension that turns the open or short that is measured into one at the plane. */
  @GetMapping("/extension")
  NetworkViewDto.Extension extension(@PathVariable String source, @RequestParam int port) {
    return NetworkView.extension(AnalyzerWork.look(measuring(source)).network(), port);
  }

  /** A kit as listed. */
  @Schema(name = "CalibrationKit")
  record KitDto(String id, String label) {
    static KitDto of(CalibrationKit k) {
      return new KitDto(k.id(), k.label());
    }
  }

  /** Kits and kept calibrations. */
  @RestController
  @RequestMapping("/api")
  static class Kept {
    private final KitLibrary kits;
    private final CalibrationStore calibrations;

    Kept(KitLibrary kits, CalibrationStore calibrations) {
      this.kits = kits;
      this.calibrations = calibrations;
    }

    @GetMapping("/kits")
    List<KitDto> kits() {
      return kits.all().stream().map(KitDto::of).toList();
    }

    /** Adds a kit from YAML text. */
    @PostMapping(value = "/kits/{id}", consumes = "text/plain")
    @ResponseStatus(HttpStatus.CREATED)
    KitDto add(@PathVariable String id, @RequestBody String yaml) {
      return KitDto.of(kits.add(id, yaml));
    }

    @GetMapping("/calibrations")
    List<CalibrationDto> calibrations() {
      return calibrations.all();
    }

    @DeleteMapping("/calibrations/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable long id) {
      calibrations.remove(id);
    }
  }
}
