package rovnik.server.live;

import rovnik.server.config.Conflict;

/** Who may change what a source does: at most one client, for all measurements of the source. */
final class Hold {
  private Client holder = Client.NOBODY;

  synchronized Client holder() {
    return holder;
  }

  /** Lets the holder through, makes a first comer the holder, refuses everybody else. */
  synchronized void require(Client client, String sourceName) {
    if (holder.nobody()) {
      holder = client;
    } else if (!holder.id().equals(client.id())) {
      throw refused(sourceName);
    }
  }

  synchronized boolean heldByOther(Client client) {
    return !holder.nobody() && !holder.id().equals(client.id());
  }

  Conflict refused(String sourceName) {
    return Conflict.held(
        sourceName + " is held by " + holder().name() + ". Watch what it shows, or take it over.");
  }

  synchronized void takeOver(Client client) {
    holder = client;
  }

  /** True if this client held it. */
  synchronized boolean release(String clientId) {
    boolean held = holder.id().equals(clientId);
    if (held) {
      holder = Client.NOBODY;
    }
    return held;
  }
}
