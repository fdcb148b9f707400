package rovnik.core.network;

import rovnik.core.units.Decibels;

/**
 * What a reflection coefficient's magnitude says.
 *
 * @param magnitude |gamma|, 0 or more; above 1 the part gives power back
 */
public record Reflection(double magnitude) {
  public static Reflection ofReturnLossDb(double returnLossDb) {
    return new Reflection(Decibels.reflectionFromReturnLoss(returnLossDb));
  }

  public static Reflection ofVswr(double vswr) {
    return new Reflection((vswr - 1) / (vswr + 1));
  }

  /** -20 log10 |gamma|: a positive number of dB for a passive part. */
  public double returnLossDb() {
    return -Decibels.fromAmplitudeRatio(magnitude);
  }

  /** (1 + |gamma|) / (1 - |gamma|); infinite for total reflection and beyond. */
  public double vswr() {
    return magnitude >= 1 ? Double.POSITIVE_INFINITY : (1 + magnitude) / (1 - magnitude);
  }

  /** Share of the incident power that enters, 0 to 1 for a passive part. */
  public double acceptedShare() {
    return 1 - magnitude * magnitude;
  }

  /** Power lost to the reflection, positive dB; infinite for total reflection. */
  public double mismatchLossDb() {
    return -Decibels.fromPowerRatio(Math.max(acceptedShare(), 0));
  }
}
