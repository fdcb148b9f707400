package rovnik.server.spectrum;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import rovnik.core.Refusal;
import rovnik.core.emission.CisprBand;
import rovnik.core.emission.CisprDetector;
import rovnik.core.limits.Limit;
import rovnik.core.path.PathCorrection;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.ReadingMaker;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.units.Decibels;
import rovnik.core.units.Frequency;
import rovnik.instruments.iq.IqSetup;
import rovnik.server.live.Guided;
import rovnik.server.live.GuidedForm;
import rovnik.server.results.Nulls;

/**
 * Peak, quasi-peak and average of one frequency as an interference receiver reads them (CISPR
 * 16-1-1, from memory): the bandwidth follows from the frequency, or from what the user chose.
 */
final class WeightedLevels implements Guided<SpectrumBench> {
  /**
   * What it is told.
   *
   * @param hertz at the reading plane, null for the strongest line in view
   * @param band null to let the frequency choose
   * @param seconds how long to watch, 0.5 to 15
   * @param limitDbm for the quasi-peak level, null for none
   */
  @Schema(name = "WeightedForm")
  record Form(
      @Nullable Double hertz, @Nullable CisprBand band, double seconds, @Nullable Double limitDbm)
      implements GuidedForm {
    @Override
    public Guided<?> work() {
      return new WeightedLevels(Nulls.orNan(hertz), band, seconds, Nulls.orNan(limitDbm));
    }
  }

  /** Bandwidths of samples, so that the filter sees no edge. */
  private static final double RATE_OVER_BANDWIDTH = 8;

  private static final double PIECE_SECONDS = 0.25;
  private final double hertz;
  private final CisprBand band;
  private final double seconds;
  private final double limitDbm;

  /**
   * @param hertz at the reading plane, NaN for the strongest line in view
   * @param band null to let the frequency choose
   * @param seconds how long to watch, 0.5 to 15
   * @param limitDbm for the quasi-peak level, NaN for none
   */
  WeightedLevels(double hertz, CisprBand band, double seconds, double limitDbm) {
    if (!(seconds >= 0.5 && seconds <= 15)) {
      throw new Refusal("seconds", "Watch for 0.5 to 15 seconds.");
    }
    this.hertz = hertz;
    this.band = band;
    this.seconds = seconds;
    this.limitDbm = limitDbm;
  }

  @Override
  public String id() {
    return "weighted";
  }

  @Override
  public String title() {
    return "Quasi-peak and average";
  }

  @Override
  public Outcome run(SpectrumBench bench) {
    bench.say("finding the line", 0);
    SpectrumLook first = bench.look(bench.settings());
    boolean chosen = Double.isFinite(hertz);
    if (!chosen && first.result().base().peaks().isEmpty()) {
      throw new Refusal("hertz", "There is no line in view. Name a frequency, or frame one.");
    }
    double hz = chosen ? hertz : first.result().base().peaks().get(0).frequencyHz();
    PathCorrection c = bench.correction();
    double portHz = c.planeToPortHz(hz);
    CisprBand b = band == null ? CisprBand.of(portHz) : band;
    double rate = bench.rateFor(RATE_OVER_BANDWIDTH * b.bandwidthHz());
    // Tuned beside the line: the receiver's dc spike must not be in the filter.
    double tuned = portHz - rate / 4;
    CisprDetector detector = new CisprDetector(b, rate);
    SpectrumSettings s = bench.settings();
    double attenuation =
        bench.receiver().attenuationFor(s.referenceLevelDbm() + c.gainToPortDb(hz));
    int piece = (int) Math.min(bench.receiver().mostSamples(), Math.ceil(rate * PIECE_SECONDS));
    int pieces = (int) Math.ceil(seconds * rate / piece);
    List<String> marks = new ArrayList<>();
    double fullScale = Double.NaN;
    for (int i = 0; i < pieces; i++) {
      bench.say(
          String.format(Locale.ROOT, "watching %s", Frequency.ofHertz(Math.rint(hz))),
          (double) i / pieces);
      IqRecord record = bench.record(new IqSetup(tuned, rate, piece, attenuation));
      if (record.overload() && !marks.contains("overload")) {
        marks.add("overload");
      }
      fullScale = record.fullScaleDbm();
      // A quarter of the rate: four steps of the phase, 1, -i, -1, i, bring the line to 0 Hz.
      detector.accept(turned(record.iq(), record.sampleCount()), record.sampleCount());
    }
    if (!detector.settled()) {
      marks.add(
          String.format(
              Locale.ROOT, "watch %.2g s: the meter had not settled", b.settledSeconds()));
    }
    double offset = fullScale - c.gainToPortDb(hz);
    return finding(bench, first, hz, b, detector, offset, marks);
  }

  private static float[] turned(float[] iq, int samples) {
    float[] out = new float[2 * samples];
    for (int n = 0; n < samples; n++) {
      float re = iq[2 * n];
      float im = iq[2 * n + 1];
      switch (n & 3) {
        case 0 -> set(out, n, re, im);
        case 1 -> set(out, n, im, -re);
        case 2 -> set(out, n, -re, -im);
        default -> set(out, n, -im, re);
      }
    }
    return out;
  }

  private static void set(float[] out, int n, float re, float im) {
    out[2 * n] = re;
    out[2 * n + 1] = im;
  }

  private Outcome finding(
      SpectrumBench bench,
      SpectrumLook first,
      double hz,
      CisprBand b,
      CisprDetector detector,
      double offset,
      List<String> marks) {
    Setting s = bench.setting(bench.settings());
    ReadingMaker maker =
        new ReadingMaker(
            first.result().base().trace(),
            s.settings(),
            s.correction(),
            s.context(marks, List.of()));
    String in = " in " + Frequency.ofHertz(b.bandwidthHz());
    Limit limit = Double.isNaN(limitDbm) ? Limit.NONE : new Limit(Double.NaN, limitDbm);
    List<Reading> readings =
        List.of(
            maker.level(
                "quasiPeak",
                "Quasi-peak" + in,
                Decibels.fromPowerRatio(detector.quasiPeakPower()) + offset,
                "dBm",
                detector.quasiPeakScatterDb(),
                limit,
                marks),
            maker.level(
                "weightedPeak",
                "Peak" + in,
                Decibels.fromPowerRatio(detector.peakPower()) + offset,
                "dBm",
                detector.peakScatterDb(),
                Limit.NONE,
                marks),
            maker.level(
                "weightedAverage",
                "Average" + in,
                Decibels.fromPowerRatio(detector.averagePower()) + offset,
                "dBm",
                detector.averageScatterDb(),
                Limit.NONE,
                marks));
    return SpectrumBench.found(
        this,
        String.format(
            Locale.ROOT,
            "At %s in %s over %.1f s: quasi-peak %.1f, peak %.1f, average %.1f dBm.",
            Frequency.ofHertz(Math.rint(hz)),
            Frequency.ofHertz(b.bandwidthHz()),
            seconds,
            readings.get(0).value(),
            readings.get(1).value(),
            readings.get(2).value()),
        List.of(SpectrumBench.curve("trace", "where it was looked", first.result().base().trace())),
        false,
        List.of(),
        readings,
        first.result());
  }
}
