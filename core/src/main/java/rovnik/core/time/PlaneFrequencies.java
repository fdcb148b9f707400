package rovnik.core.time;

import rovnik.core.path.PathCorrection;
import rovnik.core.result.Axis;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;

/**
 * Where the points of a spectrum are at the reading plane, and what their levels are there.
 *
 * @param hz frequency of each point at the plane
 * @param stepHz from one to the next
 * @param addDb level at the plane over dB of full scale, of each point
 */
record PlaneFrequencies(double[] hz, double stepHz, double[] addDb) {
  /**
   * @param firstHz of the points, from the centre of the record
   */
  static PlaneFrequencies of(
      IqRecord record, MeasurementContext context, double firstHz, double stepHz, int points) {
    PathCorrection c = context.correction();
    boolean calibrated = record.calibrated();
    double[] hz = new double[points];
    double[] addDb = new double[points];
    for (int i = 0; i < points; i++) {
      double port = record.centreHz() + firstHz + i * stepHz;
      hz[i] = c == null ? port : c.portToPlaneHz(port);
      addDb[i] =
          (calibrated ? record.fullScaleDbm() : 0)
              - (calibrated && c != null ? c.gainToPortDb(hz[i]) : 0);
    }
    return new PlaneFrequencies(hz, stepHz, addDb);
  }

  Axis axis() {
    return Axis.even(Axis.FREQUENCY, "Hz", hz[0], stepHz, hz.length);
  }
}
