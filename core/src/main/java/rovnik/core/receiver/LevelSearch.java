package rovnik.core.receiver;

import java.util.Optional;
import java.util.function.DoubleUnaryOperator;

/** Seeks the level at which a receiver is just good enough; each look tells it where to go on. */
public interface LevelSearch {
  /**
   * Where to look next.
   *
   * @param dbm level at the receiver
   * @param seconds how long
   */
  record Step(double dbm, double seconds) {}

  /**
   * Nothing if it is found as closely as was wished.
   *
   * @throws rovnik.core.Refusal if it is not within the levels there are
   */
  Optional<Step> next();

  /** What was seen at a level. */
  void add(double dbm, Quality seen);

  LevelEstimate estimate();

  /** Share that is wrong at a level, as it was fitted; null if nothing was. */
  default DoubleUnaryOperator fit() {
    return null;
  }

  /** Seconds of looking that are still needed, about; NaN if that cannot be told. */
  double secondsLeft();
}
