package rovnik.server.spectrum;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import rovnik.core.Refusal;
import rovnik.core.emission.NoiseFigure;
import rovnik.core.limits.Limit;
import rovnik.core.path.PathCorrection;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.spectrum.BandPower;
import rovnik.core.spectrum.ReadingMaker;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.spectrum.Trace;
import rovnik.core.uncertainty.UncertaintyBudget;
import rovnik.core.units.Frequency;
import rovnik.server.live.Guided;
import rovnik.server.live.GuidedForm;
import rovnik.server.live.Workbench;
import rovnik.server.results.Nulls;

/**
 * Noise figure by the Y factor: noise in the channel with the source cold, then hot. With the
 * source straight at the receiver the receiver's own figure is found and remembered; with a device
 * between them the device's figure and gain follow (Friis' formula for two stages).
 */
final class YFactor implements Guided<SpectrumBench> {
  /**
   * What it is told.
   *
   * @param receiverAlone the source is straight at the receiver
   * @param excessNoiseDb of the noise source, null to take what its label says
   * @param coldKelvin temperature of the cold source
   * @param limitDb highest noise figure, null for none
   */
  @Schema(name = "NoiseFigureForm")
  record Form(
      boolean receiverAlone,
      @Nullable Double excessNoiseDb,
      double coldKelvin,
      @Nullable Double limitDb)
      implements GuidedForm {
    @Override
    public Guided<?> work() {
      return new YFactor(
          receiverAlone, Nulls.orNan(excessNoiseDb), coldKelvin, Nulls.orNan(limitDb));
    }
  }

  /** Excess noise ratios are labelled to about this (common practice). */
  private static final double LABEL_DB = 0.15;

  private final boolean receiverAlone;
  private final double excessNoiseDb;
  private final double coldKelvin;
  private final double limitDb;

  /**
   * @param receiverAlone the source is straight at the receiver
   * @param excessNoiseDb NaN to take the label's
   * @param limitDb highest noise figure, NaN for none
   */
  YFactor(boolean receiverAlone, double excessNoiseDb, double coldKelvin, double limitDb) {
    if (!(coldKelvin > 0 && coldKelvin < 1000)) {
      throw new Refusal("coldKelvin", "The cold source is at 1 to 999 kelvin; a room is at 296.");
    }
    if (excessNoiseDb < 0 || excessNoiseDb > 60) {
      throw new Refusal("excessNoiseDb", "The excess noise ratio is 0 to 60 dB, often 6 or 15.");
    }
    this.receiverAlone = receiverAlone;
    this.excessNoiseDb = excessNoiseDb;
    this.coldKelvin = coldKelvin;
    this.limitDb = limitDb;
  }

  @Override
  public String id() {
    return "noise-figure";
  }

  @Override
  public String title() {
    return "Noise figure by the Y factor";
  }

  @Override
  public Outcome run(SpectrumBench bench) {
    double label = bench.excessNoiseDb();
    if (Double.isNaN(label)) {
      throw new Refusal(
          "source",
          "The path does not begin at a noise source. Click its first element and choose one.");
    }
    double enr = Double.isNaN(excessNoiseDb) ? label : excessNoiseDb;
    PathCorrection c = bench.correction();
    SpectrumSettings now = bench.settings();
    double gain = c.gainToPortDb(now.centreHz());
    // Noise is weak: the receiver without attenuation adds least of its own.
    double reference = bench.receiver().fullScaleDbm(0) - gain;
    SpectrumSettings s =
        AutoFrame.withAverages(
            now.with(now.centreHz(), now.spanHz(), now.rbwHz(), reference),
            Math.max(now.averages(), 200));
    Workbench.Restored coldAgain = () -> bench.setHot(false);
    try (coldAgain) {
      bench.say("cold", 0);
      bench.setHot(false);
      SpectrumLook cold = bench.look(s);
      bench.say("hot", 0.5);
      bench.setHot(true);
      SpectrumLook hot = bench.look(s);
      return finding(bench, s, enr, gain, cold, hot);
    }
  }

  private static double channelDbm(SpectrumLook look, SpectrumSettings s, double gainToPortDb) {
    double half = s.channelWidthHz() / 2;
    Trace t = look.result().base().trace();
    return new BandPower(t).level(s.centreHz() - half, s.centreHz() + half) + gainToPortDb;
  }

  private Outcome finding(
      SpectrumBench bench,
      SpectrumSettings s,
      double enr,
      double gainDb,
      SpectrumLook cold,
      SpectrumLook hot) {
    Setting setting = bench.setting(s);
    List<String> marks = new ArrayList<>(cold.marks());
    hot.marks().stream().filter(m -> !marks.contains(m)).forEach(marks::add);
    if (s.channelWidthHz() > s.spanHz()) {
      marks.add("channel wider than the span");
    }
    ReadingMaker maker =
        new ReadingMaker(
            hot.result().base().trace(),
            s,
            setting.correction(),
            setting.context(marks, List.of()));
    NoiseFigure.Noise noise =
        new NoiseFigure.Noise(
            channelDbm(cold, s, gainDb),
            channelDbm(hot, s, gainDb),
            maker.noiseDb(s.channelWidthHz()));
    double yDb = noise.yDb();
    double yStandard = Math.sqrt(2) * noise.standardDb();
    double linearityDb = setting.accuracy().linearityDb();
    double allDb = NoiseFigure.byYFactor(noise.hotDbm(), noise.coldDbm(), enr, coldKelvin);
    UncertaintyBudget all =
        new UncertaintyBudget()
            .rectangular("label of the noise source", LABEL_DB)
            .rectangular("linearity of the receiver", NoiseFigure.sensitivityToY(yDb) * linearityDb)
            .normal("average", NoiseFigure.sensitivityToY(yDb) * yStandard);
    List<Reading> readings = new ArrayList<>();
    NoiseFigure.Receiver alone = bench.receiverNoise();
    boolean usable = !receiverAlone && alone != null && fits(alone, s, hot);
    Limit limit = Double.isNaN(limitDb) ? Limit.NONE : new Limit(Double.NaN, limitDb);
    String words;
    if (usable) {
      double partGainDb = NoiseFigure.gainDb(alone.noise(), noise);
      double partDb = NoiseFigure.ofFirstStage(allDb, alone.figureDb(), partGainDb);
      UncertaintyBudget own =
          NoiseFigure.ofFirstStage(alone.noise(), noise, linearityDb / Math.sqrt(3))
              .rectangular("label of the noise source", LABEL_DB);
      readings.add(
          maker.reading(
              "noiseFigure", "Noise figure of the device", partDb, "dB", own, limit, marks));
      UncertaintyBudget gain =
          new UncertaintyBudget()
              .rectangular("linearity of the receiver", linearityDb)
              .rectangular("mismatch of the noise source", 0.1)
              .normal("average alone", alone.noise().riseStandardDb())
              .normal("average", noise.riseStandardDb());
      readings.add(
          maker.reading(
              "availableGain", "Gain of the device", partGainDb, "dB", gain, Limit.NONE, marks));
      words =
          String.format(
              Locale.ROOT,
              "At %s the device has a noise figure of %.2f dB and a gain of %.2f dB; with the"
                  + " receiver behind it, %.2f dB.",
              Frequency.ofHertz(s.centreHz()),
              partDb,
              partGainDb,
              allDb);
    } else if (receiverAlone) {
      bench.rememberReceiverNoise(
          new NoiseFigure.Receiver(
              s.centreHz(), hot.facts().attenuationDb(), s.channelWidthHz(), allDb, noise));
      words =
          String.format(
              Locale.ROOT,
              "At %s the receiver has a noise figure of %.2f dB. Put the device in and measure it"
                  + " next.",
              Frequency.ofHertz(s.centreHz()),
              allDb);
    } else {
      words =
          String.format(
              Locale.ROOT,
              "At %s all behind the noise source has %.2f dB. Measure the receiver alone at this"
                  + " frequency and channel first, to learn the device's part.",
              Frequency.ofHertz(s.centreHz()),
              allDb);
    }
    readings.add(
        maker.reading(
            usable ? "noiseFigureOfAll" : "noiseFigure",
            receiverAlone
                ? "Noise figure of the receiver"
                : "Noise figure of all behind the source",
            allDb,
            "dB",
            all,
            usable ? Limit.NONE : limit,
            marks));
    readings.add(
        maker.reading(
            "yFactor",
            "Y factor",
            yDb,
            "dB",
            new UncertaintyBudget().normal("average", yStandard),
            Limit.NONE,
            marks));
    return SpectrumBench.found(
        this,
        words,
        List.of(
            SpectrumBench.curve("hot", "hot", hot.result().base().trace()),
            SpectrumBench.curve("cold", "cold", cold.result().base().trace())),
        false,
        List.of(),
        readings,
        hot.result());
  }

  /** What was found of the receiver holds for the same frequency, channel and attenuation. */
  private static boolean fits(NoiseFigure.Receiver r, SpectrumSettings s, SpectrumLook look) {
    return Math.abs(r.hertz() - s.centreHz()) <= s.channelWidthHz()
        && r.bandwidthHz() == s.channelWidthHz()
        && r.attenuationDb() == look.facts().attenuationDb();
  }
}
