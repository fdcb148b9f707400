package rovnik.server.live;

import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;

/**
 * The samples that a look was made of, and what they are measured against.
 *
 * @param centreHz middle of what was measured, at the reading plane; 0 for the record's
 * @param bandHz width of that
 */
public record LookSamples(
    IqRecord record, MeasurementContext context, double centreHz, double bandHz) {
  public double seconds() {
    return record.sampleCount() / record.sampleRateHz();
  }
}
