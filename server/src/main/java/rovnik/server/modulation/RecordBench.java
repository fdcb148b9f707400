package rovnik.server.modulation;

import java.util.Map;
import rovnik.core.Refusal;
import rovnik.core.result.Outcome;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.instruments.Control;
import rovnik.instruments.InstrumentKind;
import rovnik.server.bench.BenchService;
import rovnik.server.bench.InstrumentDto;
import rovnik.server.jobs.JobDto;
import rovnik.server.live.Workbench;

/**
 * What guided work on single records has at hand: looks, and the generator behind the path.
 *
 * @param <S> settings of the measurement
 */
final class RecordBench<S extends RecordSettings<S>> implements Workbench {
  /** Takes a look. */
  interface Looks {
    /**
     * @param referenceLevelDbm highest level expected, at the reading plane
     */
    RecordLook take(double referenceLevelDbm);

    /** Takes a record of a band around the carrier as it is set now. */
    Taken record(double bandHz, double seconds);

    /** Widest band that is seen at once. */
    double widestHz();
  }

  /** A record, and what it is measured against. */
  record Taken(IqRecord record, MeasurementContext context) {}

  private final Looks looks;
  private final BenchService bench;
  private final S settings;
  private final JobDto job;
  private final Voice voice;

  RecordBench(Looks looks, BenchService bench, S settings, JobDto job, Voice voice) {
    this.looks = looks;
    this.bench = bench;
    this.settings = settings;
    this.job = job;
    this.voice = voice;
  }

  @Override
  public JobDto job() {
    return job;
  }

  @Override
  public Voice voice() {
    return voice;
  }

  /** What the screen shows from now on. */
  void frame(double referenceLevelDbm) {
    voice.frame(settings.withReference(referenceLevelDbm));
  }

  /** The carrier as it is now; refused if it cannot be measured. */
  RecordLook look() {
    return lookAt(settings.referenceLevelDbm());
  }

  /** The same with another level expected; the screen follows. */
  RecordLook lookAt(double referenceLevelDbm) {
    RecordLook look = tryLook(referenceLevelDbm);
    if (!look.refused().isEmpty()) {
      throw new Refusal("signal", look.refused());
    }
    return look;
  }

  /** The same; what is refused is said in the look. */
  RecordLook tryLook(double referenceLevelDbm) {
    voice.breathe();
    RecordLook look = looks.take(referenceLevelDbm);
    voice.show(look, settings.withReference(referenceLevelDbm));
    return look;
  }

  Taken record(double bandHz, double seconds) {
    voice.breathe();
    return looks.record(bandHz, seconds);
  }

  double widestHz() {
    return looks.widestHz();
  }

  double centreHz() {
    return settings.centreHz();
  }

  /** Band of what is measured now. */
  double bandHz() {
    return settings.measurement().bandHz();
  }

  void keep(RecordLook look, String name) {
    voice.keep(look, settings, name);
  }

  /** The generator that the path begins at. */
  private InstrumentDto generator() {
    Long id = job.path().sourceInstrument();
    if (id == null || bench.kind(id) != InstrumentKind.SIGNAL_GENERATOR) {
      throw new Refusal(
          "source",
          "The path does not begin at a vector generator. Click its first element and choose one.");
    }
    return bench.one(id);
  }

  /** A control of the generator as it is now. */
  InstrumentDto.ControlDto control(String id) {
    InstrumentDto generator = generator();
    return generator.controls().stream()
        .filter(c -> c.id().equals(id))
        .findFirst()
        .orElseThrow(
            () -> new Refusal("source", generator.name() + " is not connected. Connect it first."));
  }

  double value(String id) {
    return Double.parseDouble(control(id).value());
  }

  boolean on() {
    return control("output").value().equals(Control.ON);
  }

  void set(String id, double value) {
    voice.control(generator().id(), Map.of(id, Double.toString(value)));
  }

  /** Something that is done. */
  void act(String id) {
    voice.control(generator().id(), Map.of(id, ""));
  }

  static double reading(Outcome o, String id) {
    return o.reading(id).map(r -> r.value()).orElse(Double.NaN);
  }
}
