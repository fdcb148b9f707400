package rovnik.core.time;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;
import static rovnik.core.time.TriggerMeasurementTest.RATE;
import static rovnik.core.time.TriggerMeasurementTest.column;
import static rovnik.core.time.TriggerMeasurementTest.keyed;
import static rovnik.core.time.TriggerMeasurementTest.piece;
import static rovnik.core.time.TriggerMeasurementTest.reading;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.result.Outcome;
import rovnik.core.result.ResultTable;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.time.TriggerMeasurementTest.Wanted;

/** Times between pulses, and pulses at the trigger input. */
public class TriggerPatternTest {
  private static final double LENGTH = 50e-6;

  private static Wanted waits(boolean broken, double within, Double... seconds) {
    Wanted w = new Wanted();
    w.pattern = new IntervalPattern(List.of(seconds), within, broken);
    return w;
  }

  /** Pulses that begin at these times. */
  private static float[] pulses(double seconds, List<Double> begins, long seed) {
    double[] times = new double[2 * begins.size()];
    for (int i = 0; i < begins.size(); i++) {
      times[2 * i] = begins.get(i);
      times[2 * i + 1] = begins.get(i) + LENGTH;
    }
    return keyed(seconds, times, 1e-3, new Random(seed));
  }

  private static List<Double> after(double first, double... intervals) {
    List<Double> out = new ArrayList<>(List.of(first));
    for (double i : intervals) {
      out.add(out.get(out.size() - 1) + i);
    }
    return out;
  }

  private static ResultTable table(Outcome o) {
    return o.table("triggers").orElseThrow();
  }

  @Test
  public void aPeriodIsWaitedFor() {
    List<Double> begins = after(5e-3, 3.1e-3, 2.8e-3, 3.13e-3, 9e-3, 3.1e-3);
    Outcome o = waits(false, 20e-6, 3.1e-3).of(pulses(0.05, begins, 1));
    assertEquals(column(o, 1), new double[] {begins.get(5), begins.get(1)}, 2e-6);
    assertEquals(column(o, 3), new double[] {3.1e-3, 3.1e-3}, 2e-6);
    assertEquals(reading(o, "otherInterval"), 3.0, "the first has none before it");
    assertEquals(table(o).columns().get(3).label(), "After the one before");
    assertTrue(
        o.summary()
            .startsWith(
                "2 triggers in 50 ms: the power rises over -26.0 dBFS, 3.1 ms after the one before,"
                    + " within 20 µs."),
        o.summary());
  }

  @Test
  public void aBrokenPeriodIsToldSoonLateAndWhenNothingComes() {
    List<Double> begins = after(5e-3, 3.1e-3, 2.8e-3, 3.1e-3, 4.5e-3, 3.1e-3, 3.1e-3);
    Outcome o = waits(true, 50e-6, 3.1e-3).of(pulses(0.05, begins, 2));
    // 2.8 ms came too soon; after 3.1 ms and a little more nothing had come, and nothing in the end
    double[] at = column(o, 1);
    assertEquals(at.length, 3);
    assertEquals(at[2], begins.get(2), 2e-6);
    assertEquals(at[1], begins.get(3) + 3.15e-3, 3e-6);
    assertEquals(at[0], begins.get(6) + 3.15e-3, 3e-6);
    assertEquals(table(o).rows().get(0).cells().get(3).text(), "none came");
    assertEquals(table(o).rows().get(2).cells().get(3).value(), 2.8e-3, 2e-6);

    Outcome steady =
        waits(true, 50e-6, 3.1e-3).of(pulses(0.02, after(5e-3, 3.1e-3, 3.12e-3, 3.1e-3, 3e-3), 3));
    assertEquals(reading(steady, "triggers"), 1.0, "3 ms is off by more than 50 us");
    Outcome kept =
        waits(true, 200e-6, 3.1e-3).of(pulses(0.02, after(5e-3, 3.1e-3, 3.12e-3, 3.1e-3, 3e-3), 3));
    assertEquals(reading(kept, "triggers"), 0.0);
    assertTrue(
        kept.summary().contains("5 times the power rises over")
            && kept.summary().contains("The farthest from it was 3 ms."),
        kept.summary());
  }

  /** One that never ends is none that comes again. */
  @Test
  public void oneThatStaysIsMissedToo() {
    double[] times = {5e-3, 5.1e-3, 8.1e-3, 8.2e-3, 11.2e-3, 30e-3};
    Outcome o = waits(true, 50e-6, 3.1e-3).of(keyed(0.025, times, 1e-3, new Random(4)));
    assertEquals(column(o, 1), new double[] {11.2e-3 + 3.15e-3}, 3e-6);
  }

  @Test
  public void severalInTheirOrder() {
    List<Double> begins =
        after(2e-3, 1e-3, 2e-3, 4e-3, 1e-3, 1e-3, 2e-3, 4e-3, 2e-3, 1e-3, 2e-3, 4.2e-3);
    Outcome o = waits(false, 30e-6, 1e-3, 2e-3, 4e-3).of(pulses(0.05, begins, 5));
    assertEquals(column(o, 1), new double[] {begins.get(7), begins.get(3)}, 2e-6);
    assertTrue(
        o.summary().contains(", with 1 ms, 2 ms, 4 ms from one to the next, within 30 µs"),
        o.summary());
    // Shorter ones do not belong to it: what is too short is no pulse.
    Wanted longer = waits(false, 30e-6, 1e-3);
    longer.least = 100e-6;
    Outcome none = longer.of(pulses(0.05, begins, 5));
    assertEquals(reading(none, "triggers"), 0.0);
    assertEquals(reading(none, "otherLength"), 12.0);
  }

  /** Random trains in random pieces: what counts is what a plain look at the list of times says. */
  @Test
  public void patternsAreThoseOfTheList() {
    for (int seed = 0; seed < 60; seed++) {
      Random random = new Random(seed);
      double[] choices = {0.5e-3, 0.8e-3, 1.1e-3};
      List<Double> begins = new ArrayList<>(List.of(2e-3));
      while (begins.get(begins.size() - 1) < 0.09) {
        double off = 30e-6 * (2 * random.nextDouble() - 1);
        begins.add(begins.get(begins.size() - 1) + choices[random.nextInt(3)] + off);
      }
      int n = 1 + random.nextInt(3);
      Double[] wanted = new Double[n];
      for (int i = 0; i < n; i++) {
        wanted[i] = choices[random.nextInt(3)];
      }
      double within = 20e-6;
      List<Double> expected = new ArrayList<>();
      boolean onEdge = false;
      for (int k = n; k < begins.size(); k++) {
        boolean all = true;
        for (int i = 0; i < n; i++) {
          double off = begins.get(k - n + i + 1) - begins.get(k - n + i) - wanted[i];
          all &= Math.abs(off) <= within;
          onEdge |= Math.abs(Math.abs(off) - within) < 2e-6;
        }
        if (all) {
          expected.add(begins.get(k));
        }
      }
      if (onEdge) {
        continue; // where a sample decides
      }
      float[] iq = pulses(0.1, begins, seed);
      double[] found = column(waits(false, within, wanted).inPieces(iq, random), 1);
      assertEquals(found.length, expected.size(), "seed " + seed);
      for (int i = 0; i < found.length; i++) {
        assertEquals(found[i], expected.get(expected.size() - 1 - i), 2e-6);
      }
    }
  }

  /** What was before a gap is not known to be the one before. */
  @Test
  public void noIntervalGoesOverAGap() {
    float[] iq = pulses(0.05, after(5e-3, 3.1e-3, 3.1e-3, 3.1e-3, 3.1e-3), 6);
    for (boolean broken : new boolean[] {false, true}) {
      RecordMeasurement.Gathering g = waits(broken, 50e-6, 3.1e-3).measurement().gathering();
      g.take(piece(iq, 0, 9_000), MeasurementContext.BARE);
      Outcome o = g.add(piece(iq, 13_000, 20_000), MeasurementContext.BARE);
      // The third one is lost, those beside it are none that fit, and none that is missed.
      assertEquals(reading(o, "triggers"), broken ? 0.0 : 2.0, broken + " " + o.summary());
    }
  }

  private static IqRecord with(IqRecord r, double... pulses) {
    return new IqRecord(r.iq(), RATE, r.centreHz(), Double.NaN, false, r.startSeconds(), pulses);
  }

  @Test
  public void theTriggerInputCounts() {
    float[] iq = pulses(0.05, after(5e-3, 3.1e-3), 7);
    Wanted w = new Wanted();
    w.by = TriggerSettings.By.EXTERNAL;
    w.holdOff = 2e-3;
    RecordMeasurement.Gathering g = w.measurement().gathering();
    g.take(with(piece(iq, 0, 20_000), 4.9997e-3, 5.3e-3, 8.0997e-3), MeasurementContext.BARE);
    Outcome o = g.more(with(piece(iq, 20_000, 50_000), 48.5e-3), MeasurementContext.BARE);
    assertEquals(column(o, 1), new double[] {48.5e-3, 8.0997e-3, 4.9997e-3}, 1e-12);
    assertEquals(reading(o, "heldBack"), 1.0);
    assertTrue(o.summary().startsWith("3 triggers in 50 ms: an edge at the trigger input."));
    // The last one is not complete: it is kept when what comes after it is there.
    assertEquals(g.toKeep().size(), 2);
    // The burst comes 0.3 us after its edge, on the curve too.
    var around = o.series("trigger").orElseThrow();
    assertTrue(around.valueAt(-20e-6) < -40 && around.valueAt(30e-6) > -21);

    Wanted period = waits(true, 50e-6, 3.1e-3);
    period.by = TriggerSettings.By.EXTERNAL;
    Outcome missed =
        period
            .measurement()
            .of(with(piece(iq, 0, 20_000), 4.9997e-3, 8.0997e-3), MeasurementContext.BARE);
    assertEquals(column(missed, 1), new double[] {8.0997e-3 + 3.15e-3}, 1e-9);

    // The same where the next one comes later, in the same samples.
    Outcome late =
        period
            .measurement()
            .of(with(piece(iq, 0, 20_000), 2e-3, 5.1e-3, 9.1e-3, 12.2e-3), MeasurementContext.BARE);
    assertEquals(column(late, 1), new double[] {15.35e-3, 8.25e-3}, 1e-9);

    Outcome quiet = w.measurement().of(with(piece(iq, 0, 20_000)), MeasurementContext.BARE);
    assertTrue(quiet.summary().contains("the trigger input never rose"), quiet.summary());
    Refusal refusal = expectThrows(Refusal.class, () -> w.of(iq));
    assertEquals(refusal.field(), "triggerBy");
  }

  @Test
  public void nonsenseIsRefused() {
    assertEquals(refused(false, 1e-3, 1e-3).field(), "intervalsWithinSeconds");
    assertEquals(refused(false, 0, 1e-3).field(), "intervalsWithinSeconds");
    assertEquals(refused(true, 1e-6, 1e-3, 2e-3).field(), "intervals");
    assertEquals(refused(true, 1e-6).field(), "intervals");
    assertEquals(refused(false, 1e-6, -1.0).field(), "intervals");
    assertEquals(refused(false, 1e-6, Double.NaN).field(), "intervals");
  }

  private static Refusal refused(boolean broken, double within, Double... seconds) {
    return expectThrows(Refusal.class, () -> waits(broken, within, seconds));
  }
}
