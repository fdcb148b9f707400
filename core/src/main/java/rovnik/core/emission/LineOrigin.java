package rovnik.core.emission;

import java.util.ArrayList;
import java.util.List;
import rovnik.core.spectrum.Peak;
import rovnik.core.spectrum.Trace;
import rovnik.core.units.Frequency;

/**
 * Whose line is it? Four looks at the same span: as it is, with the source switched off, with the
 * receiver's attenuation stepped up, and with the receiver tuned elsewhere. Every line is labelled
 * by what it did, with the evidence in words.
 */
public final class LineOrigin {
  /** Who makes a line. */
  public enum Maker {
    SOURCE("device under test"),
    ROOM("room"),
    RECEIVER("made in the receiver"),
    UNSURE("unsure");

    private final String label;

    Maker(String label) {
      this.label = label;
    }

    public String label() {
      return label;
    }
  }

  /**
   * One labelled line.
   *
   * @param frequencyHz at the reading plane
   * @param level in the first look
   * @param kind what it is when the receiver makes it ("image", "dc spike", ...), "" otherwise
   * @param evidence what it did, as a sentence
   */
  public record Line(double frequencyHz, double level, Maker maker, String kind, String evidence) {}

  /**
   * The looks; all traces at the same plane in the same unit, corrected for the attenuation.
   *
   * @param asIs the first look
   * @param peaks lines of the first look
   * @param sourceOff with the source off, null if there is none to switch
   * @param attenuated with more attenuation, null if that was not possible
   * @param attenuationStepDb by how much more
   * @param retuned with the receiver tuned elsewhere, null if that was not possible
   * @param tunedHz where the receiver was tuned in the first look, at the reading plane
   */
  public record Looks(
      Trace asIs,
      List<Peak> peaks,
      Trace sourceOff,
      Trace attenuated,
      double attenuationStepDb,
      Trace retuned,
      double tunedHz) {}

  /** A level is the same within this. */
  private static final double SAME_DB = 2.5;

  /** A line is gone if it fell by at least this. */
  private static final double GONE_DB = 8;

  /** A line must have stood this far above what is left of it, or nothing can be said. */
  private static final double NEEDED_DB = 6;

  private final Looks looks;

  private LineOrigin(Looks looks) {
    this.looks = looks;
  }

  /** Labels every line of the first look. */
  public static List<Line> label(Looks looks) {
    LineOrigin origin = new LineOrigin(looks);
    List<Line> lines = new ArrayList<>();
    for (Peak p : looks.peaks()) {
      lines.add(origin.label(p));
    }
    return lines;
  }

  private Line label(Peak p) {
    double retuned = change(looks.retuned(), p);
    double attenuated = change(looks.attenuated(), p);
    double off = change(looks.sourceOff(), p);
    String dc = isDc(p) ? "it lies where the receiver is tuned" : "";
    if (retuned <= -GONE_DB) {
      Peak mirrored = mirrored(p);
      String gone = "gone by " + db(-retuned) + " when the receiver was tuned elsewhere";
      if (!dc.isEmpty()) {
        return line(p, Maker.RECEIVER, "dc spike", gone + "; " + dc);
      }
      if (mirrored != null) {
        return line(
            p,
            Maker.RECEIVER,
            "image",
            gone + "; it mirrors the line at " + Frequency.ofHertz(mirrored.frequencyHz()));
      }
      return line(p, Maker.RECEIVER, "spur of its tuning", gone);
    }
    double step = looks.attenuationStepDb();
    if (attenuated >= step - SAME_DB && attenuated > SAME_DB) {
      return line(
          p,
          Maker.RECEIVER,
          dc.isEmpty() ? "spur behind its attenuator" : "dc spike",
          "rises with the attenuation, by " + db(attenuated) + " for " + db(step));
    }
    if (attenuated <= -0.7 * step && step > 0) {
      int order = 1 + (int) Math.round(-attenuated / step);
      String at = order == 2 ? "harmonic or second-order product" : "intermodulation";
      return line(
          p,
          Maker.RECEIVER,
          at,
          "falls by "
              + db(-attenuated)
              + " for "
              + db(step)
              + " more attenuation: order "
              + order
              + (order > 3 ? " or it sinks into the noise" : ""));
    }
    if (!Double.isNaN(attenuated) && Math.abs(attenuated) > SAME_DB) {
      return line(
          p,
          Maker.UNSURE,
          "",
          "moves by " + signed(attenuated) + " with the attenuation: too close to the noise");
    }
    return bySource(p, off, attenuated);
  }

  private Line bySource(Peak p, double off, double attenuated) {
    String steady =
        Double.isNaN(attenuated) ? "" : ", and does not move with the receiver's attenuation";
    if (Double.isNaN(off)) {
      return line(
          p, Maker.UNSURE, "", "not made in the receiver" + steady + "; no source was switched");
    }
    if (off <= -GONE_DB) {
      return line(p, Maker.SOURCE, "", "gone by " + db(-off) + " with the source off" + steady);
    }
    if (Math.abs(off) <= SAME_DB) {
      return line(p, Maker.ROOM, "", "there with the source off as well" + steady);
    }
    return line(
        p, Maker.UNSURE, "", "changes by " + signed(off) + " with the source: not clear enough");
  }

  /** Change of a line's level in another look; NaN if the look is missing or says nothing. */
  private double change(Trace other, Peak p) {
    if (other == null) {
      return Double.NaN;
    }
    double there = highestNear(other, p.frequencyHz());
    double change = there - p.level();
    double floor = rovnik.core.spectrum.PeakSearch.median(other.level());
    boolean sunk = there < floor + NEEDED_DB;
    // It sank into a floor that is not far enough below where it stood.
    return sunk && change > -NEEDED_DB && change < -SAME_DB ? Double.NaN : change;
  }

  private static double highestNear(Trace t, double hz) {
    double reach = Math.max(1.5 * t.rbwHz(), t.stepHz());
    int first = (int) Math.max(0, Math.floor((hz - reach - t.startHz()) / t.stepHz()));
    int last = (int) Math.min(t.points() - 1, Math.ceil((hz + reach - t.startHz()) / t.stepHz()));
    double highest = Double.NEGATIVE_INFINITY;
    for (int i = first; i <= last; i++) {
      highest = Math.max(highest, t.level()[i]);
    }
    return highest;
  }

  private boolean isDc(Peak p) {
    return Math.abs(p.frequencyHz() - looks.tunedHz()) <= 1.5 * looks.asIs().rbwHz();
  }

  /** A much stronger line on the other side of the tuned frequency. */
  private Peak mirrored(Peak p) {
    double mirror = 2 * looks.tunedHz() - p.frequencyHz();
    return looks.peaks().stream()
        .filter(o -> Math.abs(o.frequencyHz() - mirror) <= 2 * looks.asIs().rbwHz())
        .filter(o -> o.level() > p.level() + 20)
        .findFirst()
        .orElse(null);
  }

  private static Line line(Peak p, Maker maker, String kind, String evidence) {
    return new Line(p.frequencyHz(), p.level(), maker, kind, evidence);
  }

  private static String db(double v) {
    return String.format(java.util.Locale.ROOT, "%.0f dB", v);
  }

  private static String signed(double v) {
    return String.format(java.util.Locale.ROOT, "%+.0f dB", v);
  }
}
