package rovnik.core.time;

/**
 * The power went to the trigger's side of the level.
 *
 * @param number 1 for the first that counted
 * @param sample where it crossed the level, in samples of the band
 * @param sinceLast samples from the one before that counted, NaN for the first
 * @param lasted samples until it came back, NaN while that is not seen
 * @param farthest power of full scale, the highest of a rise or the lowest of a fall
 */
record TriggerEvent(long number, double sample, double sinceLast, double lasted, double farthest) {
  TriggerEvent ended(double after, double power) {
    return new TriggerEvent(number, sample, sinceLast, after, power);
  }
}
