package rovnik.core;

/**
 * The one error shape of Rovnik: input that cannot be used, with the field it concerns and a
 * sentence that says what is wrong and what to do. The server turns it into a problem-details
 * reply; the screen shows it at the field.
 */
public final class Refusal extends RuntimeException {
  private final String field;

  /**
   * @param field the name of the field or number concerned, or "" if none
   * @param sentence what is wrong and what to do, for the engineer who reads it
   */
  public Refusal(String field, String sentence) {
    super(sentence);
    this.field = field;
  }

  public Refusal(String field, String sentence, Throwable cause) {
    super(sentence, cause);
    this.field = field;
  }

  /** The field concerned, or "". */
  public String field() {
    return field;
  }

  /** Refuses {@code value} unless it is finite. */
  public static double finite(String field, double value) {
    if (!Double.isFinite(value)) {
      throw new Refusal(field, field + " must be a finite number; it is " + value + ".");
    }
    return value;
  }
}
