package rovnik.server.analyzer;

import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.springframework.stereotype.Service;
import rovnik.core.Refusal;
import rovnik.core.emission.EmissionResult;
import rovnik.core.emission.ViewPlan;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Reading;
import rovnik.core.limits.Verdict;
import rovnik.core.network.CalibrationCheck;
import rovnik.core.network.CalibrationKit;
import rovnik.core.network.CalibrationStandard.Kind;
import rovnik.core.network.FixtureWindow;
import rovnik.core.network.KeptCalibration;
import rovnik.core.network.KeptCalibration.Trust;
import rovnik.core.network.KnownReflection;
import rovnik.core.network.NetworkData;
import rovnik.core.network.NetworkFigures;
import rovnik.core.network.NetworkLimit;
import rovnik.core.network.Residuals;
import rovnik.core.network.SweepSettings;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.Detector;
import rovnik.core.spectrum.SpectrumResult;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.spectrum.Trace;
import rovnik.core.units.Frequency;
import rovnik.server.bench.BenchService;
import rovnik.server.config.Conflict;
import rovnik.server.jobs.JobService;
import rovnik.server.networks.JobNetwork;
import rovnik.server.networks.JobNetworks;
import rovnik.server.networks.NetworkDto;
import rovnik.server.networks.NetworkService;
import rovnik.server.networks.NetworkViewDto;
import rovnik.server.runs.KeptLook;
import rovnik.server.runs.RunDtos;
import rovnik.server.runs.RunService;

/** What is done with the newest sweep: calibrations, verification, fixture, runs. */
@Service
class AnalyzerWork {
  /** A sweep with uneven points is drawn on this many even ones in its run's picture. */
  private static final int MOST_EVEN = 4001;

  private final KitLibrary kits;
  private final CalibrationStore store;
  private final NetworkService networks;
  private final JobNetworks jobNetworks;
  private final JobService jobs;
  private final BenchService bench;
  private final RunService runs;

  AnalyzerWork(
      KitLibrary kits,
      CalibrationStore store,
      NetworkService networks,
      JobNetworks jobNetworks,
      JobService jobs,
      BenchService bench,
      RunService runs) {
    this.kits = kits;
    this.store = store;
    this.networks = networks;
    this.jobNetworks = jobNetworks;
    this.jobs = jobs;
    this.bench = bench;
    this.runs = runs;
  }

  void begin(AnalyzerSession s, AnalyzerController.Begin b) {
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

  CalibrationDto finish(AnalyzerSession s, String name) {
    String given =
        name == null || name.isBlank()
            ? "Calibration of "
                + OffsetDateTime.now(ZoneOffset.UTC)
                    .format(DateTimeFormatter.ofPattern("d MMM HH:mm", Locale.ENGLISH))
            : name.strip();
    return store.dto(s.finish(given, store).id());
  }

  void use(AnalyzerSession s, Long id) {
    if (id == null) {
      s.use(null, 0);
      return;
    }
    Double verified = store.verified(id);
    s.use(store.find(id), verified == null ? 0 : verified);
  }

  CalibrationCheck.Verdict verify(AnalyzerSession s, AnalyzerController.Verify v) {
    KeptCalibration c = s.calibration();
    if (c == null) {
      throw Conflict.state("No calibration is used: there is nothing to verify.");
    }
    NetworkData n = s.look().atPlane();
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

  private long job(AnalyzerSession s) {
    if (s.jobId() == null) {
      throw Conflict.state("Choose a job first: what is kept belongs to one.");
    }
    return s.jobId();
  }

  JobNetwork fixture(AnalyzerSession s, boolean empty) {
    NetworkData n = s.look().atPlane();
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

  NetworkDto remember(AnalyzerSession s, String name) {
    String given =
        name == null || name.isBlank()
            ? "Memory "
                + (networks.all().stream().filter(f -> f.name().startsWith("Memory ")).count() + 1)
            : name.strip();
    return networks.keep(given, s.look().shown(), comment(s));
  }

  private static String comment(AnalyzerSession s) {
    SweepPicture.Look l = s.look();
    return "measured at " + l.plane() + ", " + l.state().trust().label();
  }

  /** The run with its network, which can be opened like any file. */
  RunDtos.Summary keep(AnalyzerSession s, String wantedName) {
    SweepPicture.Look look = s.look();
    long job = job(s);
    SweepSettings sweep = s.settings();
    String name = wantedName == null || wantedName.isBlank() ? "" : wantedName.strip();
    NetworkDto file =
        networks.keep(
            name.isEmpty() ? "Run of " + jobs.find(job).dut() : name, look.shown(), comment(s));
    List<KeptLook.Row> rows = new ArrayList<>();
    NetworkData n = look.shown();
    for (int row = 1; row <= n.ports(); row++) {
      for (int column = 1; column <= n.ports(); column++) {
        rows.add(
            new KeptLook.Row(
                NetworkData.name(row, column), trace(n, row, column, sweep, look.plane())));
      }
    }
    int main = n.ports() == 1 ? 0 : 2; // S21 of a two-port
    Trace first = rows.remove(main).trace();
    KeptLook kept =
        new KeptLook(
            jobs.find(job),
            new SpectrumSettings(
                (sweep.lowestHz() + sweep.highestHz()) / 2,
                sweep.highestHz() - sweep.lowestHz(),
                0,
                Window.HANN,
                Detector.SAMPLE,
                Math.max(1, sweep.averages()),
                sweep.powerDbm(),
                1e3),
            ViewPlan.PLAIN,
            new EmissionResult(
                new SpectrumResult(first, List.of(), readings(s, look, job)), List.of(), List.of()),
            rows,
            null,
            null,
            conditions(s, look),
            s.state().sourceName(),
            identity(s),
            s.overrideReason());
    return runs.keep(kept, name, file.id());
  }

  private String identity(AnalyzerSession s) {
    return bench.one(Long.parseLong(s.state().source().substring(1))).identity();
  }

  private static Trace trace(
      NetworkData n, int row, int column, SweepSettings sweep, String plane) {
    double[] hz = n.frequencyHz();
    boolean even = sweep.type() == SweepSettings.Type.LINEAR;
    int points = even ? hz.length : Math.min(MOST_EVEN, Math.max(2, hz.length));
    double step = (hz[hz.length - 1] - hz[0]) / (points - 1);
    float[] level = new float[points];
    int i = 0;
    for (int p = 0; p < points; p++) {
      double at = hz[0] + p * step;
      while (i < hz.length - 2 && hz[i + 1] < at) {
        i++;
      }
      double a = n.magnitudeDb(i, row, column);
      double b = n.magnitudeDb(Math.min(i + 1, hz.length - 1), row, column);
      double share = Math.min(1, Math.max(0, (at - hz[i]) / (hz[i + 1] - hz[i])));
      level[p] = (float) Math.max(-300, a + share * (b - a));
    }
    return new Trace(
        hz[0],
        step,
        level,
        "dB",
        plane,
        sweep.bandwidthHz(),
        sweep.bandwidthHz(),
        sweep.averages(),
        "none",
        NetworkData.name(row, column));
  }

  private List<Reading> readings(AnalyzerSession s, SweepPicture.Look look, long job) {
    NetworkData n = look.shown();
    Residuals trust = s.residuals(look.state());
    List<Reading> all = new ArrayList<>();
    for (NetworkViewDto.LimitDto l : jobNetworks.find(job).limits()) {
      NetworkLimit.Outcome o = l.toCore().of(n, trust, look.invalid());
      double bound = Double.isNaN(o.atHz()) ? Double.NaN : o.limit().valueAt(o.atHz());
      all.add(
          new Reading(
              "limit" + all.size(),
              o.limit().name(),
              o.worst(),
              o.limit().format().unit(),
              look.plane(),
              Double.NaN,
              List.of(),
              new Limit(l.upper() ? Double.NaN : bound, l.upper() ? bound : Double.NaN),
              o.verdict(),
              look.marks()));
    }
    List<NetworkViewDto.Band> bands = new ArrayList<>(jobNetworks.find(job).bands());
    if (bands.isEmpty()) {
      bands.add(new NetworkViewDto.Band("sweep", 0, Double.MAX_VALUE));
    }
    for (NetworkViewDto.Band b : bands) {
      try {
        for (NetworkFigures.Figure f : NetworkFigures.of(n, b.fromHz(), b.toHz())) {
          double u = NetworkFigures.uncertainty(f, n, trust);
          all.add(
              new Reading(
                  b.name() + "." + f.id(),
                  f.label() + (bands.size() > 1 ? ", " + b.name() : ""),
                  f.value(),
                  f.unit(),
                  look.plane(),
                  u,
                  List.of(),
                  new Limit(Double.NaN, Double.NaN),
                  Verdict.NONE,
                  look.state().trust() == Trust.VALID ? look.marks() : marks(look)));
        }
      } catch (Refusal outside) {
        // The sweep does not reach this band: it has no readings.
      }
    }
    return all;
  }

  private static List<String> marks(SweepPicture.Look look) {
    List<String> marks = new ArrayList<>(look.marks());
    marks.add(look.state().trust().label());
    return marks;
  }

  private Map<String, String> conditions(AnalyzerSession s, SweepPicture.Look look) {
    SweepSettings w = s.settings();
    KeptCalibration c = s.calibration();
    Map<String, String> words = new LinkedHashMap<>(bench.conditions());
    words.put(
        "sweep",
        w.frequencies().length
            + " points "
            + w.type().name().toLowerCase(Locale.ROOT)
            + ", "
            + Frequency.ofHertz(w.lowestHz())
            + " to "
            + Frequency.ofHertz(w.highestHz()));
    words.put("IF bandwidth", Frequency.ofHertz(w.bandwidthHz()).toString());
    words.put("port power", String.format(Locale.ROOT, "%+.1f dBm", w.powerDbm()));
    words.put("port 2 sends", w.bothPorts() ? "yes" : "no");
    words.put("calibration", c == null ? "none" : c.name() + ", " + c.method().label());
    words.put("trust", look.state().trust().label());
    return words;
  }
}
