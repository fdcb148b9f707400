package rovnik.core.time;

import java.util.ArrayList;
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
import rovnik.core.uncertainty.UncertaintyBudget;
import rovnik.core.units.Frequency;
import rovnik.core.units.Seconds;

/** Levels by channel; the own one and those beside it in words and readings. */
final class ChannelOutcome {
  private static final double DB = 10 / Math.log(10);
  private static final int MOST_NAMED = 12;

  /** A neighbour so near the noise may be less: 3 dB. */
  private static final double NEAR_NOISE = 2;

  private final ChannelSettings settings;
  private final IqRecord record;
  private final ChannelMeasurement.Scale scale;
  private final ChannelTally tally;
  private final double startSeconds;
  private final PlaneReadings maker;
  private final PlaneFrequencies at;
  private final PlacedSeries series;

  ChannelOutcome(
      ChannelSettings settings,
      IqRecord record,
      MeasurementContext context,
      ChannelMeasurement.Scale scale,
      ChannelTally tally,
      double startSeconds) {
    this.settings = settings;
    this.record = record;
    this.scale = scale;
    this.tally = tally;
    this.startSeconds = startSeconds;
    this.at =
        PlaneFrequencies.of(record, context, scale.firstHz(), settings.channelHz(), scale.count());
    double own = scale.firstHz() + scale.own() * settings.channelHz();
    this.maker = new CarrierReadings(record, context, own).maker();
    this.series =
        PlacedSeries.of(
            record,
            context,
            Fact.of("looked at", tally.seconds, "s"),
            Fact.of("looks", tally.looks, ""),
            Fact.of("power in", settings.width(), "Hz"),
            Fact.of("shortest use", tally.shortestUse, "s"),
            Fact.of("RBW", scale.layout().rbwHz(), "Hz"));
  }

  Outcome outcome() {
    return new Outcome(
        ChannelMeasurement.KIND,
        ChannelMeasurement.TITLE,
        summary(),
        curves(),
        List.of(table()),
        readings(),
        List.copyOf(maker.levelMarks()),
        List.of());
  }

  private String unit() {
    return record.calibrated() ? "dBm" : "dBFS";
  }

  private double level(int channel, double power) {
    return DB * Math.log(Math.max(power, 1e-30)) + at.addDb()[channel];
  }

  private int number(int channel) {
    return scale.ownNumber() + channel - scale.own();
  }

  private boolean own() {
    return tally.slotsWhile > 0;
  }

  // Words

  private String summary() {
    StringBuilder out = new StringBuilder();
    int own = scale.own();
    String where =
        (settings.firstHz() > 0 ? "Channel " + number(own) + " (" : "The own channel (")
            + Frequency.ofHertz(Math.rint(at.hz()[own]))
            + ")";
    out.append(
        own()
            ? String.format(
                Locale.ROOT,
                "%s: %.1f %s, there for %.3g %% of %s.",
                where,
                level(own, tally.meanUsed(own)),
                unit(),
                100 * tally.share(own),
                Seconds.words(tally.seconds))
            : where + " was silent for " + Seconds.words(tally.seconds) + ".");
    List<Integer> others = new ArrayList<>();
    for (int c = 0; c < scale.count(); c++) {
      if (c != own && tally.used[c] > 0) {
        others.add(number(c));
      }
    }
    if (others.isEmpty()) {
      out.append(" No other of ").append(scale.count()).append(" channels is used.");
    } else {
      out.append(String.format(Locale.ROOT, " %d of %d others", others.size(), scale.count() - 1));
      out.append(others.size() == 1 ? " is used" : " are used");
      out.append(others.size() <= MOST_NAMED ? ": " + HopOutcome.numbers(others) + "." : ".");
    }
    return out.toString();
  }

  // Readings

  private List<Reading> readings() {
    List<Reading> out = new ArrayList<>();
    int own = scale.own();
    out.add(
        maker.level(
            "ownLevel",
            own() ? "Own channel, while it is used" : "Own channel",
            level(own, tally.meanWhile(own)),
            unit(),
            DB * tally.scatterWhile(own),
            Limit.NONE,
            maker.levelMarks()));
    out.add(share("ownShare", "Own channel is used for", own));
    ratio(out, "lower1", "Channel below", own - 1, settings.neighbours());
    ratio(out, "upper1", "Channel above", own + 1, settings.neighbours());
    ratio(out, "lower2", "Second channel below", own - 2, Limit.NONE);
    ratio(out, "upper2", "Second channel above", own + 2, Limit.NONE);
    int strongest = -1;
    int used = 0;
    for (int c = 0; c < scale.count(); c++) {
      used += tally.used[c] > 0 ? 1 : 0;
      if (c != own && tally.used[c] > 0) {
        strongest = strongest < 0 || tally.meanUsed(c) > tally.meanUsed(strongest) ? c : strongest;
      }
    }
    out.add(count("usedChannels", "Channels that are used", used));
    if (strongest >= 0) {
      out.add(count("strongestChannel", "Strongest other channel", number(strongest)));
    }
    out.add(
        maker.level(
            "noise",
            "Noise in a channel",
            level(own, tally.noise),
            unit(),
            DB / Math.sqrt(tally.independent * Math.max(1, tally.slots)),
            Limit.NONE,
            maker.levelMarks()));
    return out;
  }

  private Reading count(String id, String label, int n) {
    return maker.reading(id, label, n, "", new UncertaintyBudget(), Limit.NONE, maker.levelMarks());
  }

  private Reading share(String id, String label, int channel) {
    double share = tally.share(channel);
    // A slot counts whole, though it may be filled in part: half a slot at each change.
    double known = 1.0 / tally.slots;
    UncertaintyBudget budget =
        new UncertaintyBudget()
            .rectangular("slots", 100 * Math.min(known, Math.min(share, 1 - share) + known));
    return maker.reading(id, label, 100 * share, "%", budget, Limit.NONE, maker.levelMarks());
  }

  /** What a neighbour has of the own one, while that is used. */
  private void ratio(List<Reading> out, String id, String label, int channel, Limit limit) {
    if (channel < 0 || channel >= scale.count() || !own()) {
      return;
    }
    double power = tally.meanWhile(channel);
    double db = level(channel, power) - level(scale.own(), tally.meanWhile(scale.own()));
    boolean noisy = power < NEAR_NOISE * tally.noise;
    out.add(
        maker.ratio(
            id,
            noisy ? label + ", at the noise" : label,
            db,
            DB * Math.hypot(tally.scatterWhile(channel), tally.scatterWhile(scale.own())),
            limit,
            maker.levelMarks()));
  }

  // Table and curves

  private ResultTable table() {
    List<Row> rows = new ArrayList<>();
    for (int c = 0; c < scale.count(); c++) {
      double ofOwn =
          level(c, tally.meanWhile(c)) - level(scale.own(), tally.meanWhile(scale.own()));
      rows.add(
          new Row(
              List.of(
                  Cell.of(number(c)),
                  Cell.of(at.hz()[c]),
                  Cell.of(tally.used[c] == 0 ? Double.NaN : level(c, tally.meanUsed(c))),
                  Cell.of(100 * tally.share(c)),
                  Cell.of(own() ? ofOwn : Double.NaN),
                  Cell.of(level(c, tally.mean(c))),
                  Cell.of(level(c, tally.highest[c]))),
              Verdict.NONE));
    }
    return new ResultTable(
        "channels",
        "Channels",
        List.of(
            new Column("Channel", ""),
            new Column(Axis.FREQUENCY, "Hz"),
            new Column("While used", unit()),
            new Column("Used", "%"),
            new Column("Of the own", "dB"),
            new Column("Mean", unit()),
            new Column("Highest", unit())),
        rows);
  }

  private List<Series> curves() {
    int n = scale.count();
    Axis axis = Axis.even("Channel", "", number(0), 1, n);
    double[] mean = new double[n];
    double[] highest = new double[n];
    double[] share = new double[n];
    for (int c = 0; c < n; c++) {
      mean[c] = level(c, tally.mean(c));
      highest[c] = level(c, tally.highest[c]);
      share[c] = 100 * tally.share(c);
    }
    List<Series> out = new ArrayList<>();
    out.add(series.curve("highest", "Highest by channel", axis, "Level", unit(), highest));
    out.add(series.curve("mean", "Mean by channel", axis, "Level", unit(), mean));
    out.add(series.curve("share", "Used by channel", axis, "Share of time", "%", share));
    out.add(picture(axis));
    return out;
  }

  /** The newest look over channels and time. */
  private Series picture(Axis axis) {
    int n = scale.count();
    int rows = tally.newest.length / n;
    float[] z = new float[rows * n];
    for (int r = 0; r < rows; r++) {
      for (int c = 0; c < n; c++) {
        z[c * rows + r] = (float) level(c, tally.newest[r * n + c]);
      }
    }
    Axis time =
        Axis.even(
            "Time",
            "s",
            startSeconds + tally.firstSeconds + tally.slotSeconds / 2,
            tally.slotSeconds,
            rows);
    return series.series(
        "look", "The newest look", axis, "Level", unit(), new Values.Matrix(z, time));
  }
}
