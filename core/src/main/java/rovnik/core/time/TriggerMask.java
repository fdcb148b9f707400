package rovnik.core.time;

import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import rovnik.core.Refusal;
import rovnik.core.units.Frequency;

/**
 * Levels over frequency that nothing shall rise over, straight in dB from one point to the next.
 *
 * @param points in the order of their frequency, at least two; two at one frequency are a step;
 *     empty for the trigger level all over the band
 * @param rbwHz of the spectra that are held against it; 0 for a hundredth of its width
 */
public record TriggerMask(List<Point> points, double rbwHz) {
  public static final TriggerMask NONE = new TriggerMask(List.of(), 0);

  private static final int MOST = 200;
  private static final double PARTS = 100;

  /**
   * @param hz at the reading plane
   * @param levelDb in dBm there, or dBFS of a record without levels
   */
  public record Point(double hz, double levelDb) {}

  public TriggerMask {
    points = List.copyOf(points);
    if (points.size() == 1 || points.size() > MOST) {
      throw new Refusal(
          "mask", "A mask has 2 to " + MOST + " points, such as 164.1 MHz -60, 164.3 MHz -60.");
    }
    for (int i = 0; i < points.size(); i++) {
      Point p = points.get(i);
      if (!(p.hz >= 0 && p.hz <= 1e12 && Math.abs(p.levelDb) <= 250)) {
        throw new Refusal(
            "mask", "Points of a mask lie at 0 Hz to 1 THz and -250 to 250 dBm or dBFS.");
      }
      if (i > 0 && p.hz < points.get(i - 1).hz) {
        throw new Refusal("mask", "Points of a mask go from low to high frequencies.");
      }
    }
    if (!points.isEmpty() && !(points.get(points.size() - 1).hz > points.get(0).hz)) {
      throw new Refusal("mask", "The mask has no width: give it points at two frequencies.");
    }
    if (!(rbwHz >= 0 && rbwHz <= 1e9)) {
      throw new Refusal("rbwHz", "The RBW is more than 0 Hz, or 0 for a hundredth of the mask.");
    }
  }

  /** The same level from one frequency to another, with this one's RBW. */
  TriggerMask flat(double lowHz, double highHz, double levelDb) {
    return new TriggerMask(List.of(new Point(lowHz, levelDb), new Point(highHz, levelDb)), rbwHz);
  }

  boolean none() {
    return points.isEmpty();
  }

  double lowHz() {
    return points.get(0).hz;
  }

  double highHz() {
    return points.get(points.size() - 1).hz;
  }

  /** It does not fit to where it is held against something. */
  Refusal beyond(String whatAndWhatToDo) {
    return new Refusal(
        "mask",
        "The mask goes from "
            + Frequency.ofHertz(lowHz())
            + " to "
            + Frequency.ofHertz(highHz())
            + ", beyond "
            + whatAndWhatToDo);
  }

  double rbw() {
    return rbwHz > 0 ? rbwHz : (highHz() - lowHz()) / PARTS;
  }

  /** What is allowed at a frequency, of a step the higher; infinite outside. */
  double levelDb(double hz) {
    double level = Double.NEGATIVE_INFINITY;
    for (int i = 1; i < points.size(); i++) {
      Point a = points.get(i - 1);
      Point b = points.get(i);
      if (hz >= a.hz && hz <= b.hz) {
        double share = b.hz == a.hz ? 0 : (hz - a.hz) / (b.hz - a.hz);
        level = Math.max(level, a.levelDb + share * (b.levelDb - a.levelDb));
        level = b.hz == a.hz ? Math.max(level, b.levelDb) : level;
      }
    }
    return Double.isInfinite(level) ? Double.POSITIVE_INFINITY : level;
  }

  /** As text, as runs keep it. */
  String words() {
    return points.stream()
        .map(p -> String.format(Locale.ROOT, "%s %.1f", Frequency.ofHertz(p.hz), p.levelDb))
        .collect(Collectors.joining(", "));
  }
}
