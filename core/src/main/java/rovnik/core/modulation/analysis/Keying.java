package rovnik.core.modulation.analysis;

/**
 * What the frequency of a keyed carrier does.
 *
 * @param levelHz at each symbol's instant, from the carrier
 * @param idealHz where it should be, behind the same filters
 * @param wayHz the way between, so many points a symbol
 * @param deviationHz of the outermost symbol, again and again
 * @param deviationStandardHz its standard uncertainty
 */
record Keying(
    double[] levelHz,
    double[] idealHz,
    double[] wayHz,
    int pointsPerSymbol,
    double deviationHz,
    double deviationStandardHz) {

  /** Root mean square of the levels' errors, as a share of the deviation. */
  double error() {
    double sum = 0;
    for (int k = 0; k < levelHz.length; k++) {
      double e = levelHz[k] - idealHz[k];
      sum += e * e;
    }
    return Math.sqrt(sum / levelHz.length) / deviationHz;
  }
}
