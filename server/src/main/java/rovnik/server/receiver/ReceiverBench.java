package rovnik.server.receiver;

import java.util.function.DoubleFunction;
import rovnik.core.receiver.LevelAtReceiver;
import rovnik.core.receiver.Quality;
import rovnik.core.receiver.ReceiverModel;
import rovnik.server.jobs.JobDto;
import rovnik.server.live.PathGenerators;

/**
 * A receiver under test, its generators and the path between them.
 *
 * @param look listens for so many seconds
 */
record ReceiverBench(
    JobDto job,
    Voice voice,
    PathGenerators generators,
    LevelAtReceiver at,
    ReceiverModel model,
    int packetBits,
    DoubleFunction<ReceiverLook> look,
    ReceiverSettings settings)
    implements LevelBench {
  /** One look is no longer, so that work can be stopped. */
  private static final double LONGEST_SECONDS = 0.5;

  /** What a receiver needs to follow another level; nothing of it counts. */
  private static final double SETTLE_SECONDS = 0.25;

  @Override
  public Quality measure(double seconds) {
    look.apply(SETTLE_SECONDS);
    Quality all = null;
    double left = seconds;
    while (left > 1e-3) {
      voice.breathe();
      double now = Math.min(left, LONGEST_SECONDS);
      ReceiverLook seen = look.apply(now);
      voice.show(seen, settings);
      all = all == null ? seen.quality() : all.plus(seen.quality());
      left -= now;
    }
    return all;
  }
}
