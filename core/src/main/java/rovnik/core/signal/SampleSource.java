package rovnik.core.signal;

/** A stream of complex samples, read once from front to back. */
@FunctionalInterface
public interface SampleSource {
  /**
   * Reads the next samples.
   *
   * @param iq receives interleaved samples from index 0
   * @param mostSamples how many complex samples to read at most
   * @return how many were read; 0 at the end
   */
  int read(float[] iq, int mostSamples);

  /** The samples of a record. */
  static SampleSource of(IqRecord record) {
    int[] at = {0};
    return (iq, most) -> {
      int count = Math.min(most, record.sampleCount() - at[0]);
      System.arraycopy(record.iq(), 2 * at[0], iq, 0, 2 * count);
      at[0] += count;
      return count;
    };
  }
}
