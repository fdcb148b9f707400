package rovnik.standins.world;

import java.util.List;

/** What a receiver's trigger input touches on the logger board, in the time of the board. */
public final class TriggerCable {
  private final Clock board;
  private volatile String net = BoardNets.NAMES.get(0);

  /**
   * @param board its time
   */
  public TriggerCable(Clock board) {
    this.board = board;
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
    return BoardNets.rises(net, seconds, board.seconds());
  }
}
