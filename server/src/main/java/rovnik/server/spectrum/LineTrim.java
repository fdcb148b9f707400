package rovnik.server.spectrum;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rovnik.core.Refusal;
import rovnik.core.limits.Limit;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.spectrum.ReadingMaker;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.spectrum.Trace;
import rovnik.core.units.Frequency;
import rovnik.instruments.source.SignalGenerator;
import rovnik.server.live.Guided;
import rovnik.server.live.GuidedForm;
import rovnik.server.live.PathGenerators;
import rovnik.server.live.Trimmer;

/**
 * Trims a generator by its lines: beside a single tone stand the carrier that leaks and the image
 * on the other side; leakage is turned until the one is least, gain and quadrature until the other
 * is.
 */
final class LineTrim implements Guided<SpectrumBench> {
  /**
   * What it is told.
   *
   * @param adjustFirst let the generator adjust itself before
   * @param rounds how often all trims are gone through
   */
  @Schema(name = "LineTrimForm")
  record Form(boolean adjustFirst, int rounds) implements GuidedForm {
    @Override
    public Guided<?> work() {
      return new LineTrim(adjustFirst, rounds);
    }
  }

  private static final int MOST_ROUNDS = 5;
  private static final double LEAST_OFFSET_HZ = 1e3;

  /** Between the lines lie so many filters. */
  private static final double FILTERS = 100;

  private static final double SPAN_OFFSETS = 2.6;
  private static final int AVERAGES = 10;

  /** A line must stand so far above what is beside it. */
  private static final double STANDS_OUT_DB = 6;

  /** A tone stands so far above what is between the lines. */
  private static final double TONE_DB = 20;

  private static final List<Trimmer.Trim> TRIMS =
      List.of(Trimmer.LEAKAGE_I, Trimmer.LEAKAGE_Q, Trimmer.GAIN, Trimmer.QUADRATURE);

  private final boolean adjustFirst;
  private final int rounds;

  private LineTrim(boolean adjustFirst, int rounds) {
    if (rounds < 1 || rounds > MOST_ROUNDS) {
      throw new Refusal("rounds", "Trims are gone through 1 to 5 times.");
    }
    this.adjustFirst = adjustFirst;
    this.rounds = rounds;
  }

  @Override
  public String id() {
    return "line-trim";
  }

  @Override
  public String title() {
    return "Trim by carrier and image";
  }

  /** Where the lines are, and how they are looked at. */
  private record Lines(double carrierHz, double toneHz, SpectrumSettings settings) {
    double imageHz() {
      return 2 * carrierHz - toneHz;
    }
  }

  /**
   * What a look shows, dB against the tone.
   *
   * @param toneDb level of the tone
   * @param beside what is beside the lines
   */
  private record Seen(
      SpectrumLook look, double toneDb, double carrierDbc, double imageDbc, double beside) {
    /** Power of a line against the tone. */
    double power(boolean leakage) {
      return Math.pow(10, (leakage ? carrierDbc : imageDbc) / 10);
    }

    boolean lost(boolean leakage) {
      return (leakage ? carrierDbc : imageDbc) < beside + STANDS_OUT_DB;
    }
  }

  @Override
  public Outcome run(SpectrumBench bench) {
    PathGenerators.One generator = bench.generators().source();
    Trimmer trimmer = Trimmer.of(generator);
    bench.say("where the lines are", 0);
    double synthesiser =
        generator.value(SignalGenerator.FREQUENCY) - generator.value(SignalGenerator.SHIFT);
    Lines lines = lines(bench, synthesiser);
    Seen first = seen(bench, lines);
    if (adjustFirst) {
      bench.say("the generator adjusts itself", 0.05);
      trimmer.adjust();
    }
    Seen last = seen(bench, lines);
    int steps = rounds * TRIMS.size();
    for (int i = 0; i < steps; i++) {
      Trimmer.Trim trim = TRIMS.get(i % TRIMS.size());
      bench.say(trim.label().toLowerCase(Locale.ROOT), 0.1 + 0.85 * i / steps);
      boolean leakage = trim == Trimmer.LEAKAGE_I || trim == Trimmer.LEAKAGE_Q;
      if (last.lost(leakage)) {
        trimmer.lost(trim);
      } else {
        double power = last.power(leakage);
        trimmer.turn(trim, power, size(trim, power), () -> seen(bench, lines).power(leakage));
        last = seen(bench, lines);
      }
      bench.partial(finding(bench, trimmer, first, last));
    }
    return finding(bench, trimmer, first, last);
  }

  /** How far off a trim may be that makes a line of such power. */
  private static double size(Trimmer.Trim trim, double power) {
    double amplitude = Math.sqrt(power);
    if (trim == Trimmer.GAIN) {
      return 20 * Math.log10(1 + 2 * amplitude);
    }
    return trim == Trimmer.QUADRATURE ? Math.toDegrees(2 * amplitude) : amplitude;
  }

  private static Lines lines(SpectrumBench bench, double generatorHz) {
    SpectrumSettings s = bench.settings();
    SpectrumLook look = bench.look(s);
    if (look.result().base().peaks().isEmpty()) {
      throw new Refusal("signal", "There is no line in view. Frame the tone first.");
    }
    double tone = look.result().base().peaks().get(0).frequencyHz();
    double carrier = bench.correction().sourceToPlaneHz(generatorHz);
    double offset = Math.abs(tone - carrier);
    if (offset < Math.max(LEAST_OFFSET_HZ, 4 * look.result().base().trace().rbwHz())) {
      throw new Refusal(
          "signal",
          "The strongest line stands on the generator's own frequency, where what leaks cannot be"
              + " told from it. Send one tone beside it, such as 100 kHz.");
    }
    if (offset * SPAN_OFFSETS > bench.receiver().widestSpanHz()) {
      throw new Refusal(
          "signal",
          "Tone and image do not fit one span: the tone stands "
              + Frequency.ofHertz(offset)
              + " from the generator's frequency. Send one nearer.");
    }
    SpectrumSettings around =
        AutoFrame.withAverages(
            s.with(carrier, SPAN_OFFSETS * offset, offset / FILTERS, s.referenceLevelDbm()),
            AVERAGES);
    return new Lines(carrier, tone, around);
  }

  private static Seen seen(SpectrumBench bench, Lines lines) {
    SpectrumLook look = bench.look(lines.settings());
    if (!look.marks().isEmpty()) {
      throw new Refusal(
          "referenceLevelDbm",
          "The looks are spoiled: "
              + String.join(", ", look.marks())
              + ". Raise the reference level first.");
    }
    Trace t = look.result().base().trace();
    double tone = highest(t, lines.toneHz());
    double offset = Math.abs(lines.toneHz() - lines.carrierHz());
    double beside = highest(t, lines.carrierHz() + 0.15 * offset);
    if (beside - tone > -TONE_DB) {
      throw new Refusal(
          "signal",
          "What is there is no single tone: between it and the generator's frequency the level falls"
              + " too little. Send one tone beside that frequency, such as 100 kHz.");
    }
    return new Seen(
        look,
        tone,
        highest(t, lines.carrierHz()) - tone,
        highest(t, lines.imageHz()) - tone,
        beside - tone);
  }

  /** Level of a line within a few filters of where it should be. */
  private static double highest(Trace t, double hz) {
    double most = Double.NEGATIVE_INFINITY;
    for (double at = hz - 2 * t.rbwHz(); at <= hz + 2 * t.rbwHz(); at += t.stepHz()) {
      most = Math.max(most, t.levelAt(at));
    }
    return most;
  }

  private Outcome finding(SpectrumBench bench, Trimmer trimmer, Seen first, Seen last) {
    Trace before = first.look().result().base().trace();
    Trace after = last.look().result().base().trace();
    Setting s = bench.setting(bench.settings());
    ReadingMaker maker =
        new ReadingMaker(after, s.settings(), s.correction(), s.context(List.of(), List.of()));
    double level = last.toneDb();
    List<Reading> readings = new ArrayList<>();
    readings.add(line(maker, "leakage", "Carrier leakage", level, last, true));
    readings.add(line(maker, "image", "Image", level, last, false));
    return SpectrumBench.found(
        this,
        String.format(
            Locale.ROOT,
            "Carrier leakage %.1f to %.1f dBc, image %.1f to %.1f dBc%s.",
            first.carrierDbc(),
            last.carrierDbc(),
            first.imageDbc(),
            last.imageDbc(),
            adjustFirst ? ", adjusted and trimmed" : ", trimmed"),
        List.of(
            SpectrumBench.curve("trace", "trimmed", after),
            SpectrumBench.curve("before", "before", before)),
        false,
        List.of(trimmer.table(id(), TRIMS)),
        readings,
        last.look().result());
  }

  private static Reading line(
      ReadingMaker maker, String id, String label, double toneDb, Seen seen, boolean leakage) {
    double dbc = leakage ? seen.carrierDbc() : seen.imageDbc();
    List<String> marks =
        seen.lost(leakage) ? List.of("lost in noise: this is about the most it can be") : List.of();
    return maker.ratio(id, label, dbc, maker.lineDb(toneDb + dbc), Limit.NONE, marks);
  }
}
