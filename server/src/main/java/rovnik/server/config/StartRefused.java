package rovnik.server.config;

/** Something with which Rovnik must not start; the user gets the sentence and no stack trace. */
final class StartRefused extends RuntimeException {
  StartRefused(String sentence) {
    super(sentence);
  }
}
