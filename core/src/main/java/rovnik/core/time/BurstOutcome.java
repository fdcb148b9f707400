package rovnik.core.time;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.function.ToDoubleFunction;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.modulation.CarrierReadings;
import rovnik.core.result.Axis;
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
import rovnik.core.spectrum.PlaneReadings;
import rovnik.core.uncertainty.UncertaintyBudget;
import rovnik.core.units.Frequency;
import rovnik.core.units.Seconds;

/** Readings, curves, table and words of the bursts in a record. */
final class BurstOutcome {
  private static final int MOST_ROWS = 500;
  private static final int MOST_POINTS = 2000;

  /** From 10 to 90 % of a Gaussian filter's step, over its width. */
  private static final double OWN_RISE = 0.68;

  /** An edge this many times as long as the filter's own is little changed by it. */
  private static final double SLOWER = 2;

  /** A band whose quiet tenth is so near to its highest power is never quiet. */
  private static final double ALWAYS = 20;

  /** Off is rounding, not noise, where it lies so far below. */
  private static final double ONLY_ROUNDING_DB = 120;

  private final BurstSettings settings;
  private final IqRecord record;
  private final MeasurementContext context;
  private final BandTaker.Band band;
  private final BurstFinder found;
  private final double startSeconds;
  private final List<Burst> bursts;
  private final BurstTimes times;
  private final List<RateCauses.Cause> causes;
  private final CarrierReadings carrier;
  private final PlaneReadings maker;
  private final double offsetHz;
  private final double addDb;

  BurstOutcome(
      BurstSettings settings,
      IqRecord record,
      MeasurementContext context,
      BandTaker.Band band,
      BurstFinder found,
      double startSeconds) {
    this.settings = settings;
    this.record = record;
    this.context = context;
    this.band = band;
    this.found = found;
    this.startSeconds = startSeconds;
    this.bursts = found.bursts();
    this.times = new BurstTimes(bursts);
    this.offsetHz = meanOffset();
    this.carrier =
        new CarrierReadings(
            record, context, band.offsetHz() + (Double.isNaN(offsetHz) ? 0 : offsetHz));
    this.maker = carrier.maker();
    this.addDb = carrier.referredDb();
    this.causes =
        times.steady()
            ? RateCauses.of(times.period(), 2 * times.standard(), context.rates())
            : List.of();
  }

  private double meanOffset() {
    double sum = 0;
    double weight = 0;
    for (Burst b : bursts) {
      if (!Double.isNaN(b.offsetHz())) {
        sum += b.offsetHz() * b.power() * b.length();
        weight += b.power() * b.length();
      }
    }
    return weight > 0 ? sum / weight : Double.NaN;
  }

  Outcome outcome() {
    return new Outcome(
        BurstMeasurement.KIND,
        BurstMeasurement.TITLE,
        summary(),
        series(),
        tables(),
        readings(),
        marks(),
        List.of());
  }

  FoundBursts found() {
    return new FoundBursts(
        bursts,
        startSeconds,
        found.power(),
        band.rateHz(),
        addDb,
        found.firesOnNoise(),
        bursts.isEmpty() ? none() : "");
  }

  private List<ResultTable> tables() {
    if (bursts.isEmpty()) {
      return List.of();
    }
    return causes.isEmpty() ? List.of(table()) : List.of(table(), known());
  }

  /** The clocks and intervals that are known, against the interval that was found. */
  private ResultTable known() {
    return new ResultTable(
        "causes",
        "What may be behind the interval",
        List.of(
            new Column("Known", ""),
            new Column("Rate", "Hz"),
            new Column("Cycles in an interval", ""),
            new Column("Off (ppm)", ""),
            new Column("So it", "")),
        causes.stream()
            .map(
                c ->
                    new Row(
                        List.of(
                            Cell.of(c.rate().name()),
                            Cell.of(c.rate().hertz()),
                            Cell.of(c.cycles()),
                            Cell.of(c.fits() ? c.offPpm() : Double.NaN),
                            Cell.of(c.fit().words())),
                        Verdict.NONE))
            .toList());
  }

  private List<String> marks() {
    List<String> out = new ArrayList<>(maker.levelMarks());
    if (found.firesOnNoise()) {
      out.add("noise passes the threshold: raise it");
    }
    return out;
  }

  // Readings

  private List<Reading> readings() {
    List<Reading> out = new ArrayList<>();
    List<String> marks = marks();
    out.add(
        maker.reading(
            "bursts", "Bursts", bursts.size(), "", new UncertaintyBudget(), Limit.NONE, marks));
    if (bursts.isEmpty()) {
      return out;
    }
    timing(out, marks);
    double level = level();
    out.add(
        maker.level(
            "burstLevel", "Level of a burst", level, unit(), levelStandardDb(), Limit.NONE, marks));
    double peak = bursts.stream().mapToDouble(Burst::peak).max().orElse(0);
    out.add(
        maker.level(
            "burstPeak",
            "Highest level",
            db(peak) + addDb + filterDb(),
            unit(),
            4.34 * Math.sqrt(2 * found.noise() / peak),
            Limit.NONE,
            marks));
    double off = db(found.noise()) + addDb;
    if (level - off < ONLY_ROUNDING_DB) {
      out.add(
          maker.ratio(
              "onOff",
              "On over off, in the band",
              level - off,
              Math.hypot(levelStandardDb(), offStandardDb()),
              Limit.NONE,
              marks));
    }
    if (!Double.isNaN(offsetHz)) {
      out.addAll(
          carrier.frequency(
              "bursts", offsetStandard(), settings.bandHz(), settings.centreHz(), marks));
    }
    List<String> ofEdges = new ArrayList<>(marks);
    double own = OWN_RISE / settings.bandHz();
    if (mean(Burst::riseSeconds) < SLOWER * own || mean(Burst::fallSeconds) < SLOWER * own) {
      ofEdges.add(
          "a band of " + Frequency.ofHertz(settings.bandHz()) + " rises in " + seconds(own));
    }
    add(out, "rise", "Rise, 10 to 90 %", Burst::riseSeconds, "s", ofEdges);
    add(out, "fall", "Fall, 90 to 10 %", Burst::fallSeconds, "s", ofEdges);
    add(out, "droop", "Droop", Burst::droopDb, "dB", marks);
    return out;
  }

  private void timing(List<Reading> out, List<String> marks) {
    if (times.steady()) {
      UncertaintyBudget budget = clock(times.period()).normal("starts", times.standard());
      out.add(
          maker.reading(
              "period",
              "From burst to burst",
              times.period(),
              "s",
              budget,
              settings.period(),
              marks));
      double toHz = 1 / times.period() / times.period();
      out.add(
          maker.reading(
              "rate",
              "Bursts a second",
              1 / times.period(),
              "Hz",
              new UncertaintyBudget().normal("starts", budget.combined() * toHz),
              Limit.NONE,
              marks));
      out.add(
          maker.reading(
              "jitter",
              "Scatter of starts, rms",
              times.scatter(),
              "s",
              new UncertaintyBudget()
                  .normal("starts", times.scatter() / Math.sqrt(2.0 * (bursts.size() - 2))),
              Limit.NONE,
              marks));
      if (times.missed() > 0) {
        out.add(
            maker.reading(
                "missed",
                "Bursts that are missing",
                times.missed(),
                "",
                new UncertaintyBudget(),
                Limit.NONE,
                marks));
      }
    }
    double length = mean(Burst::length);
    double edges = 0;
    for (Burst b : bursts) {
      edges += 2 * b.edgeSeconds() * b.edgeSeconds() / bursts.size() / bursts.size();
    }
    List<String> ofLength = new ArrayList<>(marks);
    if (length < 1 / settings.bandHz()) {
      ofLength.add("shorter than the band can follow: widen it");
    }
    out.add(
        maker.reading(
            "length",
            "Length of a burst",
            length,
            "s",
            clock(length)
                .normal("edges", Math.max(Math.sqrt(edges), ofMean(Burst::length)))
                .rectangular("between samples", 0.02 / band.rateHz()),
            settings.length(),
            ofLength));
    double looked = found.power().length / band.rateHz();
    out.add(
        maker.reading(
            "duty",
            times.steady() ? "Share of time on" : "Share of time on, of what was seen",
            100
                * (times.steady()
                    ? length / times.period() * bursts.size() / (bursts.size() + times.missed())
                    : found.onSeconds() / looked),
            "%",
            new UncertaintyBudget()
                .normal(
                    "edges",
                    100
                        * Math.max(Math.sqrt(edges), ofMean(Burst::length))
                        / (times.steady() ? times.period() : looked / bursts.size())),
            Limit.NONE,
            ofLength));
  }

  private UncertaintyBudget clock(double seconds) {
    double relative = context.accuracy().frequencyRelative();
    return new UncertaintyBudget()
        .rectangular("reference", Double.isNaN(relative) ? 0 : relative * seconds);
  }

  private void add(
      List<Reading> out,
      String id,
      String label,
      ToDoubleFunction<Burst> of,
      String unit,
      List<String> marks) {
    double value = mean(of);
    if (!Double.isNaN(value)) {
      UncertaintyBudget budget = new UncertaintyBudget().normal("bursts", ofMean(of));
      if (unit.equals("s")) {
        budget.rectangular("between samples", 0.1 / band.rateHz());
        budget.normal("noise", edge() / Math.sqrt(bursts.size()));
      }
      out.add(maker.reading(id, label, value, unit, budget, Limit.NONE, marks));
    }
  }

  private double edge() {
    return bursts.stream().mapToDouble(Burst::edgeSeconds).average().orElse(0);
  }

  private double mean(ToDoubleFunction<Burst> of) {
    return bursts.stream()
        .mapToDouble(of)
        .filter(v -> !Double.isNaN(v))
        .average()
        .orElse(Double.NaN);
  }

  /** Standard uncertainty of a mean over bursts, by how they scatter. */
  private double ofMean(ToDoubleFunction<Burst> of) {
    double[] v = bursts.stream().mapToDouble(of).filter(x -> !Double.isNaN(x)).toArray();
    if (v.length < 2) {
      return 0;
    }
    double mean = mean(of);
    double sum = 0;
    for (double x : v) {
      sum += (x - mean) * (x - mean);
    }
    // Of few the scatter is not known well (JCGM 101:2008, 6.4.9.4).
    double few = v.length > 3 ? Math.sqrt((v.length - 1.0) / (v.length - 3.0)) : 3;
    return few * Math.sqrt(sum / (v.length - 1) / v.length);
  }

  private double offsetStandard() {
    double scatter = ofMean(b -> b.offsetHz());
    // Of one burst: noise turns the phase at its ends.
    Burst b = bursts.get(0);
    double turns = Math.sqrt(found.noise() / b.power()) / (2 * Math.PI * b.length());
    return Math.max(scatter, turns / Math.sqrt(bursts.size()));
  }

  private double level() {
    double sum = 0;
    for (Burst b : bursts) {
      sum += b.power() / bursts.size();
    }
    return db(sum) + addDb + filterDb();
  }

  /** What the band's filter takes of a burst beside its middle. */
  private double filterDb() {
    double off = Double.isNaN(offsetHz) ? 0 : offsetHz / (settings.bandHz() / 2);
    return Math.abs(off) > 1.2 ? 0 : 10 * Math.log10(2) * off * off;
  }

  private double levelStandardDb() {
    Burst b = bursts.get(0);
    double independent = Math.max(1, b.length() * settings.bandHz()) * bursts.size();
    double noise = 4.34 * Math.sqrt(2 * found.noise() / b.power() / independent);
    double scatter = ofMean(x -> db(x.power()));
    return Math.max(noise, scatter);
  }

  private double offStandardDb() {
    double independent = found.power().length / band.rateHz() * settings.bandHz();
    return 4.34 / Math.sqrt(Math.max(1, independent));
  }

  private String unit() {
    return record.calibrated() ? "dBm" : "dBFS";
  }

  private static double db(double power) {
    return 10 * Math.log10(Math.max(power, 1e-30));
  }

  // Words

  private String summary() {
    if (bursts.isEmpty()) {
      return none();
    }
    StringBuilder out = new StringBuilder();
    out.append(
        String.format(
            Locale.ROOT,
            "%d burst%s of %s",
            bursts.size(),
            bursts.size() == 1 ? "" : "s",
            seconds(mean(Burst::length))));
    if (times.steady()) {
      out.append(", every ").append(seconds(times.period()));
      out.append(" (").append(hertz(1 / times.period())).append(")");
    } else if (bursts.size() > 2) {
      out.append(", in no steady interval");
    }
    out.append(String.format(Locale.ROOT, ", %.1f %s.", level(), unit()));
    out.append(RateCauses.words(causes));
    if (times.steady() && times.missed() > 0) {
      out.append(String.format(Locale.ROOT, " %d did not come.", times.missed()));
    }
    if (found.cut() > 0) {
      out.append(" What begins before the result or ends after it is left out.");
    }
    if (found.tooShort() > 0) {
      out.append(String.format(Locale.ROOT, " %d shorter ones do not count.", found.tooShort()));
    }
    if (found.firesOnNoise()) {
      out.append(" Noise passes the threshold; raise it.");
    }
    return out.toString();
  }

  private String none() {
    double most = 0;
    for (double p : found.power()) {
      most = Math.max(most, p);
    }
    if (found.cut() > 0 || most < ALWAYS * -Math.log(0.9) * found.quiet()) {
      return "The signal is there all the time: nothing begins and ends here. Look for longer, or"
          + " raise the threshold.";
    }
    if (found.tooShort() > 0) {
      return found.tooShort() + " bursts are shorter than the shortest that counts.";
    }
    return String.format(
        Locale.ROOT,
        "No burst: the highest level stays %.1f dB below the threshold of %.1f %s.",
        db(found.threshold()) - db(most),
        db(found.threshold()) + addDb,
        unit());
  }

  private static String hertz(double hz) {
    return Frequency.ofHertz(new BigDecimal(hz, new MathContext(4)).doubleValue()).toString();
  }

  private static String seconds(double s) {
    return Seconds.words(s);
  }

  // Curves

  private List<Series> series() {
    List<Series> out = new ArrayList<>();
    int n = found.power().length;
    out.add(over("amplitude", "Highest level over time", 0, n));
    if (!bursts.isEmpty()) {
      Burst most = bursts.get(0);
      for (Burst b : bursts) {
        most = b.power() > most.power() ? b : most;
      }
      double margin = Math.max(0.6 * most.length(), 3 / settings.bandHz());
      int from = (int) Math.max(0, (most.startSeconds() - margin) * band.rateHz());
      int to = (int) Math.min(n, (most.endSeconds() + margin) * band.rateHz());
      out.add(over("burst", "The strongest burst", from, to));
    }
    if (times.steady()) {
      double[] at = Arrays.stream(times.starts()).map(t -> startSeconds + t).toArray();
      out.add(
          Series.curve(
                  "late", "Starts off their places", Axis.own("Time", "s", at), times.late(), "s")
              .of("Late by"));
    }
    return out;
  }

  /** The highest power in each step. */
  private Series over(String id, String label, int from, int to) {
    int together = Math.max(1, (to - from + MOST_POINTS - 1) / MOST_POINTS);
    double[] y = new double[(to - from) / together];
    for (int i = 0; i < y.length; i++) {
      double most = 0;
      for (int k = from + i * together; k < from + (i + 1) * together; k++) {
        most = Math.max(most, found.power()[k]);
      }
      y[i] = db(most) + addDb;
    }
    double step = together / band.rateHz();
    return Series.curve(
            id,
            label,
            Axis.even("Time", "s", startSeconds + from / band.rateHz(), step, y.length),
            y,
            unit())
        .of("Level");
  }

  private ResultTable table() {
    List<Row> rows = new ArrayList<>();
    for (int k = 0; k < Math.min(MOST_ROWS, bursts.size()); k++) {
      Burst b = bursts.get(k);
      double atHz = carrier.carrierHz() - (Double.isNaN(offsetHz) ? 0 : offsetHz) + b.offsetHz();
      rows.add(
          new Row(
              List.of(
                  Cell.of(startSeconds + b.startSeconds()),
                  Cell.of(b.length()),
                  Cell.of(k == 0 ? Double.NaN : times.intervals()[k - 1]),
                  Cell.of(atHz),
                  Cell.of(db(b.power()) + addDb + filterDb()),
                  Cell.of(db(b.peak()) + addDb + filterDb()),
                  Cell.of(b.riseSeconds()),
                  Cell.of(b.fallSeconds()),
                  Cell.of(b.droopDb())),
              Verdict.NONE));
    }
    String title =
        bursts.size() > MOST_ROWS
            ? "The first " + MOST_ROWS + " of " + bursts.size() + " bursts"
            : "Bursts";
    return new ResultTable(
        "bursts",
        title,
        List.of(
            new Column("Start", "s"),
            new Column("Length", "s"),
            new Column("Interval", "s"),
            new Column("Frequency", "Hz"),
            new Column("Level", unit()),
            new Column("Highest", unit()),
            new Column("Rise", "s"),
            new Column("Fall", "s"),
            new Column("Droop", "dB")),
        rows);
  }
}
