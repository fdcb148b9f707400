package rovnik.server.modulation;

import java.util.Arrays;
import java.util.Optional;
import rovnik.core.Refusal;
import rovnik.core.modulation.analysis.SingleCarrierMeasurement;
import rovnik.core.path.PathCorrection;
import rovnik.core.path.SignalPath;
import rovnik.core.receiver.LevelAtReceiver;
import rovnik.core.receiver.Quality;
import rovnik.core.receiver.ReceiverModel;
import rovnik.core.result.Outcome;
import rovnik.core.result.Series;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.server.bench.BenchService;
import rovnik.server.jobs.JobDto;
import rovnik.server.live.PathGenerators;
import rovnik.server.receiver.LevelBench;

/**
 * What guided work on single records has at hand: looks, and the generator behind the path.
 *
 * @param <S> settings of the measurement
 */
final class RecordBench<S extends RecordSettings<S>> implements LevelBench {
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
  PathGenerators.One generator() {
    return generators().source();
  }

  @Override
  public PathGenerators generators() {
    return new PathGenerators(bench, job, voice);
  }

  @Override
  public LevelAtReceiver at() {
    SignalPath path = job.path().toCore();
    double hz = new PathCorrection(path).planeToSourceHz(settings.centreHz());
    return new LevelAtReceiver(path, hz, bench.sourceAccuracy(job));
  }

  /** No theory: the receiver's noise is what is looked for. */
  @Override
  public ReceiverModel model() {
    return new ReceiverModel(Optional.empty(), 0, Double.NaN);
  }

  @Override
  public int packetBits() {
    return 0;
  }

  @Override
  public Quality measure(double seconds) {
    long end = System.nanoTime() + (long) (seconds * 1e9);
    long bits = 0;
    long errors = 0;
    double squares = 0;
    double sinad = 0;
    int looks = 0;
    String lost;
    do {
      RecordLook look = tryLook(settings.referenceLevelDbm());
      lost = look.refused();
      if (lost.isEmpty()) {
        Outcome o = look.outcome();
        double evm = reading(o, "evm");
        squares += evm * evm;
        sinad += reading(o, "sinad");
        looks++;
        Series wrong = o.series(SingleCarrierMeasurement.WRONG_BITS).orElse(null);
        if (wrong != null) {
          bits += (long) wrong.fact(SingleCarrierMeasurement.BITS_COMPARED);
          errors += (long) Arrays.stream(wrong.y()).sum();
        }
      }
    } while (System.nanoTime() < end);
    return looks == 0
        ? Quality.nothing(lost)
        : new Quality(
            bits, errors, 0, 0, sinad / looks, Double.NaN, Math.sqrt(squares / looks), null, "");
  }

  static double reading(Outcome o, String id) {
    return o.reading(id).map(r -> r.value()).orElse(Double.NaN);
  }
}
