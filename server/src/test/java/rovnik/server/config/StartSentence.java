package rovnik.server.config;

/** What the user is told when a start fails. */
public final class StartSentence {
  private StartSentence() {}

  public static String of(Throwable failure) {
    return new StartFailures().analyze(failure).getDescription();
  }
}
