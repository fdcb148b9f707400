package rovnik.core.watch;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.testng.annotations.Test;
import rovnik.core.formats.SeriesCsv;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.result.Outcome;
import rovnik.core.result.Series;
import rovnik.core.result.Values;
import rovnik.core.units.Moment;

public class WatchOutcomeTest {
  private static final long BEGAN = 1_800_000_000_000L;
  private static final long DAY = 86_400_000L;

  private static final WatchSettings SETTINGS =
      new WatchSettings(
          List.of(
              new Watched(
                  "level", "Level", "dBm", "Antenna", false, new Limit(Double.NaN, -10), 1)),
          1,
          20,
          5);

  private static WatchPoint point(long at, double low, double high) {
    return new WatchPoint(
        at, new double[] {low}, new double[] {high}, new double[] {low}, new double[] {0.5});
  }

  private static WatchStretch stretch(long at, double value) {
    return WatchStretch.of(point(at, value, value));
  }

  private static Outcome outcome(
      List<WatchStretch> stretches, List<WatchEvent> events, List<WatchGap> gaps) {
    return new WatchOutcome(
            new WatchOutcome.About("Night", "Spectrum of Receiver", BEGAN, BEGAN + DAY, 0.05),
            SETTINGS,
            stretches,
            events,
            gaps,
            500)
        .outcome();
  }

  private static double read(Outcome o, String id) {
    return o.reading(id).orElseThrow().value();
  }

  @Test
  public void ofAMillionPointsTheOneThatStandsOutIsStillThere() {
    Random random = new Random(42);
    List<WatchStretch> chunks = new ArrayList<>();
    int spike = 345_678;
    double lowest = Double.POSITIVE_INFINITY;
    for (int c = 0; c < 1000; c++) {
      List<WatchPoint> points = new ArrayList<>();
      for (int k = 0; k < 1000; k++) {
        int i = 1000 * c + k;
        double v = i == spike ? -3 : -40 + random.nextGaussian();
        lowest = Math.min(lowest, v);
        points.add(point(BEGAN + 86L * i, v, v));
      }
      chunks.add(WatchStretch.of(points));
    }
    Outcome o = outcome(chunks, List.of(), List.of());
    Series curve = o.series("level").orElseThrow();
    assertTrue(curve.x().points() <= 1000 + 2, "two a column: " + curve.x().points());
    double highest = Double.NEGATIVE_INFINITY;
    double at = 0;
    double least = Double.POSITIVE_INFINITY;
    for (int i = 0; i < curve.x().points(); i++) {
      least = Math.min(least, curve.y()[i]);
      if (curve.y()[i] > highest) {
        highest = curve.y()[i];
        at = curve.x().at(i);
      }
      assertTrue(i == 0 || curve.x().at(i) >= curve.x().at(i - 1), "places rise");
    }
    assertEquals(highest, -3);
    assertEquals(at, (BEGAN + 86L * spike) / 1000.0, 1e-3, "at its own time");
    assertEquals(least, lowest);
    assertEquals(read(o, "level.highest"), -3);
    assertEquals(read(o, "level.lowest"), lowest);
    assertEquals(o.verdict(), Verdict.FAIL);
  }

  @Test
  public void inAFileTheTimesAreKeptToTheMillisecond() {
    Outcome o = outcome(List.of(stretch(BEGAN + 1234, -20)), List.of(), List.of());
    String csv = SeriesCsv.write(o.series("level").orElseThrow());
    assertTrue(csv.contains("\nclock (UTC),level (dBm)\n2027-01-15T08:00:01.234Z,-20.0000\n"), csv);
  }

  @Test
  public void fewPointsAreDrawnAsTheyAre() {
    Outcome o =
        outcome(
            List.of(
                stretch(BEGAN, -20),
                WatchStretch.of(point(BEGAN + 1000, -25, -15)),
                stretch(BEGAN + 2000, -21)),
            List.of(),
            List.of());
    Series curve = o.series("level").orElseThrow();
    assertEquals(curve.y(), new double[] {-20, -25, -15, -21});
    assertEquals(curve.x().unit(), "UTC");
    assertEquals(curve.x().at(0), BEGAN / 1000.0);
    assertEquals(read(o, "level.newest"), -21);
    assertEquals(o.reading("level.newest").orElseThrow().uncertainty(), 0.5);
  }

  @Test
  public void noLineIsDrawnAcrossAGap() {
    long hour = 3_600_000;
    List<WatchStretch> all = new ArrayList<>();
    for (int k = 0; k < 5000; k++) {
      all.add(stretch(BEGAN + k * 1000L, -30));
    }
    long back = BEGAN + 5000_000 + 2 * hour;
    for (int k = 0; k < 5000; k++) {
      all.add(stretch(back + k * 1000L, -31));
    }
    WatchGap gap = new WatchGap(BEGAN + 4999_000, back, "Receiver was lost");
    Outcome o = outcome(all, List.of(), List.of(gap));
    Series curve = o.series("level").orElseThrow();
    int breaks = 0;
    for (int i = 0; i < curve.y().length; i++) {
      breaks += Double.isNaN(curve.y()[i]) ? 1 : 0;
    }
    assertEquals(breaks, 1);
    assertEquals(o.spoiled().size(), 1);
    assertEquals(o.spoiled().get(0).why(), "Receiver was lost");
    assertEquals(read(o, "looked"), 5, 1e-9);
    assertEquals(read(o, "seen"), 100 * (1 - (2 * hour + 1000) / (double) DAY), 1e-9);
    assertEquals(o.table("gaps").orElseThrow().rows().get(0).cells().get(1).text(), "2 h 00 min");
  }

  @Test
  public void timeOutsideIsOfTheTimeThatWasSeen() {
    long hour = 3_600_000;
    List<WatchEvent> events =
        List.of(
            new WatchEvent(0, BEGAN - hour, BEGAN + hour, -9, "run \"Night, 1\""),
            new WatchEvent(0, BEGAN + 4 * hour, BEGAN + 8 * hour, -4, ""),
            new WatchEvent(0, BEGAN + 23 * hour, Long.MAX_VALUE, -8, ""));
    List<WatchGap> gaps = List.of(new WatchGap(BEGAN + 6 * hour, BEGAN + 10 * hour, "held"));
    Outcome o = outcome(List.of(stretch(BEGAN, -20)), events, gaps);
    // 1 h, 2 of 4 h, and 1 h, of 24 h less 4.
    assertEquals(read(o, "level.outside"), 100 * 4.0 / 20, 1e-9);
    assertEquals(read(o, "events"), 3);
    List<List<String>> rows =
        o.table("events").orElseThrow().rows().stream()
            .map(r -> r.cells().stream().map(c -> c.text()).toList())
            .toList();
    assertEquals(rows.get(0), List.of("", "Level", "-8.00 dBm", "goes on", ""));
    assertEquals(
        Moment.words(o.table("events").orElseThrow().rows().get(0).cells().get(0).value()),
        "2027-01-16 07:00:00");
    assertEquals(rows.get(1).get(3), "4 h 00 min");
    assertEquals(rows.get(2).get(4), "run \"Night, 1\"");
  }

  @Test
  public void whatWasNotThereFailsThoughAllThatWasSeenIsGood() {
    List<WatchEvent> gone = List.of(new WatchEvent(0, BEGAN + 1000, BEGAN + 9000, Double.NaN, ""));
    Outcome o =
        outcome(List.of(stretch(BEGAN, -20), stretch(BEGAN + 10_000, -20)), gone, List.of());
    assertEquals(o.verdict(), Verdict.FAIL);
    assertEquals(o.table("events").orElseThrow().rows().get(0).cells().get(2).text(), "not there");
    assertEquals(o.table("numbers").orElseThrow().rows().get(0).verdict(), Verdict.FAIL);
    // Outside by less than the uncertainty is told from that.
    List<WatchEvent> near = List.of(new WatchEvent(0, BEGAN + 1000, BEGAN + 9000, -9.8, ""));
    assertEquals(
        outcome(List.of(stretch(BEGAN, -9.8)), near, List.of()).verdict(), Verdict.FAIL_UNSURE);
    assertEquals(
        outcome(List.of(stretch(BEGAN, -20)), List.of(), List.of()).verdict(), Verdict.PASS);
  }

  @Test
  public void aColumnIsAPictureOfItsRowsOverTime() {
    List<Watched> channels = new ArrayList<>();
    for (int c = 11; c < 16; c++) {
      channels.add(
          new Watched(
              "table:channels:" + c + ":Share of time",
              "Channel " + c + ", Share of time",
              "%",
              "",
              false,
              Limit.NONE,
              0));
    }
    List<WatchStretch> all = new ArrayList<>();
    for (int k = 0; k < 900; k++) {
      double[] v = {k, 2, 3, k < 450 ? Double.NaN : 4, 5};
      double[] u = {1, 1, 1, 1, 1};
      all.add(WatchStretch.of(new WatchPoint(BEGAN + 1000L * k, v, v, v, u)));
    }
    WatchOutcome.About about =
        new WatchOutcome.About("Day", "Hops", BEGAN, BEGAN + 900_000, Double.NaN);
    WatchSettings five = new WatchSettings(channels, 1, 20, 5);
    Outcome o = new WatchOutcome(about, five, all, List.of(), List.of(), 500).outcome();
    Series each = o.series("each:channels:Share of time").orElseThrow();
    assertEquals(each.x().quantity(), "Channel");
    assertEquals(each.x().at(0), 11.0);
    assertEquals(each.x().at(4), 15.0);
    Values.Matrix m = (Values.Matrix) each.values();
    int times = m.rows().points();
    assertEquals(times, 300);
    assertEquals(m.rows().unit(), "UTC");
    assertEquals(m.rows().at(0), BEGAN / 1000.0 + 1.5, 0.1);
    // Three points a time: the mean of 0, 1, 2, and of 897, 898, 899.
    assertEquals(m.z()[0], 1f, 1e-6f);
    assertEquals(m.z()[times - 1], 898f, 1e-3f);
    assertEquals(m.z()[times], 2f, 1e-6f);
    assertTrue(Float.isNaN(m.z()[3 * times]));
    assertEquals(m.z()[4 * times - 1], 4f, 1e-6f);
    assertEquals(o.readings().size(), 3 * 5 + 2);
    // Three are curves.
    WatchSettings three = new WatchSettings(channels.subList(0, 3), 1, 20, 5);
    assertTrue(
        new WatchOutcome(about, three, all, List.of(), List.of(), 500)
            .outcome().series().stream().noneMatch(s -> s.id().startsWith("each")));
  }

  @Test
  public void beforeTheFirstLookThereIsNothing() {
    Outcome o = outcome(List.of(), List.of(), List.of());
    assertEquals(o.summary(), "Spectrum of Receiver: no look was taken yet.");
    assertTrue(Double.isNaN(read(o, "level.newest")));
    assertEquals(o.reading("level.newest").orElseThrow().verdict(), Verdict.INVALID);
  }

  @Test
  public void packedAndUnpackedIsTheSame() {
    WatchStretch s =
        WatchStretch.of(
            List.of(point(BEGAN, -20, -10), point(BEGAN + 1, -30, -15), point(BEGAN + 2, -25, -5)));
    WatchStretch again = WatchStretch.unpacked(s.packed());
    assertEquals(again.low(0), -30);
    assertEquals(again.high(0), -5);
    assertEquals(again.lowAtMillis(0), BEGAN + 1);
    assertEquals(again.highAtMillis(0), BEGAN + 2);
    assertEquals(again.points(), 3);
    assertEquals(again.mean(0), -25, 1e-12);
    assertEquals(again.fromMillis(), BEGAN);
    assertEquals(again.toMillis(), BEGAN + 2);
    WatchPoint p = point(BEGAN, -3, 4);
    WatchPoint same = WatchPoint.unpacked(BEGAN, p.packed(), 0, 1);
    assertEquals(same.low(), p.low());
    assertEquals(same.high(), p.high());
    assertEquals(same.last(), p.last());
    assertEquals(same.uncertainty(), p.uncertainty());
  }
}
