package rovnik.server.modulation;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import rovnik.core.Refusal;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.modulation.SingleCarrier;
import rovnik.core.modulation.analysis.SingleCarrierMeasurement;
import rovnik.core.path.PathCorrection;
import rovnik.core.path.SignalPath;
import rovnik.core.receiver.ErrorTheory;
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

  /** Records are taken for so many times as long as their bits would last. */
  private static final double LONGER = 20;

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

  RecordMeasurement measurement() {
    return settings.measurement();
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

  /** How bits go wrong with noise; how much of it there is, is what is looked for. */
  @Override
  public ReceiverModel model() {
    return carrier()
        .map(
            c ->
                new ReceiverModel(
                    ErrorTheory.of(c.format()),
                    c.symbolRateHz() * c.constellation().bitsPerSymbol(),
                    Double.NaN))
        .orElse(new ReceiverModel(Optional.empty(), 0, Double.NaN));
  }

  private Optional<SingleCarrier> carrier() {
    return measurement() instanceof SingleCarrierMeasurement m
        ? Optional.of(m.carrier())
        : Optional.empty();
  }

  @Override
  public int packetBits() {
    return 0;
  }

  /**
   * Between records nothing is heard: it goes on until as many bits were compared as come in so
   * many seconds, or for so many times as long.
   */
  @Override
  public Quality measure(double seconds) {
    double wantedBits = seconds * model().bitRate();
    long began = System.nanoTime();
    long bits = 0;
    long errors = 0;
    double squares = 0;
    double sinad = 0;
    double sinadSquares = 0;
    int looks = 0;
    String lost;
    double spent;
    do {
      RecordLook look = tryLook(settings.referenceLevelDbm());
      lost = look.refused();
      if (lost.isEmpty()) {
        Outcome o = look.outcome();
        double evm = reading(o, "evm");
        squares += evm * evm;
        double tone = reading(o, "sinad");
        sinad += tone;
        sinadSquares += tone * tone;
        looks++;
        Series wrong = o.series(SingleCarrierMeasurement.WRONG_BITS).orElse(null);
        if (wrong != null) {
          bits += (long) wrong.fact(SingleCarrierMeasurement.BITS_COMPARED);
          errors += (long) Arrays.stream(wrong.y()).sum();
        }
      }
      spent = (System.nanoTime() - began) / 1e9;
    } while (spent < seconds || bits > 0 && bits < wantedBits && spent < LONGER * seconds);
    if (looks == 0) {
      return Quality.nothing(lost);
    }
    double mean = sinad / looks;
    double scatter = Math.max(0, sinadSquares / looks - mean * mean) / Math.max(1, looks - 1);
    return new Quality(
        bits,
        errors,
        0,
        0,
        mean,
        looks > 1 ? Math.sqrt(scatter) : Double.NaN,
        Math.sqrt(squares / looks),
        null,
        "");
  }

  /** Refuses records that overload spoiled. */
  static void refuseSpoiled(List<String> marks) {
    if (!marks.isEmpty()) {
      throw new Refusal(
          "referenceLevelDbm",
          "The records are spoiled: "
              + String.join(", ", marks)
              + ". Raise the reference level first.");
    }
  }

  static double reading(Outcome o, String id) {
    return o.reading(id).map(r -> r.value()).orElse(Double.NaN);
  }
}
