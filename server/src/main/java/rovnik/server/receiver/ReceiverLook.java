package rovnik.server.receiver;

import rovnik.core.receiver.Quality;
import rovnik.core.result.Outcome;
import rovnik.server.live.Look;

/** What a receiver made of what it received for a while. */
record ReceiverLook(Outcome outcome, Quality quality) implements Look {
  @Override
  public Outcome shown() {
    return outcome;
  }
}
