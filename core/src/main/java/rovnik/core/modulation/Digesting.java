package rovnik.core.modulation;

import rovnik.core.signal.IqRecord;

/**
 * How a long recording is measured from digests of its parts: each is made once, and serves every
 * stretch that is looked at with the same settings afterwards.
 */
public interface Digesting {
  /** What a part amounts to; it holds no samples. */
  interface Digest {
    /** Memory that it takes, about. */
    long bytes();
  }

  /** Equal where digests are the same. */
  Object key();

  /** Samples of a part; the first begins with the recording. */
  long partSamples();

  /** Samples behind a part that belong to what begins in it. */
  int beyondSamples();

  /** Of one part and what is beyond it; may be called on several threads. */
  Digest of(IqRecord part);

  /**
   * Takes the next one.
   *
   * @param last true if nothing more comes
   */
  void take(Digest digest, boolean last);

  /** What they go into; an empty record after the last one asks for the result. */
  RecordMeasurement.Gathering gathering();
}
