package rovnik.core.modulation.ofdm;

import java.util.List;

/**
 * How the data of HE and EHT packets are read: users on their units, behind a training whose signs
 * are learned.
 */
interface HeBody extends PacketBody {
  HePlan layout();

  /** What is on the units in use. */
  List<HePlan.Share> shares();

  /** There may be room for a symbol more than there is, which is told. */
  boolean oneLess();

  @Override
  default int training() {
    return layout().training();
  }

  @Override
  default boolean learned() {
    return true;
  }

  @Override
  default int symbols(int usual) {
    return Math.max(0, layout().room(usual) - (oneLess() ? 1 : 0));
  }

  @Override
  default FramePlan plan(int symbols) {
    return layout().of(shares(), symbols);
  }
}
