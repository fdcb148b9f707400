package rovnik.server.analyzer;

import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.EnumMap;
import java.util.Locale;
import java.util.Map;
import org.springframework.stereotype.Service;
import rovnik.core.Refusal;
import rovnik.core.network.CalibrationCheck;
import rovnik.core.network.CalibrationKit;
import rovnik.core.network.CalibrationStandard.Kind;
import rovnik.core.network.FixtureWindow;
import rovnik.core.network.KeptCalibration;
import rovnik.core.network.KnownReflection;
import rovnik.core.network.NetworkData;
import rovnik.server.config.Conflict;
import rovnik.server.networks.NetworkDto;
import rovnik.server.networks.NetworkService;

/** What is done with the newest sweep: calibrations, verification, fixture, memory. */
@Service
class AnalyzerWork {
  /** A residual of a reflection beyond which another part is plugged in than was said. */
  private static final double NO_SUCH_PART = 0.3;

  private final KitLibrary kits;
  private final CalibrationStore store;
  private final NetworkService networks;
  private final JobNetworks jobNetworks;

  AnalyzerWork(
      KitLibrary kits, CalibrationStore store, NetworkService networks, JobNetworks jobNetworks) {
    this.kits = kits;
    this.store = store;
    this.networks = networks;
    this.jobNetworks = jobNetworks;
  }

  void begin(NetworkMeasuring s, AnalyzerController.Begin b) {
    if (b.method() == null) {
      throw new Refusal("method", "Say how to calibrate, such as TWO_PORT.");
    }
    CalibrationKit kit = kits.find(b.kit() == null ? "ideal" : b.kit());
    if (b.files() != null && !b.files().isEmpty()) {
      Map<Kind, KnownReflection> standards = new EnumMap<>(kit.standards());
      b.files()
          .forEach((k, file) -> standards.put(k, KnownReflection.measured(k, networks.data(file))));
      kit =
          new CalibrationKit(
              kit.id(),
              kit.label() + " with measured standards",
              standards,
              kit.throughSeconds(),
              kit.throughLossOhmPerSecond());
    }
    s.calibrate(b.method(), kit, b.throughSeconds() == null ? 0 : b.throughSeconds());
  }

  CalibrationDto finish(NetworkMeasuring s, String name) {
    String given =
        name == null || name.isBlank()
            ? "Calibration of "
                + OffsetDateTime.now(ZoneOffset.UTC)
                    .format(DateTimeFormatter.ofPattern("d MMM HH:mm", Locale.ENGLISH))
            : name.strip();
    return store.dto(s.finish(given, store).id());
  }

  void use(NetworkMeasuring s, Long id) {
    if (id == null) {
      s.use(null, 0);
      return;
    }
    Double verified = store.verified(id);
    s.use(store.find(id), verified == null ? 0 : verified);
  }

  CalibrationCheck.Verdict verify(NetworkMeasuring s, AnalyzerController.Verify v) {
    KeptCalibration c = s.calibration();
    if (c == null) {
      throw Conflict.state("No calibration is used: there is nothing to verify.");
    }
    NetworkData n = look(s).atPlane();
    if (v.port() < 0 || v.port() > n.ports()) {
      throw new Refusal("port", "The calibration has no port " + v.port() + ".");
    }
    CalibrationCheck.Verdict verdict =
        switch (v.what() == null ? "" : v.what()) {
          case "OPEN", "SHORT", "LOAD" ->
              CalibrationCheck.reflection(n, v.port(), standard(c, Kind.valueOf(v.what())));
          case "RIPPLE" -> CalibrationCheck.ofRipple(n, v.port());
          case "THROUGH" ->
              CalibrationCheck.transmission(n, CalibrationKit.ideal().through(n.frequencyHz()));
          case "FILE" -> {
            if (v.networkId() == null) {
              throw new Refusal("networkId", "Choose the file of the known part.");
            }
            yield CalibrationCheck.transmission(n, networks.data(v.networkId()));
          }
          default ->
              throw new Refusal("what", "Verify with OPEN, SHORT, LOAD, RIPPLE, THROUGH or FILE.");
        };
    if (verdict.worst() > NO_SUCH_PART) {
      throw new Refusal(
          "what",
          String.format(
              Locale.ROOT,
              "This does not look like the part that was named: it is off by %.2f, more than any"
                  + " calibration drifts. Nothing was changed. Plug that part in, or calibrate anew.",
              verdict.worst()));
    }
    store.verified(c.id(), verdict.worst());
    s.verified(verdict.worst());
    return verdict;
  }

  private KnownReflection standard(KeptCalibration c, Kind kind) {
    return kits.all().stream()
        .filter(k -> c.kit().startsWith(k.label()))
        .findFirst()
        .orElse(CalibrationKit.ideal())
        .standards()
        .get(kind);
  }

  static NetworkLook look(NetworkMeasuring s) {
    return (NetworkLook) s.session().look();
  }

  private long job(NetworkMeasuring s) {
    Long job = s.session().jobId();
    if (job == null) {
      throw Conflict.named("jobId", "Choose a job first: what is kept belongs to one.");
    }
    return job;
  }

  JobNetwork fixture(NetworkMeasuring s, boolean empty) {
    NetworkData n = look(s).atPlane();
    long job = job(s);
    if (n.ports() != 2) {
      throw Conflict.state("A fixture needs both ports. Use a calibration of both.");
    }
    String trouble = FixtureWindow.trouble(n, empty);
    if (!trouble.isEmpty()) {
      throw new Refusal("fixture", trouble);
    }
    NetworkDto file = networks.keep(empty ? "Fixture, empty" : "Fixture, shorted", n, comment(s));
    return jobNetworks.save(job, jobNetworks.find(job).withFixture(empty, file.id()));
  }

  NetworkDto remember(NetworkMeasuring s, String name) {
    String given =
        name == null || name.isBlank()
            ? "Memory "
                + (networks.all().stream().filter(f -> f.name().startsWith("Memory ")).count() + 1)
                + (s.subject().isEmpty() ? "" : ", " + s.subject())
            : name.strip();
    return networks.keep(given, look(s).network(), comment(s));
  }

  private static String comment(NetworkMeasuring s) {
    NetworkLook l = look(s);
    return "measured at " + l.plane() + ", " + l.state().trust().label();
  }
}
