package rovnik.core.receiver;

/**
 * How well a signal was received; NaN and 0 where it does not tell.
 *
 * @param bits that were compared
 * @param errors of them
 * @param packets that were compared
 * @param wrongPackets of them
 * @param sinadDb of a tone; NaN if there was none in the noise
 * @param sinadStandardDb how that scatters
 * @param evmPercent of a carrier
 * @param squelchOpen whether the squelch let it through; null if there is none
 * @param lost why there is nothing, "" if there is
 */
public record Quality(
    long bits,
    long errors,
    long packets,
    long wrongPackets,
    double sinadDb,
    double sinadStandardDb,
    double evmPercent,
    Boolean squelchOpen,
    String lost) {

  public static Quality nothing(String lost) {
    return new Quality(0, 0, 0, 0, Double.NaN, Double.NaN, Double.NaN, null, lost);
  }

  public static Quality ofBits(long bits, long errors, long packets, long wrongPackets) {
    return new Quality(
        bits, errors, packets, wrongPackets, Double.NaN, Double.NaN, Double.NaN, null, "");
  }

  public static Quality ofSinad(double sinadDb, double standardDb) {
    return new Quality(0, 0, 0, 0, sinadDb, standardDb, Double.NaN, null, "");
  }

  /** The same with what the squelch did. */
  public Quality squelched(boolean open, String why) {
    return new Quality(
        bits, errors, packets, wrongPackets, sinadDb, sinadStandardDb, evmPercent, open, why);
  }

  /** Counts together; the rest is as it was seen last. */
  public Quality plus(Quality more) {
    return new Quality(
        bits + more.bits,
        errors + more.errors,
        packets + more.packets,
        wrongPackets + more.wrongPackets,
        more.sinadDb,
        more.sinadStandardDb,
        more.evmPercent,
        more.squelchOpen,
        bits + more.bits > 0 ? "" : more.lost);
  }
}
