package rovnik.core.spectrum;

import rovnik.core.Refusal;
import rovnik.core.units.Decibels;
import rovnik.core.units.Frequency;

/** Power in a band: the sum of the densities of the points, each level divided by the ENBW. */
public final class ChannelPower {
  private ChannelPower() {}

  /**
   * Power between two frequencies in the trace's unit (dBm or dBFS). Points at the edges count by
   * the share of their step that lies inside.
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
    double step = trace.stepHz();
    double power = 0;
    int first = (int) Math.max(0, Math.floor((lowHz - trace.startHz()) / step - 0.5));
    int last = (int) Math.min(trace.points() - 1, Math.ceil((highHz - trace.startHz()) / step + 1));
    for (int i = first; i <= last; i++) {
      double f = trace.frequencyHz(i);
      double inside = Math.min(highHz, f + step / 2) - Math.max(lowHz, f - step / 2);
      if (inside > 0) {
        power += Decibels.toPowerRatio(trace.level()[i]) * inside;
      }
    }
    return Decibels.fromPowerRatio(power / trace.enbwHz());
  }
}
