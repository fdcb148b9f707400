package rovnik.core.modulation.analysis;

/**
 * Symbols as they were recovered: gain, phase, frequency, instants and clock are taken off, so that
 * the ideal symbols have mean power 1.
 *
 * @param re measured, I at its own instants
 * @param im measured, Q at its own
 * @param values decided, or known
 * @param model what they are held to, and how they may miss it
 * @param fit of all causes
 * @param frequencyHz of the carrier from the record's centre
 * @param phase of the carrier at the first symbol, radians
 * @param firstSeconds instant of the first symbol, from the record's start
 * @param symbolRateHz as found
 * @param gain amplitude of the record for a symbol of 1
 * @param offCentre how far the carrier lies from the middle of its own spectrum, symbol rates
 */
record Symbols(
    double[] re,
    double[] im,
    int[] values,
    ErrorModel model,
    ErrorModel.Fit fit,
    double frequencyHz,
    double phase,
    double firstSeconds,
    double symbolRateHz,
    double gain,
    double offCentre) {

  ErrorModel.Ideal ideal() {
    return model.ideal();
  }

  int count() {
    return re.length;
  }

  /** Mean square error, of symbols of mean power 1. */
  double meanSquare() {
    double sum = 0;
    for (int k = 0; k < re.length; k++) {
      double x = re[k] - ideal().i()[k];
      double y = im[k] - ideal().q()[k];
      sum += x * x + y * y;
    }
    return sum / re.length;
  }

  /** Mean of |z|^4 over the square of that of |z|^2: tells how the points are spread. */
  double fourthMoment() {
    double two = 0;
    double four = 0;
    for (int k = 0; k < re.length; k++) {
      double p = re[k] * re[k] + im[k] * im[k];
      two += p;
      four += p * p;
    }
    return four * re.length / (two * two);
  }
}
