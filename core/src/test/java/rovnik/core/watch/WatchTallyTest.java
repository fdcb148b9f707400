package rovnik.core.watch;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.ArrayList;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;

public class WatchTallyTest {
  private static final double NONE = Double.NaN;

  private static Watched level(double lower, double upper, double hysteresis) {
    return new Watched(
        "level", "Level", "dBm", "Antenna", false, new Limit(lower, upper), hysteresis);
  }

  private static Watched count() {
    return new Watched("seen", "Seen", "", "", true, Limit.NONE, 0);
  }

  private static WatchSettings settings(double everySeconds, Watched... readings) {
    return new WatchSettings(List.of(readings), everySeconds, 20, 5);
  }

  static Reading reading(String id, double value, String unit, String plane, String... marks) {
    return new Reading(
        id, id, value, unit, plane, 0.5, List.of(), Limit.NONE, Verdict.NONE, List.of(marks));
  }

  static Outcome look(Reading... readings) {
    return Outcome.words("spectrum", "Spectrum", "").withReadings(List.of(readings));
  }

  private static Outcome level(double dbm) {
    return look(reading("level", dbm, "dBm", "Antenna"));
  }

  private static List<String> changes(WatchTally.Step step) {
    return step.crossings().stream()
        .map(c -> (c.left() ? "left with " : "back, worst ") + c.value())
        .toList();
  }

  @Test
  public void aPointHasTheLowestAndTheHighestOfItsLooks() {
    WatchTally tally = new WatchTally(settings(10, level(NONE, NONE, 0)));
    assertTrue(tally.add(1_000_000, level(-20)).point().isEmpty());
    assertTrue(tally.add(1_004_000, level(-35)).point().isEmpty());
    assertTrue(tally.add(1_008_000, level(-5)).point().isEmpty());
    WatchPoint first = tally.add(1_010_000, level(-21)).point().orElseThrow();
    assertEquals(first.atMillis(), 1_010_000);
    assertEquals(first.low()[0], -35);
    assertEquals(first.high()[0], -5);
    assertEquals(first.last()[0], -21);
    assertEquals(first.uncertainty()[0], 0.5);
    // The next one begins where this one ended, and knows nothing of it.
    assertTrue(tally.add(1_019_999, level(-7)).point().isEmpty());
    WatchPoint second = tally.add(1_020_000, level(-8)).point().orElseThrow();
    assertEquals(second.low()[0], -8);
    assertEquals(second.high()[0], -7);
  }

  @Test
  public void aNumberIsBackOnlyWhenItIsFarEnoughInside() {
    WatchTally tally = new WatchTally(settings(0, level(-30, -10, 2)));
    assertEquals(changes(tally.add(1, level(-10))), List.of(), "on the limit is inside");
    assertEquals(changes(tally.add(2, level(-9.5))), List.of("left with -9.5"));
    assertEquals(changes(tally.add(3, level(-6))), List.of());
    assertEquals(changes(tally.add(4, level(-11))), List.of(), "inside, but not by 2 dB");
    assertEquals(changes(tally.add(5, level(-9))), List.of(), "the same event goes on");
    assertEquals(changes(tally.add(6, level(-12))), List.of("back, worst -6.0"));
    assertEquals(changes(tally.add(7, level(-31))), List.of("left with -31.0"), "the other side");
    assertEquals(changes(tally.add(8, level(-28))), List.of("back, worst -31.0"));
  }

  @Test
  public void whatMustNotBeTrustedIsNotTaken() {
    WatchTally tally = new WatchTally(settings(0, level(NONE, -10, 0)));
    WatchTally.Step overload =
        tally.add(1, look(reading("level", 3, "dBm", "Antenna", "overload")));
    assertTrue(overload.point().isEmpty());
    assertTrue(overload.crossings().isEmpty());
    assertEquals(overload.whyNot(), "Level: overload");
    assertEquals(
        tally.add(2, look(reading("level", 3, "dBm", "Receiver"))).whyNot(),
        "Level is read at Receiver now, not at Antenna");
    assertEquals(
        tally.add(3, look(reading("level", 3, "dBFS", "Antenna"))).whyNot(),
        "Level is in dBFS now");
    Outcome earlier =
        new Outcome(
            "spectrum",
            "Spectrum",
            "",
            List.of(),
            List.of(),
            List.of(reading("level", NONE, "dBm", "Antenna")),
            List.of("of an earlier record"),
            List.of());
    WatchTally.Step old = tally.add(4, earlier);
    assertEquals(old.whyNot(), "Level: of an earlier record");
    assertTrue(old.crossings().isEmpty());
  }

  @Test
  public void whatIsNotThereIsOutsideItsLimits() {
    WatchTally tally = new WatchTally(settings(0, level(NONE, -10, 1)));
    Outcome off = look(reading("level", NONE, "dBm", "Antenna", "no carrier"));
    assertEquals(changes(tally.add(1, off)), List.of("left with NaN"));
    assertEquals(tally.add(2, off).whyNot(), "", "the look was taken");
    assertEquals(changes(tally.add(3, look())), List.of(), "the same event");
    assertEquals(changes(tally.add(4, level(-10.5))), List.of(), "there, and not yet inside");
    assertEquals(changes(tally.add(5, level(-12))), List.of("back, worst NaN"));
    // Of what has no limit it is no event, and nothing was seen.
    WatchTally free = new WatchTally(settings(0, level(NONE, NONE, 0)));
    assertEquals(free.add(1, off).whyNot(), "Level: no carrier");
    assertEquals(changes(free.add(2, look())), List.of());
    assertEquals(free.add(2, look()).whyNot(), "Level is not there");
  }

  @Test
  public void ofTwoOneMayBeMissing() {
    Watched other = new Watched("f", "Frequency", "Hz", "", false, Limit.NONE, 0);
    WatchTally tally = new WatchTally(settings(0, level(NONE, NONE, 0), other));
    WatchPoint p = tally.add(1, level(-20)).point().orElseThrow();
    assertEquals(p.last()[0], -20);
    assertTrue(Double.isNaN(p.last()[1]));
  }

  @Test
  public void countsBecomeNumbersAnHour() {
    WatchTally tally = new WatchTally(settings(60, count()));
    long minute = 60_000;
    List<WatchPoint> points = new ArrayList<>();
    double[] counts = {100, 100, 130, 145, 5, 5};
    for (int k = 0; k < counts.length; k++) {
      tally
          .add(minute * (k + 1), look(reading("seen", counts[k], "", "")))
          .point()
          .ifPresent(points::add);
    }
    // The first look begins, so that the first point has nothing to count from.
    assertEquals(points.size(), 5);
    assertTrue(Double.isNaN(points.get(0).last()[0]));
    assertEquals(points.get(1).last()[0], 1800, 1e-9);
    // Poisson: 30 are 30 +- 2 * sqrt(30).
    assertEquals(points.get(1).uncertainty()[0], 2 * Math.sqrt(30) * 60, 1e-9);
    assertEquals(points.get(2).last()[0], 900, 1e-9);
    assertEquals(points.get(3).last()[0], 300, 1e-9, "the count began anew");
    assertEquals(points.get(4).last()[0], 0, 1e-9);
    assertEquals(points.get(4).uncertainty()[0], 120, 1e-9);
  }

  @Test
  public void aPauseEndsAPointAndCountsBeginAnew() {
    WatchTally tally = new WatchTally(settings(60, level(NONE, NONE, 0), count()));
    tally.add(60_000, look(reading("level", -20, "dBm", "Antenna"), reading("seen", 7, "", "")));
    tally.add(90_000, look(reading("level", -22, "dBm", "Antenna"), reading("seen", 9, "", "")));
    WatchPoint cut = tally.pause().orElseThrow();
    assertEquals(cut.atMillis(), 90_000);
    assertEquals(cut.low()[0], -22);
    assertTrue(tally.pause().isEmpty());
    // After it a point does not begin where the last one ended.
    long later = 10_000_000;
    assertTrue(tally.add(later, level(-20)).point().isEmpty());
    assertTrue(tally.add(later + 59_000, level(-20)).point().isEmpty());
    assertFalse(tally.add(later + 60_000, level(-20)).point().isEmpty());
  }

  @Test
  public void aNumberOfATableIsKnownByItsRow() {
    ResultTable table =
        new ResultTable(
            "channels",
            "Channels",
            List.of(
                new ResultTable.Column("Channel", ""),
                new ResultTable.Column("Level", "dBm"),
                new ResultTable.Column("Whose", "")),
            List.of(row(11, -40), row(12, -50)));
    Outcome o =
        new Outcome("hops", "Hops", "", List.of(), List.of(table), List.of(), List.of(), List.of());
    assertEquals(
        Followed.all(o).stream().map(Followed::id).toList(),
        List.of("table:channels:11:Level", "table:channels:12:Level"));
    Followed found = Followed.find(o, "table:channels:12:Level").orElseThrow();
    assertEquals(found.value(), -50);
    assertEquals(found.unit(), "dBm");
    assertEquals(found.label(), "Channel 12, Level");
    assertTrue(Followed.find(o, "table:channels:13:Level").isEmpty());
    assertTrue(Followed.find(o, "table:other:12:Level").isEmpty());
  }

  private static ResultTable.Row row(int channel, double level) {
    return new ResultTable.Row(
        List.of(ResultTable.Cell.of(channel), ResultTable.Cell.of(level), ResultTable.Cell.of("A")),
        Verdict.NONE);
  }

  @DataProvider
  public Object[][] nonsense() {
    return new Object[][] {
      {"hysteresis", (Runnable) () -> level(-20, -10, 5)},
      {"hysteresis", (Runnable) () -> level(-20, NONE, -1)},
      {"limit", (Runnable) () -> level(Double.NEGATIVE_INFINITY, NONE, 0)},
      {"perHour", (Runnable) () -> new Watched("level", "Level", "dBm", "", true, Limit.NONE, 0)},
      {"everySeconds", (Runnable) () -> settings(0.5, count())},
      {"everySeconds", (Runnable) () -> settings(-1, level(NONE, NONE, 0))},
      {"everySeconds", (Runnable) () -> settings(NONE, level(NONE, NONE, 0))},
      {"readings", (Runnable) () -> settings(1)},
      {"readings", (Runnable) () -> settings(1, level(NONE, NONE, 0), level(-9, NONE, 0))},
      {"mostKept", (Runnable) () -> new WatchSettings(List.of(level(NONE, NONE, 0)), 1, -1, 5)},
      {"aroundSeconds", (Runnable) () -> new WatchSettings(List.of(level(NONE, NONE, 0)), 1, 1, 0)},
    };
  }

  @Test(dataProvider = "nonsense")
  public void nonsenseIsRefusedByItsField(String field, Runnable made) {
    assertEquals(expectThrows(Refusal.class, made::run).field(), field);
  }
}
