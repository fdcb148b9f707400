package rovnik.instruments.source;

/**
 * What Rovnik knows of a waveform that it sent.
 *
 * @param id of the waveform
 * @param name as shown
 * @param rateHz that it was made for
 * @param crestDb peak over mean power
 */
public record KnownWaveform(long id, String name, double rateHz, double crestDb) {
  private static final String KEY = "W";

  /** Its name in the memory of a generator. */
  public String key() {
    return key(id);
  }

  static String key(long id) {
    return KEY + id;
  }

  /** The waveform behind a name in memory, -1 if Rovnik did not send it. */
  static long idOf(String key) {
    return key.matches(KEY + "\\d{1,18}") ? Long.parseLong(key.substring(1)) : -1;
  }

  /** As one chooses it: "17: QPSK, 48 ksym/s". */
  String choice() {
    return id + ": " + name;
  }
}
