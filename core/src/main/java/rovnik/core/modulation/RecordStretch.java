package rovnik.core.modulation;

import rovnik.core.Refusal;
import rovnik.core.signal.IqRecord;
import rovnik.core.units.Frequency;
import rovnik.core.units.Seconds;

/**
 * The samples of a record that a result is taken from.
 *
 * @param from first of them
 * @param samples how many
 * @param startSeconds of the first, in the recording that the record is a part of
 */
public record RecordStretch(int from, int samples, double startSeconds) {
  private static final int FEWEST = 64;

  /**
   * What there is of a stretch.
   *
   * @param what is looked at, "channel" or "band"
   * @param leastTimes of its inverse width that a result takes
   * @param wanted samples at most
   * @throws Refusal if the record is too slow or ends too early
   */
  public static RecordStretch of(
      IqRecord record,
      String what,
      double bandHz,
      double startSeconds,
      double leastTimes,
      long wanted) {
    double fs = record.sampleRateHz();
    String wide = what + " of " + Frequency.ofHertz(bandHz);
    if (bandHz > fs) {
      throw new Refusal(
          "bandHz",
          "A "
              + wide
              + " is wider than this record of "
              + Frequency.ofHertz(fs)
              + ". Choose a narrower one, or sample faster.");
    }
    int from = Math.max(0, record.sampleAt(startSeconds));
    int there = record.sampleCount() - from;
    if (there < FEWEST || there / fs * bandHz < leastTimes) {
      throw new Refusal(
          "startSeconds",
          "The record ends at "
              + Seconds.words(record.endSeconds())
              + ", too little for a "
              + wide
              + ". Begin earlier, take a longer one, or a wider "
              + what
              + ".");
    }
    return new RecordStretch(
        from, (int) Math.min(there, wanted), record.startSeconds() + from / fs);
  }
}
