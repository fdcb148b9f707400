package rovnik.core.listening;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.IntStream;
import org.hipparchus.special.BesselJ;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.modulation.CarrierReadings;
import rovnik.core.modulation.analog.AudioSpectrum;
import rovnik.core.modulation.analog.SineFit;
import rovnik.core.modulation.analog.ToneFigures;
import rovnik.core.modulation.analog.ToneSquelch;
import rovnik.core.result.Axis;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.result.ResultTable.Cell;
import rovnik.core.result.ResultTable.Column;
import rovnik.core.result.ResultTable.Row;
import rovnik.core.result.Series;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.Sound;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.PlacedSeries;
import rovnik.core.spectrum.PlaneReadings;
import rovnik.core.uncertainty.UncertaintyBudget;
import rovnik.core.units.Frequency;
import rovnik.core.units.Seconds;

/** What was heard, in words, readings, passages and curves. */
final class ListenOutcome {
  private static final int MOST_POINTS = 2000;
  private static final int MOST_ROWS = 500;
  private static final double LOWEST_HZ = 20;

  /** The tone is looked for in so many samples at most. */
  private static final int MOST_FITTED = 1 << 17;

  /** Places to each side of a tone that tell of the noise there. */
  private static final int BESIDE = 12;

  /** Side lines beyond the index that still count. */
  private static final int MOST_LINES = 8;

  /** Share by which a filter's amplitude is off what it should be, at most. */
  private static final double RIPPLE = 2e-4;

  /** Less quieting than this comes with clicks of noise (seen in trials). */
  private static final double CLICKS_BELOW_DB = 15;

  /** Where noise is less by this, there is a carrier. */
  private static final double CARRIER_DB = 6;

  /** Both sides, with what they do to each other. */
  private static final double LOST = 3;

  /** Share of the channel that its filter passes as it is. */
  private static final double FLAT = 0.8;

  /** The sound begins and ends softly. */
  private static final double RAMP_SECONDS = 5e-3;

  private final ListenSettings settings;
  private final IqRecord record;
  private final Demodulator d;
  private final double nearHz;
  private final double startSeconds;
  private final double noiseBend;
  private final double addDb;
  private final List<Gate.Passage> passages;
  private final float[] heard;
  private final double[] fitted;
  private final SineFit tone;
  private final Optional<ToneSquelch> squelchTone;
  private final CarrierReadings carrier;
  private final PlaneReadings maker;
  private final PlacedSeries placed;
  private final MeasurementContext context;

  ListenOutcome(
      ListenSettings settings,
      IqRecord record,
      MeasurementContext context,
      Demodulator demodulator,
      double nearHz,
      double startSeconds) {
    this.settings = settings;
    this.record = record;
    this.context = context;
    this.d = demodulator;
    this.nearHz = nearHz;
    this.startSeconds = startSeconds;
    this.addDb = new CarrierReadings(record, context, nearHz).referredDb();
    this.noiseBend = settings.mode() == Mode.FM ? d.bendOfNoise(settings.bandHz()) : Double.NaN;
    this.passages = Gate.passages(d, settings.squelch(), addDb, noiseBend);
    this.heard = heard();
    this.fitted = longest();
    double top = settings.highestHz();
    double low = Math.max(LOWEST_HZ, 0.8 * settings.audio().lowHz());
    this.tone = fitted.length < 64 ? null : SineFit.of(fitted, d.soundRateHz(), low, top, top);
    this.squelchTone = lookForSquelchTone();
    this.carrier = new CarrierReadings(record, context, nearHz + carrierHz());
    this.maker = carrier.maker();
    this.placed = PlacedSeries.of(record, context);
  }

  // What is heard

  private int sample(double slot) {
    return (int) Math.min(d.sound.size(), Math.round(slot * d.slotSeconds() * d.soundRateHz()));
  }

  private static double mean(Gate.Passage passage, Growing of) {
    Gate.Passage p = passage.inner();
    double sum = 0;
    for (int k = p.from(); k < p.to(); k++) {
      sum += of.at(k) / p.slots();
    }
    return sum;
  }

  /** What it is measured against: AM is a share of its carrier. */
  private double full(Gate.Passage p) {
    return settings.mode() == Mode.AM ? Math.max(mean(p, d.means), 1e-12) : 1;
  }

  /** The sound with silence where the squelch is closed, without what stays the same. */
  private float[] heard() {
    float[] out = new float[d.sound.size()];
    int ramp = (int) Math.max(1, RAMP_SECONDS * d.soundRateHz());
    for (Gate.Passage p : passages) {
      int from = sample(p.from());
      int to = p.to() == d.powers.size() ? out.length : sample(p.to());
      double mean = 0;
      for (int i = from; i < to; i++) {
        mean += d.sound.at(i) / (double) (to - from);
      }
      double full = full(p);
      for (int i = from; i < to; i++) {
        double edge = Math.min(1, Math.min(i - from + 0.5, to - i - 0.5) / ramp);
        double soft = (1 - Math.cos(Math.PI * edge)) / 2;
        out[i] = (float) (soft * (d.sound.at(i) - mean) / full);
      }
    }
    return out;
  }

  /** The longest passage, without its soft ends and what its filters ring. */
  private double[] longest() {
    Gate.Passage most = null;
    for (Gate.Passage p : passages) {
      most = most == null || p.slots() > most.slots() ? p : most;
    }
    if (most == null) {
      return new double[0];
    }
    int ramp =
        (int)
            Math.ceil(Math.max(RAMP_SECONDS, settings.audio().settlesSeconds()) * d.soundRateHz());
    int from = sample(most.from()) + ramp;
    int to = Math.min(sample(most.to()) - ramp, from + MOST_FITTED);
    double[] out = new double[Math.max(0, to - from)];
    for (int i = 0; i < out.length; i++) {
      out[i] = heard[from + i];
    }
    return out;
  }

  Sound sound() {
    return new Sound(heard, d.soundRateHz());
  }

  private boolean hasTone() {
    return tone != null && tone.found();
  }

  private double seconds() {
    return d.powers.size() * d.slotSeconds();
  }

  private int open() {
    return passages.stream().mapToInt(Gate.Passage::slots).sum();
  }

  /** From where it was expected. */
  private double carrierHz() {
    double[] all = slots(settings.mode() == Mode.FM ? d.means : d.turns);
    return settings.mode().oneSideBand() || all.length == 0
        ? 0
        : Arrays.stream(all).average().orElse(0);
  }

  /** Of all slots that are heard, without the ends of passages. */
  private double[] slots(Growing of) {
    return passages.stream()
        .map(Gate.Passage::inner)
        .flatMapToInt(p -> IntStream.range(p.from(), p.to()))
        .mapToDouble(of::at)
        .toArray();
  }

  private String unit() {
    return record.calibrated() ? "dBm" : "dBFS";
  }

  Outcome outcome() {
    return new Outcome(
        ListenMeasurement.KIND,
        ListenMeasurement.TITLE,
        summary(),
        series(),
        passages.isEmpty() ? List.of() : List.of(table()),
        readings(),
        List.copyOf(maker.levelMarks()),
        List.of());
  }

  // Words

  private String summary() {
    Squelch squelch = settings.squelch();
    if (passages.isEmpty()) {
      return "Silent: the squelch stayed closed. " + why(squelch);
    }
    StringBuilder out = new StringBuilder();
    out.append(settings.mode().label());
    out.append(
        squelch.by() == Squelch.By.NONE
            ? String.format(Locale.ROOT, ", %s.", Seconds.words(seconds()))
            : String.format(
                Locale.ROOT,
                ", open for %s of %s.",
                Seconds.words(open() * d.slotSeconds()),
                Seconds.words(seconds())));
    if (hasTone()) {
      out.append(
          String.format(
              Locale.ROOT,
              " Heard: a tone of %s, SINAD %.1f dB.",
              Frequency.ofHertz(rounded(tone.rateHz())),
              figures().sinadDb()));
    } else {
      out.append(" No single tone stands out of what is heard.");
    }
    squelchTone.ifPresent(
        t -> out.append(String.format(Locale.ROOT, " Tone squelch %.1f Hz.", t.nominalHz())));
    if (settings.mode() == Mode.FM && squelch.by() == Squelch.By.NONE && quietingDb() < 3) {
      out.append(" This is noise: no carrier quiets it. Check the frequency and the source.");
    }
    return out.toString();
  }

  /** How far it stayed below what opens it. */
  private String why(Squelch squelch) {
    return switch (squelch.by()) {
      case NONE -> "The record is too short.";
      case LEVEL ->
          String.format(
              Locale.ROOT,
              "The highest level is %.1f %s; it opens at %.1f.",
              Gate.levelDb(most(d.powers)) + addDb,
              unit(),
              squelch.value());
      case QUIETING ->
          String.format(
              Locale.ROOT,
              "The most quieting is %.1f dB; it opens at %.1f.",
              Gate.quietingDb(noiseBend, least(d.bends)),
              squelch.value());
      case TONE ->
          String.format(Locale.ROOT, "No tone of %.1f Hz was there.", squelch.value())
              + squelchTone
                  .map(t -> String.format(Locale.ROOT, " There is one of %.1f Hz.", t.nominalHz()))
                  .orElse("");
    };
  }

  private static double most(Growing g) {
    double most = 0;
    for (int k = 0; k < g.size(); k++) {
      most = Math.max(most, g.at(k));
    }
    return most;
  }

  private static double least(Growing g) {
    double least = Double.MAX_VALUE;
    for (int k = 0; k < g.size(); k++) {
      least = Math.min(least, g.at(k));
    }
    return least;
  }

  private double quietingDb() {
    double[] bends = slots(d.bends);
    return Gate.quietingDb(noiseBend, Arrays.stream(bends).average().orElse(noiseBend));
  }

  private static double rounded(double hz) {
    return Double.parseDouble(String.format(Locale.ROOT, "%.4g", hz));
  }

  // Readings

  private double independent() {
    return Math.max(2, 2 * settings.highestHz() * fitted.length / d.soundRateHz());
  }

  private ToneFigures figures() {
    return ToneFigures.of(tone, independent(), fitted.length / d.soundRateHz());
  }

  /**
   * How the amplitude of a tone scatters, by what else there is near it: noise behind a
   * discriminator is not the same everywhere.
   */
  private double besideTone() {
    double[] rest = tone.rest();
    double step = 2.0 * Math.PI / rest.length;
    double at = 2 * Math.PI * tone.rateHz() / d.soundRateHz();
    double sum = 0;
    for (int k = -BESIDE; k <= BESIDE; k++) {
      double turn = at + (k + Math.signum(k)) * step;
      double turnRe = Math.cos(turn);
      double turnIm = Math.sin(turn);
      double c = 1;
      double s = 0;
      double re = 0;
      double im = 0;
      for (double v : rest) {
        re += v * c;
        im += v * s;
        double next = c * turnRe - s * turnIm;
        s = c * turnIm + s * turnRe;
        c = next;
      }
      sum += k == 0 ? 0 : (re * re + im * im) / (2 * BESIDE);
    }
    return Math.sqrt(2 * sum) / rest.length;
  }

  /** Side lines that the channel's filter takes a part of. */
  private boolean cutOff() {
    double amount = tone.amplitude()[0] / settings.audio().response(tone.rateHz());
    return settings.mode() == Mode.FM && 2 * (amount + tone.rateHz()) > FLAT * settings.bandHz();
  }

  /**
   * By how much of it the deviation may be read too small, for what the channel's filter takes of
   * its side lines (their amplitudes are Bessel functions of the index; each carries the tone by
   * its product with the one before).
   */
  private double lostShare(double deviationHz) {
    double index =
        (deviationHz + squelchTone.map(ToneSquelch::amplitude).orElse(0.0)) / tone.rateHz();
    double lost = 0;
    for (int n = 1; n < index + MOST_LINES; n++) {
      double away = n * tone.rateHz() + Math.abs(carrierHz());
      double gone = 1 - Demodulator.passes(away, settings.bandHz());
      double pair = BesselJ.value(n, index) * BesselJ.value(n - 1.0, index);
      lost += LOST * gone * Math.abs(pair);
    }
    return lost;
  }

  private Optional<ToneSquelch> lookForSquelchTone() {
    if (settings.mode() != Mode.FM) {
      return Optional.empty();
    }
    // Noise without a carrier is louder than any tone.
    List<Gate.Passage> where =
        passages.isEmpty()
            ? Gate.passages(d, new Squelch(Squelch.By.QUIETING, CARRIER_DB), addDb, noiseBend)
            : passages;
    if (where.isEmpty()) {
      return Optional.empty();
    }
    Gate.Passage p = where.get(0);
    for (Gate.Passage x : where) {
      p = x.slots() > p.slots() ? x : p;
    }
    double each = d.slotSeconds() * d.slowRateHz();
    int from = (int) (each * p.from());
    int to = (int) Math.min(d.slow.size(), each * p.to());
    double[] slow = new double[Math.max(0, to - from)];
    for (int i = 0; i < slow.length; i++) {
      slow[i] = d.slow.at(from + i);
    }
    return ToneSquelch.in(slow, d.slowRateHz(), 0);
  }

  private List<Reading> readings() {
    List<Reading> out = new ArrayList<>();
    List<String> own = List.copyOf(context.marks());
    double share = open() / (double) Math.max(1, d.powers.size());
    double[] powers = slots(d.powers);
    if (powers.length == 0) {
      powers = new double[d.powers.size()];
      for (int k = 0; k < powers.length; k++) {
        powers[k] = d.powers.at(k);
      }
    }
    double mean = Arrays.stream(powers).average().orElse(0);
    out.add(
        maker.level(
            "channelPower",
            passages.isEmpty() ? "Power in the channel" : "Power in the channel, while heard",
            Gate.levelDb(mean) + addDb,
            unit(),
            10 / Math.log(10) * ofMean(powers) / Math.max(mean, 1e-30),
            Limit.NONE,
            maker.levelMarks()));
    out.add(plain("open", "Heard for", 100 * share, "%", own));
    if (passages.isEmpty()) {
      return out;
    }
    if (settings.squelch().by() != Squelch.By.NONE) {
      out.add(plain("passages", "Passages", passages.size(), "", own));
    }
    if (settings.mode() == Mode.FM) {
      out.add(
          maker.reading(
              "quieting",
              "Quieting",
              quietingDb(),
              "dB",
              new UncertaintyBudget()
                  .normal("slots", 10 / Math.log(10) * relativeOfMean(slots(d.bends))),
              Limit.NONE,
              own));
    }
    if (!settings.mode().oneSideBand()) {
      amounts(out, own);
    }
    if (hasTone()) {
      tone(out, own);
    }
    squelchTone.ifPresent(
        t ->
            out.add(
                maker.reading(
                    "toneSquelch",
                    String.format(Locale.ROOT, "Tone squelch, %.1f Hz of the list", t.nominalHz()),
                    t.measuredHz(),
                    "Hz",
                    new UncertaintyBudget().normal("noise", t.standardHz()),
                    Limit.NONE,
                    own)));
    if (!settings.mode().oneSideBand()) {
      double[] offs = slots(settings.mode() == Mode.FM ? d.means : d.turns);
      out.addAll(
          carrier.frequency("slots", ofMean(offs), settings.bandHz(), settings.centreHz(), own));
    }
    return out;
  }

  private Reading plain(String id, String label, double value, String unit, List<String> own) {
    return maker.reading(id, label, value, unit, new UncertaintyBudget(), Limit.NONE, own);
  }

  private static double ofMean(double[] x) {
    int n = x.length;
    double mean = Arrays.stream(x).average().orElse(0);
    double sum = Arrays.stream(x).map(v -> (v - mean) * (v - mean)).sum();
    double few = n > 3 ? Math.sqrt((n - 1.0) / (n - 3.0)) : 3;
    return n < 2 ? Math.abs(mean) : few * Math.sqrt(sum / (n - 1) / n);
  }

  private static double relativeOfMean(double[] x) {
    return ofMean(x) / Math.max(Arrays.stream(x).average().orElse(0), 1e-30);
  }

  /** How far it goes in a passage. */
  private double farthest(Gate.Passage passage, Growing of, int sign) {
    double mean = mean(passage, d.means);
    double full = full(passage);
    Gate.Passage p = passage.inner();
    double most = 0;
    for (int k = p.from(); k < p.to(); k++) {
      most = Math.max(most, sign * (of.at(k) - mean) / full);
    }
    return most;
  }

  /** How far the carrier goes, whatever it follows. */
  private void amounts(List<Reading> out, List<String> own) {
    Mode m = settings.mode();
    double up = 0;
    double down = 0;
    for (Gate.Passage p : passages) {
      up = Math.max(up, farthest(p, d.highs, 1));
      down = Math.max(down, farthest(p, d.lows, -1));
    }
    // White noise bends by six times its power; behind a discriminator by somewhat less.
    double sigma =
        m == Mode.FM ? Math.sqrt(Arrays.stream(slots(d.bends)).average().orElse(0) / 3) : 0;
    double rest = hasTone() ? AudioSpectrum.rms(tone.rest()) : 0;
    UncertaintyBudget noise =
        new UncertaintyBudget().normal("noise", m.scale() * Math.max(sigma, rest));
    out.add(
        maker.reading(
            "highest", m.amount() + ", highest", m.scale() * up, m.unit(), noise, Limit.NONE, own));
    out.add(
        maker.reading(
            "lowest", m.amount() + ", lowest", m.scale() * down, m.unit(), noise, Limit.NONE, own));
  }

  private void tone(List<Reading> out, List<String> own) {
    Mode m = settings.mode();
    ToneFigures f = figures();
    double relative = context.accuracy().frequencyRelative();
    double beside = besideTone();
    // Cramer and Rao's bound, by the noise near the tone.
    double ofRate =
        Math.sqrt(12)
            / (2 * Math.PI)
            * beside
            / tone.amplitude()[0]
            / (fitted.length / d.soundRateHz());
    out.add(
        maker.reading(
            "toneRate",
            "Tone that is heard",
            tone.rateHz(),
            "Hz",
            new UncertaintyBudget()
                .rectangular("reference", Double.isNaN(relative) ? 0 : relative * tone.rateHz())
                .normal("noise", ofRate),
            Limit.NONE,
            own));
    double passes = Math.max(settings.audio().response(tone.rateHz()), 1e-6);
    double rest = AudioSpectrum.rms(tone.rest());
    double amount = tone.amplitude()[0] / passes;
    double noise = beside / passes;
    List<String> ofAmount = new ArrayList<>(own);
    if (m == Mode.FM && quietingDb() < CLICKS_BELOW_DB) {
      ofAmount.add("noise clicks in it: it reads too small");
    }
    if (cutOff()) {
      ofAmount.add("its side lines reach beyond the channel: widen it");
    }
    UncertaintyBudget budget =
        new UncertaintyBudget()
            .normal("noise", m.scale() * noise)
            .rectangular("filters", m.scale() * amount * RIPPLE);
    if (m == Mode.FM) {
      budget.rectangular("side lines beyond the channel", amount * lostShare(amount));
    }
    if (m == Mode.AM) {
      double linear = context.accuracy().linearityShare();
      budget.rectangular(
          "instrument linearity", Double.isNaN(linear) ? 0 : linear * m.scale() * amount);
      // Noise across the carrier makes it longer, and the depth smaller.
      budget.rectangular("noise on the carrier", m.scale() * amount * rest * rest);
    }
    if (!m.oneSideBand()) {
      out.add(
          maker.reading(
              "toneAmount",
              m.amount() + " by the tone",
              m.scale() * amount,
              m.unit(),
              budget,
              Limit.NONE,
              ofAmount));
    }
    out.add(
        maker.reading(
            "sinad",
            "SINAD of what is heard",
            f.sinadDb(),
            "dB",
            new UncertaintyBudget().normal("noise", f.sinadStandardDb()),
            Limit.NONE,
            own));
    out.add(
        maker.reading(
            "distortion",
            "Distortion",
            100 * f.distortion(),
            "%",
            new UncertaintyBudget().normal("noise", 100 * f.distortionStandard()),
            Limit.NONE,
            own));
  }

  // Table and curves

  private ResultTable table() {
    Mode m = settings.mode();
    List<Row> rows = new ArrayList<>();
    for (Gate.Passage p : passages.subList(0, Math.min(MOST_ROWS, passages.size()))) {
      rows.add(
          new Row(
              List.of(
                  Cell.of(startSeconds + p.from() * d.slotSeconds()),
                  Cell.of(p.slots() * d.slotSeconds()),
                  Cell.of(Gate.levelDb(mean(p, d.powers)) + addDb),
                  Cell.of(m.scale() * farthest(p, d.highs, 1))),
              Verdict.NONE));
    }
    return new ResultTable(
        "passages",
        "Passages",
        List.of(
            new Column("Start", "s"),
            new Column("Length", "s"),
            new Column("Level", unit()),
            new Column(m.amount() + ", highest", m.unit())),
        rows);
  }

  private List<Series> series() {
    List<Series> out = new ArrayList<>();
    Mode m = settings.mode();
    int together = Math.max(1, (2 * heard.length + MOST_POINTS - 1) / MOST_POINTS);
    int n = heard.length / together;
    if (n > 1) {
      // Of each step its lowest and its highest: so drawn, nothing is thinned away.
      boolean whole = together == 1;
      double[] y = new double[whole ? n : 2 * n];
      for (int i = 0; i < n; i++) {
        double most = Double.NEGATIVE_INFINITY;
        double least = Double.POSITIVE_INFINITY;
        for (int k = i * together; k < (i + 1) * together; k++) {
          most = Math.max(most, heard[k]);
          least = Math.min(least, heard[k]);
        }
        if (whole) {
          y[i] = m.scale() * most;
        } else {
          y[2 * i] = m.scale() * least;
          y[2 * i + 1] = m.scale() * most;
        }
      }
      double step = together / d.soundRateHz() / (whole ? 1 : 2);
      Axis time = Axis.even("Time", "s", startSeconds + (whole ? 0 : step / 2), step, y.length);
      out.add(placed.curve("sound", "Sound", time, m.amount(), m.unit(), y));
    }
    out.add(slotCurve("level", "Level over time", "Level", unit(), true));
    if (settings.mode() == Mode.FM) {
      out.add(slotCurve("quieting", "Quieting over time", "Quieting", "dB", false));
    }
    if (fitted.length >= 64) {
      out.add(
          AudioSpectrum.of(
              fitted, d.soundRateHz(), settings.highestHz(), tone, "Spectrum of what is heard"));
    }
    return out;
  }

  /** A value of each slot; of more than can be drawn the highest. */
  private Series slotCurve(String id, String label, String quantity, String unit, boolean level) {
    int together = Math.max(1, (d.powers.size() + MOST_POINTS - 1) / MOST_POINTS);
    int n = Math.max(1, d.powers.size() / together);
    double[] y = new double[n];
    Arrays.fill(y, -300);
    for (int k = 0; k < Math.min(d.powers.size(), n * together); k++) {
      double v =
          level ? Gate.levelDb(d.powers.at(k)) + addDb : Gate.quietingDb(noiseBend, d.bends.at(k));
      y[k / together] = Math.max(y[k / together], v);
    }
    double step = together * d.slotSeconds();
    return placed.curve(
        id, label, Axis.even("Time", "s", startSeconds + step / 2, step, n), quantity, unit, y);
  }
}
