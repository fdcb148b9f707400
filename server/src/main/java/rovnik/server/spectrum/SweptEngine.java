package rovnik.server.spectrum;

import java.util.List;
import rovnik.core.emission.EmissionMeasurement;
import rovnik.core.path.PathCorrection;
import rovnik.core.spectrum.Detector;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.RollingSpectrum;
import rovnik.core.spectrum.SpectrumMeasurement;
import rovnik.core.spectrum.ToneInterpolator;
import rovnik.core.spectrum.Trace;
import rovnik.core.spectrum.TraceStack;
import rovnik.core.units.Decibels;
import rovnik.instruments.Instrument;
import rovnik.instruments.sweep.Sweep;
import rovnik.instruments.sweep.SweepCapabilities;
import rovnik.instruments.sweep.SweepSetup;
import rovnik.instruments.sweep.SweptAnalyzer;

/** Traces of a swept analyzer: its sweep time, RBW and detector are its own. */
final class SweptEngine implements Engine {
  private final Setting setting;
  private final SweepSetup setup;
  private final SweepCapabilities able;
  private RollingSpectrum rolling;
  private TraceStack stack;
  private final double[] power;

  SweptEngine(Setting setting, SweepSetup setup, SweepCapabilities able) {
    this.setting = setting;
    this.setup = setup;
    this.able = able;
    this.power = new double[setup.points()];
    this.stack = Rows.stack(setting, setup.points(), null);
    // The analyzer's detector has made the points; sweeps are averaged by their power.
    Detector how =
        setting.settings().detector() == Detector.LOG_AVERAGE ? Detector.LOG_AVERAGE : Detector.RMS;
    this.rolling = new RollingSpectrum(how, setup.points(), setting.settings().averages());
  }

  @Override
  public void follow(Engine before) {
    if (before instanceof SweptEngine b
        && b.setup.equals(setup)
        && b.setting.settings().equals(setting.settings())
        && b.setting.job().pathVersion().equals(setting.job().pathVersion())) {
      rolling = b.rolling;
    }
    if (before instanceof SweptEngine b && b.setup.equals(setup)) {
      boolean same = b.stack.rows().equals(stack.rows()) && rolling == b.rolling;
      stack = same ? b.stack : Rows.stack(setting, power.length, b.stack);
    }
  }

  @Override
  public SpectrumLook next(Instrument instrument) {
    SweptAnalyzer analyzer = (SweptAnalyzer) instrument;
    analyzer.configure(setup);
    Sweep sweep = analyzer.sweep();
    double[] newest = new double[power.length];
    for (int i = 0; i < newest.length; i++) {
      newest[i] = Decibels.toPowerRatio(sweep.levelDbm()[i]);
    }
    rolling.take(newest, 1);
    stack.take(newest);
    rolling.powerInto(power);
    List<String> marks = Engine.marks(sweep.overload(), false);
    MeasurementContext context = setting.context(marks, List.of());
    Trace trace = trace(sweep);
    return new SpectrumLook(
        setting,
        EmissionMeasurement.of(
            SpectrumMeasurement.of(
                trace,
                ToneInterpolator.gaussian(sweep.rbwHz(), sweep.stepHz()),
                List.of(), // a swept filter has no side lobes
                setting.settings(),
                context),
            setting.settings(),
            setting.view(),
            context,
            null,
            null),
        Rows.of(stack, trace, 0, setting.correction()),
        null,
        new SpectrumLook.Facts(0, 0, sweep.sweepSeconds(), setup.attenuationDb()),
        marks,
        List.of(),
        1,
        0);
  }

  private Trace trace(Sweep sweep) {
    float[] level = new float[power.length];
    for (int i = 0; i < level.length; i++) {
      level[i] = (float) Decibels.fromPowerRatio(power[i]);
    }
    PathCorrection correction = setting.correction();
    double start = correction.portToPlaneHz(sweep.startHz());
    correction.applyTo(level, start, sweep.stepHz());
    return new Trace(
        start,
        sweep.stepHz(),
        level,
        "dBm",
        correction.planeName(),
        sweep.rbwHz(),
        sweep.rbwHz() * able.noiseOverRbw(),
        rolling.segments(),
        "Gaussian filter",
        setting.settings().detector().label());
  }
}
