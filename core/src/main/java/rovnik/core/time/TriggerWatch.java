package rovnik.core.time;

import java.util.ArrayList;
import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.modulation.CarrierReadings;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.modulation.RecordStretch;
import rovnik.core.result.Outcome;
import rovnik.core.signal.BandStream;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;

/**
 * Watches the power of a band in records that follow one another. Where the next one does not begin
 * at the end of the one before, samples are missing: that is a gap, and nothing is found across it.
 */
final class TriggerWatch implements RecordMeasurement.Gathering {
  /** The filter falls over this share of its width around each edge. */
  private static final double FALLS_OVER = 0.3;

  /** What a record must hold, over the band. */
  static final double WIDER = 1 + FALLS_OVER;

  /** Fewer times of the band than this are no look over time. */
  private static final double LEAST_TIMES = 40;

  /** What is shorter than so many times of the band is no more than noise is. */
  private static final double NOISE_TIMES = 6;

  /** Times of the band for which the filter rings. */
  private static final double RINGS = 4 / FALLS_OVER;

  private static final int MOST_CELLS = 1600;
  private static final int DETAIL_CELLS = 400;
  private static final int PIECE = 4096;

  /** Of triggers that follow one another quickly not each is drawn: once in so many stretches. */
  private static final double DRAWN_EVERY = 20;

  private final TriggerSettings settings;
  private final PowerBlocks blocks = new PowerBlocks(PIECE);

  // Made with the first record.
  private BandStream band;
  private MaskSpectra mask;
  private TriggerMask limits;
  private TriggerTally tally;
  private TriggerSearch search;
  private LevelOverTime whole;
  private LevelOverTime near;
  private double rateHz;
  private double nearHz;
  private double beginsSeconds;
  private double endSeconds = Double.NaN;
  private double place;

  /** Where the filter knows all that it looks at. */
  private double knownFrom;

  private double knownTo = Double.POSITIVE_INFINITY;

  private long lost;
  private long gaps;
  private double seenSeconds;
  private double highest;
  private long toComplete = 1;
  private TriggerEvent newest;
  private TriggerEvent shown;
  private LevelOverTime.Stretch detail;
  private final List<RecordMeasurement.Kept> complete = new ArrayList<>();

  TriggerWatch(TriggerSettings settings) {
    this.settings = settings;
  }

  @Override
  public Outcome add(IqRecord record, MeasurementContext context) {
    take(record, context);
    // What the filter holds comes out: what follows is watched anew.
    flush();
    endSeconds = Double.NaN;
    TriggerEvent last = tally.counted().peekLast();
    if (last != null && last.number() >= toComplete) {
      newest = last; // its end is not there, and will not come
    }
    return outcome(record, context);
  }

  @Override
  public Outcome more(IqRecord record, MeasurementContext context) {
    take(record, context);
    return outcome(record, context);
  }

  @Override
  public List<RecordMeasurement.Kept> toKeep() {
    List<RecordMeasurement.Kept> out = List.copyOf(complete);
    complete.clear();
    return out;
  }

  private Outcome outcome(IqRecord record, MeasurementContext context) {
    if (newest != shown && near.holds(newest.sample() - settings.beforeSeconds() * rateHz)) {
      draw(newest);
    }
    return new TriggerOutcome(settings, record, context, this).outcome();
  }

  @Override
  public void take(IqRecord record, MeasurementContext context) {
    double fs = record.sampleRateHz();
    int from = 0;
    int samples = record.sampleCount();
    boolean first = tally == null;
    if (first) {
      RecordStretch stretch =
          RecordStretch.of(
              record,
              "band",
              settings.bandHz() == 0 ? fs : settings.bandHz(),
              settings.startSeconds(),
              LEAST_TIMES,
              Long.MAX_VALUE);
      from = stretch.from();
      samples = stretch.samples();
      begin(record, context, stretch.startSeconds());
    } else if (!(Math.abs(record.startSeconds() - endSeconds) < 0.5 / fs)) {
      long missing = Math.round((record.startSeconds() - endSeconds) * fs);
      if (missing > 0) {
        gaps++;
        // Beside a gap the filter rings: nothing is found there, so it was not seen.
        double rings = 2 * blindSeconds();
        lost += missing + Math.round(rings * fs);
        seenSeconds -= rings;
      }
      resume(fs, record.startSeconds());
    }
    if (settings.by() == TriggerSettings.By.EXTERNAL) {
      pulses(record);
    }
    endSeconds = record.endSeconds();
    seenSeconds += samples / fs;
    if (mask != null) {
      mask.take(record.iq(), from, samples, this::over);
    } else if (band == null) {
      for (int at = from; at < from + samples; at += PIECE) {
        int now = Math.min(PIECE, from + samples - at);
        blocks.of(record.iq(), at, now);
        piece(null);
      }
    } else {
      band.take(record.iq(), from, samples, this::taken);
    }
  }

  /** What came at the trigger input counts, whatever the power does. */
  private void pulses(IqRecord record) {
    if (record.pulseSeconds() == null) {
      throw new Refusal(
          "triggerBy",
          "These samples do not tell when a trigger input rose. Take a receiver that does, or wait"
              + " for a level.");
    }
    for (double at : record.pulseSeconds()) {
      if (at >= beginsSeconds) {
        tally.came(at * rateHz, Double.NaN, 0);
      }
    }
  }

  private void over(float[] over, float[] where, int count) {
    blocks.of(over, count);
    piece(where);
  }

  private void taken(float[] re, float[] im, int from, int count) {
    int first = (int) Math.min(count, Math.max(0, Math.ceil(knownFrom - place)));
    int end = (int) Math.min(count, Math.max(first, Math.floor(knownTo - place)));
    place += first;
    for (int at = first; at < end; at += PIECE) {
      blocks.of(re, im, from + at, Math.min(PIECE, end - at));
      piece(null);
    }
    place += count - end;
  }

  private void flush() {
    if (band != null) {
      knownTo = endSeconds * rateHz - blind();
      band.end(this::taken);
      knownTo = Double.POSITIVE_INFINITY;
    }
  }

  /** Samples for which the filter rings where what it takes begins or ends. */
  private double blind() {
    return band == null ? 0 : Math.ceil(RINGS / settings.bandHz() * rateHz);
  }

  /** For so long what is beside a gap was not seen. */
  private double blindSeconds() {
    return mask == null ? blind() / rateHz : mask.length() / 2.0 / mask.hop() / rateHz;
  }

  private void begin(IqRecord record, MeasurementContext context, double startSeconds) {
    double fs = record.sampleRateHz();
    nearHz = CarrierReadings.expectedHz(record, context, settings.centreHz());
    if (settings.by() == TriggerSettings.By.MASK) {
      beginMask(record, context);
    } else {
      band = filter(fs);
    }
    rateHz = mask != null ? fs / mask.hop() : band == null ? fs : band.outRateHz();
    tally = new TriggerTally(settings.pattern(), rateHz, settings.holdOffSeconds() * rateHz);
    search =
        new TriggerSearch(
            settings.by() != TriggerSettings.By.FALLS,
            level(record, context),
            settings.leastSeconds() * rateHz,
            settings.mostSeconds() * rateHz,
            settings.pauseSeconds() * rateHz,
            noiseSamples(fs),
            tally);
    whole = new LevelOverTime(settings.seconds() * rateHz, MOST_CELLS, 0);
    double around = (settings.beforeSeconds() + settings.afterSeconds()) * rateHz;
    near = new LevelOverTime(around, DETAIL_CELLS, around + PIECE);
    beginsSeconds = startSeconds;
    resumeAt(startSeconds);
  }

  private void beginMask(IqRecord record, MeasurementContext context) {
    limits = settings.mask();
    if (limits.none()) {
      double half = (settings.bandHz() == 0 ? record.sampleRateHz() : settings.bandHz()) / 2;
      double middle = carrier(record, context).carrierHz();
      limits = limits.flat(Math.max(0, middle - half), middle + half, settings.levelDb());
    }
    double middleHz = (limits.lowHz() + limits.highHz()) / 2;
    nearHz = CarrierReadings.expectedHz(record, context, middleHz);
    mask = new MaskSpectra(record, context, limits, nearHz);
  }

  /** What is waited for, of full scale or of the mask. */
  private double level(IqRecord record, MeasurementContext context) {
    return switch (settings.by()) {
      case NONE, EXTERNAL -> Double.MAX_VALUE;
      case MASK -> 1;
      case RISES, FALLS ->
          Math.pow(10, (settings.levelDb() - carrier(record, context).referredDb()) / 10);
    };
  }

  /** What is shorter than so many samples is no more than noise is. */
  private double noiseSamples(double fs) {
    if (mask != null) {
      return 0; // an event in one spectrum is one
    }
    return NOISE_TIMES * rateHz / (band == null ? fs : settings.bandHz());
  }

  private BandStream filter(double fs) {
    double width = settings.bandHz();
    if (width == 0) {
      return null;
    }
    double flat = width / 2 * (1 - FALLS_OVER);
    double end = width / 2 * WIDER;
    return new BandStream(
        fs,
        nearHz,
        end,
        Math.min(fs, 2 * end),
        RINGS / width,
        hz -> {
          double share = Math.max(0, Math.min(1, (hz - flat) / (end - flat)));
          return (1 + Math.cos(Math.PI * share)) / 2;
        });
  }

  private void resume(double fs, double startSeconds) {
    flush();
    if (mask == null) {
      band = filter(fs);
    } else {
      mask.gap();
    }
    resumeAt(startSeconds);
  }

  private void resumeAt(double startSeconds) {
    place = startSeconds * rateHz;
    if (mask != null) {
      place += mask.length() / 2.0 / mask.hop(); // a spectrum is of the middle of its samples
    }
    knownFrom = place + blind();
    search.gap(knownFrom);
  }

  private void piece(float[] where) {
    for (int b = 0; b * PowerBlocks.TOGETHER < blocks.count(); b++) {
      highest = Math.max(highest, blocks.highest(b));
    }
    whole.take(blocks, (long) place);
    near.take(blocks, (long) place);
    search.take(blocks, where);
    place += blocks.count();
    complete();
  }

  /** What belongs to a trigger is complete once its end was seen. */
  private void complete() {
    if (tally.count() < toComplete) {
      return;
    }
    double before = settings.beforeSeconds() * rateHz;
    double after = settings.afterSeconds() * rateHz;
    for (TriggerEvent e : tally.counted()) {
      if (e.number() >= toComplete && e.sample() + after <= place) {
        toComplete = e.number() + 1;
        newest = e;
        if (shown == null || e.sample() - shown.sample() > DRAWN_EVERY * (before + after)) {
          draw(e);
        }
        complete.add(
            new RecordMeasurement.Kept(
                "trigger " + e.number(),
                Math.max(beginsSeconds, (e.sample() - before) / rateHz),
                e.sample() / rateHz,
                (e.sample() + after) / rateHz));
      }
    }
  }

  private void draw(TriggerEvent e) {
    shown = e;
    detail =
        near.between(
            e.sample() - settings.beforeSeconds() * rateHz,
            e.sample() + settings.afterSeconds() * rateHz);
  }

  // What the outcome is made of

  CarrierReadings carrier(IqRecord record, MeasurementContext context) {
    return new CarrierReadings(record, context, nearHz);
  }

  TriggerSearch search() {
    return search;
  }

  /** What came and counted. */
  TriggerTally tally() {
    search.tellRunning();
    return tally;
  }

  /** The spectra that are held against a mask; null if none are. */
  MaskSpectra mask() {
    return mask;
  }

  /** What they are held against. */
  TriggerMask limits() {
    return limits;
  }

  double rateHz() {
    return rateHz;
  }

  /** The newest stretch, as long as is watched. */
  LevelOverTime.Stretch level() {
    double first = Math.max(beginsSeconds * rateHz, place - settings.seconds() * rateHz);
    return whole.between(first, place);
  }

  /** Around the newest trigger that is complete, or one little older; null before. */
  LevelOverTime.Stretch detail() {
    return detail;
  }

  TriggerEvent shown() {
    return shown;
  }

  double highest() {
    return highest;
  }

  long gaps() {
    return gaps;
  }

  double lostSeconds(double sampleRateHz) {
    return lost / sampleRateHz;
  }

  double seenSeconds() {
    return seenSeconds;
  }
}
