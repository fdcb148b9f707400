package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.List;
import rovnik.core.emission.EmissionMask;

/**
 * The transmit spectrum masks of IEEE 802.11-2020 (clauses 17, 19, 21), 802.11ax-2021 (27) and
 * 802.11be (36), all from memory: in 100 kHz, relative to the densest place, with an absolute level
 * below which nothing counts. They differ in how far a channel is filled and in how steep their
 * beginning is; beyond it all fall alike over the distance.
 */
final class StandardMask {
  /** Bandwidth in which it is measured. */
  static final double RBW_HZ = 100e3;

  /** From there on it is even, in widths of the channel. */
  static final double CORNERS = 1.5;

  private static final double STEP_DBR = -20;
  private static final double NEXT_DBR = -28;
  private static final double LAST_DBR = -40;

  /** Of HT in the lower band, where such packets share it with others. */
  private static final double LOWER_BAND_DBR = -45;

  private static final double LOWER_BAND_BELOW_HZ = 3e9;

  /** Bandwidth that its levels are told in. */
  static final double LEVELS_IN_HZ = 1e6;

  private StandardMask() {}

  /**
   * @param channelHz width of the channel
   * @param centreHz its middle, as sent
   * @param reachHz farthest offset
   * @param addDb from a level in dBm in a MHz, as sent, to that of a trace; not a number for none
   */
  static EmissionMask of(
      PacketFormat format, double channelHz, double centreHz, double reachHz, double addDb) {
    double edge = Math.min(1e6, channelHz / 20);
    double full = channelHz / 2 - (!format.fills() ? edge : channelHz <= 20e6 ? 0.25e6 : 0.5e6);
    double step = channelHz / 2 + (format.fills() ? 0.5e6 : edge);
    double last =
        format == PacketFormat.HT && centreHz < LOWER_BAND_BELOW_HZ ? LOWER_BAND_DBR : LAST_DBR;
    double[] at = {full, step, channelHz, CORNERS * channelHz, reachHz};
    double[] dbr = {0, STEP_DBR, NEXT_DBR, last, last};
    double absolute = absoluteDbm(format, channelHz) + addDb;
    List<EmissionMask.Segment> out = new ArrayList<>();
    for (int i = 0; i + 1 < at.length && at[i] < reachHz; i++) {
      double to = Math.min(at[i + 1], reachHz);
      double share = (to - at[i]) / (at[i + 1] - at[i]);
      out.add(
          new EmissionMask.Segment(
              at[i], to, 0, dbr[i], dbr[i] + share * (dbr[i + 1] - dbr[i]), absolute, absolute));
    }
    return new EmissionMask(out);
  }

  /** In dBm in a MHz; not a number for none. */
  private static double absoluteDbm(PacketFormat format, double channelHz) {
    if (format == PacketFormat.LEGACY) {
      return Double.NaN;
    }
    return channelHz <= 20e6 ? -53 : channelHz <= 40e6 ? -56 : -59;
  }

  /** "Mask of clause 17", as its table is called. */
  static String nameOf(PacketFormat format) {
    return "Mask of IEEE 802.11, clause "
        + switch (format) {
          case LEGACY -> 17;
          case HT -> 19;
          case VHT -> 21;
          case HE -> 27;
          case EHT -> 36;
        };
  }
}
