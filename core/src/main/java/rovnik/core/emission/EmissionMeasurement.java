package rovnik.core.emission;

import java.util.List;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.SpectrumLayout;
import rovnik.core.spectrum.SpectrumResult;
import rovnik.core.spectrum.SpectrumSettings;

/** Adds to a measured spectrum what a view asks for beside it. */
public final class EmissionMeasurement {
  private EmissionMeasurement() {}

  /**
   * Reads what the plan asks for. A part that cannot be read is a reading with a mark that says
   * why; it never takes the rest with it.
   *
   * @param layout that the trace was made with, null for a trace from elsewhere
   * @param record the newest samples, null if there are none
   */
  public static EmissionResult of(
      SpectrumResult base,
      SpectrumSettings settings,
      ViewPlan plan,
      MeasurementContext context,
      SpectrumLayout layout,
      IqRecord record) {
    EmissionPart m = new EmissionPart(base, settings, context);
    ChannelReadings channels = new ChannelReadings(m);
    ToneReadings tones = new ToneReadings(m);
    if (record != null) {
      new PhaseWalk(m).walk(record);
    }
    if (plan.occupied() != null) {
      channels.occupied(plan.occupied());
    }
    if (plan.highestDensity() != null) {
      channels.density(plan.highestDensity());
    }
    if (plan.adjacent() != null) {
      channels.adjacent(plan.adjacent());
    }
    if (plan.mask() != null) {
      new MaskReading(m).mask(plan.mask());
    }
    if (plan.twoTones()) {
      tones.twoTones();
    }
    if (plan.amDepth()) {
      tones.amDepth(record);
    }
    if (plan.skirt() && layout != null) {
      tones.skirt(layout);
    }
    for (int i = 0; i < plan.reads().size(); i++) {
      m.readings.add(
          MarkerReadings.read(
              "read" + i, plan.reads().get(i), m.trace, base.peaks(), m.maker, context, record));
    }
    return new EmissionResult(
        new SpectrumResult(base.trace(), base.peaks(), List.copyOf(m.readings)),
        List.copyOf(m.tables),
        List.copyOf(m.lines));
  }
}
