package rovnik.instruments.tested;

/**
 * What a receiver counted in its test mode.
 *
 * @param bits that were compared with the test sequence
 * @param errors of them
 * @param packets that were compared whole
 * @param wrongPackets with one error or more
 * @param inStep whether it is in step with the sequence; what is received out of step is not
 *     counted
 */
public record BitCounts(long bits, long errors, long packets, long wrongPackets, boolean inStep) {
  public static final BitCounts NONE = new BitCounts(0, 0, 0, 0, false);

  public BitCounts plus(BitCounts other) {
    return new BitCounts(
        bits + other.bits,
        errors + other.errors,
        packets + other.packets,
        wrongPackets + other.wrongPackets,
        other.inStep);
  }
}
