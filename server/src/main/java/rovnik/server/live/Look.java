package rovnik.server.live;

import java.util.Optional;
import org.jspecify.annotations.Nullable;
import rovnik.core.result.Outcome;
import rovnik.core.signal.Sound;

/** What one acquisition led to. It does not change. */
public interface Look {
  /** As screens show it: with the points and in the units that the settings ask for. */
  Outcome shown();

  /** What the screen of this kind needs beside the outcome; null for nothing. */
  default @Nullable Object view() {
    return null;
  }

  /** What can be heard of it, where there is such. */
  default Optional<Sound> sound() {
    return Optional.empty();
  }

  /** True if all that the settings ask for is in it, such as a full average. */
  default boolean settled() {
    return true;
  }

  /** True if its readings say what they will, though more may be wanted: triggers yet to come. */
  default boolean readable() {
    return settled();
  }
}
