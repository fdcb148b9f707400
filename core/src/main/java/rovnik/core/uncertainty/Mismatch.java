package rovnik.core.uncertainty;

/** Mismatch between two ports whose phases are not known. */
public final class Mismatch {
  private Mismatch() {}

  /** Highest error in dB, positive: 20 log10(1 + |G1 G2|). */
  public static double highestDb(double reflection1, double reflection2) {
    return 20 * Math.log10(1 + reflection1 * reflection2);
  }

  /** Lowest error in dB, negative: 20 log10(1 - |G1 G2|). */
  public static double lowestDb(double reflection1, double reflection2) {
    return 20 * Math.log10(1 - reflection1 * reflection2);
  }
}
