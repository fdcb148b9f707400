package rovnik.core.time;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.modulation.CarrierReadings;
import rovnik.core.modulation.RecordStretch;
import rovnik.core.path.PathCorrection;
import rovnik.core.result.Axis;
import rovnik.core.result.Fact;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.result.ResultTable.Cell;
import rovnik.core.result.ResultTable.Column;
import rovnik.core.result.ResultTable.Row;
import rovnik.core.result.Series;
import rovnik.core.signal.BandTaker;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.Peak;
import rovnik.core.spectrum.PlacedSeries;
import rovnik.core.spectrum.PlaneReadings;
import rovnik.core.uncertainty.UncertaintyBudget;
import rovnik.core.units.Frequency;
import rovnik.core.units.Seconds;

/** Curves over time, the spectrum of a stretch, readings and words. */
final class AmplitudeOutcome {
  private static final int MOST_POINTS = 2000;

  /** Times of the filter at each end of the result, in which it sees beyond it. */
  private static final double BLIND = 6;

  /** The level stays while it is no farther below the instant's: 6 dB. */
  private static final double STAYS = 0.25;

  /** A stretch that is found is no longer than this share of the result, where the level stays. */
  private static final double LONGEST_SHARE = 0.1;

  /** A line with more than this share of the stretch is its carrier. */
  private static final double LONE = 0.5;

  /** And no shorter than so many times of the filter; dips that are shorter do not end it. */
  private static final double SHORTEST_TIMES = 8;

  private final AmplitudeSettings settings;
  private final IqRecord record;
  private final MeasurementContext context;
  private final BandTaker.Band band;
  private final double startSeconds;
  private final double widthHz;
  private final double addDb;
  private final CarrierReadings carrier;
  private final PlaneReadings maker;
  private final int from;
  private final int to;
  private final double noise;
  private final double wholePower;
  private final int highestAt;
  private final int stretchFrom;
  private final int stretchTo;
  private final InstantSpectrum spectrum;
  private final InstantSpectrum.Tone tone;
  private final List<Peak> lines;

  AmplitudeOutcome(
      AmplitudeSettings settings,
      IqRecord record,
      MeasurementContext context,
      BandTaker.Band band,
      RecordStretch stretch,
      double nearHz) {
    this.settings = settings;
    this.record = record;
    this.context = context;
    this.band = band;
    this.startSeconds = stretch.startSeconds();
    boolean whole = settings.bandHz() == 0;
    this.widthHz = whole ? record.sampleRateHz() : settings.bandHz();
    this.carrier = new CarrierReadings(record, context, whole ? 0 : band.offsetHz());
    this.maker = carrier.maker();
    this.addDb = carrier.referredDb();
    int blind = whole ? 0 : (int) Math.ceil(BLIND / widthHz * band.rateHz());
    this.from = blind;
    this.to = band.samples() - blind;
    double[] power = new double[to - from];
    int most = 0;
    double sum = 0;
    for (int i = 0; i < power.length; i++) {
      power[i] = TimeSteps.power(band, from + i);
      sum += power[i];
      most = power[i] > power[most] ? i : most;
    }
    this.noise = TimeSteps.quiet(power);
    this.wholePower = sum / power.length;
    this.highestAt = from + most;
    int[] found = stretch();
    this.stretchFrom = found[0];
    this.stretchTo = found[1];
    double fs = record.sampleRateHz();
    int first = stretch.from() + (int) Math.rint(stretchFrom / band.rateHz() * fs);
    int samples = (int) Math.rint((stretchTo - stretchFrom) / band.rateHz() * fs);
    double half = widthHz / 2;
    double middle = whole ? 0 : nearHz;
    this.spectrum =
        new InstantSpectrum(
            record,
            context,
            first,
            Math.min(samples, record.sampleCount() - first),
            settings.window(),
            middle - half,
            middle + half);
    this.tone = spectrum.strongest();
    this.lines = spectrum.lines(unit(), record.calibrated());
  }

  /** Samples that a spectrum takes at least, with one for rounding. */
  private static final int FEWEST = InstantSpectrum.FEWEST + 1;

  /** First sample of the stretch that the spectrum is made of, and one after its last. */
  private int[] stretch() {
    boolean given = !Double.isNaN(settings.instantSeconds());
    int at =
        given
            ? (int) Math.rint((settings.instantSeconds() - startSeconds) * band.rateHz())
            : highestAt;
    at = Math.max(from, Math.min(to - 1, at));
    double times = SHORTEST_TIMES / widthHz * band.rateHz();
    boolean found = settings.stretchSeconds() == 0;
    int low = found ? stays(at, -1, (int) times) : at;
    int high = found ? stays(at, 1, (int) times) + 1 : at + 1;
    double least =
        found
            ? Math.min(Math.max(times, FEWEST * band.rateHz() / record.sampleRateHz()), to - from)
            : settings.stretchSeconds() * band.rateHz();
    int more = Math.max(0, (int) Math.rint(least) - (high - low));
    low -= more / 2;
    high += more - more / 2;
    // At an end of the result the stretch lies beside the instant, as long as it should be.
    int shift = Math.max(0, from - low) - Math.max(0, high - to);
    return new int[] {Math.max(from, low + shift), Math.min(to, high + shift)};
  }

  /** The farthest sample to one side to which the level stays, but for short dips. */
  private int stays(int at, int step, int dip) {
    int longest = (int) (LONGEST_SHARE * (to - from) / 2);
    double least = STAYS * TimeSteps.power(band, at);
    int last = at;
    for (int n = at; n >= from && n < to && Math.abs(n - at) < longest; n += step) {
      if (TimeSteps.power(band, n) >= least) {
        last = n;
      } else if (Math.abs(n - last) > dip) {
        break;
      }
    }
    return last;
  }

  Outcome outcome() {
    return new Outcome(
        AmplitudeMeasurement.KIND,
        AmplitudeMeasurement.TITLE,
        summary(),
        series(),
        lines.isEmpty() ? List.of() : List.of(table()),
        readings(),
        List.copyOf(maker.levelMarks()),
        List.of());
  }

  private String unit() {
    return record.calibrated() ? "dBm" : "dBFS";
  }

  private static double db(double power) {
    return 10 * Math.log10(power + 1e-30);
  }

  private double seconds(double sample) {
    return startSeconds + sample / band.rateHz();
  }

  private double stretchSeconds() {
    return (stretchTo - stretchFrom) / band.rateHz();
  }

  private double instant() {
    return seconds((stretchFrom + stretchTo - 1) / 2.0);
  }

  private String summary() {
    StringBuilder out =
        new StringBuilder(
            String.format(
                Locale.ROOT,
                "%.1f %s in the mean, at most %.1f %s, %s after the beginning.",
                db(wholePower) + addDb,
                unit(),
                db(TimeSteps.power(band, highestAt)) + addDb,
                unit(),
                Seconds.words(highestAt / band.rateHz())));
    out.append(
        String.format(
            Locale.ROOT,
            " The spectrum is of %s around %s, RBW %s",
            Seconds.words(stretchSeconds()),
            Seconds.words(instant()),
            Frequency.ofHertz(Math.rint(spectrum.rbwHz))));
    if (!lines.isEmpty()) {
      out.append(
          String.format(
              Locale.ROOT,
              "; strongest there: %s, %.1f %s",
              Frequency.ofHertz(Math.rint(tone.hz())),
              toneLevel(),
              unit()));
    }
    return out.append(".").toString();
  }

  // Readings

  private List<Reading> readings() {
    List<Reading> out = new ArrayList<>();
    List<String> marks = maker.levelMarks();
    double all = Math.max(1, (to - from) / band.rateHz() * widthHz);
    out.add(level("meanLevel", "Mean power", wholePower, all, marks));
    double peak = TimeSteps.power(band, highestAt);
    out.add(
        maker.level(
            "highestLevel",
            "Highest level",
            db(peak) + addDb,
            unit(),
            standardDb(peak, 1),
            Limit.NONE,
            marks));
    out.add(
        maker.ratio(
            "crest",
            "Highest over mean",
            db(peak) - db(wholePower),
            standardDb(peak, 1),
            Limit.NONE,
            marks));
    out.add(
        maker.reading(
            "highestAt",
            "When it is highest",
            seconds(highestAt),
            "s",
            new UncertaintyBudget().rectangular("between samples", 0.5 / band.rateHz()),
            Limit.NONE,
            marks));
    double there = 0;
    for (int n = stretchFrom; n < stretchTo; n++) {
      there += TimeSteps.power(band, n) / (stretchTo - stretchFrom);
    }
    double independent = Math.max(1, stretchSeconds() * widthHz);
    out.add(level("stretchLevel", "Power in the stretch", there, independent, marks));
    // A window looks at some of it more than at the rest: of what changes it sees another mean.
    out.add(
        level(
            "stretchSpectrum",
            "The same, by its spectrum",
            spectrum.wholePower(),
            independent / 2,
            marks));
    if (!lines.isEmpty()) {
      line(out, marks);
    }
    return out;
  }

  private void line(List<Reading> out, List<String> marks) {
    PathCorrection c = context.correction();
    double portHz = c == null ? tone.hz() : c.planeToPortHz(tone.hz());
    double relative = context.accuracy().frequencyRelative();
    out.add(
        maker.reading(
            "lineFrequency",
            "Strongest line in the stretch",
            tone.hz(),
            "Hz",
            new UncertaintyBudget()
                .rectangular("reference", Double.isNaN(relative) ? 0 : relative * portHz)
                .normal("noise", tone.standardHz()),
            Limit.NONE,
            marks));
    out.add(
        maker.level(
            "lineLevel",
            "Its level",
            toneLevel(),
            unit(),
            4.34 * Math.sqrt(2 / tone.overNoise()),
            Limit.NONE,
            marks));
  }

  private double toneLevel() {
    double[] hz = spectrum.at.hz();
    int nearest = (int) Math.rint((tone.hz() - hz[0]) / spectrum.at.stepHz());
    return db(tone.power()) + spectrum.at.addDb()[Math.max(0, Math.min(hz.length - 1, nearest))];
  }

  private Reading level(
      String id, String label, double power, double independent, List<String> marks) {
    return maker.level(
        id, label, db(power) + addDb, unit(), standardDb(power, independent), Limit.NONE, marks);
  }

  /** What noise does to a power that is the mean of so many independent ones. */
  private double standardDb(double power, double independent) {
    double share = Math.min(1, noise / Math.max(power, 1e-300));
    return 4.34 * Math.sqrt(2 * share / independent);
  }

  // Series

  private List<Series> series() {
    List<Series> out = new ArrayList<>();
    TimeSteps steps = new TimeSteps(band, from, to, MOST_POINTS, startSeconds);
    Axis time = steps.axis();
    out.add(levels("amplitude", "Highest over time", time, steps.highest));
    if (steps.thinned()) {
      out.add(levels("mean", "Mean over time", time, steps.mean));
      out.add(levels("lowest", "Lowest over time", time, steps.lowest));
    }
    out.add(
        curve(
            "frequency",
            "Frequency over time, off " + middle(),
            time,
            "Offset",
            "Hz",
            steps.frequencyHz(noise)));
    boolean lone = !lines.isEmpty() && tone.power() > LONE * spectrum.wholePower();
    double meanHz = lone ? atBand(tone.hz()) : steps.meanHz(noise);
    out.add(
        curve(
            "phase",
            "Phase over time, against "
                + Frequency.ofHertz(
                    Math.rint(atPlane(record.centreHz() + band.offsetHz() + meanHz))),
            time,
            "Phase",
            "deg",
            steps.phaseDegrees(noise, meanHz, stretchFrom, stretchTo)));
    int margin = stretchTo - stretchFrom;
    TimeSteps near =
        new TimeSteps(
            band,
            Math.max(from, stretchFrom - margin),
            Math.min(to, stretchTo + margin),
            MOST_POINTS,
            startSeconds);
    out.add(levels("near", "Around the instant", near.axis(), near.highest));
    out.add(instantSpectrum());
    for (String edgeUnit : List.of(unit(), "Hz", "deg")) {
      out.add(edge("from-" + edgeUnit, seconds(stretchFrom), edgeUnit));
      out.add(edge("to-" + edgeUnit, seconds(stretchTo), edgeUnit));
    }
    return out;
  }

  /** A frequency at the plane, from the middle of the band. */
  private double atBand(double planeHz) {
    PathCorrection c = context.correction();
    double port = c == null ? planeHz : c.planeToPortHz(planeHz);
    return port - record.centreHz() - band.offsetHz();
  }

  private String middle() {
    return Frequency.ofHertz(Math.rint(atPlane(record.centreHz() + band.offsetHz()))).toString();
  }

  private double atPlane(double portHz) {
    PathCorrection c = context.correction();
    return c == null ? portHz : c.portToPlaneHz(portHz);
  }

  private Series levels(String id, String label, Axis time, double[] power) {
    double[] y = new double[power.length];
    for (int i = 0; i < y.length; i++) {
      y[i] = db(power[i]) + addDb;
    }
    return curve(id, label, time, "Level", unit(), y);
  }

  private Series curve(String id, String label, Axis x, String quantity, String unit, double[] y) {
    return PlacedSeries.of(record, context).curve(id, label, x, quantity, unit, y);
  }

  private Series instantSpectrum() {
    int together = Math.max(1, (spectrum.points() + MOST_POINTS - 1) / MOST_POINTS);
    double[] y = spectrum.levelsDb(together);
    double middle = (together - 1) / 2.0 * spectrum.at.stepHz();
    Axis x =
        Axis.even(
            Axis.FREQUENCY,
            "Hz",
            spectrum.at.hz()[0] + middle,
            together * spectrum.at.stepHz(),
            y.length);
    return PlacedSeries.of(
            record,
            context,
            Fact.of("RBW", spectrum.rbwHz, "Hz"),
            Fact.of("window", settings.window().label()),
            Fact.of("of", stretchSeconds(), "s"),
            Fact.of("around", instant(), "s"))
        .curve("spectrum", "Spectrum at the instant", x, "Level", unit(), y);
  }

  /** A stroke where the stretch begins or ends. */
  private static Series edge(String id, double at, String unit) {
    return Series.curve(
            id, "", Axis.own("Time", "s", new double[] {at, at}), new double[] {-1e12, 1e12}, unit)
        .as(Series.Role.EDGE);
  }

  private ResultTable table() {
    List<Row> rows = new ArrayList<>();
    for (Peak p : lines) {
      rows.add(new Row(List.of(Cell.of(p.frequencyHz()), Cell.of(p.level())), Verdict.NONE));
    }
    return new ResultTable(
        Outcome.LINES,
        "Lines at the instant",
        List.of(new Column(Axis.FREQUENCY, "Hz"), new Column("Level", unit())),
        rows);
  }
}
