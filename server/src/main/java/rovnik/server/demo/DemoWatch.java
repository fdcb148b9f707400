package rovnik.server.demo;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.function.Predicate;
import rovnik.core.limits.Limit;
import rovnik.core.watch.WatchEvent;
import rovnik.core.watch.WatchGap;
import rovnik.core.watch.WatchPoint;
import rovnik.core.watch.WatchSettings;
import rovnik.core.watch.Watched;
import rovnik.server.watch.WatchHistory.Past;

/**
 * A day of the outer buoy, made up: its level and frequency follow the sun, its supply sags at noon
 * when the winch runs, and for a quarter of an hour at night the receiver was not there.
 */
final class DemoWatch {
  private static final long BEGAN = Instant.parse("2026-09-21T00:00:00Z").toEpochMilli();
  private static final long POINT_MILLIS = 10_000;
  private static final int POINTS = 8640;
  private static final long GAP_FROM = BEGAN + minutes(3, 12);
  private static final long GAP_TO = BEGAN + minutes(3, 27);
  private static final long SAG_FROM = BEGAN + minutes(13, 20);
  private static final long SAG_TO = BEGAN + minutes(13, 34);
  private static final double SAG_DB = 3.6;
  private static final double LEVEL_U_DB = 0.5;
  private static final double ERROR_U_PPM = 0.05;

  private DemoWatch() {}

  private static long minutes(int hours, int minutes) {
    return (60L * hours + minutes) * 60_000;
  }

  static Past of(long job, String source, String sourceName) {
    WatchSettings settings =
        new WatchSettings(
            List.of(
                new Watched(
                    "carrierPower",
                    "Carrier power",
                    "dBm",
                    "Buoy TX OUT",
                    false,
                    new Limit(24, 27.5),
                    0.2),
                new Watched(
                    "frequencyErrorPpm",
                    "Frequency error",
                    "ppm",
                    "",
                    false,
                    new Limit(-2.5, 2.5),
                    0.1)),
            POINT_MILLIS / 1000.0,
            20,
            1);
    Random random = new Random(21);
    List<WatchPoint> points = new ArrayList<>();
    for (int k = 0; k < POINTS; k++) {
      long at = BEGAN + k * POINT_MILLIS;
      if (at > GAP_FROM && at < GAP_TO) {
        continue;
      }
      points.add(point(at, random));
    }
    double worst = points.stream().mapToDouble(p -> p.low()[0]).min().orElse(Double.NaN);
    long left = first(points, p -> p.low()[0] < 24);
    long back = first(points, p -> p.atMillis() > (SAG_FROM + SAG_TO) / 2 && p.low()[0] >= 24.2);
    return new Past(
        job,
        "A day of the buoy (made up)",
        source,
        sourceName,
        "spectrum",
        "Spectrum of " + sourceName,
        settings,
        BEGAN,
        BEGAN + POINTS * POINT_MILLIS,
        points,
        List.of(new WatchEvent(0, left, back, worst, "")),
        List.of(new WatchGap(GAP_FROM, GAP_TO, sourceName + " did not answer")));
  }

  private static WatchPoint point(long at, Random random) {
    double day = (at - BEGAN) / (double) (POINTS * POINT_MILLIS);
    // Coldest before dawn, warmest in the afternoon.
    double warm = Math.sin(2 * Math.PI * (day - 0.37));
    double sag = 0;
    if (at >= SAG_FROM && at <= SAG_TO) {
      sag = SAG_DB * Math.sin(Math.PI * (at - SAG_FROM) / (double) (SAG_TO - SAG_FROM));
    }
    double level = 26.8 - 0.35 * warm - sag + 0.03 * random.nextGaussian();
    double error = 1.9 + 0.32 * warm + 0.01 * random.nextGaussian();
    double spread = 0.05 + 0.03 * random.nextDouble();
    return new WatchPoint(
        at,
        new double[] {level - spread, error - 0.01},
        new double[] {level + spread, error + 0.01},
        new double[] {level, error},
        new double[] {LEVEL_U_DB, ERROR_U_PPM});
  }

  private static long first(List<WatchPoint> points, Predicate<WatchPoint> that) {
    return points.stream().filter(that).mapToLong(WatchPoint::atMillis).findFirst().orElseThrow();
  }
}
