package rovnik.instruments;

/** A named failure of an instrument call, always within its time limit. */
public final class InstrumentFault extends RuntimeException {
  /** What went wrong. */
  public enum Kind {
    /** No connection could be made. */
    UNREACHABLE,
    /** The instrument did not answer in time. */
    TIMEOUT,
    /** The connection broke. */
    DISCONNECTED,
    /** It answered something that cannot be understood. */
    BAD_REPLY,
    /** It reported an error of its own; the connection is still good. */
    REPORTED
  }

  private final Kind kind;

  public InstrumentFault(Kind kind, String sentence) {
    super(sentence);
    this.kind = kind;
  }

  public InstrumentFault(Kind kind, String sentence, Throwable cause) {
    super(sentence, cause);
    this.kind = kind;
  }

  public Kind kind() {
    return kind;
  }

  /** True if the connection must be made anew. */
  public boolean connectionLost() {
    return kind != Kind.REPORTED;
  }
}
