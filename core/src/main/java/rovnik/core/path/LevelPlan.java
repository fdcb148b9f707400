package rovnik.core.path;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rovnik.core.path.LevelFinding.Severity;

/**
 * The expected level at every plane of a path, and the headroom to every limit.
 *
 * @param levelDbm expected mean level at each plane, of what the source sends
 * @param crestDb how far the peaks are above that
 * @param headroomDb for each element the distance of the peaks at its input from its nearest limit;
 *     NaN if it has none (the source always)
 * @param findings what is wrong, worst first
 */
public record LevelPlan(
    double[] levelDbm, double crestDb, double[] headroomDb, List<LevelFinding> findings) {

  /** Headroom that a suggested pad leaves, and below which a headroom is called narrow. */
  public static final double WANTED_HEADROOM_DB = 3;

  /** Pads that one has in a drawer (common practice), dB. */
  private static final double[] STANDARD_PADS_DB = {3, 6, 10, 20, 30, 40, 50, 60};

  /** Plans with the source's own expected level. */
  public static LevelPlan of(SignalPath path, double sourceHz) {
    return of(path, sourceHz, SourceLevel.of(path.source().outputLevelDbm()));
  }

  /**
   * @param path the chain
   * @param sourceHz frequency at the source
   * @param source level at the source's output; its peaks are what limits are held against
   */
  public static LevelPlan of(SignalPath path, double sourceHz, SourceLevel source) {
    double[] level = new double[path.planes()];
    double[] headroom = new double[path.elements().size()];
    headroom[0] = Double.NaN;
    List<LevelFinding> findings = new ArrayList<>();
    double spreadDb = 0;
    double besideDbm = Double.NaN;
    for (int plane = 0; plane < level.length; plane++) {
      double before = plane == 0 ? source.meanDbm() : level[plane - 1];
      level[plane] = source.meanDbm() + path.gainBetweenDb(0, plane, sourceHz);
      spreadDb += path.elements().get(plane).toleranceDb();
      PathElement here = path.elements().get(plane);
      besideDbm = together(besideDbm + level[plane] - before, here.sideLevelDbm());
      PathElement next = path.elements().get(plane + 1);
      headroom[plane + 1] =
          judge(
              next,
              plane + 1,
              together(level[plane] + source.crestDb(), besideDbm),
              source.crestDb() > 0.05 || !Double.isNaN(besideDbm),
              spreadDb,
              findings);
    }
    findings.sort(
        (a, b) -> {
          int bySeverity = a.severity().compareTo(b.severity());
          return bySeverity != 0 ? bySeverity : Double.compare(b.excessDb(), a.excessDb());
        });
    return new LevelPlan(level, source.crestDb(), headroom, List.copyOf(findings));
  }

  /** Peaks of two signals where their voltages meet; NaN is nothing. */
  private static double together(double oneDbm, double otherDbm) {
    if (Double.isNaN(oneDbm) || Double.isNaN(otherDbm)) {
      return Double.isNaN(oneDbm) ? otherDbm : oneDbm;
    }
    return 20 * Math.log10(Math.pow(10, oneDbm / 20) + Math.pow(10, otherDbm / 20));
  }

  private static double judge(
      PathElement element,
      int index,
      double levelDbm,
      boolean inPeaks,
      double spreadDb,
      List<LevelFinding> findings) {
    String peaks = inPeaks ? " in the peaks" : "";
    double toDamage = element.damageLevelDbm() - levelDbm;
    double toHighest = element.highestLevelDbm() - levelDbm;
    double headroom =
        Double.isNaN(toDamage)
            ? toHighest
            : Double.isNaN(toHighest) ? toDamage : Math.min(toDamage, toHighest);
    if (toDamage - spreadDb < 0) {
      // The worst case of the tolerances counts: damage is not undone by an average.
      findings.add(
          finding(
              index,
              Severity.DAMAGE,
              spreadDb - toDamage,
              pad(Math.max(-toDamage, Double.isNaN(toHighest) ? -toDamage : -toHighest)),
              String.format(
                  Locale.ROOT,
                  "%s would be damaged: %+.1f dBm expected at its input%s, damage from %+.1f dBm.",
                  element.name(),
                  levelDbm,
                  peaks,
                  element.damageLevelDbm())));
    } else if (toHighest < 0) {
      findings.add(
          finding(
              index,
              Severity.OVERLOAD,
              -toHighest,
              pad(-toHighest),
              String.format(
                  Locale.ROOT,
                  "%s would be overloaded: %+.1f dBm expected at its input%s, linear to %+.1f dBm.",
                  element.name(),
                  levelDbm,
                  peaks,
                  element.highestLevelDbm())));
    } else if (headroom < WANTED_HEADROOM_DB) {
      findings.add(
          new LevelFinding(
              index,
              Severity.NARROW,
              WANTED_HEADROOM_DB - headroom,
              Double.NaN,
              String.format(
                  Locale.ROOT, "%s has only %.1f dB of headroom.", element.name(), headroom)));
    }
    return headroom;
  }

  private static LevelFinding finding(
      int index, Severity severity, double excessDb, double padDb, String sentence) {
    String advice =
        Double.isNaN(padDb)
            ? " Lower the source's level."
            : String.format(Locale.ROOT, " Add a %.0f dB pad before it.", padDb);
    return new LevelFinding(index, severity, excessDb, padDb, sentence + advice);
  }

  private static double pad(double excessDb) {
    for (double pad : STANDARD_PADS_DB) {
      if (pad >= excessDb + WANTED_HEADROOM_DB) {
        return pad;
      }
    }
    return Double.NaN;
  }

  /** The findings that stand in the way of an acquisition. */
  public List<LevelFinding> blocking() {
    return findings.stream().filter(f -> f.severity() != Severity.NARROW).toList();
  }

  /** The smallest headroom of all elements, NaN if no element has a limit. */
  public double worstHeadroomDb() {
    double worst = Double.NaN;
    for (double h : headroomDb) {
      if (!Double.isNaN(h) && !(h >= worst)) {
        worst = h;
      }
    }
    return worst;
  }
}
