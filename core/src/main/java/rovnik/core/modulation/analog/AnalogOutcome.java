package rovnik.core.modulation.analog;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.modulation.CarrierReadings;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.result.ResultTable.Cell;
import rovnik.core.result.ResultTable.Column;
import rovnik.core.result.ResultTable.Row;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.PlaneReadings;
import rovnik.core.uncertainty.UncertaintyBudget;
import rovnik.core.units.Frequency;

/** Readings, curves and words of an analog carrier. */
final class AnalogOutcome {
  private static final int BLOCKS = 8;

  /** Two ways to read a depth agree if they differ by no more than this share of it. */
  private static final double AGREE = 0.01;

  private static final double LEAST_HZ = 10;

  /** Share of the channel that its filter passes as it is. */
  private static final double FLAT_SHARE = 0.8;

  private final AnalogSettings settings;
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
  private final CarrierReadings carrier;
  private final PlaneReadings maker;
  private final SideLines lines;

  AnalogOutcome(
      AnalogSettings settings, IqRecord record, MeasurementContext context, Demodulated d) {
    this.settings = settings;
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
    this.carrier = new CarrierReadings(record, context, d.offsetHz() + meanHz);
    this.maker = carrier.maker();
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
        new AnalogSeries(settings, d, audio, tone, frequency, phase, meanHz, highestHz()).series(),
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
    double rms = AudioSpectrum.rms(audio);
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

  private void toneReadings(List<Reading> out, List<String> own, double rest, double n) {
    double amount = tone.amplitude()[0];
    ToneFigures figures = ToneFigures.of(tone, n, seconds());
    double relative = context.accuracy().frequencyRelative();
    out.add(
        maker.reading(
            "rate",
            "Rate",
            tone.rateHz(),
            "Hz",
            new UncertaintyBudget()
                .rectangular("reference", Double.isNaN(relative) ? 0 : relative * tone.rateHz())
                .normal("noise", figures.rateStandardHz()),
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
            100 * figures.distortion(),
            "%",
            new UncertaintyBudget().normal("noise", 100 * figures.distortionStandard()),
            Limit.NONE,
            ofDistortion));
    out.add(
        maker.reading(
            "sinad",
            "SINAD",
            figures.sinadDb(),
            "dB",
            new UncertaintyBudget().normal("noise", figures.sinadStandardDb()),
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
      double rms = AudioSpectrum.rms(phase);
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
    double rms = AudioSpectrum.rms(d.amplitude());
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
    out.addAll(carrier.frequency("noise", blockHz(), settings.bandHz(), settings.centreHz(), own));
    // AM: the licence is for the carrier; its mean voltage is that.
    double power = settings.kind() == AnalogSettings.Kind.AM ? d.level() * d.level() : d.power();
    out.add(carrier.power(10 * Math.log10(power), 0));
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
