package rovnik.server.spectrum;

import java.util.ArrayList;
import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.emission.SpectrumOutcome;
import rovnik.core.path.PathCorrection;
import rovnik.core.spectrum.Trace;
import rovnik.core.spectrum.TraceMode;
import rovnik.core.spectrum.TraceRow;
import rovnik.core.spectrum.TraceStack;
import rovnik.core.units.Decibels;

/** The further traces of a view, from linear powers at the port to levels at the reading plane. */
final class Rows {
  private Rows() {}

  /**
   * A new stack of finished spectra, without samples; what is frozen in the old one stays if the
   * points do.
   */
  static TraceStack stack(Setting setting, int points, TraceStack before) {
    if (setting.view().traces().stream().anyMatch(r -> r.mode().weighted())) {
      throw new Refusal(
          "traces",
          "Quasi-peak and CISPR average traces need single records of an IQ receiver. Narrow the"
              + " span, or take these traces away.");
    }
    return new TraceStack(
        setting.view().traces(), points, before == null ? List.of() : before.frozen());
  }

  /**
   * @param main trace whose points they share
   * @param fullScaleDbm level of a power of 1, NaN for a record without calibration
   * @param correction to the reading plane, null for a record without calibration
   */
  static List<SpectrumOutcome.Row> of(
      TraceStack stack, Trace main, double fullScaleDbm, PathCorrection correction) {
    List<SpectrumOutcome.Row> rows = new ArrayList<>();
    for (int i = 0; i < stack.rows().size(); i++) {
      TraceRow row = stack.rows().get(i);
      boolean ratio = row.mode() == TraceMode.RATIO;
      double offsetDb = ratio || Double.isNaN(fullScaleDbm) ? 0 : fullScaleDbm;
      float[] level = new float[main.points()];
      double[] linear = stack.power(i);
      for (int k = 0; k < level.length; k++) {
        level[k] = (float) (Decibels.fromPowerRatio(linear[k]) + offsetDb);
      }
      if (!ratio && correction != null) {
        correction.applyTo(level, main.startHz(), main.stepHz());
      }
      rows.add(
          new SpectrumOutcome.Row(
              row.label(),
              new Trace(
                  main.startHz(),
                  main.stepHz(),
                  level,
                  ratio ? "dB" : main.unit(),
                  main.plane(),
                  main.rbwHz(),
                  main.enbwHz(),
                  stack.taken(i),
                  main.window(),
                  row.label(),
                  main.calibrated())));
    }
    return rows;
  }
}
