package rovnik.server.spectrum;

import java.util.List;
import java.util.Locale;
import rovnik.core.emission.OccupiedBandwidth;
import rovnik.core.path.PathCorrection;
import rovnik.core.result.Outcome;
import rovnik.core.spectrum.BandPower;
import rovnik.core.spectrum.Peak;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.units.Frequency;
import rovnik.instruments.iq.IqCapabilities;
import rovnik.server.live.Guided;
import rovnik.server.live.GuidedForm;

/**
 * Finds reference level, centre and span for whatever is there: a coarse scan of all that the
 * receiver tunes, first with all its attenuation, then with less; a look around the strongest line;
 * a span of some widths of what stands there.
 */
final class AutoFrame implements Guided<SpectrumBench> {
  /** Needs to be told nothing. */
  record Form() implements GuidedForm {
    @Override
    public Guided<?> work() {
      return new AutoFrame();
    }
  }

  private static final double SCAN_RBW_HZ = 200e3;
  private static final double LOOK_SPAN_HZ = 10e6;
  private static final double NARROWEST_SPAN_HZ = 200e3;
  private static final double SPANS_A_WIDTH = 5;

  @Override
  public String id() {
    return "auto-frame";
  }

  @Override
  public String title() {
    return "Auto frame";
  }

  @Override
  public Outcome run(SpectrumBench bench) {
    IqCapabilities able = bench.receiver();
    PathCorrection c = bench.correction();
    SpectrumSettings now = bench.settings();
    double low = c.portToPlaneHz(able.lowestHz() + 1e5);
    double high = c.portToPlaneHz(able.highestHz());
    double middle = (low + high) / 2;
    double gain = c.gainToPortDb(middle);
    double most = able.fullScaleDbm(able.highestAttenuationDb()) - gain;
    Peak strongest = null;
    for (int step = 0; step < 3 && strongest == null; step++) {
      bench.say(
          step == 0 ? "looking everywhere" : "looking everywhere, more sensitive", 0.25 * step);
      SpectrumSettings wide =
          withAverages(now.with(middle, Math.abs(high - low), SCAN_RBW_HZ, most - step * 20), 4);
      SpectrumLook look = bench.look(wide);
      List<Peak> peaks = look.result().base().peaks();
      strongest = peaks.isEmpty() || !look.spoiled().isEmpty() ? null : peaks.get(0);
    }
    if (strongest == null) {
      return SpectrumBench.found(
          this,
          "Nothing stands above the noise. Check the cable, and that the source is on.",
          List.of(),
          false,
          List.of(),
          List.of(),
          null);
    }
    bench.say("looking closer at " + Frequency.ofHertz(Math.rint(strongest.frequencyHz())), 0.8);
    double reference = level(strongest.level());
    double edge = Math.min(strongest.frequencyHz() - low, high - strongest.frequencyHz());
    double span = Math.min(LOOK_SPAN_HZ, Math.max(2 * edge, 1e6));
    SpectrumLook close =
        bench.look(withAverages(now.with(strongest.frequencyHz(), span, 0, reference), 16));
    OccupiedBandwidth width =
        OccupiedBandwidth.ofShare(new BandPower(close.result().base().trace()), 0.98);
    double wanted = Math.max(NARROWEST_SPAN_HZ, SPANS_A_WIDTH * width.widthHz());
    double nice = Math.min(roundUp(wanted), able.widestSpanHz());
    double grid = Math.pow(10, Math.floor(Math.log10(nice / 1000)));
    double centre = Math.rint(width.centreHz() / grid) * grid;
    bench.frame(now.with(centre, nice, 0, reference));
    return SpectrumBench.found(
        this,
        String.format(
            Locale.ROOT,
            "Framed what stands at %s with %.1f dBm: span %s, reference level %.0f dBm.",
            Frequency.ofHertz(centre),
            strongest.level(),
            Frequency.ofHertz(nice),
            reference),
        List.of(),
        false,
        List.of(),
        List.of(),
        null);
  }

  /** A reference level with some room, in steps of 5 dB. */
  private static double level(double peakDbm) {
    return 5 * Math.ceil((peakDbm + 2.5) / 5);
  }

  private static double roundUp(double hz) {
    double decade = Math.pow(10, Math.floor(Math.log10(hz)));
    for (double m : new double[] {1, 2, 5}) {
      if (m * decade >= hz * (1 - 1e-9)) {
        return m * decade;
      }
    }
    return 10 * decade;
  }

  static SpectrumSettings withAverages(SpectrumSettings s, int averages) {
    return new SpectrumSettings(
        s.centreHz(),
        s.spanHz(),
        s.rbwHz(),
        s.window(),
        rovnik.core.spectrum.Detector.RMS,
        averages,
        s.referenceLevelDbm(),
        s.channelWidthHz(),
        0,
        s.lines());
  }
}
