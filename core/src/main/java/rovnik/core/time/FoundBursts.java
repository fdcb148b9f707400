package rovnik.core.time;

import java.util.List;

/**
 * Bursts of a record, with the power that they were found in.
 *
 * @param bursts in order; their times count from the beginning of the result
 * @param startSeconds of the result, in the recording
 * @param power of each sample of the band, of full scale
 * @param rateHz of those samples
 * @param addDb from dB over full scale to the level at the reading plane
 * @param firesOnNoise true if noise passes the threshold
 * @param none why there are none, "" if there are
 */
public record FoundBursts(
    List<Burst> bursts,
    double startSeconds,
    double[] power,
    double rateHz,
    double addDb,
    boolean firesOnNoise,
    String none) {
  public FoundBursts {
    bursts = List.copyOf(bursts);
  }

  /** Standard uncertainty of where one of them begins, by noise, seconds. */
  public double edgeStandard() {
    return bursts.stream().mapToDouble(Burst::edgeSeconds).average().orElse(0);
  }
}
