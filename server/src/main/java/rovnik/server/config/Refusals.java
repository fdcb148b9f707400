package rovnik.server.config;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import rovnik.core.Refusal;

/** Refusals that are worded alike everywhere. */
public final class Refusals {
  private Refusals() {}

  /** A number outside its range. */
  public static Refusal range(String field, double low, double high, String unit) {
    return new Refusal(
        field,
        String.format(
            Locale.ROOT, "%s must be more than %g and at most %g %s.", field, low, high, unit));
  }

  /** Answers from a filter, in the shape that all errors have; the sentence is our own. */
  public static void send(HttpServletResponse response, int status, String field, String sentence)
      throws IOException {
    response.setStatus(status);
    response.setContentType("application/problem+json");
    response
        .getOutputStream()
        .write(
            "{\"status\":%d,\"field\":\"%s\",\"detail\":\"%s\"}"
                .formatted(status, field, sentence)
                .getBytes(StandardCharsets.UTF_8));
  }

  /** A name of 1 to 200 characters, without spaces at its ends. */
  public static String named(String text, String field, String what) {
    if (text == null || text.isBlank() || text.length() > 200) {
      throw new Refusal(field, "Give the " + what + " a name of 1 to 200 characters.");
    }
    return text.strip();
  }
}
