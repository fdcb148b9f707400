package rovnik.core.time;

/**
 * One burst. Times are where the voltage passes half of its level (IEEE Std 181, 50 %).
 *
 * @param startSeconds in the result
 * @param endSeconds in the result
 * @param power mean of the middle, of full scale
 * @param peak highest power
 * @param offsetHz mean frequency, from the middle of the band; NaN if it is too short
 * @param riseSeconds from 10 to 90 % of the voltage; NaN where the result begins within it
 * @param fallSeconds from 90 to 10 %
 * @param droopDb how far the level falls from the beginning to the end
 * @param edgeSeconds how uncertain noise makes an edge
 */
public record Burst(
    double startSeconds,
    double endSeconds,
    double power,
    double peak,
    double offsetHz,
    double riseSeconds,
    double fallSeconds,
    double droopDb,
    double edgeSeconds) {
  public double length() {
    return endSeconds - startSeconds;
  }
}
