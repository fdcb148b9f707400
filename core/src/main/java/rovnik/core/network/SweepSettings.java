package rovnik.core.network;

import java.util.List;
import rovnik.core.Refusal;

/**
 * What an S-parameter sweep is set to.
 *
 * @param segments stretches of a segmented sweep, rising; empty for the others
 * @param bandwidthHz of the receivers
 * @param averages of each point
 * @param powerDbm at the sending port
 * @param bothPorts whether port 2 sends too; without it there is only S11 and S21
 */
public record SweepSettings(
    double startHz,
    double stopHz,
    int points,
    Type type,
    List<Segment> segments,
    double bandwidthHz,
    int averages,
    double powerDbm,
    boolean bothPorts) {

  public static final int MOST_POINTS = 20_001;

  /** How the points lie. */
  public enum Type {
    LINEAR,
    LOGARITHMIC,
    SEGMENTS
  }

  /** One stretch of even steps. */
  public record Segment(double startHz, double stopHz, int points) {}

  public SweepSettings {
    segments = segments == null ? List.of() : List.copyOf(segments);
    if (type == null) {
      throw new Refusal("type", "A sweep is LINEAR, LOGARITHMIC or SEGMENTS.");
    }
    if (type != Type.SEGMENTS) {
      if (!(startHz > 0) || !(stopHz > startHz) || Double.isInfinite(stopHz)) {
        throw new Refusal("startHz", "The sweep's stop must lie above its start, such as 400M.");
      }
      if (points < 2 || points > MOST_POINTS) {
        throw new Refusal("points", "A sweep has 2 to 20001 points.");
      }
    } else {
      checkSegments(segments);
    }
    if (!(bandwidthHz > 0)) {
      throw new Refusal("bandwidthHz", "The IF bandwidth must be more than 0 Hz, such as 1k.");
    }
    if (averages < 1 || averages > 1000) {
      throw new Refusal("averages", "Average 1 to 1000 sweeps.");
    }
    Refusal.finite("powerDbm", powerDbm);
  }

  private static void checkSegments(List<Segment> segments) {
    double before = 0;
    int all = 0;
    for (Segment s : segments) {
      if (!(s.startHz > before) || !(s.stopHz >= s.startHz) || s.points < 1) {
        throw new Refusal(
            "segments", "Segments rise, one after the other, each with start, stop and points.");
      }
      before = s.stopHz;
      all += s.points;
    }
    if (all < 2 || all > MOST_POINTS) {
      throw new Refusal("segments", "The segments must have 2 to 20001 points in all.");
    }
  }

  /** The frequencies of all points. */
  public double[] frequencies() {
    List<Segment> stretches =
        type == Type.SEGMENTS ? segments : List.of(new Segment(startHz, stopHz, points));
    int n = stretches.stream().mapToInt(Segment::points).sum();
    double[] hz = new double[n];
    int at = 0;
    for (Segment s : stretches) {
      for (int i = 0; i < s.points; i++) {
        double share = s.points == 1 ? 0 : i / (s.points - 1.0);
        hz[at++] =
            type == Type.LOGARITHMIC
                ? s.startHz * Math.pow(s.stopHz / s.startHz, share)
                : s.startHz + share * (s.stopHz - s.startHz);
      }
    }
    return hz;
  }

  public double lowestHz() {
    return type == Type.SEGMENTS ? segments.get(0).startHz : startHz;
  }

  public double highestHz() {
    return type == Type.SEGMENTS ? segments.get(segments.size() - 1).stopHz : stopHz;
  }

  /** Whether the points are the same ones. */
  public boolean sameGrid(SweepSettings o) {
    return type == o.type
        && (type == Type.SEGMENTS
            ? segments.equals(o.segments)
            : startHz == o.startHz && stopHz == o.stopHz && points == o.points);
  }
}
