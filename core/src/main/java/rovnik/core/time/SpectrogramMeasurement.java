package rovnik.core.time;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.hipparchus.util.KthSelector;
import rovnik.core.Refusal;
import rovnik.core.limits.Limit;
import rovnik.core.modulation.CarrierReadings;
import rovnik.core.modulation.Digesting;
import rovnik.core.modulation.RecordStretch;
import rovnik.core.result.Axis;
import rovnik.core.result.Fact;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.Series;
import rovnik.core.result.Values;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.PlacedSeries;
import rovnik.core.spectrum.PlaneReadings;
import rovnik.core.spectrum.SpectrumLayout;
import rovnik.core.uncertainty.UncertaintyBudget;
import rovnik.core.units.Frequency;
import rovnik.core.units.Seconds;

/** From a record of any length to its level over frequency and time. */
public final class SpectrogramMeasurement extends SpanMeasurement {
  public static final String KIND = "spectrogram";
  public static final String TITLE = "Spectrogram";
  private static final long BLOCK = 1 << 22;
  private static final int MOST_CELLS = 1 << 20;
  private static final double USUAL_SPAN = 1e6;
  private static final double LEAST_TIMES = 8;

  /** Rows of a part's digest, each at least so long. */
  private static final int DIGEST_ROWS = 128;

  private static final int DIGEST_ROW_SAMPLES = 8192;

  /** A part is no longer, so that it fits into memory. */
  private static final int DIGEST_SAMPLES = 1 << 22;

  /** A row that is shown is at least so many of them: what is where is told to a quarter of it. */
  private static final int DIGEST_ROWS_SHOWN = 2;

  private final SpectrogramSettings settings;

  public SpectrogramMeasurement(SpectrogramSettings settings) {
    super(KIND, TITLE, settings.spanHz(), USUAL_SPAN, settings.seconds(), settings.words());
    this.settings = settings;
  }

  @Override
  public long blockSamples() {
    return BLOCK;
  }

  @Override
  public Outcome of(IqRecord record, MeasurementContext context) {
    return gathering().add(record, context);
  }

  @Override
  public Gathering gathering() {
    return new Gathered();
  }

  @Override
  public Optional<Digesting> digesting(IqRecord like, MeasurementContext context, long samples) {
    double near = CarrierReadings.expectedHz(like, context, settings.centreHz());
    double fs = like.sampleRateHz();
    double span = settings.spanHz() == 0 ? fs : settings.spanHz();
    if (span > fs) {
      return Optional.empty(); // refused by the usual way
    }
    SpectrumLayout layout =
        SpectrumLayout.plan(fs, near, span, settings.rbwOf(span, samples / fs), settings.window());
    int rowSamples = Math.max(DIGEST_ROW_SAMPLES, 2 * layout.windowLength());
    return samples / settings.rows() < (long) DIGEST_ROWS_SHOWN * rowSamples
            || rowSamples > DIGEST_SAMPLES
        ? Optional.empty()
        : Optional.of(new Digested(layout, rowSamples, like.startSeconds(), samples / fs));
  }

  private int hop(SpectrumLayout layout) {
    return Math.max(
        1, (int) Math.round(layout.windowLength() * (1 - settings.overlapPercent() / 100)));
  }

  /** What digests of a recording are the same for. */
  private record DigestKey(SpectrumLayout layout, int hop, int rowSamples) {}

  /** A long stretch, from digests of its parts. */
  private final class Digested implements Digesting {
    private final SpectrumLayout layout;
    private final int hop;
    private final int rowSamples;
    private final double startSeconds;
    private final double seconds;
    private final Gathered into = new Gathered();

    Digested(SpectrumLayout layout, int rowSamples, double startSeconds, double seconds) {
      this.layout = layout;
      this.hop = hop(layout);
      this.rowSamples = rowSamples;
      this.startSeconds = startSeconds;
      this.seconds = seconds;
      into.begin(layout);
    }

    @Override
    public Object key() {
      return new DigestKey(layout, hop, rowSamples);
    }

    @Override
    public long partSamples() {
      return (long) rows() * rowSamples;
    }

    @Override
    public int beyondSamples() {
      return layout.windowLength();
    }

    @Override
    public Digest of(IqRecord part) {
      return new SpectraDigest(part, layout, hop, (int) partSamples(), rows());
    }

    private int rows() {
      return Math.min(DIGEST_ROWS, DIGEST_SAMPLES / rowSamples);
    }

    @Override
    public void take(Digest digest, boolean last) {
      into.take((SpectraDigest) digest, startSeconds, startSeconds + seconds);
      if (last) {
        into.endSeconds = startSeconds + seconds;
        into.seen = seconds;
      }
    }

    @Override
    public Gathering gathering() {
      return into;
    }
  }

  /** One look, in as many stretches as it comes in. */
  private final class Gathered implements Gathering {
    private double endSeconds = Double.NaN;
    private RowsOverTime rows;
    private SpectrumLayout layout;
    private float[] highest;
    private double[] mean;
    private long spectra;
    private double seen;
    private float most;
    private double mostAt;

    @Override
    public Outcome add(IqRecord record, MeasurementContext context) {
      take(record, context);
      return outcome(record, context);
    }

    @Override
    public void take(IqRecord record, MeasurementContext context) {
      double fs = record.sampleRateHz();
      double near = CarrierReadings.expectedHz(record, context, settings.centreHz());
      boolean goesOn = rows != null && Math.abs(record.startSeconds() - endSeconds) < 0.5 / fs;
      RecordStretch stretch =
          goesOn
              ? new RecordStretch(0, record.sampleCount(), record.startSeconds())
              : begin(record, near);
      endSeconds = record.endSeconds();
      int hop = hop(layout);
      if (stretch.samples() >= layout.windowLength()) {
        FrameSpectra frames =
            new FrameSpectra(record, layout, stretch.from(), stretch.samples(), hop);
        double whole = layout.stepHz() / layout.enbwHz();
        if (rows == null) {
          rows =
              new RowsOverTime(
                  layout.points(),
                  settings.rows(),
                  stretch.startSeconds() + frames.seconds(-0.5),
                  frames.stepSeconds());
        }
        frames.each(
            (frame, power) -> take(stretch.startSeconds() + frames.seconds(frame), power, whole));
      }
      seen += stretch.samples() / fs;
    }

    private RecordStretch begin(IqRecord record, double near) {
      double fs = record.sampleRateHz();
      double span = settings.spanHz() == 0 ? fs : settings.spanHz();
      double rbw = settings.rbwOf(span, Math.min(settings.seconds(), record.sampleCount() / fs));
      layout = SpectrumLayout.plan(fs, near, span, rbw, settings.window());
      begin(layout);
      return RecordStretch.of(
          record,
          "span",
          span,
          settings.startSeconds(),
          LEAST_TIMES * layout.windowLength() / fs * span,
          Long.MAX_VALUE);
    }

    private void begin(SpectrumLayout with) {
      layout = with;
      if ((long) layout.points() * settings.rows() > MOST_CELLS) {
        throw new Refusal(
            "rbwHz",
            "These are more than a million cells. Take fewer rows, a smaller span, or an RBW of at"
                + " least "
                + Frequency.ofHertz(
                    Math.ceil(layout.rbwHz() * layout.points() * settings.rows() / MOST_CELLS))
                + ".");
      }
      rows = null;
      highest = new float[layout.points()];
      mean = new double[layout.points()];
      spectra = 0;
      seen = 0;
      most = 0;
    }

    /** The rows of a digest that lie in a stretch. */
    private void take(SpectraDigest digest, double from, double to) {
      float[] row = new float[layout.points()];
      double whole = layout.stepHz() / layout.enbwHz();
      int there = 0;
      int taken = 0;
      float strongest = 0;
      double strongestAt = 0;
      for (int r = 0; r < digest.rows(); r++) {
        double at = digest.seconds(r);
        there += digest.spectra(r);
        if (at < from || at >= to || digest.spectra(r) == 0) {
          continue;
        }
        if (rows == null) {
          double step = digest.rowSeconds();
          rows = new RowsOverTime(layout.points(), settings.rows(), at - step / 2, step);
        }
        digest.highest(r, row);
        for (int i = 0; i < row.length; i++) {
          highest[i] = Math.max(highest[i], row[i]);
          if (row[i] > strongest) {
            strongest = row[i];
            strongestAt = at;
          }
        }
        rows.add(at, row, digest.whole(r) * whole, digest.spectra(r));
        digest.sum(r, row);
        for (int i = 0; i < row.length; i++) {
          mean[i] += row[i];
        }
        taken += digest.spectra(r);
      }
      // Where all of it is looked at, more is known than rows tell.
      if (taken == there) {
        strongest = digest.most();
        strongestAt = digest.mostAt();
      }
      if (strongest > most) {
        most = strongest;
        mostAt = strongestAt;
      }
      spectra += taken;
    }

    private void take(double seconds, float[] power, double whole) {
      double sum = 0;
      for (int i = 0; i < power.length; i++) {
        highest[i] = Math.max(highest[i], power[i]);
        mean[i] += power[i];
        sum += power[i];
        if (power[i] > most) {
          most = power[i];
          mostAt = seconds;
        }
      }
      spectra++;
      rows.add(seconds, power, sum * whole);
    }

    /** Mean power of noise at a point, where less than half of them hold more. */
    private double noise() {
      double[] sorted = mean.clone();
      return new KthSelector().select(sorted, null, sorted.length / 2) / spectra;
    }

    private Outcome outcome(IqRecord record, MeasurementContext context) {
      PlaneFrequencies at =
          PlaneFrequencies.of(
              record, context, layout.offsetHz(0), layout.stepHz(), layout.points());
      int top = 0;
      double total = 0;
      for (int i = 0; i < highest.length; i++) {
        top = highest[i] > highest[top] ? i : top;
        total += mean[i] / spectra * Math.pow(10, at.addDb()[i] / 10);
      }
      total *= layout.stepHz() / layout.enbwHz();
      String unit = record.calibrated() ? "dBm" : "dBFS";
      PlaneReadings maker = new CarrierReadings(record, context, layout.offsetHz(top)).maker();
      double[] means = Arrays.stream(mean).map(m -> m / spectra).toArray();
      HighestLine line = HighestLine.of(layout, highest, means, top, noise(), spectra, spectra);
      double level = db(most) + at.addDb()[top] + line.lossDb();
      double hz = at.hz()[top] + line.offsetPoints() * layout.stepHz();
      String summary =
          String.format(
              Locale.ROOT,
              "%d spectra of RBW %s over %s, %d rows of %s. Strongest: %s, %.1f %s, at %s.",
              spectra,
              Frequency.ofHertz(Math.round(layout.rbwHz())),
              Seconds.words(seen),
              rows.rows(),
              Seconds.words(rows.rowSeconds()),
              Frequency.ofHertz(Math.rint(hz)),
              level,
              unit,
              Seconds.words(mostAt));
      return new Outcome(
          KIND,
          TITLE,
          summary,
          series(record, context, at, unit),
          List.of(),
          readings(maker, line, hz, level, db(total), unit, context),
          List.copyOf(maker.levelMarks()),
          List.of());
    }

    private List<Reading> readings(
        PlaneReadings maker,
        HighestLine line,
        double hz,
        double level,
        double wholeLevel,
        String unit,
        MeasurementContext context) {
      double relative = context.accuracy().frequencyRelative();
      double clock = Double.isNaN(relative) ? 0 : relative;
      List<String> marks = maker.levelMarks();
      List<Reading> out = new ArrayList<>();
      out.add(
          maker.level(
              "highestLevel",
              "Highest level",
              level,
              unit,
              line.levelStandardDb(),
              Limit.NONE,
              marks));
      out.add(
          maker.reading(
              "highestFrequency",
              "Where it is",
              hz,
              "Hz",
              line.frequency(clock * hz, layout.stepHz()),
              Limit.NONE,
              marks));
      out.add(
          maker.reading(
              "highestAt",
              "When it is",
              mostAt,
              "s",
              new UncertaintyBudget()
                  .rectangular("window", layout.windowLength() / layout.sampleRateHz() / 2),
              Limit.NONE,
              marks));
      double independent = Math.max(1, seen * layout.points() * layout.stepHz());
      out.add(
          maker.level(
              "spanPower",
              "Power in the span, mean",
              wholeLevel,
              unit,
              4.34 / Math.sqrt(independent),
              Limit.NONE,
              marks));
      return out;
    }

    private List<Series> series(
        IqRecord record, MeasurementContext context, PlaneFrequencies at, String unit) {
      int n = rows.rows();
      int points = layout.points();
      float[] z = new float[n * points];
      double[] over = new double[n];
      double middle = at.addDb()[points / 2];
      for (int r = 0; r < n; r++) {
        for (int i = 0; i < points; i++) {
          z[i * n + r] = LevelDensity.fastDb(rows.highest(r, i) + 1e-30f) + (float) at.addDb()[i];
        }
        over[r] = db(rows.mean(r)) + middle;
      }
      double[] top = new double[points];
      double[] usual = new double[points];
      for (int i = 0; i < points; i++) {
        top[i] = db(highest[i]) + at.addDb()[i];
        usual[i] = db(mean[i] / spectra) + at.addDb()[i];
      }
      Axis time = Axis.even("Time", "s", rows.seconds(0), rows.rowSeconds(), n);
      PlacedSeries placed =
          PlacedSeries.of(
              record,
              context,
              Fact.of("RBW", layout.rbwHz(), "Hz"),
              Fact.of("window", layout.window().label()),
              Fact.of("spectra", spectra, ""));
      return List.of(
          placed.series(
              "spectrogram",
              "Level over frequency and time",
              at.axis(),
              "Level",
              unit,
              new Values.Matrix(z, time)),
          placed.curve("power", "Power in the span over time", time, "Level", unit, over),
          placed.curve("highest", "Highest", at.axis(), "Level", unit, top),
          placed.curve("mean", "Mean power", at.axis(), "Level", unit, usual));
    }
  }

  private static double db(double power) {
    return 10 * Math.log10(power + 1e-30);
  }
}
