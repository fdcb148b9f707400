package rovnik.core.modulation;

import rovnik.core.Refusal;

/**
 * A known word that begins each frame.
 *
 * @param word its bits, "" for none
 * @param everySymbols from one word's first symbol to the next one's; 0 for none
 */
public record Framing(String word, int everySymbols) {
  public static final Framing NONE = new Framing("", 0);

  public Framing {
    word = word == null ? "" : word;
    Payload.checkBits("word", word);
    if (word.isEmpty() != (everySymbols == 0)) {
      throw new Refusal("word", "A known word has bits and comes every so many symbols.");
    }
    if (everySymbols < 0) {
      throw new Refusal("everySymbols", "A word comes every 1 symbol or more.");
    }
  }

  public boolean none() {
    return everySymbols == 0;
  }

  /** Symbols of the word. */
  public int symbols(int bitsPerSymbol) {
    return word.length() / bitsPerSymbol;
  }
}
