package rovnik.server.config;

import org.springframework.boot.diagnostics.AbstractFailureAnalyzer;
import org.springframework.boot.diagnostics.FailureAnalysis;

/** A setting with which Rovnik must not start; the log gets the sentence and no stack trace. */
final class StartRefused extends RuntimeException {
  StartRefused(String sentence) {
    super(sentence);
  }

  /** Tells Spring how to say it. */
  static final class Analyzer extends AbstractFailureAnalyzer<StartRefused> {
    @Override
    protected FailureAnalysis analyze(Throwable root, StartRefused cause) {
      return new FailureAnalysis(cause.getMessage(), "", cause);
    }
  }
}
