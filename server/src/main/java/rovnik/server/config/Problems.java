package rovnik.server.config;

import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.multipart.MaxUploadSizeExceededException;
import org.springframework.web.servlet.mvc.method.annotation.ResponseEntityExceptionHandler;
import rovnik.core.Refusal;
import rovnik.instruments.InstrumentFault;
import tools.jackson.core.JacksonException;

/** All errors as problem details (RFC 9457) with a sentence for the engineer and the field. */
@RestControllerAdvice
class Problems extends ResponseEntityExceptionHandler {
  private static final Logger LOG = LoggerFactory.getLogger(Problems.class);

  private static final Pattern TOO_LONG =
      Pattern.compile("Value too long for column \"(\\w+) CHARACTER VARYING\\((\\d+)\\)");

  private final ClosedDatabase database;

  Problems(ClosedDatabase database) {
    this.database = database;
  }

  private static ProblemDetail problem(HttpStatus status, String field, String sentence) {
    ProblemDetail p = ProblemDetail.forStatusAndDetail(status, sentence);
    p.setProperty("field", field);
    return p;
  }

  @ExceptionHandler
  ProblemDetail refusal(Refusal r) {
    return problem(HttpStatus.BAD_REQUEST, r.field(), r.getMessage());
  }

  @ExceptionHandler
  ProblemDetail conflict(Conflict c) {
    return problem(c.status(), c.field(), c.getMessage());
  }

  @ExceptionHandler
  ProblemDetail fault(InstrumentFault f) {
    return problem(HttpStatus.BAD_GATEWAY, "instrument", f.getMessage());
  }

  /** A text that does not fit its column, and was not refused before: the column is the field. */
  @ExceptionHandler
  ProblemDetail tooLong(DataIntegrityViolationException e) {
    Matcher column = TOO_LONG.matcher(String.valueOf(e.getMostSpecificCause().getMessage()));
    if (!column.find()) {
      return unexpected(e);
    }
    String field =
        Pattern.compile("_(.)")
            .matcher(column.group(1).toLowerCase(Locale.ROOT))
            .replaceAll(m -> m.group(1).toUpperCase(Locale.ROOT));
    return problem(
        HttpStatus.BAD_REQUEST,
        field,
        "\"" + field + "\" holds at most " + column.group(2) + " characters. Shorten it.");
  }

  /** One request asked for more than there is; the others go on. */
  @ExceptionHandler
  ProblemDetail tooMuch(OutOfMemoryError e) {
    LOG.error("out of memory", e);
    return problem(
        HttpStatus.INSUFFICIENT_STORAGE,
        "data",
        "This takes more memory than Rovnik was given; nothing was changed. Start it with more, for"
            + " example ROVNIK_MEMORY=2g, or ask for less.");
  }

  @ExceptionHandler
  ProblemDetail unexpected(RuntimeException e) {
    if (ClosedDatabase.is(e)) {
      return problem(HttpStatus.SERVICE_UNAVAILABLE, "data", database.reopen(e));
    }
    LOG.error("unexpected", e);
    return problem(
        HttpStatus.INTERNAL_SERVER_ERROR,
        "",
        "Something went wrong inside Rovnik; nothing was changed. The server's log says more.");
  }

  @Override
  protected org.springframework.http.ResponseEntity<Object> handleHttpMessageNotReadable(
      HttpMessageNotReadableException e,
      org.springframework.http.HttpHeaders headers,
      org.springframework.http.HttpStatusCode status,
      org.springframework.web.context.request.WebRequest request) {
    Refusal r =
        e.getCause() instanceof JacksonException j
            ? Json.refusal(j)
            : new Refusal("", "The request is not valid JSON.");
    return org.springframework.http.ResponseEntity.badRequest().body(refusal(r));
  }

  @Override
  protected org.springframework.http.ResponseEntity<Object> handleMaxUploadSizeExceededException(
      MaxUploadSizeExceededException e,
      org.springframework.http.HttpHeaders headers,
      org.springframework.http.HttpStatusCode status,
      org.springframework.web.context.request.WebRequest request) {
    return org.springframework.http.ResponseEntity.status(HttpStatus.CONTENT_TOO_LARGE)
        .body(
            problem(
                HttpStatus.CONTENT_TOO_LARGE,
                "data",
                "The file is larger than 2 GB. Cut the recording into shorter ones."));
  }
}
