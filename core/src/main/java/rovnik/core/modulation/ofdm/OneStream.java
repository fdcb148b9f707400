package rovnik.core.modulation.ofdm;

import java.util.List;

/** A packet whose data are all of one user, in one stream. */
interface OneStream extends PacketBody, UserData {
  @Override
  default List<? extends UserData> users() {
    return List.of(this);
  }
}
