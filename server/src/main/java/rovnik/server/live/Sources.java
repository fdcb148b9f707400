package rovnik.server.live;

import rovnik.core.Refusal;

/** Names of sources: "i3" is instrument 3, "r7" recording 7. */
public final class Sources {
  private Sources() {}

  public static boolean isInstrument(String source) {
    return source.matches("i\\d{1,18}");
  }

  public static boolean isRecording(String source) {
    return source.matches("r\\d{1,18}");
  }

  /** The number behind the letter. */
  public static long id(String source) {
    if (source == null || !isInstrument(source) && !isRecording(source)) {
      throw new Refusal(
          "source", "A source is \"i\" and an instrument's id, or \"r\" and a recording's.");
    }
    return Long.parseLong(source.substring(1));
  }

  public static String instrument(long id) {
    return "i" + id;
  }

  public static String recording(long id) {
    return "r" + id;
  }
}
