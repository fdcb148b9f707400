package rovnik.core.modulation.ofdm;

/**
 * What the symbols of a plan have, as means.
 *
 * @param channel noise that the training leaves in a value, over its own
 * @param independence of that from tone to tone
 * @param used tones of a symbol with data
 * @param data of these
 * @param power of all tones of a symbol
 * @param turning power of those by which a symbol is turned: pilots, or all that there are
 */
record PlanCounts(
    double channel, double independence, double used, double data, double power, double turning) {
  static PlanCounts of(FramePlan plan) {
    double[] noise = ToneChannel.noiseOf(plan);
    double channel = 0;
    double used = 0;
    double data = 0;
    double power = 0;
    double pilots = 0;
    for (SymbolPlan s : plan.data()) {
      for (int k = 0; k < noise.length; k++) {
        if (s.used(k)) {
          // A known value is part of what the channel was learned from: it seems nearer.
          boolean own = s.roles()[k] == SymbolPlan.Role.KNOWN;
          channel += (own ? -1 : 1) * noise[k] * s.power(k);
          used++;
          power += s.power(k);
          data += s.roles()[k] == SymbolPlan.Role.DATA ? 1 : 0;
          pilots += s.roles()[k] == SymbolPlan.Role.PILOT ? s.power(k) : 0;
        }
      }
    }
    double n = Math.max(1, plan.data().size());
    return new PlanCounts(
        channel / Math.max(1, used),
        ToneChannel.independence(plan),
        used / n,
        data / n,
        power / n,
        (pilots == 0 ? power : pilots) / n);
  }

  double known() {
    return used - data;
  }
}
