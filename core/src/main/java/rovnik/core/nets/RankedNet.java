package rovnik.core.nets;

import java.util.Comparator;
import java.util.Locale;
import rovnik.core.uncertainty.UncertaintyBudget;
import rovnik.core.units.Seconds;

/**
 * One of the nets that were probed.
 *
 * @param looks that its score is made of
 * @param alignment half-width of how far the two times may be apart at the trigger, seconds
 * @param clocks how far the two clocks may be apart, relative
 * @param newest look at it
 */
record RankedNet(
    String name, int looks, NetScore score, double alignment, double clocks, NetLook newest) {
  static final Comparator<RankedNet> LIKELIEST_FIRST =
      Comparator.comparing((RankedNet n) -> n.score().relation())
          .thenComparing(n -> -n.score().score());

  /** A drift that is this many standard uncertainties from none is one. */
  private static final double CERTAIN = 5;

  Relation relation() {
    return score.relation();
  }

  /** What it is to the bursts, in a few words: late is what comes after their beginning. */
  String is() {
    return relation() != Relation.IN_STEP
        ? relation().words()
        : relation().words() + (score.lag() < 0 ? ", but late" : ", but early");
  }

  /** True if it goes with the bursts in any way, so that its lag means something. */
  boolean related() {
    return relation() == Relation.COINCIDENT || relation() == Relation.IN_STEP;
  }

  /** True if the clocks of the two instruments are seen to run apart. */
  boolean drifts() {
    return related() && Math.abs(score.drift()) > CERTAIN * score.driftStandard();
  }

  /** Of the lag, seconds. */
  UncertaintyBudget lagBudget() {
    UncertaintyBudget b =
        new UncertaintyBudget()
            .normal("scatter of lags", score.lagStandard())
            .normal(
                "noise at the edges of bursts",
                newest.burstStandard() / Math.sqrt(Math.max(1, score.together())))
            .rectangular("alignment of the oscilloscope", alignment)
            .rectangular("between samples", newest.between());
    if (Double.isNaN(score.driftStandard())) {
      b.rectangular("clocks that run apart", clocks * newest.seconds() / 2);
    }
    return b;
  }

  /** What it has to do with the bursts, in a sentence. */
  String words() {
    NetScore s = score;
    return switch (relation()) {
      case COINCIDENT, IN_STEP ->
          String.format(
              Locale.ROOT,
              "%s is %s: a burst begins %s %s %s, %d of %d times.",
              name,
              relation() == Relation.COINCIDENT ? "coincident" : "in step",
              lag(),
              s.lag() < 0 ? "before" : "after",
              s.event().words(),
              s.together(),
              s.bursts());
      case OPEN -> name + ": there are too few bursts to tell. Look for longer.";
      case UNRELATED ->
          newest.net().restless()
              ? name
                  + " is not related: it never rests for as long as an activity takes to end, as a"
                  + " clock does."
              : String.format(
                  Locale.ROOT,
                  "%s is not related: of %d bursts and %d of its events %d are together.",
                  name,
                  s.bursts(),
                  s.events(),
                  s.together());
      case NO_EDGES ->
          String.format(
              Locale.ROOT,
              "%s stands still at %.3g V: check that the probe touches it.",
              name,
              newest.net().lowVolts());
    };
  }

  /** As many digits as the uncertainty leaves. */
  private String lag() {
    double u = lagBudget().expanded();
    double digit = u > 0 ? Math.pow(10, Math.floor(Math.log10(u))) : 1e-12;
    return Seconds.words(Math.rint(Math.abs(score.lag()) / digit) * digit);
  }
}
