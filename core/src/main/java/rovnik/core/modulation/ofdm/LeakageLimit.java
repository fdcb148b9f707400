package rovnik.core.modulation.ofdm;

import rovnik.core.limits.Limit;

/**
 * How much of the carrier may leak, over the whole power: IEEE 802.11-2020, 17.3.9.7.2, 19.3.18.7.2
 * and 21.3.17.4.2, and their like in clauses 27 and 36; all from memory. Later clauses allow a
 * level as well, whichever is more.
 */
final class LeakageLimit {
  private static final double CLAUSE_17_DB = -15;
  private static final double OF_40_MHZ_DB = -20;
  private static final double LATER_DB = -32;
  private static final double LATER_DBM = -20;

  private LeakageLimit() {}

  /**
   * @param width of the channel, in 20 MHz
   * @param sentDbm the most that is sent in all; not a number if that is not known: then later
   *     clauses have none
   */
  static Limit of(PacketFormat format, int width, double sentDbm) {
    double db =
        switch (format) {
          case LEGACY -> CLAUSE_17_DB;
          case HT -> width == 1 ? CLAUSE_17_DB : OF_40_MHZ_DB;
          default -> Math.max(LATER_DB, LATER_DBM - sentDbm);
        };
    return Double.isNaN(db) ? Limit.NONE : new Limit(Double.NaN, db);
  }
}
