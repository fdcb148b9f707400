package rovnik.core.time;

/**
 * A stay on one frequency.
 *
 * @param look number of the look that it was seen in; times of different looks have nothing in
 *     common
 * @param startSeconds where its power passes half, in the look
 * @param endSeconds the same at its end
 * @param hz middle of its power, from the centre of the record
 * @param power of full scale, mean
 * @param begun whether it is known when it began
 * @param whole false if the look began or ended within it
 */
record Hop(
    int look,
    double startSeconds,
    double endSeconds,
    double hz,
    double power,
    boolean begun,
    boolean whole) {
  double seconds() {
    return endSeconds - startSeconds;
  }
}
