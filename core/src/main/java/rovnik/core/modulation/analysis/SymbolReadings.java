package rovnik.core.modulation.analysis;

/** What the causes of the joint fit are called in the trade. */
final class SymbolReadings {
  private SymbolReadings() {}

  /** Gain of I over that of Q, from the share that the fit found. */
  static double imbalanceDb(double share) {
    return 20 * Math.log10((1 + share / 2) / (1 - share / 2));
  }

  /** Change of level from the first to the last symbol. */
  static double droopDb(double share) {
    return 20 * Math.log10((1 + share) / (1 - share));
  }
}
