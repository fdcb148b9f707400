package rovnik.core.time;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.modulation.CarrierReadings;
import rovnik.core.result.Axis;
import rovnik.core.result.Fact;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.result.ResultTable.Cell;
import rovnik.core.result.ResultTable.Column;
import rovnik.core.result.ResultTable.Row;
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

/** Density, history, traces, what was there and what is sure to be seen. */
final class DensityOutcome {
  /** Spectra that are added up in single precision. */
  private static final int TOGETHER = 64;

  /** What may read so low may be missed. */
  private static final double MISSED_DB = 30;

  /** Levels of single spectra that are remembered until it is known which of them matter. */
  private static final int MOST_KEPT = 1 << 23;

  private final DensitySettings settings;
  private final IqRecord record;
  private final MeasurementContext context;
  private final FrameSpectra spectra;
  private final SpectrumLayout layout;
  private final double startSeconds;
  private final CarrierReadings carrier;
  private final PlaneReadings maker;
  private final SureEvents sure;
  private final EventCertainty certainty;
  private final int points;
  private final double[] hz;
  private final double[] addDb;
  private final double centreDb;
  private final LevelDensity density;
  private final History history;
  private final double[] mean;
  private final float[] factor;
  private final float[] highest;
  private final float[] lowest;
  private final List<Presence> presences;

  /** Where between points each of them is. */
  private final List<HighestLine> lines;

  DensityOutcome(
      DensitySettings settings,
      IqRecord record,
      MeasurementContext context,
      FrameSpectra spectra,
      SureEvents sure,
      double centreOffsetHz,
      double startSeconds) {
    this.settings = settings;
    this.record = record;
    this.context = context;
    this.spectra = spectra;
    this.layout = spectra.layout();
    this.startSeconds = startSeconds;
    this.carrier = new CarrierReadings(record, context, centreOffsetHz);
    this.maker = carrier.maker();
    this.sure = sure;
    this.certainty = sure.certainty();
    this.points = layout.points();
    PlaneFrequencies at =
        PlaneFrequencies.of(record, context, layout.offsetHz(0), layout.stepHz(), points);
    this.hz = at.hz();
    this.addDb = at.addDb();
    this.centreDb = carrier.referredDb();
    this.density = new LevelDensity(points);
    this.history = new History(points, spectra.frames());
    this.mean = new double[points];
    this.factor = new float[points];
    this.lowest = new float[points];
    Arrays.fill(lowest, Float.POSITIVE_INFINITY);
    long cells = (long) points * spectra.frames();
    short[] kept = new short[cells <= MOST_KEPT ? (int) cells : 0];
    gather(kept);
    this.highest = history.highest();
    this.presences = new PresenceFinder(spectra, highest, factor, kept, noise()).find();
    this.lines =
        presences.stream()
            .map(
                p ->
                    HighestLine.of(
                        layout, highest, mean, p.point(), noise(), spectra.frames(), p.frames()))
            .toList();
  }

  private void gather(short[] kept) {
    for (int i = 0; i < points; i++) {
      factor[i] = (float) Math.pow(10, (addDb[i] - centreDb) / 10);
    }
    int frames = spectra.frames();
    float[] partly = new float[points];
    double fade = settings.decaySeconds() > 0 ? spectra.stepSeconds() / settings.decaySeconds() : 0;
    spectra.each(
        (frame, power) -> {
          float weight = fade == 0 ? 1 : (float) Math.exp(-fade * (frames - 1 - frame));
          density.add(power, factor, weight, kept, kept.length == 0 ? 0 : frame * points);
          history.add(frame, power, partly, lowest);
          if (frame % TOGETHER == TOGETHER - 1 || frame == frames - 1) {
            for (int i = 0; i < points; i++) {
              mean[i] += (double) partly[i] / frames;
            }
            Arrays.fill(partly, 0);
          }
        });
  }

  /** Mean power of noise, of which half of all values lies below ln 2. */
  private double noise() {
    return Math.pow(10, density.usualDb() / 10) / Math.log(2);
  }

  Outcome outcome() {
    return new Outcome(
        DensityMeasurement.KIND,
        DensityMeasurement.TITLE,
        summary(),
        series(),
        tables(),
        readings(),
        List.copyOf(maker.levelMarks()),
        List.of());
  }

  private String summary() {
    StringBuilder out = new StringBuilder();
    out.append(
        String.format(
            Locale.ROOT,
            "%d spectra of RBW %s in %s; what lasts %s is sure to be seen at its full level.",
            spectra.frames(),
            Frequency.ofHertz(Math.round(layout.rbwHz())),
            Seconds.words(spectra.frames() * spectra.stepSeconds()),
            Seconds.words(certainty.fullSeconds())));
    if (presences.isEmpty()) {
      out.append(" Nothing rises over the noise.");
    } else {
      Presence p = presences.get(0);
      out.append(
          String.format(
              Locale.ROOT,
              " Strongest: %s, %.1f %s, there for %.3g %% of the time.",
              Frequency.ofHertz(Math.rint(hz(p))),
              level(p),
              unit(),
              percent(p)));
    }
    return out.toString();
  }

  /**
   * Both edges of each stretch lie anywhere between two spectra; half of the level is found to a
   * tenth.
   */
  private UncertaintyBudget edges(Presence p) {
    double step = 100.0 / spectra.frames();
    return new UncertaintyBudget()
        .normal("edges", step * Math.sqrt(p.runs() / 6.0))
        .rectangular("half of the level", 0.2 * step * p.runs());
  }

  private double percent(Presence p) {
    return 100.0 * p.frames() / spectra.frames();
  }

  private String unit() {
    return record.calibrated() ? "dBm" : "dBFS";
  }

  private HighestLine line(Presence p) {
    return lines.get(presences.indexOf(p));
  }

  private double level(Presence p) {
    return db(p.power()) + addDb[p.point()] + line(p).lossDb();
  }

  private double hz(Presence p) {
    return hz[p.point()] + line(p).offsetPoints() * layout.stepHz();
  }

  private static double db(double power) {
    return 10 * Math.log10(power + 1e-30);
  }

  // Readings

  private List<Reading> readings() {
    List<Reading> out = new ArrayList<>();
    List<String> marks = maker.levelMarks();
    double relative = context.accuracy().frequencyRelative();
    double sure = certainty.fullSeconds();
    if (!presences.isEmpty()) {
      Presence p = presences.get(0);
      HighestLine line = lines.get(0);
      out.add(
          maker.level(
              "highestLevel",
              "Highest level",
              level(p),
              unit(),
              line.levelStandardDb(),
              Limit.NONE,
              withShort(marks, p)));
      out.add(
          maker.reading(
              "highestFrequency",
              "Where the highest level is",
              hz(p),
              "Hz",
              line.frequency(Double.isNaN(relative) ? 0 : relative * hz(p), layout.stepHz()),
              Limit.NONE,
              marks));
      out.add(
          maker.reading(
              "share",
              "Share of time that it is there",
              percent(p),
              "%",
              edges(p),
              Limit.NONE,
              marks));
    }
    out.add(
        maker.level(
            "usualLevel",
            "Level that half of all is below",
            density.usualDb() + centreDb,
            unit(),
            LevelDensity.CELL_DB / Math.sqrt(12),
            Limit.NONE,
            marks));
    out.add(
        maker.reading(
            "sure",
            "Shortest event sure at its full level",
            sure,
            "s",
            new UncertaintyBudget()
                .rectangular("reference", Double.isNaN(relative) ? 0 : relative * sure)
                .rectangular("between samples", 1 / layout.sampleRateHz()),
            Limit.NONE,
            List.of()));
    return out;
  }

  private List<String> withShort(List<String> marks, Presence p) {
    String reason = tooShort(p);
    if (reason.isEmpty()) {
      return marks;
    }
    List<String> out = new ArrayList<>(marks);
    out.add(reason);
    return out;
  }

  /** Why a level may read low: the event is shorter than what is sure. */
  private String tooShort(Presence p) {
    double longest = p.longest() * spectra.stepSeconds();
    if (longest >= certainty.fullSeconds()) {
      return "";
    }
    double loss = certainty.lossDb(longest);
    return loss > MISSED_DB
        ? "so short that others may be missed"
        : String.format(Locale.ROOT, "so short that it may read %.1f dB low", loss);
  }

  // Series and tables

  private List<Series> series() {
    PlacedSeries placed =
        PlacedSeries.of(
            record,
            context,
            Fact.of("RBW", layout.rbwHz(), "Hz"),
            Fact.of("window", layout.window().label()),
            Fact.of("spectra", spectra.frames(), ""));
    Axis x = Axis.even(Axis.FREQUENCY, "Hz", hz[0], layout.stepHz(), points);
    List<Series> out = new ArrayList<>();
    double[] most = new double[points];
    double[] least = new double[points];
    double[] usual = new double[points];
    for (int i = 0; i < points; i++) {
      most[i] = db(highest[i]) + addDb[i];
      least[i] = db(lowest[i]) + addDb[i];
      usual[i] = db(mean[i]) + addDb[i];
    }
    out.add(placed.curve("highest", "Highest", x, "Level", unit(), most));
    out.add(placed.curve("mean", "Mean power", x, "Level", unit(), usual));
    out.add(placed.curve("lowest", "Lowest", x, "Level", unit(), least));
    int low = density.floor();
    int high = Math.max(low + 1, density.highest());
    Axis levels =
        Axis.even(
            "Level",
            unit(),
            LevelDensity.levelDb(low) + centreDb,
            LevelDensity.CELL_DB,
            high - low + 1);
    out.add(
        placed.series(
            "density",
            "How often which level",
            x,
            "Share of time",
            "%",
            new Values.Matrix(density.percent(low, high), levels)));
    Axis time =
        Axis.even(
            "Time",
            "s",
            startSeconds + spectra.seconds((history.perRow() - 1) / 2.0),
            history.perRow() * spectra.stepSeconds(),
            history.rows());
    out.add(
        placed.series(
            "history",
            "Level over frequency and time",
            x,
            "Level",
            unit(),
            new Values.Matrix(history.levels(addDb), time)));
    return out;
  }

  private List<ResultTable> tables() {
    return List.of(there(), sure.table());
  }

  private ResultTable there() {
    List<Row> rows = new ArrayList<>();
    // To about a hundredth of the RBW, which is as good as many of them are known.
    double digit = Math.pow(10, Math.floor(Math.log10(layout.rbwHz() / 40)));
    for (Presence p : presences) {
      rows.add(
          new Row(
              List.of(
                  Cell.of(Math.rint(hz(p) / digit) * digit),
                  Cell.of(level(p)),
                  Cell.of(db(mean[p.point()]) + addDb[p.point()] + line(p).lossDb()),
                  Cell.of(percent(p)),
                  Cell.of(p.runs()),
                  Cell.of(p.longest() * spectra.stepSeconds()),
                  low(p)),
              Verdict.NONE));
    }
    return new ResultTable(
        "there",
        "What was there",
        List.of(
            new Column(Axis.FREQUENCY, "Hz"),
            new Column("Highest", unit()),
            new Column("Mean", unit()),
            new Column("Share", "%"),
            new Column("Times", ""),
            new Column("Longest", "s"),
            new Column("Low by at most", "dB")),
        rows);
  }

  private Cell low(Presence p) {
    double longest = p.longest() * spectra.stepSeconds();
    double loss = longest >= certainty.fullSeconds() ? 0 : certainty.lossDb(longest);
    return loss > MISSED_DB ? Cell.of("some missed") : Cell.of(loss);
  }
}
