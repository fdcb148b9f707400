package rovnik.core.modulation.analog;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.path.PathCorrection;
import rovnik.core.result.Axis;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.result.ResultTable.Cell;
import rovnik.core.result.ResultTable.Column;
import rovnik.core.result.ResultTable.Row;
import rovnik.core.result.Series;
import rovnik.core.signal.DoubleTransforms;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.PlaneReadings;
import rovnik.core.uncertainty.UncertaintyBudget;
import rovnik.core.units.Frequency;

/** Readings, curves and words of an analog carrier. */
final class AnalogOutcome {
  private static final int MOST_POINTS = 2000;

  /** Periods of the tone that a curve over time shows. */
  private static final int PERIODS = 8;

  private static final int BLOCKS = 8;

  /** Two ways to read a depth agree if they differ by no more than this share of it. */
  private static final double AGREE = 0.01;

  private static final double LEAST_HZ = 10;

  /** Share of the channel that its filter passes as it is. */
  private static final double FLAT_SHARE = 0.8;

  private final AnalogSettings settings;
  private final IqRecord record;
  private final MeasurementContext context;
  private final Demodulated d;
  private final double scale;
  private final double[] message;
  private final double[] audio;
  private final SineFit tone;
  private final double[] frequency;
  private final double[] phase;
  private final SineFit frequencyTone;
  private final double meanHz;
  private final Optional<ToneSquelch> squelch;
  private final PathCorrection correction;
  private final double carrierPortHz;
  private final PlaneReadings maker;
  private final SideLines lines;

  AnalogOutcome(
      AnalogSettings settings, IqRecord record, MeasurementContext context, Demodulated d) {
    this.settings = settings;
    this.record = record;
    this.context = context;
    this.d = d;
    this.scale = settings.kind().scale();
    this.frequency = d.frequency();
    double[] turned = d.phase();
    this.phase = Demodulated.straightened(turned);
    this.message =
        switch (settings.kind()) {
          case AM -> debiased();
          case FM -> frequency;
          case PM -> phase;
        };
    this.audio = filtered(message);
    double high = highestHz();
    this.tone = SineFit.of(audio, d.rateHz(), lowestHz(), high, high);
    boolean follows = settings.kind() == AnalogSettings.Kind.FM;
    this.frequencyTone =
        follows && settings.audio().none()
            ? tone
            : follows ? SineFit.of(frequency, d.rateHz(), LEAST_HZ, high, high) : null;
    // The mean of a frequency that follows a tone lies beside the tone; else it is that of the
    // phase.
    this.meanHz = follows ? frequencyTone.mean() : d.slopeHz(turned);
    this.squelch =
        settings.kind() == AnalogSettings.Kind.AM
            ? Optional.empty()
            : ToneSquelch.in(frequency, d.rateHz(), tone.rateHz());
    this.correction = context.correction();
    this.carrierPortHz = record.centreHz() + d.offsetHz() + meanHz;
    double plane = correction == null ? carrierPortHz : correction.portToPlaneHz(carrierPortHz);
    this.maker =
        new PlaneReadings(
            correction, context, correction == null ? "" : correction.planeName(), plane);
    this.lines = SideLines.of(d, meanHz, tone.rateHz());
  }

  private double highestHz() {
    double high = settings.audio().highHz();
    return Math.min(high > 0 ? 1.2 * high : settings.bandHz() / 2, 0.45 * d.rateHz());
  }

  private double lowestHz() {
    return settings.audio().lowHz() > 0 ? 0.8 * settings.audio().lowHz() : LEAST_HZ;
  }

  private double[] filtered(double[] x) {
    AudioFilter f = settings.audio();
    if (f.none()) {
      return x;
    }
    double[] y = f.applied(x, d.rateHz());
    int guard = (int) Math.min(y.length / 4.0, f.settlesSeconds() * d.rateHz());
    return Arrays.copyOfRange(y, guard, y.length - guard);
  }

  /**
   * AM without what noise adds to the length of the carrier. Noise is as strong along the carrier
   * as across it; what is in one direction only is modulation.
   */
  private double[] debiased() {
    double[] plain = d.amplitude();
    SineFit along = SineFit.of(plain, d.rateHz(), LEAST_HZ, highestHz(), highestHz());
    SineFit across = SineFit.of(phase, d.rateHz(), LEAST_HZ, highestHz(), highestHz());
    return d.amplitude(Math.min(along.restPower(), across.restPower()));
  }

  Outcome outcome() {
    List<Reading> readings = readings();
    return new Outcome(
        AnalogMeasurement.KIND,
        AnalogMeasurement.TITLE,
        summary(),
        series(),
        tables(),
        readings,
        List.copyOf(maker.levelMarks()),
        List.of());
  }

  // Readings

  /** Values that tell of one another less than this often, a second. */
  private double independent() {
    return Math.max(2, 2 * highestHz() * audio.length / d.rateHz());
  }

  private List<Reading> readings() {
    List<Reading> out = new ArrayList<>();
    List<String> own = List.copyOf(context.marks());
    AnalogSettings.Kind k = settings.kind();
    double rest = Math.sqrt(tone.restPower());
    double amount = tone.amplitude()[0];
    double n = independent();
    double noise = rest * Math.sqrt(2 / n);
    UncertaintyBudget budget = amountBudget(amount, noise);
    Limit most = new Limit(Double.NaN, k.scale() * settings.highestAmount());
    double up = Arrays.stream(audio).max().orElse(0) - tone.mean();
    double down = tone.mean() - Arrays.stream(audio).min().orElse(0);
    String name = settings.audio().none() ? k.amount() : k.amount() + " behind the filter";
    if (tone.found()) {
      out.add(maker.reading("amount", name, scale * amount, k.unit(), budget, most, own));
    }
    out.add(peak("amountUp", name + ", highest", up, rest, own));
    out.add(peak("amountDown", name + ", lowest", down, rest, own));
    double rms = rms(audio);
    out.add(
        maker.reading(
            "amountRms",
            tone.found() ? name + ", rms" : "Residual " + k.label() + " rms",
            scale * rms,
            k.unit(),
            amountBudget(rms, ofRms(rms, amount * noise / 2, rest, n)),
            Limit.NONE,
            own));
    if (tone.found()) {
      toneReadings(out, own, rest, n);
    }
    squelch.ifPresent(
        s -> {
          double sigma = Math.sqrt(frequencyTone.restPower()) * 0.78 / s.amplitude() / seconds();
          out.add(
              maker.reading(
                  "toneSquelch",
                  String.format(Locale.ROOT, "Tone squelch, %.1f Hz of the list", s.nominalHz()),
                  s.measuredHz(),
                  "Hz",
                  new UncertaintyBudget().normal("noise", sigma / Math.sqrt(n)),
                  Limit.NONE,
                  own));
        });
    incidental(out, own, n);
    carrier(out, own);
    return out;
  }

  /** Standard deviation of an rms: what the tone and what the power of the rest scatter by. */
  private static double ofRms(double rms, double ofTone, double rest, double n) {
    return Math.hypot(ofTone, rest * rest / Math.sqrt(2 * n)) / Math.max(rms, 1e-300);
  }

  private double seconds() {
    return audio.length / d.rateHz();
  }

  private UncertaintyBudget amountBudget(double amount, double noise) {
    UncertaintyBudget b = new UncertaintyBudget();
    if (settings.kind() == AnalogSettings.Kind.AM) {
      b.rectangular("instrument linearity", linearity() * scale * amount);
    }
    return b.normal("noise", scale * noise);
  }

  private double linearity() {
    double share = context.accuracy().linearityShare();
    return Double.isNaN(share) ? 0 : share;
  }

  private Reading peak(String id, String label, double value, double rest, List<String> own) {
    return maker.reading(
        id,
        label,
        scale * value,
        settings.kind().unit(),
        amountBudget(value, rest),
        Limit.NONE,
        own);
  }

  private static double rms(double[] x) {
    double mean = Arrays.stream(x).average().orElse(0);
    double sum = 0;
    for (double v : x) {
      sum += (v - mean) * (v - mean) / x.length;
    }
    return Math.sqrt(sum);
  }

  private void toneReadings(List<Reading> out, List<String> own, double rest, double n) {
    double amount = tone.amplitude()[0];
    // Cramer and Rao's bound for the frequency of a sine in white noise.
    double sigmaHz = Math.sqrt(24) / (2 * Math.PI) * rest / amount / Math.sqrt(n) / seconds();
    double relative = context.accuracy().frequencyRelative();
    out.add(
        maker.reading(
            "rate",
            "Rate",
            tone.rateHz(),
            "Hz",
            new UncertaintyBudget()
                .rectangular("reference", Double.isNaN(relative) ? 0 : relative * tone.rateHz())
                .normal("noise", sigmaHz),
            Limit.NONE,
            own));
    double harmonic = Math.sqrt(2 * tone.harmonicPower());
    double each = rest * Math.sqrt(2 / n);
    int orders = tone.amplitude().length - 1;
    List<String> ofDistortion = new ArrayList<>(own);
    if (orders < 1) {
      ofDistortion.add("no harmonic lies within the channel and its filter");
    } else if (harmonic < 2 * each * Math.sqrt(orders)) {
      ofDistortion.add("lost in noise: this is about the most it can be");
    }
    out.add(
        maker.reading(
            "distortion",
            "Distortion",
            100 * harmonic / amount,
            "%",
            new UncertaintyBudget().normal("noise", 100 * each / amount),
            Limit.NONE,
            ofDistortion));
    double bad = tone.harmonicPower() + tone.restPower();
    double all = amount * amount / 2 + bad;
    double noiseShare = tone.restPower() / Math.max(bad, 1e-300);
    out.add(
        maker.reading(
            "sinad",
            "SINAD",
            10 * Math.log10(all / Math.max(bad, 1e-300)),
            "dB",
            new UncertaintyBudget()
                .normal("noise", 10 / Math.log(10) * noiseShare * Math.sqrt(2 / n)),
            new Limit(settings.leastSinadDb(), Double.NaN),
            own));
    if (settings.kind() == AnalogSettings.Kind.AM && lines != null) {
      out.add(
          maker.reading(
              "depthFromLines",
              "AM depth, from its side lines",
              100 * lines.depth(),
              "%",
              new UncertaintyBudget()
                  .rectangular("instrument linearity", linearity() * 100 * lines.depth())
                  .normal("noise", 100 * each),
              Limit.NONE,
              own));
    }
  }

  /** What comes with it: phase with AM, amplitude with FM and PM. */
  private void incidental(List<Reading> out, List<String> own, double n) {
    if (settings.kind() == AnalogSettings.Kind.AM) {
      double rms = rms(phase);
      out.add(
          maker.reading(
              "phaseWithIt",
              "Phase modulation that comes with it, rms",
              rms,
              "rad",
              new UncertaintyBudget().normal("noise", rms / Math.sqrt(2 * n)),
              Limit.NONE,
              own));
      return;
    }
    double rms = rms(d.amplitude());
    out.add(
        maker.reading(
            "amplitudeWithIt",
            "AM that comes with it, rms",
            100 * rms,
            "%",
            new UncertaintyBudget().normal("noise", 100 * rms / Math.sqrt(2 * n)),
            Limit.NONE,
            own));
  }

  private void carrier(List<Reading> out, List<String> own) {
    PathCorrection c = correction;
    double carrierHz = c == null ? carrierPortHz : c.portToPlaneHz(carrierPortHz);
    double relative = context.accuracy().frequencyRelative();
    double reference = Double.isNaN(relative) ? 0 : relative * carrierPortHz;
    UncertaintyBudget budget =
        new UncertaintyBudget().rectangular("reference", reference).normal("noise", blockHz());
    out.add(
        maker.reading(
            "carrierFrequency", "Carrier frequency", carrierHz, "Hz", budget, Limit.NONE, own));
    double source = context.limits().nominalHz();
    boolean known = !Double.isNaN(source);
    double nominal =
        known
            ? c == null ? source : c.sourceToPlaneHz(source)
            : settings.centreHz() == 0 ? record.centreHz() : settings.centreHz();
    boolean judged = known && Math.abs(carrierHz - nominal) < settings.bandHz();
    out.add(
        maker.reading(
            "frequencyError",
            "Frequency error",
            carrierHz - nominal,
            "Hz",
            budget,
            judged ? context.limits().frequencyErrorHz() : Limit.NONE,
            own));
    boolean calibrated = record.calibrated();
    // AM: the licence is for the carrier; its mean voltage is that.
    double power = settings.kind() == AnalogSettings.Kind.AM ? d.level() * d.level() : d.power();
    double level =
        10 * Math.log10(power)
            + (calibrated ? record.fullScaleDbm() : 0)
            - (calibrated && c != null ? c.gainToPortDb(carrierHz) : 0);
    Limit limit = Limit.NONE;
    if (calibrated && !Double.isNaN(context.limits().nominalLevelDbm())) {
      limit =
          context
              .limits()
              .levelAt(c == null ? 0 : c.gainFromSourceDb(c.planeToSourceHz(carrierHz)));
    }
    out.add(
        maker.levelOfSource(
            "carrierPower",
            "Power of the carrier",
            level,
            calibrated ? "dBm" : "dBFS",
            0,
            limit,
            maker.levelMarks()));
  }

  /** How the mean frequency scatters, from that of blocks, each without the tone. */
  private double blockHz() {
    double[] rest = frequencyTone == null ? blockSlopes() : means(frequencyTone.rest());
    double mean = Arrays.stream(rest).average().orElse(0);
    double sum = Arrays.stream(rest).map(v -> (v - mean) * (v - mean)).sum();
    return Math.sqrt(sum / (BLOCKS - 1) / BLOCKS);
  }

  private static double[] means(double[] x) {
    int length = x.length / BLOCKS;
    double[] out = new double[BLOCKS];
    for (int b = 0; b < BLOCKS; b++) {
      out[b] = Arrays.stream(x, b * length, (b + 1) * length).average().orElse(0);
    }
    return out;
  }

  private double[] blockSlopes() {
    int length = phase.length / BLOCKS;
    double[] out = new double[BLOCKS];
    for (int b = 0; b < BLOCKS; b++) {
      out[b] = d.slopeHz(Arrays.copyOfRange(phase, b * length, (b + 1) * length));
    }
    return out;
  }

  // Words

  private String summary() {
    AnalogSettings.Kind k = settings.kind();
    if (!tone.found()) {
      return k.label()
          + ": no tone stands out of the noise; what there is, is residual modulation.";
    }
    StringBuilder words = new StringBuilder();
    double amount = tone.amplitude()[0];
    String much =
        switch (k) {
          case AM -> String.format(Locale.ROOT, "%.4g %%", 100 * amount);
          case FM -> Frequency.ofHertz(rounded(amount)).toString();
          case PM -> String.format(Locale.ROOT, "%.4g rad", amount);
        };
    words.append(
        String.format(
            Locale.ROOT,
            "%s: %s at %s. ",
            k.label(),
            much,
            Frequency.ofHertz(rounded(tone.rateHz()))));
    squelch.ifPresent(
        s -> words.append(String.format(Locale.ROOT, "Tone squelch %.1f Hz. ", s.nominalHz())));
    double carson =
        2 * (k == AnalogSettings.Kind.FM ? amount + tone.rateHz() : (amount + 1) * tone.rateHz());
    if (k != AnalogSettings.Kind.AM && carson > FLAT_SHARE * settings.bandHz()) {
      words.append(
          "Its side lines take "
              + Frequency.ofHertz(rounded(carson))
              + ": widen the channel, which cuts them off and distorts. ");
    }
    if (k == AnalogSettings.Kind.AM && lines != null) {
      double away = lines.depth() / Math.max(amount, 1e-9) - 1;
      if (amount > 0.01 && (Math.abs(away) > AGREE || lines.unlike())) {
        words.append(
            String.format(
                Locale.ROOT, "Its side lines say %.4g %%: %s. ", 100 * lines.depth(), lines.why()));
      }
      words.append(
          "In a spectrum they stand apart with an RBW of "
              + Frequency.ofHertz(rounded(tone.rateHz() / 2))
              + " or less.");
    }
    return words.toString().strip();
  }

  private static double rounded(double hz) {
    return Double.parseDouble(String.format(Locale.ROOT, "%.4g", hz));
  }

  // Views

  private List<Series> series() {
    List<Series> out = new ArrayList<>();
    AnalogSettings.Kind k = settings.kind();
    out.add(over("audio", "Demodulated " + k.label(), audio, scale, k.unit(), k.amount()));
    out.add(audioSpectrum());
    out.add(channel());
    double[] envelope = new double[d.re().length];
    for (int i = 0; i < envelope.length; i++) {
      double p = d.re()[i] * d.re()[i] + d.im()[i] * d.im()[i];
      envelope[i] = 10 * Math.log10(p / d.power() + 1e-12);
    }
    out.add(over("envelope", "Amplitude over time", envelope, 1, "dB", "Power over the mean"));
    double[] f = Arrays.stream(frequency).map(v -> v - meanHz).toArray();
    out.add(over("frequency", "Frequency over time", f, 1, "Hz", "Off the carrier"));
    out.add(over("phase", "Phase over time", phase, 1, "rad", "Phase"));
    return out;
  }

  /** A curve over the first periods of the tone. */
  private Series over(
      String id, String label, double[] y, double factor, String unit, String quantity) {
    double wanted = tone.found() ? PERIODS / tone.rateHz() * d.rateHz() : y.length;
    int shown = (int) Math.max(2, Math.min(Math.min(y.length, MOST_POINTS), Math.ceil(wanted)));
    double[] part = new double[shown];
    for (int i = 0; i < shown; i++) {
      part[i] = factor * y[i];
    }
    return Series.curve(id, label, Axis.even("Time", "s", 0, 1 / d.rateHz(), shown), part, unit)
        .of(quantity);
  }

  /** Peak amplitudes under a Hann window, dB of the tone or of the strongest. */
  private Series audioSpectrum() {
    int n = audio.length;
    int length = Integer.highestOneBit(Math.max(2, 2 * n - 1));
    double[] work = new double[length];
    double mean = Arrays.stream(audio).average().orElse(0);
    for (int i = 0; i < n; i++) {
      work[i] = (audio[i] - mean) * (1 - Math.cos(2 * Math.PI * (i + 0.5) / n));
    }
    DoubleTransforms.of(length).realForward(work);
    double step = d.rateHz() / length;
    int lines = (int) Math.min(length / 2.0, Math.ceil(highestHz() / step));
    double reference =
        tone.found() ? tone.amplitude()[0] : Math.max(1e-12, rms(audio) * Math.sqrt(2));
    double[] db = new double[lines];
    for (int k = 1; k < lines; k++) {
      double a = 2.0 / n * Math.hypot(work[2 * k], work[2 * k + 1]);
      db[k] = 20 * Math.log10(a / reference + 1e-9);
    }
    db[0] = lines > 1 ? db[1] : 0;
    return thinned(
        Series.curve(
                "audioSpectrum",
                "Spectrum of the demodulated signal",
                Axis.even("Audio frequency", "Hz", 0, step, lines),
                db,
                "dB")
            .of(tone.found() ? "Over the tone" : "Over the whole"));
  }

  /** The channel around its carrier. */
  private Series channel() {
    int n = d.re().length;
    int length = Integer.highestOneBit(Math.max(2, 2 * n - 1));
    double[] work = new double[2 * length];
    for (int i = 0; i < n; i++) {
      double w = 1 - Math.cos(2 * Math.PI * (i + 0.5) / n);
      work[2 * i] = w * d.re()[i];
      work[2 * i + 1] = w * d.im()[i];
    }
    DoubleTransforms.of(length).complexForward(work);
    double step = d.rateHz() / length;
    int half = (int) Math.min(length / 2.0 - 1, Math.ceil(0.6 * settings.bandHz() / step));
    double[] db = new double[2 * half + 1];
    double full = 10 * Math.log10(d.power());
    for (int k = -half; k <= half; k++) {
      int at = 2 * Math.floorMod(k, length);
      double a = Math.hypot(work[at], work[at + 1]) / n;
      db[k + half] = 20 * Math.log10(a + 1e-12) - full;
    }
    return thinned(
        Series.curve(
                "spectrum",
                "Spectrum of the channel",
                Axis.even("Offset", "Hz", -half * step - meanHz, step, db.length),
                db,
                "dB")
            .of("Over its power"));
  }

  /** The highest of each few points where there are too many. */
  private static Series thinned(Series s) {
    double[] y = s.y();
    int each = (y.length + MOST_POINTS - 1) / MOST_POINTS;
    if (each <= 1) {
      return s;
    }
    double[] out = new double[(y.length + each - 1) / each];
    Arrays.fill(out, Double.NEGATIVE_INFINITY);
    for (int i = 0; i < y.length; i++) {
      out[i / each] = Math.max(out[i / each], y[i]);
    }
    Axis x =
        Axis.even(s.x().quantity(), s.x().unit(), s.x().start(), s.x().step() * each, out.length);
    return Series.curve(s.id(), s.label(), x, out, s.unit()).of(s.quantity());
  }

  private List<ResultTable> tables() {
    if (!tone.found() || tone.amplitude().length < 2) {
      return List.of();
    }
    List<Row> rows = new ArrayList<>();
    for (int k = 0; k < tone.amplitude().length; k++) {
      double a = tone.amplitude()[k];
      rows.add(
          new Row(
              List.of(
                  Cell.of((k + 1) * tone.rateHz()),
                  Cell.of(scale * a),
                  Cell.of(20 * Math.log10(Math.max(a / tone.amplitude()[0], 1e-9)))),
              Verdict.NONE));
    }
    return List.of(
        new ResultTable(
            "harmonics",
            "The tone and its harmonics",
            List.of(
                new Column("Frequency", "Hz"),
                new Column(settings.kind().amount(), settings.kind().unit()),
                new Column("Over the tone", "dB")),
            rows));
  }
}
