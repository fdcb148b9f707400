package rovnik.server.config;

import org.springframework.http.HttpStatus;

/**
 * A request that is right in itself but cannot be done now: held by another, not found, refused.
 */
public final class Conflict extends RuntimeException {
  private final HttpStatus status;
  private final String field;

  private Conflict(HttpStatus status, String field, String sentence) {
    super(sentence);
    this.status = status;
    this.field = field;
  }

  public static Conflict notFound(String what, long id) {
    return new Conflict(
        HttpStatus.NOT_FOUND,
        "id",
        "There is no " + what + " " + id + ". It may have been removed.");
  }

  public static Conflict held(String sentence) {
    return new Conflict(HttpStatus.CONFLICT, "holder", sentence);
  }

  /** The level plan stands in the way. */
  public static Conflict levels(String sentence) {
    return new Conflict(HttpStatus.CONFLICT, "levelPlan", sentence);
  }

  /** Something that the user must say first, named by its field. */
  public static Conflict named(String field, String sentence) {
    return new Conflict(HttpStatus.CONFLICT, field, sentence);
  }

  /** The disk is nearly full. */
  static Conflict noSpace(String sentence) {
    return new Conflict(HttpStatus.INSUFFICIENT_STORAGE, "data", sentence);
  }

  public static Conflict state(String sentence) {
    return new Conflict(HttpStatus.CONFLICT, "state", sentence);
  }

  public HttpStatus status() {
    return status;
  }

  public String field() {
    return field;
  }
}
