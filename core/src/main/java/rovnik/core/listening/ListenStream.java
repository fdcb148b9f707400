package rovnik.core.listening;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import rovnik.core.limits.Limit;
import rovnik.core.modulation.CarrierReadings;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.Sound;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.PlaneReadings;
import rovnik.core.uncertainty.UncertaintyBudget;
import rovnik.core.units.Seconds;

/**
 * Hears a channel of samples that go on. Its sound comes as they come; its readings are those of
 * the newest stretch, anew whenever enough of it is new.
 */
final class ListenStream implements RecordMeasurement.Gathering {
  /** Samples that readings are made of at most. */
  private static final int MOST_SAMPLES = 1 << 20;

  /** Readings come no more often than this, and not so that they take all of a core. */
  private static final double LEAST_SECONDS = 0.25;

  private static final double SECONDS_A_SAMPLE = 2e-6;

  private final ListenMeasurement measurement;
  private final ListenSettings settings;
  private float[] ring = new float[0];
  private long count;
  private long measured;
  private double endSeconds = Double.NaN;
  private double seen;
  private double lost;
  private int gaps;
  private Voice voice;
  private Outcome newest;
  private Sound sound;
  private IqRecord window;

  ListenStream(ListenMeasurement measurement, ListenSettings settings) {
    this.measurement = measurement;
    this.settings = settings;
  }

  @Override
  public Outcome add(IqRecord record, MeasurementContext context) {
    return more(record, context);
  }

  @Override
  public void take(IqRecord record, MeasurementContext context) {
    double fs = record.sampleRateHz();
    double gap = record.startSeconds() - endSeconds;
    boolean begins = Double.isNaN(endSeconds);
    if (begins || Math.abs(gap) > 0.5 / fs) {
      gaps += begins ? 0 : 1;
      lost += begins ? 0 : gap;
      begin(record, context);
    }
    endSeconds = record.endSeconds();
    seen += record.sampleCount() / fs;
    voice.take(record.iq(), 0, record.sampleCount());
    keep(record.iq());
  }

  private void begin(IqRecord record, MeasurementContext context) {
    double fs = record.sampleRateHz();
    double near = CarrierReadings.expectedHz(record, context, settings.centreHz());
    double addDb = new CarrierReadings(record, context, near).referredDb();
    voice = new Voice(settings, fs, near, addDb);
    int samples = (int) Math.min(MOST_SAMPLES, Math.ceil(settings.seconds() * fs));
    if (ring.length != 2 * samples) {
      ring = new float[2 * samples];
    }
    count = 0;
    measured = 0;
  }

  private void keep(float[] iq) {
    int from = Math.max(0, iq.length - ring.length);
    int at = (int) (2 * (count + from / 2) % ring.length);
    for (int left = iq.length - from; left > 0; ) {
      int now = Math.min(left, ring.length - at);
      System.arraycopy(iq, iq.length - left, ring, at, now);
      left -= now;
      at = (at + now) % ring.length;
    }
    count += iq.length / 2;
  }

  @Override
  public Outcome more(IqRecord record, MeasurementContext context) {
    take(record, context);
    double fs = record.sampleRateHz();
    int there = (int) Math.min(count, ring.length / 2);
    double every = Math.max(LEAST_SECONDS, SECONDS_A_SAMPLE * there);
    boolean becameFull = full(count) && !full(measured);
    if (newest == null || becameFull || measured == 0 || (count - measured) / fs >= every) {
      measure(record, context, there);
    }
    return newest;
  }

  private boolean full(long samples) {
    return samples >= ring.length / 2;
  }

  @Override
  public boolean settled() {
    return ring.length > 0 && full(measured);
  }

  private void measure(IqRecord like, MeasurementContext context, int samples) {
    double fs = like.sampleRateHz();
    float[] iq = new float[2 * samples];
    int from = (int) (2 * (count - samples) % ring.length);
    int first = Math.min(iq.length, ring.length - from);
    System.arraycopy(ring, from, iq, 0, first);
    System.arraycopy(ring, 0, iq, first, iq.length - first);
    IqRecord of =
        new IqRecord(
            iq,
            fs,
            like.centreHz(),
            like.fullScaleDbm(),
            like.overload(),
            like.endSeconds() - samples / fs);
    RecordMeasurement.Gathering once = measurement.gathering();
    Outcome o = once.add(of, context);
    sound = once.sound().orElse(null);
    window = of;
    measured = count;
    newest = withSeen(o, context, samples / fs);
  }

  private Outcome withSeen(Outcome o, MeasurementContext context, double seconds) {
    double share = 100 * seen / (seen + lost);
    StringBuilder words = new StringBuilder(o.summary());
    if (seconds < 0.99 * settings.seconds() && seconds * window.sampleRateHz() >= MOST_SAMPLES) {
      words.append(" Readings are of the newest ").append(Seconds.words(seconds)).append('.');
    }
    if (gaps > 0) {
      words.append(
          String.format(
              Locale.ROOT,
              " %d gap%s: %s was not heard, %.3g %% of the time was.",
              gaps,
              gaps == 1 ? "" : "s",
              Seconds.words(lost),
              share));
    }
    List<Reading> more = new ArrayList<>();
    more.add(
        new PlaneReadings(null, context, "", window.centreHz())
            .reading(
                "seen",
                "Share of the time seen",
                share,
                "%",
                new UncertaintyBudget(),
                Limit.NONE,
                List.of()));
    return o.withSummary(words.toString()).withReadings(more);
  }

  @Override
  public Optional<Sound> sound() {
    return Optional.ofNullable(sound);
  }

  @Override
  public Optional<Sound> toHear() {
    return voice == null ? Optional.empty() : Optional.of(voice.taken());
  }

  @Override
  public Optional<IqRecord> window() {
    return Optional.ofNullable(window);
  }
}
