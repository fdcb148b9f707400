package rovnik.server.live;

import java.util.function.Supplier;
import rovnik.core.result.Outcome;
import rovnik.server.runs.KeptLook;

/** Follows what a session measures, whether a window watches it or not. */
public interface Follower {
  /**
   * A look was taken. On the instrument's thread: it must not wait.
   *
   * @param seenSeconds how long the samples of this look alone last; NaN where that cannot be told
   * @param kept the look as a run keeps it; only while this is called, since the next look may
   *     reuse its samples
   */
  void looked(Outcome outcome, long acquiredAtMillis, double seenSeconds, Supplier<KeptLook> kept);

  /** Refuses, with a sentence, that settings or job change. */
  void refuseChange();
}
