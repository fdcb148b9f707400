package rovnik.server.spectrum;

import java.util.List;
import rovnik.core.emission.EmissionMeasurement;
import rovnik.core.emission.EmissionResult;
import rovnik.core.emission.RecordLooks;
import rovnik.core.emission.SpectrumOutcome;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.OutsideLine;
import rovnik.core.spectrum.RollingSpectrum;
import rovnik.core.spectrum.SpectrumEstimator;
import rovnik.core.spectrum.SpectrumLayout;
import rovnik.core.spectrum.SpectrumMeasurement;
import rovnik.core.spectrum.SpectrumResult;
import rovnik.core.spectrum.TraceStack;
import rovnik.instruments.Instrument;
import rovnik.instruments.iq.AcquisitionPlan;
import rovnik.instruments.iq.IqReceiver;

/** Spectra of single records: the span fits into what the receiver takes at once. */
final class RecordEngine implements Engine {
  private final Setting setting;
  private final AcquisitionPlan plan;
  private final SpectrumEstimator estimator;
  private RollingSpectrum rolling;
  private RecordLooks looks;
  private final double[] power;
  private final double[] newest;
  private SecondTrace second;

  RecordEngine(Setting setting, AcquisitionPlan plan) {
    this.setting = setting;
    this.plan = plan;
    int points = plan.layout().points();
    this.estimator = new SpectrumEstimator(plan.layout(), setting.settings().detector());
    this.rolling =
        new RollingSpectrum(setting.settings().detector(), points, setting.settings().averages());
    this.looks = looks(null);
    this.power = new double[points];
    this.newest = new double[points];
    this.second = setting.view().second() == null ? null : new SecondTrace(setting, plan.layout());
  }

  private RecordLooks looks(TraceStack before) {
    return new RecordLooks(
        setting.view().traces(),
        plan.layout(),
        setting.settings(),
        plan.setup().centreHz(),
        before == null ? List.of() : before.frozen());
  }

  /** Averages go on if they are of the same samples; frozen traces stay while the points do. */
  @Override
  public void follow(Engine before) {
    if (!(before instanceof RecordEngine b) || !b.plan.layout().equals(plan.layout())) {
      return;
    }
    boolean same =
        b.plan.equals(plan)
            && b.setting.settings().equals(setting.settings())
            && b.setting.job().pathVersion().equals(setting.job().pathVersion());
    if (same) {
      rolling = b.rolling;
      boolean sameSecond = second != null && b.second != null && second.alike(b.second);
      second = sameSecond ? b.second : second;
    }
    TraceStack old = b.looks.stack();
    looks = same && old.rows().equals(looks.stack().rows()) ? b.looks : looks(old);
  }

  @Override
  public SpectrumLayout layout() {
    return plan.layout();
  }

  @Override
  public SpectrumLook next(Instrument instrument) {
    IqReceiver receiver = (IqReceiver) instrument;
    receiver.configure(plan.setup());
    IqRecord record = receiver.acquire();
    estimator.breakRecord();
    estimator.accumulate(record.iq(), 0, record.sampleCount());
    if (!looks.stack().rows().isEmpty()) {
      estimator.powerInto(newest);
      looks.take(newest, record.iq(), record.sampleCount());
    }
    List<OutsideLine> outside = estimator.outside();
    rolling.take(estimator);
    rolling.powerInto(power);
    List<String> marks = Engine.marks(record.overload(), receiver.protectionTripped());
    SpectrumLayout layout = plan.layout();
    MeasurementContext context = setting.context(marks, List.of());
    SpectrumResult base =
        SpectrumMeasurement.of(
            power,
            layout,
            outside,
            record.centreHz(),
            record.fullScaleDbm(),
            rolling.segments(),
            setting.settings(),
            context);
    EmissionResult result =
        EmissionMeasurement.of(base, setting.settings(), setting.view(), context, layout, record);
    List<SpectrumOutcome.Row> rows =
        Rows.of(looks.stack(), base.trace(), record.fullScaleDbm(), setting.correction());
    if (second != null) {
      second.take(receiver.acquiredOnSecond());
      rows.add(second.row(base.trace()));
      result = second.read(result);
      marks = second.marks(marks);
    }
    return new SpectrumLook(
        setting,
        result,
        rows,
        record,
        new SpectrumLook.Facts(
            layout.fftLength(),
            layout.sampleRateHz(),
            layout.windowLength() / layout.sampleRateHz(),
            plan.setup().attenuationDb()),
        marks,
        List.of(),
        1,
        0);
  }
}
