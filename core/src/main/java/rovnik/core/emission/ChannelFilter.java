package rovnik.core.emission;

import rovnik.core.Refusal;
import rovnik.core.spectrum.BandPower;
import rovnik.core.spectrum.Trace;
import rovnik.core.units.Decibels;

/**
 * What a receiver of a channel takes in: a rectangle, or a root-raised-cosine filter whose power
 * response is the raised cosine of the symbol rate.
 *
 * @param widthHz of the rectangle, or the symbol rate in hertz of the root-raised-cosine filter
 * @param rollOff 0 to 1; NaN for a rectangle
 */
public record ChannelFilter(double widthHz, double rollOff) {
  public ChannelFilter {
    if (!(widthHz > 0) || Double.isInfinite(widthHz)) {
      throw new Refusal("channelWidthHz", "The channel width must be more than 0 Hz, such as 75k.");
    }
    if (rollOff < 0 || rollOff > 1) {
      throw new Refusal("rollOff", "The roll-off must be 0 to 1, such as 0.35.");
    }
  }

  public static ChannelFilter rectangle(double widthHz) {
    return new ChannelFilter(widthHz, Double.NaN);
  }

  public static ChannelFilter rootRaisedCosine(double symbolRateHz, double rollOff) {
    return new ChannelFilter(symbolRateHz, rollOff);
  }

  private boolean shaped() {
    return rollOff > 0;
  }

  /** Half of the band that the filter reaches over. */
  public double reachHz() {
    return widthHz / 2 * (shaped() ? 1 + rollOff : 1);
  }

  /** Power response at a distance from the filter's centre, 0 to 1. */
  public double powerResponse(double offsetHz) {
    double x = Math.abs(offsetHz);
    if (!shaped()) {
      return x <= widthHz / 2 ? 1 : 0;
    }
    double flat = widthHz / 2 * (1 - rollOff);
    if (x <= flat) {
      return 1;
    }
    return x >= reachHz() ? 0 : 0.5 * (1 + Math.cos(Math.PI / (rollOff * widthHz) * (x - flat)));
  }

  /** Power of a trace behind the filter, in the trace's unit. */
  public double level(BandPower power, double centreHz) {
    double reach = reachHz();
    if (!shaped()) {
      return power.level(centreHz - reach, centreHz + reach);
    }
    Trace t = power.trace();
    int first = (int) Math.max(0, Math.ceil((centreHz - reach - t.startHz()) / t.stepHz()));
    int last =
        (int) Math.min(t.points() - 1, Math.floor((centreHz + reach - t.startHz()) / t.stepHz()));
    double sum = 0;
    for (int i = first; i <= last; i++) {
      sum += Decibels.toPowerRatio(t.level()[i]) * powerResponse(t.frequencyHz(i) - centreHz);
    }
    return Decibels.fromPowerRatio(sum * t.stepHz() / t.enbwHz());
  }
}
