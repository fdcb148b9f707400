package rovnik.server.demo;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.List;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.stereotype.Component;
import rovnik.core.path.ElementKind;
import rovnik.instruments.InstrumentKind;
import rovnik.server.bench.BenchService;
import rovnik.server.bench.InstrumentDto;
import rovnik.server.config.ServerSettings;
import rovnik.server.jobs.JobDto;
import rovnik.server.jobs.JobService;
import rovnik.server.jobs.LimitsDto;
import rovnik.server.jobs.PathDto;
import rovnik.server.jobs.PathElementDto;
import rovnik.server.networks.NetworkService;

/** Fills an empty database with the invented harbour's bench and the buoy's yearly check. */
@Component
@ConditionalOnProperty("rovnik.demo")
class DemoData implements ApplicationRunner {
  private static final String LOOPBACK = "127.0.0.1";
  private final BenchService bench;
  private final JobService jobs;
  private final NetworkService networks;
  private final ServerSettings settings;

  DemoData(BenchService bench, JobService jobs, NetworkService networks, ServerSettings settings) {
    this.bench = bench;
    this.jobs = jobs;
    this.networks = networks;
    this.settings = settings;
  }

  @Override
  public void run(ApplicationArguments args) {
    int port = settings.standinBasePort();
    if (!bench.all().isEmpty() || !jobs.all().isEmpty()) {
      moveStandins(port);
      return;
    }
    InstrumentDto receiver =
        bench.add("Receiver", InstrumentKind.IQ_RECEIVER, LOOPBACK, port, "scpi-iq", true);
    InstrumentDto buoy =
        bench.add("Buoy TX", InstrumentKind.SIGNAL_SOURCE, LOOPBACK, port + 1, "scpi-source", true);
    bench.add("Pad switch", InstrumentKind.STEP_ATTENUATOR, LOOPBACK, port + 2, "scpi-pad", true);
    bench.add(
        "Swept analyzer", InstrumentKind.SWEPT_ANALYZER, LOOPBACK, port + 3, "scpi-sweep", true);
    InstrumentDto two =
        bench.add(
            "Two-input receiver",
            InstrumentKind.IQ_RECEIVER,
            LOOPBACK,
            port + 4,
            "scpi-iq-two",
            true);
    InstrumentDto noise =
        bench.add(
            "Noise source", InstrumentKind.NOISE_SOURCE, LOOPBACK, port + 5, "scpi-noise", true);
    bench.add(
        "Part behind the noise source",
        InstrumentKind.PART_HOLDER,
        LOOPBACK,
        port + 6,
        "scpi-parts",
        true);
    parts();
    yearlyCheck(receiver, buoy);
    preamplifier(two, noise);
  }

  /** Parts of the harbour as files, so that the Network area has something to show. */
  private void parts() {
    for (String name :
        List.of(
            "feeder.s2p",
            "cavity-filter.s2p",
            "shore-preamplifier.s2p",
            "choke-a.s2p",
            "choke-b.s2p")) {
      try (InputStream in = DemoData.class.getResourceAsStream("/demo/" + name)) {
        networks.open(name, in);
      } catch (IOException e) {
        throw new UncheckedIOException(e);
      }
    }
  }

  private void yearlyCheck(InstrumentDto receiver, InstrumentDto buoy) {
    JobDto job = jobs.create("Outer buoy, yearly check", "Outer buoy transmitter");
    jobs.saveLimits(job.id(), new LimitsDto(458.525e6, 2.5, 27.0, 3.0, 0.5));
    jobs.savePath(
        job.id(),
        new PathDto(
            List.of(
                element("Buoy TX", ElementKind.SOURCE, 0.0, 0, null, null, 20.0, 27.0, buoy.id()),
                element("Pad 30 dB", ElementKind.PAD, -30.0, 0.3, 37.0, 40.0, 26.0, null, null),
                element("Feeder 6 m", ElementKind.CABLE, -1.2, 0.2, null, null, 24.0, null, null),
                element(
                    "Receiver IN",
                    ElementKind.PORT,
                    0.0,
                    0,
                    10.0,
                    20.0,
                    18.0,
                    null,
                    receiver.id())),
            0,
            0));
  }

  /** The shore preamplifier between a noise source and the receiver with two inputs. */
  private void preamplifier(InstrumentDto two, InstrumentDto noise) {
    JobDto job = jobs.create("Shore preamplifier, noise figure", "Shore preamplifier");
    jobs.savePath(
        job.id(),
        new PathDto(
            List.of(
                element(
                    "Noise source",
                    ElementKind.SOURCE,
                    0.0,
                    0,
                    null,
                    null,
                    30.0,
                    -60.0,
                    noise.id()),
                element("Preamplifier", ElementKind.DUT, 19.5, 0.5, 10.0, 20.0, 14.0, null, null),
                element("Input 1", ElementKind.PORT, 0.0, 0, 10.0, 20.0, 18.0, null, two.id())),
            0,
            0));
  }

  /** The demo's stand-ins may sit on other ports than last time. */
  private void moveStandins(int port) {
    for (InstrumentDto i : bench.all()) {
      switch (i.name()) {
        case "Receiver" -> bench.moveTo(i.id(), LOOPBACK, port);
        case "Buoy TX" -> bench.moveTo(i.id(), LOOPBACK, port + 1);
        case "Swept analyzer" -> bench.moveTo(i.id(), LOOPBACK, port + 3);
        case "Two-input receiver" -> bench.moveTo(i.id(), LOOPBACK, port + 4);
        case "Noise source" -> bench.moveTo(i.id(), LOOPBACK, port + 5);
        case "Part behind the noise source" -> bench.moveTo(i.id(), LOOPBACK, port + 6);
        case "Pad switch" -> bench.moveTo(i.id(), LOOPBACK, port + 2);
        default -> {
          // an instrument of the user's
        }
      }
    }
  }

  private static PathElementDto element(
      String name,
      ElementKind kind,
      double gainDb,
      double toleranceDb,
      Double highestDbm,
      Double damageDbm,
      Double returnLossDb,
      Double outputDbm,
      Long instrument) {
    return new PathElementDto(
        name,
        kind,
        "number",
        gainDb,
        "",
        null,
        toleranceDb,
        highestDbm,
        damageDbm,
        kind != ElementKind.PORT,
        returnLossDb,
        outputDbm,
        instrument,
        null);
  }
}
