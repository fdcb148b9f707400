package rovnik.core.watch;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import rovnik.core.result.Outcome;

/** Makes points and events of one look after the other. */
public final class WatchTally {
  /**
   * A number left its limits, or is back.
   *
   * @param reading which of those that are followed
   * @param left false if it is back
   * @param value that it left them with, NaN if it was not there; when it is back, the worst since
   */
  public record Crossing(int reading, boolean left, double value) {}

  /**
   * What a look led to.
   *
   * @param point that it completes
   * @param whyNot why nothing of the look was taken, "" if something was
   */
  public record Step(List<Crossing> crossings, Optional<WatchPoint> point, String whyNot) {}

  private static final double HOUR_MILLIS = 3_600_000;

  private final WatchSettings settings;
  private final int n;
  private final LimitCrossing[] crossings;
  private final double[] low;
  private final double[] high;
  private final double[] last;
  private final double[] uncertainty;

  /** Counts at the last point, NaN where none goes on. */
  private final double[] counted;

  private long countedAtMillis;
  private long beganMillis;
  private long atMillis;
  private boolean empty = true;

  public WatchTally(WatchSettings settings) {
    this.settings = settings;
    this.n = settings.readings().size();
    this.crossings =
        settings.readings().stream()
            .map(w -> new LimitCrossing(w.limit(), w.hysteresis()))
            .toArray(LimitCrossing[]::new);
    this.low = new double[n];
    this.high = new double[n];
    this.last = new double[n];
    this.uncertainty = new double[n];
    this.counted = new double[n];
    Arrays.fill(counted, Double.NaN);
    clear();
  }

  private void clear() {
    Arrays.fill(low, Double.NaN);
    Arrays.fill(high, Double.NaN);
    Arrays.fill(last, Double.NaN);
    Arrays.fill(uncertainty, Double.NaN);
    empty = true;
  }

  /** Goes on with an event that has begun already. */
  public void goOn(int reading, double worst) {
    crossings[reading].goOn(worst);
  }

  /** The value that was furthest outside since it left its limits. */
  public double worst(int reading) {
    return crossings[reading].worst();
  }

  /** Takes a look. */
  public Step add(long millis, Outcome outcome) {
    List<Crossing> changes = new ArrayList<>();
    String whyNot = "";
    boolean any = false;
    double[] counts = new double[n];
    Arrays.fill(counts, Double.NaN);
    for (int i = 0; i < n; i++) {
      Watched w = settings.readings().get(i);
      Optional<Followed> found = Followed.find(outcome, w.id());
      String why = found.map(f -> unfit(w, f)).orElse(w.label() + " is not there");
      boolean gone = found.map(Followed::gone).orElse(outcome.marks().isEmpty());
      // Of what has no limit it does not matter whether it is there.
      any |= why.isEmpty() || gone && !w.limit().open();
      if (gone) {
        cross(i, Double.NaN, changes);
      }
      if (!why.isEmpty()) {
        whyNot = whyNot.isEmpty() ? why : whyNot;
        continue;
      }
      if (w.perHour()) {
        counts[i] = found.get().value();
      } else {
        take(i, found.get().value(), found.get().uncertainty(), changes);
      }
    }
    if (!any) {
      return new Step(List.of(), Optional.empty(), whyNot);
    }
    if (empty) {
      empty = false;
      beganMillis = atMillis == 0 ? millis : beganMillis;
    }
    atMillis = millis;
    boolean whole = millis - beganMillis >= 1000 * settings.everySeconds();
    if (!whole) {
      return new Step(changes, Optional.empty(), "");
    }
    count(counts, changes);
    return new Step(changes, cut(), "");
  }

  private static String unfit(Watched w, Followed f) {
    if (!f.whyNot().isEmpty()) {
      return w.label() + ": " + f.whyNot();
    }
    if (!f.unit().equals(w.unit())) {
      return w.label() + " is in " + (f.unit().isEmpty() ? "no unit" : f.unit()) + " now";
    }
    return f.plane().equals(w.plane())
        ? ""
        : w.label() + " is read at " + f.plane() + " now, not at " + w.plane();
  }

  private void take(int i, double value, double u, List<Crossing> changes) {
    low[i] = Double.isNaN(low[i]) ? value : Math.min(low[i], value);
    high[i] = Double.isNaN(high[i]) ? value : Math.max(high[i], value);
    last[i] = value;
    uncertainty[i] = Double.isNaN(uncertainty[i]) ? u : Math.max(uncertainty[i], u);
    cross(i, value, changes);
  }

  private void cross(int i, double value, List<Crossing> changes) {
    switch (crossings[i].take(value)) {
      case LEFT -> changes.add(new Crossing(i, true, value));
      case BACK -> changes.add(new Crossing(i, false, crossings[i].worst()));
      case NONE -> {}
    }
  }

  /** What counts grew by since the last point, an hour; a count that began anew grew from 0. */
  private void count(double[] counts, List<Crossing> changes) {
    for (int i = 0; i < n; i++) {
      if (!Double.isNaN(counts[i]) && !Double.isNaN(counted[i])) {
        double grew = counts[i] >= counted[i] ? counts[i] - counted[i] : counts[i];
        double hours = (atMillis - countedAtMillis) / HOUR_MILLIS;
        // What comes by chance scatters by the root of its number (Poisson); of none, by one.
        take(i, grew / hours, 2 * Math.sqrt(Math.max(1, grew)) / hours, changes);
      }
      counted[i] = counts[i];
    }
    countedAtMillis = atMillis;
  }

  /** Something comes between: what there is so far is a point of its own. */
  public Optional<WatchPoint> pause() {
    Optional<WatchPoint> point = cut();
    Arrays.fill(counted, Double.NaN);
    beganMillis = 0;
    atMillis = 0;
    return point;
  }

  private Optional<WatchPoint> cut() {
    if (empty) {
      return Optional.empty();
    }
    WatchPoint point =
        new WatchPoint(atMillis, low.clone(), high.clone(), last.clone(), uncertainty.clone());
    beganMillis = atMillis;
    clear();
    return Optional.of(point);
  }
}
