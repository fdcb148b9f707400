package rovnik.server.bench;

/** What an instrument's connection is doing. */
public enum ConnectionState {
  DISCONNECTED,
  CONNECTING,
  CONNECTED,
  /** In use by a running acquisition. */
  BUSY,
  /** It was there and is gone; Rovnik tries again by itself. */
  LOST,
  /** It is there but reported an error. */
  ERROR
}
