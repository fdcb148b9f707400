package rovnik.core.time;

/**
 * What was waited for came.
 *
 * @param number 1 for the first that counted
 * @param sample where, in samples of what is watched
 * @param sinceLast samples from the one before that counted, NaN for the first
 * @param interval samples from the one before, whether it counted or not; NaN if none was seen,
 *     infinite where the next one did not come
 * @param lasted samples until it came back, NaN while that is not seen
 * @param farthest power of full scale, the highest of a rise or the lowest of a fall; NaN of none
 * @param where of the farthest, as it was given beside the power; 0 if nothing was
 */
record TriggerEvent(
    long number,
    double sample,
    double sinceLast,
    double interval,
    double lasted,
    double farthest,
    float where) {
  TriggerEvent ended(double after, double power, float place) {
    return new TriggerEvent(number, sample, sinceLast, interval, after, power, place);
  }
}
