package rovnik.core.emission;

import java.util.List;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.SpectrumLayout;
import rovnik.core.spectrum.SpectrumResult;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.spectrum.Trace;

/** Adds to a measured spectrum what a view asks for beside it. */
public final class EmissionMeasurement {
  private EmissionMeasurement() {}

  /**
   * What one transmission of a noise-like signal has beside its channel: the width that holds 99 %
   * of its power, and a mask.
   *
   * @param settings their centre is that of the mask
   * @param mask null if none is known
   * @param reference of the mask
   * @param name of the mask
   * @param beneath the same where it does not send; null if it always does
   */
  public static EmissionResult ofNoise(
      Trace trace,
      SpectrumSettings settings,
      MeasurementContext context,
      EmissionMask mask,
      MaskReference reference,
      String name,
      Trace beneath) {
    SpectrumResult base = new SpectrumResult(trace, List.of(), List.of());
    EmissionPart m = new EmissionPart(base, settings, context.withoutLimits());
    if (mask != null) {
      new MaskReading(m).mask(mask, reference, name, beneath);
    }
    new ChannelReadings(m).occupied(new ViewPlan.Occupied(0.99, Double.NaN, Double.NaN));
    return new EmissionResult(
        new SpectrumResult(trace, List.of(), List.copyOf(m.readings)),
        List.copyOf(m.tables),
        List.copyOf(m.lines));
  }

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
