package rovnik.core.emission;

import java.util.ArrayList;
import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.limits.Limit;
import rovnik.core.spectrum.BandPower;
import rovnik.core.spectrum.Trace;
import rovnik.core.units.Frequency;

/**
 * Power in the channels beside an emission, relative to the power in its own channel.
 *
 * @param own filter of the own channel
 * @param channels the channels beside it, each judged below and above
 */
public record AdjacentChannels(ChannelFilter own, List<Channel> channels) {
  public AdjacentChannels {
    if (channels.isEmpty() || channels.size() > 12) {
      throw new Refusal("adjacent", "Name 1 to 12 channels beside the own one.");
    }
  }

  /**
   * One channel on each side.
   *
   * @param offsetHz from the carrier to the channel's middle, positive
   * @param filter what the neighbour's receiver takes in
   * @param highestDbc highest allowed ratio, NaN for no limit
   */
  public record Channel(double offsetHz, ChannelFilter filter, double highestDbc) {
    public Channel {
      if (!(offsetHz > 0) || Double.isInfinite(offsetHz)) {
        throw new Refusal("offsetHz", "The offset of a channel must be more than 0 Hz.");
      }
    }

    Limit limit() {
      return Double.isNaN(highestDbc) ? Limit.NONE : new Limit(Double.NaN, highestDbc);
    }
  }

  /**
   * One channel's result.
   *
   * @param offsetHz negative below the carrier
   * @param level in the trace's unit
   * @param dbc relative to the own channel
   * @param limit on {@code dbc}
   */
  public record Result(double offsetHz, double level, double dbc, Limit limit) {}

  /**
   * Measures all channels.
   *
   * @throws Refusal if a channel reaches outside the trace; the sentence names the span it needs
   */
  public List<Result> measure(Trace trace, double carrierHz) {
    double reach =
        channels.stream().mapToDouble(c -> c.offsetHz() + c.filter().reachHz()).max().orElse(0);
    double slack = trace.stepHz();
    if (carrierHz - reach < trace.startHz() - slack || carrierHz + reach > trace.stopHz() + slack) {
      throw new Refusal(
          "spanHz",
          "The channels reach "
              + Frequency.ofHertz(reach)
              + " to each side of the carrier, beyond the span. Widen the span to at least "
              + Frequency.ofHertz(2 * reach)
              + ".");
    }
    BandPower power = new BandPower(trace);
    double ownLevel = own.level(power, carrierHz);
    List<Result> results = new ArrayList<>();
    for (Channel c : channels) {
      for (int side : new int[] {-1, 1}) {
        double level = c.filter().level(power, carrierHz + side * c.offsetHz());
        results.add(new Result(side * c.offsetHz(), level, level - ownLevel, c.limit()));
      }
    }
    return results;
  }

  /** Width of the channel at an offset. */
  double widthAt(double offsetHz) {
    return channels.stream()
        .filter(c -> c.offsetHz() == Math.abs(offsetHz))
        .mapToDouble(c -> c.filter().widthHz())
        .findFirst()
        .orElse(own.widthHz());
  }
}
