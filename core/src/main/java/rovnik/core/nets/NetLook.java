package rovnik.core.nets;

/**
 * One look at a net beside the emissions: when bursts began, and when the net did something.
 *
 * @param fromSeconds where both were looked at
 * @param toSeconds until where
 * @param bursts beginnings, in order
 * @param burstStandard standard uncertainty of one of them, seconds
 * @param between half the time between two samples that an edge lies between, seconds
 */
record NetLook(
    double fromSeconds,
    double toSeconds,
    double[] bursts,
    double burstStandard,
    double between,
    Activity net) {
  double seconds() {
    return toSeconds - fromSeconds;
  }
}
