package rovnik.core.signal;

import java.util.List;

/**
 * What an oscilloscope took beside a receiver's record, on one trigger.
 *
 * @param channels one record each
 * @param alignmentHalfWidth how far the oscilloscope's time may be off that of the receiver at the
 *     trigger, seconds
 * @param clocksRelative how far the two clocks may be apart, relative
 */
public record TracesBeside(
    List<VoltageRecord> channels, double alignmentHalfWidth, double clocksRelative) {
  public TracesBeside {
    channels = List.copyOf(channels);
  }

  /** What a measurement wants of one. */
  public record Wanted(int channels, double seconds) {}
}
