package rovnik.server.demo;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import java.util.stream.DoubleStream;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import rovnik.core.modulation.analog.AnalogMeasurement;
import rovnik.core.modulation.analysis.SingleCarrierMeasurement;
import rovnik.core.modulation.ofdm.OfdmMeasurement;
import rovnik.core.network.NetworkFormat;
import rovnik.core.path.ElementKind;
import rovnik.core.receiver.Reception;
import rovnik.instruments.InstrumentKind;
import rovnik.server.analyzer.JobNetwork;
import rovnik.server.analyzer.JobNetworks;
import rovnik.server.bench.BenchService;
import rovnik.server.bench.InstrumentDto;
import rovnik.server.boards.Boards;
import rovnik.server.config.Json;
import rovnik.server.config.ServerSettings;
import rovnik.server.jobs.JobDto;
import rovnik.server.jobs.JobService;
import rovnik.server.jobs.LimitsDto;
import rovnik.server.jobs.PathDto;
import rovnik.server.jobs.PathElementDto;
import rovnik.server.live.Sources;
import rovnik.server.modulation.AnalogSettingsDto;
import rovnik.server.modulation.CarrierDto;
import rovnik.server.modulation.CarrierSettingsDto;
import rovnik.server.modulation.OfdmSettingsDto;
import rovnik.server.networks.NetworkService;
import rovnik.server.networks.NetworkViewDto;
import rovnik.server.networks.NetworkViewDto.Band;
import rovnik.server.receiver.ReceiverSettings;
import rovnik.server.setups.Setups;
import rovnik.server.watch.WatchHistory;

/** Fills an empty database with the invented harbour's bench and the buoy's yearly check. */
@Component
@ConditionalOnProperty("rovnik.demo")
class DemoData implements ApplicationRunner {
  /** Of the buoy receiver, from its data sheet. */
  private static final double BUOY_NOISE_FIGURE_DB = 4.2;

  private static final int GENERATOR_RESULT = 2000;
  private static final String PARTS = "scpi-parts";
  private static final String LOOPBACK = "127.0.0.1";

  /** What the buoy's data sheet says of its frames. */
  private static final String BUOY_WORD =
      "1011001110001111010000101101100100110101111000100110101011000111";

  private static final int BUOY_FRAME = 2048;
  private static final double QUAY_HZ = 5.5e9;

  /** A frame and a word more: a whole word is in each record. */
  private static final int BUOY_RESULT = 2200;

  /** Names of the instruments in the order of their stand-ins' ports. */
  private static final List<String> STANDINS =
      List.of(
          "Receiver",
          "Buoy TX",
          "Pad switch",
          "Swept analyzer",
          "Two-input receiver",
          "Noise source",
          "Part behind the noise source",
          "Network analyzer",
          "Part between the ports",
          "Pad at port 1",
          "Pad at port 2",
          "Vector generator",
          "Second receiver",
          "Second generator",
          "Buoy receiver",
          "Voice radio",
          "Function source",
          "Third receiver",
          "Fast receiver",
          "Input of the fast receiver",
          "Oscilloscope",
          "First probe",
          "Second probe",
          "Place of the probe",
          "Trigger input of the fast receiver",
          "Wide receiver",
          "Input of the wide receiver",
          "Quay link",
          "Packets of the quay link",
          "Trim of the quay link");

  private final BenchService bench;
  private final JobService jobs;
  private final NetworkService networks;
  private final ServerSettings settings;

  private final JobNetworks networkJobs;
  private final TransactionTemplate transaction;
  private final Setups setups;
  private final Json json;
  private final WatchHistory watches;
  private final Boards boards;

  DemoData(
      BenchService bench,
      JobService jobs,
      NetworkService networks,
      JobNetworks networkJobs,
      TransactionTemplate transaction,
      Setups setups,
      Json json,
      WatchHistory watches,
      Boards boards,
      ServerSettings settings) {
    this.watches = watches;
    this.boards = boards;
    this.setups = setups;
    this.json = json;
    this.transaction = transaction;
    this.networkJobs = networkJobs;
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
    // All or nothing: half a demo would stay for good.
    transaction.executeWithoutResult(status -> fill());
  }

  private void fill() {
    InstrumentDto receiver = standin("Receiver", InstrumentKind.IQ_RECEIVER, "scpi-iq");
    InstrumentDto buoy = standin("Buoy TX", InstrumentKind.SIGNAL_SOURCE, "scpi-source");
    standin("Pad switch", InstrumentKind.STEP_ATTENUATOR, "scpi-pad");
    standin("Swept analyzer", InstrumentKind.SWEPT_ANALYZER, "scpi-sweep");
    InstrumentDto two = standin("Two-input receiver", InstrumentKind.IQ_RECEIVER, "scpi-iq-two");
    InstrumentDto noise = standin("Noise source", InstrumentKind.NOISE_SOURCE, "scpi-noise");
    standin("Part behind the noise source", InstrumentKind.PART_HOLDER, PARTS);
    InstrumentDto analyzer =
        standin("Network analyzer", InstrumentKind.NETWORK_ANALYZER, "scpi-network");
    InstrumentDto part = standin("Part between the ports", InstrumentKind.PART_HOLDER, PARTS);
    standin("Pad at port 1", InstrumentKind.PART_HOLDER, PARTS);
    standin("Pad at port 2", InstrumentKind.PART_HOLDER, PARTS);
    InstrumentDto generator =
        standin("Vector generator", InstrumentKind.SIGNAL_GENERATOR, "scpi-generator");
    InstrumentDto second = standin("Second receiver", InstrumentKind.IQ_RECEIVER, "scpi-iq");
    parts();
    yearlyCheck(receiver, buoy);
    preamplifier(two, noise);
    gain(analyzer, part);
    stores(analyzer, part);
    generator("Vector generator, its own errors", generator, second);
    InstrumentDto other =
        standin("Second generator", InstrumentKind.SIGNAL_GENERATOR, "scpi-generator");
    receiving(
        jobs.create("Buoy receiver, sensitivity", "Buoy receiver"),
        458.525e6,
        generator,
        other,
        standin("Buoy receiver", InstrumentKind.TESTED_RECEIVER, "scpi-data-receiver"),
        BUOY_NOISE_FIGURE_DB);
    receiving(
        jobs.create("Voice radio, receiving", "Pilot-boat voice radio"),
        164.2e6,
        generator,
        other,
        standin("Voice radio", InstrumentKind.TESTED_RECEIVER, "scpi-voice-receiver"),
        null);
    oscillator(
        standin("Function source", InstrumentKind.FUNCTION_SOURCE, "scpi-function"),
        standin("Third receiver", InstrumentKind.IQ_RECEIVER, "scpi-iq"));
    InstrumentDto fast = standin("Fast receiver", InstrumentKind.IQ_RECEIVER, "scpi-iq-fast");
    generator("Vector generator, seen by the fast receiver", generator, fast);
    standin("Input of the fast receiver", InstrumentKind.PART_HOLDER, PARTS);
    standin("Oscilloscope", InstrumentKind.OSCILLOSCOPE, "scpi-oscilloscope");
    standin("First probe", InstrumentKind.PART_HOLDER, PARTS);
    standin("Second probe", InstrumentKind.PART_HOLDER, PARTS);
    standin("Place of the probe", InstrumentKind.PART_HOLDER, PARTS);
    standin("Trigger input of the fast receiver", InstrumentKind.PART_HOLDER, PARTS);
    new FieldJobs(jobs, setups, json, boards).make(fast);
    link();
  }

  /** The quay link at the wide receiver. */
  private void link() {
    InstrumentDto wide = standin("Wide receiver", InstrumentKind.IQ_RECEIVER, "scpi-iq-wide");
    standin("Input of the wide receiver", InstrumentKind.PART_HOLDER, PARTS);
    InstrumentDto link = standin("Quay link", InstrumentKind.SIGNAL_SOURCE, "scpi-link");
    standin("Packets of the quay link", InstrumentKind.PART_HOLDER, PARTS);
    standin("Trim of the quay link", InstrumentKind.PART_HOLDER, PARTS);
    JobDto job = jobs.create("Quay link, packets", "Quay link radio");
    jobs.saveLimits(job.id(), new LimitsDto(QUAY_HZ, null, null, null, null));
    jobs.savePath(
        job.id(),
        new PathDto(
            List.of(
                element("Quay link", ElementKind.SOURCE, 0.0, 0, null, null, 18.0, 18.0, link.id()),
                element("Pad 30 dB", ElementKind.PAD, -30.0, 0.3, 37.0, 40.0, 26.0, null, null),
                element("Cable 1 m", ElementKind.CABLE, -2.1, 0.2, null, null, 24.0, null, null),
                element(
                    "Wide receiver IN",
                    ElementKind.PORT,
                    0.0,
                    0,
                    10.0,
                    20.0,
                    18.0,
                    null,
                    wide.id())),
            0,
            0));
    for (int megahertz : new int[] {320, 80, 20}) {
      setups.keep(
          job.id(),
          OfdmMeasurement.KIND,
          "Packets in " + megahertz + " MHz",
          json.tree(OfdmSettingsDto.of(QUAY_HZ, 1e6 * megahertz, 31)),
          null);
    }
  }

  /** The dock oscillator, fed from the function source, at a receiver of its own. */
  private void oscillator(InstrumentDto supply, InstrumentDto receiver) {
    JobDto job = jobs.create("Dock oscillator, AM by its supply", "Dock oscillator");
    jobs.saveLimits(job.id(), new LimitsDto(64e6, null, null, null, null));
    PathElementDto source =
        element("Dock oscillator", ElementKind.SOURCE, 0.0, 0, null, null, 18.0, 7.0, supply.id());
    jobs.savePath(
        job.id(),
        new PathDto(
            List.of(
                source.fed(4.5, 5.5, 6.0),
                element("Cable 1 m", ElementKind.CABLE, -0.2, 0.1, null, null, 26.0, null, null),
                element(
                    "Third receiver IN",
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
    setups.keep(
        job.id(),
        AnalogMeasurement.KIND,
        "AM by the supply",
        json.tree(AnalogSettingsDto.near("am", 64e6, 10)),
        null);
  }

  /** Two generators through pads and a combiner to a receiver under test. */
  private void receiving(
      JobDto job,
      double hertz,
      InstrumentDto generator,
      InstrumentDto other,
      InstrumentDto receiver,
      @Nullable Double noiseFigureDb) {
    jobs.saveLimits(job.id(), new LimitsDto(hertz, null, null, null, null));
    PathElementDto plain =
        element(
            "Combiner, pad 20 dB beside",
            ElementKind.COMBINER,
            -6.1,
            0.1,
            27.0,
            30.0,
            22.0,
            null,
            other.id());
    jobs.savePath(
        job.id(),
        new PathDto(
            List.of(
                element(
                    "Generator",
                    ElementKind.SOURCE,
                    0.0,
                    0,
                    null,
                    null,
                    20.0,
                    -110.0,
                    generator.id()),
                element("Pad 30 dB", ElementKind.PAD, -30.0, 0.2, 27.0, 30.0, 30.0, null, null),
                plain.besides(-26.2),
                element("Cable 1 m", ElementKind.CABLE, -0.3, 0.1, null, null, 26.0, null, null),
                element(
                    receiver.name() + " IN",
                    ElementKind.PORT,
                    0.0,
                    0,
                    0.0,
                    10.0,
                    14.0,
                    null,
                    receiver.id())),
            3,
            0));
    setups.keep(
        job.id(),
        Reception.KIND,
        "As its data sheet says",
        json.tree(new ReceiverSettings(0.5, "qam16", noiseFigureDb, 0, 0, false, null, null, null)),
        null);
  }

  private InstrumentDto standin(String name, InstrumentKind kind, String dialect) {
    int port = settings.standinBasePort() + STANDINS.indexOf(name);
    return bench.add(name, kind, LOOPBACK, port, dialect, true);
  }

  /** The generator straight into a receiver: what it adds by itself. */
  private void generator(String name, InstrumentDto generator, InstrumentDto receiver) {
    JobDto job = jobs.create(name, "Vector generator");
    jobs.saveLimits(job.id(), new LimitsDto(458.525e6, null, null, null, null));
    jobs.savePath(
        job.id(),
        new PathDto(
            List.of(
                element(
                    "Generator", ElementKind.SOURCE, 0.0, 0, null, null, 20.0, 0.0, generator.id()),
                element("Cable 1 m", ElementKind.CABLE, -0.6, 0.2, null, null, 24.0, null, null),
                element(
                    receiver.name() + " IN",
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
    CarrierDto data =
        new CarrierDto(
            "qam16", 250e3, "root-raised-cosine", 0.25, null, 15, null, null, null, null);
    setups.keep(
        job.id(),
        SingleCarrierMeasurement.KIND,
        "16-QAM, as the buoy receiver takes it",
        json.tree(CarrierSettingsDto.near(data, 458.525e6, GENERATOR_RESULT, false, 1.0, 10)),
        null);
  }

  /** The shore preamplifier on the network analyzer, between pads. */
  private void gain(InstrumentDto analyzer, InstrumentDto part) {
    JobDto job = jobs.create("Shore preamplifier, gain", "Shore preamplifier");
    jobs.savePath(
        job.id(),
        new PathDto(
            List.of(
                element(
                    "Port 1", ElementKind.SOURCE, 0.0, 0, null, null, 17.0, -10.0, analyzer.id()),
                element("Pad 10 dB", ElementKind.PAD, -10.0, 0.2, 27.0, 30.0, 30.0, null, null),
                element(
                    "Preamplifier", ElementKind.DUT, 19.5, 1.0, -6.0, 10.0, 14.0, null, part.id()),
                element(
                    "Pad 20 dB, dc block",
                    ElementKind.PAD,
                    -20.0,
                    0.2,
                    27.0,
                    30.0,
                    30.0,
                    null,
                    null),
                element("Port 2", ElementKind.PORT, 0.0, 0, 5.0, 20.0, 17.0, null, analyzer.id())),
            2,
            0));
    networkJobs.save(
        job.id(),
        new JobNetwork(
            List.of(limit("gain at least", "Shore preamplifier", false, 420e6, 500e6, 18.0)),
            List.of(new Band("band", 420e6, 500e6), new Band("buoys", 457e6, 460e6)),
            null,
            null));
  }

  /** Filter, chokes, feeder and whip straight between the ports. */
  private void stores(InstrumentDto analyzer, InstrumentDto part) {
    JobDto job = jobs.create("Parts in store", "Cavity filter");
    jobs.savePath(
        job.id(),
        new PathDto(
            List.of(
                element(
                    "Port 1", ElementKind.SOURCE, 0.0, 0, null, null, 17.0, -10.0, analyzer.id()),
                element("Part", ElementKind.DUT, -1.0, 0.5, 20.0, 30.0, 20.0, null, part.id()),
                element("Port 2", ElementKind.PORT, 0.0, 0, 5.0, 20.0, 17.0, null, analyzer.id())),
            1,
            0));
    networkJobs.save(
        job.id(),
        new JobNetwork(
            List.of(
                limit("pass band", "Cavity filter", false, 456.9e6, 460.1e6, -1.8),
                limit("lower stop band", "Cavity filter", true, 440e6, 453e6, -40.0),
                limit("upper stop band", "Cavity filter", true, 464e6, 478e6, -40.0)),
            List.of(new Band("pass band", 456.9e6, 460.1e6)),
            null,
            null));
  }

  private static NetworkViewDto.LimitDto limit(
      String name, String part, boolean upper, double fromHz, double toHz, double db) {
    return new NetworkViewDto.LimitDto(
        name, 2, 1, NetworkFormat.LOG_MAGNITUDE, upper, fromHz, toHz, db, db, part);
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
    watches.take(DemoWatch.of(job.id(), Sources.instrument(receiver.id()), receiver.name()));
    jobs.savePath(
        job.id(),
        new PathDto(
            List.of(
                element("Buoy TX", ElementKind.SOURCE, 0.0, 0, null, null, 20.0, 27.0, buoy.id()),
                element("Pad 30 dB", ElementKind.PAD, -30.0, 0.3, 37.0, 40.0, 26.0, null, null),
                feeder(),
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
    CarrierDto data =
        new CarrierDto(
            "qpsk", 48e3, "root-raised-cosine", 0.35, null, 9, null, BUOY_WORD, BUOY_FRAME, null);
    setups.keep(
        job.id(),
        SingleCarrierMeasurement.KIND,
        "Data, as the buoy sends them",
        json.tree(CarrierSettingsDto.near(data, 458.525e6, BUOY_RESULT, true, 5.0, 33)),
        null);
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

  /** Six metres of cable: the loss grows with the root of the frequency, 1.2 dB at 458 MHz. */
  private static PathElementDto feeder() {
    PathElementDto plain =
        element("Feeder 6 m", ElementKind.CABLE, -1.2, 0.2, null, null, 24.0, null, null);
    String table =
        DoubleStream.of(10, 30, 100, 200, 458.525, 917, 1376, 2293, 4000, 8000)
            .mapToObj(
                mhz ->
                    String.format(Locale.ROOT, "%.3fM, %.3f", mhz, -1.2 * Math.sqrt(mhz / 458.525)))
            .collect(Collectors.joining("\n"));
    return new PathElementDto(
        plain.name(),
        plain.kind(),
        "table",
        plain.gainDb(),
        table,
        plain.shiftHz(),
        plain.toleranceDb(),
        plain.highestLevelDbm(),
        plain.damageLevelDbm(),
        plain.dcAllowed(),
        plain.returnLossDb(),
        plain.outputLevelDbm(),
        plain.instrumentId(),
        plain.networkId(),
        plain.sideGainDb(),
        null,
        null,
        null);
  }

  /** The demo's stand-ins may sit on other ports than last time. */
  private void moveStandins(int port) {
    for (InstrumentDto i : bench.all()) {
      int place = STANDINS.indexOf(i.name());
      if (place >= 0) {
        bench.moveTo(i.id(), LOOPBACK, port + place);
      }
    }
  }

  static PathElementDto element(
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
        null,
        null,
        null,
        null,
        null);
  }
}
