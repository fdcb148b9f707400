package rovnik.core.modulation.ofdm;

/**
 * The tones of an OFDM symbol of IEEE 802.11-2020 clause 17, and those of its preamble. Spacing and
 * rate follow the channel: 312.5 kHz in 20 MHz, half and a quarter of it in 10 and 5 MHz.
 */
final class LegacyTones {
  /** Length of the transform at the rate of the channel. */
  static final int TRANSFORM = 64;

  /** Samples before each symbol that repeat its end. */
  static final int GUARD = 16;

  /** Farthest tone. */
  static final int LAST = 26;

  /** Tones with data. */
  static final int DATA = 48;

  static final int[] PILOTS = {-21, -7, 7, 21};

  /** Sign of each pilot, before that of the symbol. */
  private static final int[] PILOT_SIGNS = {1, 1, 1, -1};

  /** Tones of the short training, from -24 on in steps of 4 (equation 17-6). */
  private static final int[] SHORT = {1, -1, 1, -1, -1, 1, 0, -1, -1, 1, 1, 1, 1};

  /** Tones of the long training, from -26 on (equation 17-8). */
  private static final int[] LONG = {
    1, 1, -1, -1, 1, 1, -1, 1, -1, 1, 1, 1, 1, 1, 1, -1, -1, 1, 1, -1, 1, -1, 1, 1, 1, 1, 0, //
    1, -1, -1, 1, 1, -1, 1, -1, 1, -1, -1, -1, -1, -1, 1, 1, -1, -1, 1, -1, 1, -1, 1, 1, 1, 1
  };

  private static final int[] DATA_TONES = dataTones();

  /** Signs of the pilots from symbol to symbol: what an all-ones scrambler gives, a one is -1. */
  private static final byte[] SIGNS = Scrambler.sequence(0x7f, Scrambler.PERIOD);

  private LegacyTones() {}

  private static int[] dataTones() {
    int[] out = new int[DATA];
    int count = 0;
    for (int k = -LAST; k <= LAST; k++) {
      if (k != 0 && !isPilot(k)) {
        out[count++] = k;
      }
    }
    return out;
  }

  static boolean isPilot(int tone) {
    return Math.abs(tone) == 7 || Math.abs(tone) == 21;
  }

  /** From the lowest tone to the highest; not to be changed. */
  static int[] data() {
    return DATA_TONES;
  }

  /** A tone of the long training: 1, -1 or 0. */
  static int longTraining(int tone) {
    return Math.abs(tone) > LAST ? 0 : LONG[tone + LAST];
  }

  /** Both parts of a tone of the short training: root of 13/6 times 1, -1 or 0. */
  static double shortTraining(int tone) {
    return Math.abs(tone) > 24 || tone % 4 != 0 ? 0 : Math.sqrt(13.0 / 6) * SHORT[(tone + 24) / 4];
  }

  /**
   * What a pilot is.
   *
   * @param pilot which of {@link #PILOTS}
   * @param symbol 0 for SIGNAL, 1 for the first with data
   */
  static int pilot(int pilot, int symbol) {
    return sign(symbol) * PILOT_SIGNS[pilot];
  }

  /** Sign of all pilots of a symbol. */
  static int sign(int symbol) {
    return SIGNS[symbol % Scrambler.PERIOD] == 1 ? -1 : 1;
  }
}
