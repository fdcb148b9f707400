package rovnik.standins.scpi;

/** An error as SCPI-99 numbers it; raised by a command handler, kept in the error queue. */
public final class ScpiError extends RuntimeException {
  private final int code;

  public ScpiError(int code, String text) {
    super(text);
    this.code = code;
  }

  public int code() {
    return code;
  }

  /** -222: a number that the instrument cannot take. */
  public static ScpiError outOfRange(String why) {
    return new ScpiError(-222, "Data out of range; " + why);
  }

  /** -224: a word that the command does not know. */
  public static ScpiError illegalValue(String value) {
    return new ScpiError(-224, "Illegal parameter value; " + value);
  }
}
