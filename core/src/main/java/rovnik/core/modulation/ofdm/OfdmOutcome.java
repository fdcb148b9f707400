package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import rovnik.core.limits.Limit;
import rovnik.core.modulation.CarrierReadings;
import rovnik.core.modulation.Causes;
import rovnik.core.modulation.PowerStatistics;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.result.Series;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.PlaneReadings;
import rovnik.core.uncertainty.UncertaintyBudget;

/** Readings, curves and tables of the packets of a record; one of them in full. */
final class OfdmOutcome {
  /** How much higher the curve through all samples may be than where it was looked at. */
  private static final double BETWEEN_SAMPLES_DB = 0.05;

  private final OfdmSettings settings;
  private final DescribedFrame frame;
  private final IqRecord record;
  private final MeasurementContext context;
  private final List<OfdmPacket> packets;
  private final OfdmPacket p;
  private final FramePlan plan;
  private final PlanCounts counts;
  private final double startSeconds;

  private final EvmReadings evm;

  /** Null if there are no data. */
  private final PacketPower power;

  /** Null if there are too few. */
  private final Causes causes;

  private final Optional<PacketSpectrum.Look> spectrum;
  private final List<PacketUser> users;
  private final UnusedView unused;
  private final CarrierReadings carrier;
  private final PlaneReadings maker;
  private final List<String> own;

  /**
   * @param frame that is described; null for packets that say what they are
   * @param packets that were found, in their order
   * @param samples of the channel in which they are
   * @param from first sample of the record that was searched
   */
  OfdmOutcome(
      OfdmSettings settings,
      DescribedFrame frame,
      IqRecord record,
      MeasurementContext context,
      List<OfdmPacket> packets,
      ChannelSamples samples,
      int from) {
    this.settings = settings;
    this.frame = frame;
    this.record = record;
    this.context = context;
    this.packets = packets;
    this.p = packets.get(settings.packet() - 1);
    this.plan = p.plan();
    this.counts = PlanCounts.of(plan);
    this.startSeconds = from / record.sampleRateHz() + record.startSeconds();
    this.causes =
        p.whole()
            ? PacketCauses.of(
                p, settings, ChannelSamples.TIMES * settings.rateHz() / plan.transform())
            : null;
    this.power = p.whole() ? PacketPower.of(p, samples) : null;
    this.spectrum =
        p.whole()
            ? PacketSpectrum.of(settings, record, context, packets, p, from)
            : Optional.empty();
    this.users = p.whole() ? PacketUser.of(p, frame) : List.of();
    this.carrier = new CarrierReadings(record, context, p.carrier());
    this.maker = carrier.maker();
    this.own = new ArrayList<>(context.marks());
    if (!p.check().isEmpty()) {
      own.add(p.check());
    }
    if (!settings.asTheStandard()) {
      own.add(EvmReadings.OTHERWISE);
    }
    this.unused = new UnusedView(p.said() == null ? List.of() : p.said().unused(), maker, own);
    this.evm = new EvmReadings(settings, context, maker, packets, p, users, counts, own);
  }

  Outcome outcome() {
    List<Series> series = new ArrayList<>();
    if (p.whole()) {
      series.addAll(new OfdmSeries(p, settings.rateHz(), users).series());
      series.add(power.spread().ccdf());
      series.add(PowerStatistics.ofNoise());
    }
    series.addAll(unused.series());
    spectrum.ifPresent(s -> series.addAll(s.series()));
    List<ResultTable> tables =
        new ArrayList<>(
            new OfdmTables(
                    settings, frame, carrier, packets, startSeconds, evm::verdict, evm::verdict)
                .tables());
    tables.addAll(unused.tables());
    spectrum.ifPresent(s -> tables.addAll(s.emission().tables()));
    if (causes != null) {
      tables.add(0, causes.table(100 / Math.sqrt(counts.power() / counts.used())));
    }
    return new Outcome(
        OfdmMeasurement.KIND,
        OfdmMeasurement.TITLE,
        summary(),
        List.copyOf(series),
        List.copyOf(tables),
        readings(),
        List.copyOf(maker.levelMarks()),
        List.of());
  }

  private String summary() {
    String found =
        packets.size() == 1
            ? "One packet"
            : "Packet " + settings.packet() + " of " + packets.size();
    if (!p.whole()) {
      return found
          + (p.said() == null || p.said().format() == PacketFormat.LEGACY
              ? ": "
              : ", " + p.said().format().label() + ": ")
          + p.check()
          + ".";
    }
    double evm = p.evm(OfdmPacket.Which.ALL);
    String good =
        String.format(Locale.ROOT, "EVM %.2f %% (%.1f dB)", 100 * evm, db(evm))
            + this.evm.takenForOthers()
            + this.evm.ofReceiver()
            + (causes == null ? "" : causes.words())
            + ".";
    if (p.said() == null) {
      return String.format(
          Locale.ROOT,
          "%s as \"%s\" has it: %d symbols with data of %d tones%s; %s",
          found,
          settings.description().name(),
          p.symbols(),
          plan.tones().length,
          (p.check().isEmpty() ? "" : ", " + p.check())
              + (frame.learned() ? "; training learned from the signal" : ""),
          good);
    }
    return String.format(
        Locale.ROOT,
        "%s, from the signal: %s,%s %d symbols, %s; %s",
        found,
        OfdmTables.kindOf(p),
        Double.isNaN(p.said().bytes()) ? "" : " " + (int) p.said().bytes() + " bytes in",
        p.symbols(),
        (p.check().isEmpty() ? p.said().words() : p.check())
            + (p.said().learned() ? "; training learned from the signal" : ""),
        good);
  }

  static double db(double amplitude) {
    return 20 * Math.log10(Math.max(1e-12, amplitude));
  }

  // Readings

  private List<Reading> readings() {
    List<Reading> out = new ArrayList<>();
    if (p.whole()) {
      evm.ofOne(out);
      evm.ofReceiver(out);
      evm.ofUsers(out);
      out.addAll(unused.readings());
      turning(out);
      leakage(out);
      evm.flatness(out);
      image(out);
    }
    spectrum.ifPresent(s -> out.addAll(s.emission().readings()));
    out.add(power());
    if (p.whole()) {
      out.add(crest());
    }
    out.add(plain("packets", "Packets found", packets.size(), ""));
    long good = packets.stream().filter(x -> x.whole() && x.check().isEmpty()).count();
    out.add(plain("whole", "Whole, nothing wrong found", good, ""));
    evm.ofAll(out);
    return out;
  }

  /** Of the highest sample, noise along it counts. */
  private Reading crest() {
    double db = power.crestDb();
    double noise = p.evm(OfdmPacket.Which.ALL) / Math.sqrt(2) / Math.pow(10, db / 20);
    return maker.reading(
        "crest",
        "Peaks of the data over their mean",
        db,
        "dB",
        new UncertaintyBudget()
            .rectangular("between samples", BETWEEN_SAMPLES_DB)
            .normal("noise", 20 / Math.log(10) * noise),
        Limit.NONE,
        own);
  }

  /** Of its data, or of the training before it where there are none. */
  static double dataPower(OfdmPacket x) {
    int last = x.fieldPower().length - 1;
    return x.fieldPower()[x.whole() || last == 0 ? last : last > 1 ? 1 : 0];
  }

  private Reading plain(String id, String label, double value, String unit) {
    return maker.reading(
        id, label, value, unit, new UncertaintyBudget(), Limit.NONE, List.copyOf(context.marks()));
  }

  private void turning(List<Reading> out) {
    double rate = ChannelSamples.TIMES * settings.rateHz();
    double seconds = plan.length() / rate;
    double n = p.symbols() + plan.training().size();
    double evm = p.evm(OfdmPacket.Which.ALL);
    // A straight line through n phases, each of the tones' mean: 12 over n cubed.
    double phase = evm / Math.sqrt(2.0 * counts.turning());
    // The carrier is where tone 0 is, to which the slope over the tones leads.
    double slope = evm / Math.sqrt(2) / Math.sqrt(squareTones() * counts.used());
    double turnHz =
        Math.hypot(phase, meanTone() * slope) * Math.sqrt(12 / n) / seconds / 2 / Math.PI;
    out.addAll(carrier.frequency("noise", turnHz, settings.rateHz() / 2, settings.centreHz(), own));
    double period = plan.transform() / rate;
    double relative = context.accuracy().frequencyRelative();
    out.add(
        maker.reading(
            "clockOffset",
            "Clock of the symbols off by",
            -1e6 * p.clock(),
            "ppm",
            new UncertaintyBudget()
                .rectangular("reference", Double.isNaN(relative) ? 0 : 1e6 * relative)
                .normal("noise", 1e6 * slope * Math.sqrt(12 / n) / seconds * period / 2 / Math.PI),
            Limit.NONE,
            own));
  }

  private double meanTone() {
    return Arrays.stream(plan.tones()).average().orElse(0);
  }

  /** Mean square of the tones' distance from their middle. */
  private double squareTones() {
    double middle = meanTone();
    return Arrays.stream(plan.tones()).mapToDouble(k -> (k - middle) * (k - middle)).sum()
        / plan.tones().length;
  }

  private void leakage(List<Reading> out) {
    double mean = Math.hypot(p.leakageRe(), p.leakageIm());
    double sigma = p.leakageScatter();
    if (Double.isNaN(sigma)) {
      return;
    }
    double free = free(mean, sigma);
    out.add(
        maker.reading(
            "leakage",
            "Leakage of the carrier",
            db(free),
            "dBc",
            new UncertaintyBudget().normal("noise", 20 / Math.log(10) * sigma / free),
            leakageLimit(),
            own));
  }

  private Limit leakageLimit() {
    if (p.said() == null) {
      return Limit.NONE;
    }
    Reading power = power();
    // What is not known of the power does not count for the device.
    double sentDbm = carrier.ofSourceDbm(power.value()) + power.uncertainty();
    return LeakageLimit.of(p.said().format(), settings.width(), sentDbm);
  }

  private Reading power() {
    return carrier.power(10 * Math.log10(Math.max(1e-30, dataPower(p))), powerScatterDb());
  }

  private void image(List<Reading> out) {
    if (p.symbols() < 3) {
      return; // beside a gain of each tone's own nothing is left
    }
    double[] m = p.image();
    if (!(m[2] > 0)) {
      return; // no tone with data has another across the carrier
    }
    double free = free(Math.hypot(m[0], m[1]), m[2]);
    out.add(
        maker.reading(
            "image",
            "Mirror image of each tone",
            db(free),
            "dBc",
            new UncertaintyBudget().normal("noise", 20 / Math.log(10) * m[2] / free),
            Limit.NONE,
            own));
  }

  /** Without what noise adds to the length of a mean. */
  private static double free(double mean, double sigma) {
    return Math.sqrt(Math.max(mean * mean - 2 * sigma * sigma, sigma * sigma));
  }

  private double powerScatterDb() {
    // Without data it is the power of the training.
    double values =
        p.whole()
            ? counts.used() * p.symbols()
            : (double) plan.tones().length * plan.training().size();
    return 10 / Math.log(10) / Math.sqrt(values);
  }
}
