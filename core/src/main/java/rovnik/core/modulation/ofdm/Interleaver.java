package rovnik.core.modulation.ofdm;

/**
 * Spreads the coded bits of a symbol over its tones: IEEE 802.11-2020, equations 17-18 and 17-19,
 * and those of 19.3.11.8.2, which are the same with other columns. Where a symbol has several
 * segments, each a part of the band, they take bits in turn (21.3.10.7, from memory).
 *
 * @param columns into which the bits of a segment are written
 * @param tones with data
 * @param segments of a symbol
 */
record Interleaver(int columns, int tones, int segments) {
  static final Interleaver LEGACY = new Interleaver(16, LegacyTones.DATA);

  /** Of the wider symbols in 20 MHz that came later. */
  static final Interleaver LATER = new Interleaver(13, MixedTones.DATA);

  /** Of an HE user that has all of 20 MHz; this and smaller ones from memory. */
  static final Interleaver HE = new Interleaver(26, HeCodings.DATA);

  static final Interleaver OF_106 = new Interleaver(17, 102);
  static final Interleaver OF_52 = new Interleaver(16, 48);
  static final Interleaver OF_26 = new Interleaver(8, 24);

  Interleaver(int columns, int tones) {
    this(columns, tones, 1);
  }

  /** Where in a symbol a coded bit goes. */
  private int place(int k, int coded, int bitsPerTone) {
    int s = Math.max(1, bitsPerTone / 2);
    int each = coded / segments;
    int turn = k / s;
    int own = turn / segments * s + k % s;
    return turn % segments * each + placeOf(own, each, s);
  }

  private int placeOf(int k, int coded, int s) {
    int i = coded / columns * (k % columns) + k / columns;
    return s * (i / s) + (i + coded - columns * i / coded) % s;
  }

  /** Symbol after symbol, in the order of the tones. */
  byte[] spread(byte[] bits, int bitsPerTone) {
    int coded = tones * bitsPerTone;
    byte[] out = new byte[bits.length];
    for (int n = 0; n < bits.length; n++) {
      int first = n / coded * coded;
      out[first + place(n - first, coded, bitsPerTone)] = bits[n];
    }
    return out;
  }

  /** Back to the order of the coder. */
  float[] inOrder(float[] sure, int bitsPerTone) {
    int coded = tones * bitsPerTone;
    float[] out = new float[sure.length];
    for (int n = 0; n < sure.length; n++) {
      int first = n / coded * coded;
      out[n] = sure[first + place(n - first, coded, bitsPerTone)];
    }
    return out;
  }
}
