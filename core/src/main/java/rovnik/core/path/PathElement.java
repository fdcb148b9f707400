package rovnik.core.path;

import rovnik.core.Refusal;

/**
 * One thing in the signal path. Levels are at the element's input; NaN means "not known" or "no
 * limit".
 *
 * @param name as written on it
 * @param kind what it is
 * @param gain over frequency at its input
 * @param frequencyMap from input to output
 * @param toleranceDb the gain lies within plus or minus this, 0 or more
 * @param highestLevelDbm highest input level at which it is linear, or NaN
 * @param damageLevelDbm input level that damages it, or NaN
 * @param dcAllowed whether it bears dc at its input
 * @param returnLossDb match at its ports, positive dB, or NaN if not known
 * @param outputLevelDbm for a source: its expected level; for a combiner: the level expected at its
 *     other input, NaN for nothing; NaN for all others
 * @param sideGainDb for a combiner: gain from its other input; NaN for all others
 */
public record PathElement(
    String name,
    ElementKind kind,
    Gain gain,
    FrequencyMap frequencyMap,
    double toleranceDb,
    double highestLevelDbm,
    double damageLevelDbm,
    boolean dcAllowed,
    double returnLossDb,
    double outputLevelDbm,
    double sideGainDb) {

  public PathElement {
    if (name == null || name.isBlank()) {
      throw new Refusal("name", "Give the element a name, as written on it.");
    }
    if (!(toleranceDb >= 0) || toleranceDb > 100) {
      throw new Refusal(
          "toleranceDb", "The tolerance of " + name + " must be 0 to 100 dB; write 0.3 for +-0.3.");
    }
    if (returnLossDb < 0) {
      throw new Refusal(
          "returnLossDb",
          "The return loss of " + name + " is a positive number of dB, such as 20.");
    }
    if (highestLevelDbm > damageLevelDbm) {
      throw new Refusal(
          "damageLevelDbm",
          "The damage level of " + name + " lies below its highest linear level. Correct one.");
    }
    if (kind == ElementKind.SOURCE && Double.isNaN(outputLevelDbm)) {
      throw new Refusal("outputLevelDbm", "Give the expected level of " + name + " in dBm.");
    }
    if (kind == ElementKind.COMBINER && Double.isNaN(sideGainDb)) {
      throw new Refusal(
          "sideGainDb", "Give the gain of " + name + " from its other input, such as -6.");
    }
  }

  /** An element with one input. */
  public PathElement(
      String name,
      ElementKind kind,
      Gain gain,
      FrequencyMap frequencyMap,
      double toleranceDb,
      double highestLevelDbm,
      double damageLevelDbm,
      boolean dcAllowed,
      double returnLossDb,
      double outputLevelDbm) {
    this(
        name,
        kind,
        gain,
        frequencyMap,
        toleranceDb,
        highestLevelDbm,
        damageLevelDbm,
        dcAllowed,
        returnLossDb,
        outputLevelDbm,
        Double.NaN);
  }

  /** What is expected behind it of what enters at its other input; NaN for nothing. */
  public double sideLevelDbm() {
    return kind == ElementKind.COMBINER ? outputLevelDbm + sideGainDb : Double.NaN;
  }

  /** An element with a fixed gain and nothing else known about it. */
  public static PathElement of(String name, ElementKind kind, double gainDb, double toleranceDb) {
    return new PathElement(
        name,
        kind,
        new Gain.Fixed(gainDb),
        new FrequencyMap.Identity(),
        toleranceDb,
        Double.NaN,
        Double.NaN,
        true,
        Double.NaN,
        Double.NaN);
  }

  /** A source with its expected level. */
  public static PathElement source(String name, double levelDbm, double returnLossDb) {
    return new PathElement(
        name,
        ElementKind.SOURCE,
        new Gain.Fixed(0),
        new FrequencyMap.Identity(),
        0,
        Double.NaN,
        Double.NaN,
        true,
        returnLossDb,
        levelDbm);
  }

  /** An instrument port that ends a path. */
  public static PathElement port(
      String name, double highestLevelDbm, double damageLevelDbm, double returnLossDb) {
    return new PathElement(
        name,
        ElementKind.PORT,
        new Gain.Fixed(0),
        new FrequencyMap.Identity(),
        0,
        highestLevelDbm,
        damageLevelDbm,
        false,
        returnLossDb,
        Double.NaN);
  }

  public PathElement withGain(Gain newGain) {
    return new PathElement(
        name,
        kind,
        newGain,
        frequencyMap,
        toleranceDb,
        highestLevelDbm,
        damageLevelDbm,
        dcAllowed,
        returnLossDb,
        outputLevelDbm,
        sideGainDb);
  }

  public PathElement withFrequencyMap(FrequencyMap map) {
    return new PathElement(
        name,
        kind,
        gain,
        map,
        toleranceDb,
        highestLevelDbm,
        damageLevelDbm,
        dcAllowed,
        returnLossDb,
        outputLevelDbm,
        sideGainDb);
  }

  public PathElement withLimits(double highestDbm, double damageDbm) {
    return new PathElement(
        name,
        kind,
        gain,
        frequencyMap,
        toleranceDb,
        highestDbm,
        damageDbm,
        dcAllowed,
        returnLossDb,
        outputLevelDbm,
        sideGainDb);
  }
}
