package rovnik.server.config;

/** Something with which Rovnik must not start; the user gets the sentence and no stack trace. */
public final class StartRefused extends RuntimeException {
  public StartRefused(String sentence) {
    super(sentence);
  }
}
