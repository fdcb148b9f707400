package rovnik.standins.world;

import java.util.List;
import java.util.stream.Stream;

/**
 * What a receiver's trigger input touches on the logger board, or the trigger output of the
 * oscilloscope there; in the time of the board.
 */
public final class TriggerCable {
  private static final String OF_SCOPE = "trigger output of the oscilloscope";

  /** What it can touch. */
  public static final List<String> NAMES =
      Stream.concat(BoardNets.NAMES.stream(), Stream.of(OF_SCOPE)).toList();

  private final Clock board;
  private final Output scope;

  /** An output that gives pulses. */
  @FunctionalInterface
  public interface Output {
    /** When it rose, from one time of the board to another. */
    List<Double> pulses(double from, double to);
  }

  private volatile String net = BoardNets.NAMES.get(0);

  /**
   * @param board its time
   * @param scope trigger output of the oscilloscope
   */
  public TriggerCable(Clock board, Output scope) {
    this.board = board;
    this.scope = scope;
  }

  /** A hand puts it on a net. */
  public void touch(String wanted) {
    net = wanted;
  }

  public String net() {
    return net;
  }

  public double seconds() {
    return board.seconds();
  }

  /** When it rose since then. */
  public List<Double> risesSince(double seconds) {
    double now = board.seconds();
    return net.equals(OF_SCOPE) ? scope.pulses(seconds, now) : BoardNets.rises(net, seconds, now);
  }
}
