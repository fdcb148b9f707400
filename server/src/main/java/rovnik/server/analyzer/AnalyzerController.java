package rovnik.server.analyzer;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
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
import rovnik.server.live.SharedSource.Client;
import rovnik.server.networks.JobNetwork;
import rovnik.server.networks.NetworkDto;
import rovnik.server.networks.NetworkView;
import rovnik.server.networks.NetworkViewDto;
import rovnik.server.runs.RunDtos;

/** Network analyzers over REST: sweep, calibrate, verify, keep. */
@RestController
@RequestMapping("/api/analyzers/{id}")
class AnalyzerController {
  private final AnalyzerHub hub;
  private final AnalyzerWork work;

  AnalyzerController(AnalyzerHub hub, AnalyzerWork work) {
    this.hub = hub;
    this.work = work;
  }

  @Schema(name = "AnalyzerStart")
  record Start(Long jobId, String overrideReason, Boolean dcChecked, Boolean single) {}

  /** The view, where it is read, and the job whose path leads there; null leaves the job. */
  @Schema(name = "AnalyzerView")
  record View(NetworkViewDto.Request view, Boolean atPart, Long jobId) {}

  /**
   * A calibration to begin.
   *
   * @param files measured standards in place of the kit's, by kind; null for none
   * @param throughSeconds rough delay of an unknown through
   */
  @Schema(name = "CalibrationStart")
  record Begin(
      CalibrationMethod method,
      String kit,
      Map<CalibrationStandard.Kind, Long> files,
      Double throughSeconds) {}

  /**
   * What a step is told.
   *
   * @param partOff true if the user says that the part is off the ports and standards alone are on
   */
  @Schema(name = "StepStart")
  record Step(Boolean partOff) {}

  @Schema(name = "CalibrationName")
  record Name(String name) {}

  @Schema(name = "CalibrationUse")
  record Use(Long calibrationId) {}

  /**
   * What is plugged in to verify: OPEN, SHORT, LOAD, RIPPLE at a port; THROUGH; FILE.
   *
   * @param networkId the file of the known part
   */
  @Schema(name = "VerifyRequest")
  record Verify(String what, int port, Long networkId) {}

  /** What a verification says. */
  @Schema(name = "VerifyReply")
  record Verified(double worst, Double transmissionDb, boolean good, String words) {
    static Verified of(CalibrationCheck.Verdict v) {
      return new Verified(
          v.worst(),
          Double.isNaN(v.transmissionDb()) ? null : v.transmissionDb(),
          v.good(),
          v.words());
    }
  }

  @Schema(name = "FixtureStep")
  record FixtureStep(boolean empty) {}

  private AnalyzerSession held(long id, Client client) {
    AnalyzerSession s = hub.session(id);
    s.require(client);
    return s;
  }

  /** What only the holder may do. */
  private AnalyzerState held(long id, Client client, Consumer<AnalyzerSession> act) {
    AnalyzerSession s = held(id, client);
    act.accept(s);
    return s.state();
  }

  @GetMapping
  AnalyzerState state(@PathVariable long id) {
    return hub.session(id).state();
  }

  @PutMapping("/sweep")
  AnalyzerState sweep(@PathVariable long id, Client client, @RequestBody SweepDto sweep) {
    return held(id, client, s -> s.apply(sweep.toCore()));
  }

  @PutMapping("/view")
  AnalyzerState view(@PathVariable long id, Client client, @RequestBody View view) {
    AnalyzerSession s = held(id, client);
    NetworkView.check(view.view());
    s.view(view.view(), !Boolean.FALSE.equals(view.atPart()), view.jobId());
    return s.state();
  }

  @PostMapping("/start")
  AnalyzerState start(@PathVariable long id, Client client, @RequestBody Start start) {
    return held(
        id,
        client,
        s ->
            s.start(
                start.jobId(),
                start.overrideReason(),
                Boolean.TRUE.equals(start.dcChecked()),
                Boolean.TRUE.equals(start.single())));
  }

  @PostMapping("/hold")
  AnalyzerState hold(@PathVariable long id, Client client) {
    return held(id, client, AnalyzerSession::hold);
  }

  @PostMapping("/take-over")
  AnalyzerState takeOver(@PathVariable long id, Client client) {
    AnalyzerSession s = hub.session(id);
    s.takeOver(client);
    return s.state();
  }

  /** The newest sweep as the view shows it, for scripts. */
  @GetMapping("/network")
  NetworkViewDto.Shown network(@PathVariable long id) {
    return hub.session(id).newest();
  }

  /** Begins a calibration with the sweep as it is set. */
  @PostMapping("/calibration")
  AnalyzerState calibrate(@PathVariable long id, Client client, @RequestBody Begin begin) {
    return held(id, client, s -> work.begin(s, begin));
  }

  /** Measures a step; whether it was taken is in the state when the sweep is through. */
  @PostMapping("/calibration/steps/{step}")
  @ResponseStatus(HttpStatus.ACCEPTED)
  AnalyzerState measure(
      @PathVariable long id,
      Client client,
      @PathVariable CalibrationStep step,
      @RequestBody(required = false) Step said) {
    return held(
        id, client, s -> s.measure(step, said != null && Boolean.TRUE.equals(said.partOff())));
  }

  /** Keeps the calibration and uses it. */
  @PostMapping("/calibration/finish")
  @ResponseStatus(HttpStatus.CREATED)
  CalibrationDto finish(@PathVariable long id, Client client, @RequestBody Name name) {
    return work.finish(held(id, client), name.name());
  }

  @DeleteMapping("/calibration")
  AnalyzerState drop(@PathVariable long id, Client client) {
    return held(id, client, AnalyzerSession::dropWork);
  }

  @PutMapping("/calibration/use")
  AnalyzerState use(@PathVariable long id, Client client, @RequestBody Use use) {
    return held(id, client, s -> work.use(s, use.calibrationId()));
  }

  /** Judges the calibration by the part that is plugged in, from the newest sweep. */
  @PostMapping("/verify")
  Verified verify(@PathVariable long id, @RequestBody Verify v) {
    return Verified.of(work.verify(hub.session(id), v));
  }

  /** Takes the newest sweep as the job's fixture, empty or shorted. */
  @PostMapping("/fixture")
  JobNetwork fixture(@PathVariable long id, @RequestBody FixtureStep step) {
    return work.fixture(hub.session(id), step.empty());
  }

  /** Stores the newest sweep as a file to compare with. */
  @PostMapping("/remember")
  @ResponseStatus(HttpStatus.CREATED)
  NetworkDto remember(@PathVariable long id, @RequestBody Name name) {
    return work.remember(hub.session(id), name.name());
  }

  /** Keeps the newest sweep as a run of the job. */
  @PostMapping("/keep")
  @ResponseStatus(HttpStatus.CREATED)
  RunDtos.Summary keep(@PathVariable long id, @RequestBody Name name) {
    return work.keep(hub.session(id), name.name());
  }

  /** The port extension that turns the open or short that is measured into one at the plane. */
  @GetMapping("/extension")
  NetworkViewDto.Extension extension(@PathVariable long id, @RequestParam int port) {
    return NetworkView.extension(hub.session(id).look().shown(), port);
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
