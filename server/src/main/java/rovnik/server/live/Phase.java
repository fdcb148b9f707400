package rovnik.server.live;

/** What a session is doing. */
public enum Phase {
  /** Not started. */
  IDLE,
  RUNNING,
  HELD,
  /** The level plan or a setting stands in the way. */
  REFUSED,
  /** The instrument is gone; it goes on by itself when it is back. */
  LOST,
  /** A recording: computed whole, nothing runs. */
  STILL;

  /** Power flows, or will as soon as the instrument is back. */
  boolean going() {
    return this == RUNNING || this == LOST;
  }
}
