package rovnik.core.spectrum;

import rovnik.core.Refusal;
import rovnik.core.units.Frequency;

/** Power in one band that must lie in the trace. */
public final class ChannelPower {
  private ChannelPower() {}

  /**
   * Power between two frequencies in the trace's unit (dBm or dBFS).
   *
   * @throws Refusal if the band does not lie in the trace
   */
  public static double of(Trace trace, double lowHz, double highHz) {
    double slack = trace.stepHz() * (1 + 1e-6);
    if (lowHz < trace.startHz() - slack || highHz > trace.stopHz() + slack || !(highHz > lowHz)) {
      throw new Refusal(
          "channelWidthHz",
          "The channel from "
              + Frequency.ofHertz(lowHz)
              + " to "
              + Frequency.ofHertz(highHz)
              + " reaches outside the span. Widen the span or narrow the channel.");
    }
    return new BandPower(trace, lowHz, highHz).level(lowHz, highHz);
  }
}
