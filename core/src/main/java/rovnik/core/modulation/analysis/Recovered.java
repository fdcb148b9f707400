package rovnik.core.modulation.analysis;

import rovnik.core.signal.BandTaker;

/** What symbols were recovered from. */
interface Recovered {
  /** Mean power of the carrier as it was sent, in terms of the record's full scale. */
  double power(Symbols s);

  /**
   * The way between symbols, with gain, phase and frequency taken off.
   *
   * @param per points a symbol
   */
  double[][] path(Symbols s, int firstSymbol, int symbols, int per);

  /** Other samples of the same instrument behind the same filter. */
  BandTaker.Band filtered(BandTaker other, Symbols s);
}
