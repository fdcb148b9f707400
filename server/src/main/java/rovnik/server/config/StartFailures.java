package rovnik.server.config;

import java.sql.SQLException;
import org.flywaydb.core.api.exception.FlywayValidateException;
import org.h2.mvstore.MVStoreException;
import org.springframework.boot.diagnostics.FailureAnalysis;
import org.springframework.boot.diagnostics.FailureAnalysisReporter;
import org.springframework.boot.diagnostics.FailureAnalyzer;
import org.springframework.boot.web.server.PortInUseException;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;

/** Why Rovnik did not start, in one sentence on the error output. */
@Order(Ordered.HIGHEST_PRECEDENCE)
final class StartFailures implements FailureAnalyzer {
  @Override
  public FailureAnalysis analyze(Throwable failure) {
    for (Throwable cause = failure; cause != null; cause = cause.getCause()) {
      String sentence = sentence(cause);
      if (sentence != null) {
        return new FailureAnalysis(sentence, "", cause);
      }
    }
    return null;
  }

  private static String sentence(Throwable cause) {
    if (cause instanceof StartRefused refused) {
      return refused.getMessage();
    }
    if (cause instanceof PortInUseException port) {
      return "Port " + port.getPort() + " is taken. Choose another with --port.";
    }
    if (cause instanceof FlywayValidateException) {
      return "The database in the data folder is of a newer Rovnik, or its tables were changed by"
          + " hand; nothing was touched. Start the newer one, or choose another folder with --data.";
    }
    if (cause instanceof SQLException || cause instanceof MVStoreException) {
      return "The database in the data folder cannot be opened ("
          + cut(cause.getMessage())
          + "). Put back a copy, or move rovnik.mv.db elsewhere to begin with an empty one; samples"
          + " and networks are kept aside and can be read in again.";
    }
    return null;
  }

  private static String cut(String text) {
    String first = String.valueOf(text).lines().findFirst().orElse("");
    return first.length() <= 120 ? first : first.substring(0, 120) + " ...";
  }

  /** Says it; the logging one of the framework is switched off. */
  static final class Reporter implements FailureAnalysisReporter {
    @Override
    public void report(FailureAnalysis analysis) {
      System.err.println("rovnik: " + analysis.getDescription());
    }
  }
}
