package rovnik.core.time;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;

/** Hoppers whose channels, stays and levels were put in. */
public class HopMeasurementTest {
  private static final double RATE = 4e6;
  private static final double CENTRE = 2.441e9;
  private static final double APART = 90e3;
  private static final double FIRST = CENTRE - 19.5 * APART;

  /** One that hops over some channels, in an order that chance gives. */
  private static final class Hopper {
    double dwell = 2e-3;
    double interval = 2.1e-3;
    double first = 0.7e-3;
    double amplitude = 0.05;
    int[] channels = {};
    boolean inOrder;
    double offHz;

    void add(float[] iq, double startSeconds, Random random) {
      int n = iq.length / 2;
      int last = Integer.MIN_VALUE;
      int channel = 0;
      double phase = 0;
      for (int i = 0; i < n; i++) {
        double t = startSeconds + i / RATE - first;
        int k = (int) Math.floor(t / interval);
        if (k != last) {
          last = k;
          channel =
              channels[
                  inOrder
                      ? Math.floorMod(7 * k, channels.length)
                      : random.nextInt(channels.length)];
        }
        double hz = FIRST - CENTRE + (channel - 1) * APART + offHz;
        phase += 2 * Math.PI * hz / RATE;
        if (t - k * interval < dwell) {
          iq[2 * i] += (float) (amplitude * Math.cos(phase));
          iq[2 * i + 1] += (float) (amplitude * Math.sin(phase));
        }
      }
    }
  }

  private static int[] channels(int from, int to, int... without) {
    List<Integer> out = new ArrayList<>();
    for (int c = from; c <= to; c++) {
      out.add(c);
    }
    for (int w : without) {
      out.remove(Integer.valueOf(w));
    }
    return out.stream().mapToInt(Integer::intValue).toArray();
  }

  private static Hopper main() {
    Hopper h = new Hopper();
    h.channels = channels(1, 40, 11, 12, 13, 14);
    return h;
  }

  private static Hopper second() {
    Hopper h = new Hopper();
    h.dwell = 1.15e-3;
    h.interval = 1.25e-3;
    h.first = 0.2e-3;
    h.amplitude = 0.02;
    h.channels = channels(20, 35);
    return h;
  }

  private static IqRecord record(double seconds, long seed, Hopper... hoppers) {
    float[] iq = new float[2 * (int) Math.round(seconds * RATE)];
    Random random = new Random(seed);
    for (int i = 0; i < iq.length; i++) {
      iq[i] = (float) (3e-4 * random.nextGaussian());
    }
    for (Hopper h : hoppers) {
      h.add(iq, 0, random);
    }
    return new IqRecord(iq, RATE, CENTRE, Double.NaN, false);
  }

  private static HopSettings settings(double firstHz, int channels) {
    return new HopSettings(0, 0, APART, firstHz, channels, 10, 0, 0.3e-3, Double.NaN, Limit.NONE);
  }

  private static Outcome measure(HopSettings s, IqRecord r) {
    return new HopMeasurement(s).of(r, MeasurementContext.BARE);
  }

  private static Reading reading(Outcome o, String id) {
    return o.reading(id).orElseThrow(() -> new AssertionError(id + ": " + o.summary()));
  }

  private static void near(Outcome o, String id, double truth, double within) {
    assertEquals(reading(o, id).value(), truth, within, id + ": " + o.summary());
  }

  private static double cell(ResultTable t, int row, int column) {
    return t.rows().get(row).cells().get(column).value();
  }

  /** 36 of 40 channels in a random order: stays, interval, channels, and those that are avoided. */
  @Test
  public void oneHopperAndWhatItAvoids() {
    Outcome o = measure(settings(0, 0), record(1.5, 1, main()));
    near(o, "hoppers", 1, 0);
    near(o, "dwellA", 2e-3, 4e-6);
    near(o, "intervalA", 2.1e-3, 2e-8);
    near(o, "blankA", 0.1e-3, 5e-6);
    near(o, "channelsA", 36, 0);
    near(o, "free", 4, 0);
    near(o, "levelA", 20 * Math.log10(0.05), reading(o, "levelA").uncertainty());
    assertTrue(reading(o, "levelA").uncertainty() < 0.2);
    assertTrue(o.summary().contains("Not used: 11 to 14."), o.summary());
    ResultTable channels = o.table("channels").orElseThrow();
    assertEquals(channels.rows().size(), 40);
    assertEquals(cell(channels, 0, 1), FIRST, 1e3);
    assertEquals(cell(channels, 39, 1), FIRST + 39 * APART, 1e3);
    assertEquals(cell(channels, 10, 2), 0.0);
    // It is somewhere for 2 of 2.1 ms; of one look all of them are the newest.
    double all = 0;
    for (int c = 0; c < 40; c++) {
      all += cell(channels, c, 5);
      assertEquals(cell(channels, c, 6), cell(channels, c, 5), 1e-9);
    }
    assertEquals(all, 100 * 2 / 2.1, 0.3);
    assertEquals(cell(channels, 10, 5), 0.0);
    assertTrue(Math.abs(reading(o, "dwellA").value() - 2e-3) <= reading(o, "dwellA").uncertainty());
  }

  /** Two at once, one weaker by 8 dB and quicker, on channels that both use. */
  @Test
  public void twoHoppersAreToldApart() {
    Outcome o = measure(settings(FIRST, 40), record(1.5, 2, main(), second()));
    near(o, "hoppers", 2, 0);
    // The quicker one has more hops.
    near(o, "dwellA", 1.15e-3, 4e-6);
    near(o, "intervalA", 1.25e-3, 3e-8);
    near(o, "channelsA", 16, 0);
    near(o, "levelA", 20 * Math.log10(0.02), 0.3);
    near(o, "dwellB", 2e-3, 5e-6);
    near(o, "intervalB", 2.1e-3, 5e-8);
    near(o, "channelsB", 36, 0);
    assertTrue(o.summary().contains("Not used: 11 to 14."), o.summary());
    ResultTable channels = o.table("channels").orElseThrow();
    assertEquals(cell(channels, 0, 4), 0.0, "A on channel 1");
    assertTrue(cell(channels, 24, 4) > 20, "A on channel 25");
  }

  /** Of few hops it is not said that a channel is not used. */
  @Test
  public void nothingIsSaidOfWhatCouldBeChance() {
    Outcome o = measure(settings(FIRST, 40), record(0.08, 3, main()));
    near(o, "dwellA", 2e-3, 1e-5);
    assertTrue(o.summary().contains("Not seen yet: "), o.summary());
  }

  /** Records with time between them gather; where they are one recording, no hop is cut. */
  @Test
  public void looksGather() {
    RecordMeasurement.Gathering apart = new HopMeasurement(settings(FIRST, 40)).gathering();
    Outcome o = null;
    for (int k = 0; k < 12; k++) {
      Hopper h = main();
      h.first = -0.37e-3 * k;
      o = apart.add(record(0.1, 40 + k, h), MeasurementContext.BARE);
    }
    near(o, "channelsA", 36, 0);
    near(o, "intervalA", 2.1e-3, 1e-7);
    assertEquals(o.series("look").orElseThrow().fact("looked at"), 1.2, 1e-9);
    near(o, "blankA", 0.1e-3, 1e-5);
    assertTrue(o.summary().contains("Not used: 11 to 14."), o.summary());

    Hopper h = main();
    h.inOrder = true;
    IqRecord whole = record(0.4, 5, h);
    Outcome once = measure(settings(FIRST, 40), whole);
    RecordMeasurement.Gathering one = new HopMeasurement(settings(FIRST, 40)).gathering();
    Outcome parts = null;
    for (int k = 0; k < 4; k++) {
      float[] iq = new float[whole.iq().length / 4];
      System.arraycopy(whole.iq(), k * iq.length, iq, 0, iq.length);
      parts =
          one.add(
              new IqRecord(iq, RATE, CENTRE, Double.NaN, false, 0.1 * k), MeasurementContext.BARE);
    }
    near(parts, "hops", reading(once, "hops").value(), 0);
    near(parts, "dwellA", 2e-3, 1e-5);
    near(parts, "intervalA", 2.1e-3, 1e-7);
    assertTrue(once.summary().contains("order that repeats after 36"), once.summary());
    assertTrue(parts.summary().contains("order that repeats after 36"), parts.summary());
  }

  /** Wherever a recording is cut for its stretches, a stay is as long as it is. */
  @Test
  public void noStayIsLostWhereStretchesMeet() {
    IqRecord whole = record(0.3, 21, main());
    RecordMeasurement.Gathering one = new HopMeasurement(settings(FIRST, 40)).gathering();
    Outcome o = null;
    // 8.3 ms: they meet at all places of a hop.
    int samples = (int) Math.round(8.3e-3 * RATE);
    for (int from = 0; from + samples <= whole.sampleCount(); from += samples) {
      float[] iq = new float[2 * samples];
      System.arraycopy(whole.iq(), 2 * from, iq, 0, iq.length);
      o =
          one.add(
              new IqRecord(iq, RATE, CENTRE, Double.NaN, false, from / RATE),
              MeasurementContext.BARE);
    }
    ResultTable hops = o.table("hops").orElseThrow();
    assertTrue(hops.rows().size() > 135, hops.rows().size() + " hops");
    int own = 0;
    for (int k = 0; k < hops.rows().size(); k++) {
      // Two on one channel after each other are one; one that changes where they meet is cut off.
      if (hops.rows().get(k).cells().get(5).text().equals("A")) {
        own++;
        double number = (cell(hops, k, 1) - 0.7e-3) / 2.1e-3;
        assertEquals(number, Math.rint(number), 0.005, "hop " + k);
        assertEquals(cell(hops, k, 2), 2e-3, 20e-6, "hop " + k);
      }
    }
    assertTrue(own > 125, own + " of A");
  }

  /** However looks of two and a half hops lie, there is an interval. */
  @Test
  public void everyPhaseOfShortLooksHasAnInterval() {
    for (int phase = 0; phase < 21; phase++) {
      RecordMeasurement.Gathering apart = new HopMeasurement(settings(FIRST, 40)).gathering();
      Outcome o = null;
      for (int k = 0; k < 6; k++) {
        Hopper h = main();
        h.first = -1e-4 * phase;
        o = apart.add(record(5.25e-3, 80 + k, h, second()), MeasurementContext.BARE);
      }
      Outcome all = o;
      String main =
          all.reading("dwellA").orElseThrow().value() > 1.6e-3 ? "intervalA" : "intervalB";
      near(all, main, 2.1e-3, 1.5 * reading(all, main).uncertainty());
      assertTrue(reading(all, main).uncertainty() < 5e-5, "phase " + phase);
    }
  }

  /** A stay that ends just before the look does is whole: looks of two hops have an interval. */
  @Test
  public void staysNearTheEdgesOfALookAreWhole() {
    RecordMeasurement.Gathering apart = new HopMeasurement(settings(FIRST, 40)).gathering();
    Outcome o = null;
    for (int k = 0; k < 6; k++) {
      Hopper h = main();
      h.first = 0.12e-3;
      o = apart.add(record(4.42e-3, 60 + k, h), MeasurementContext.BARE);
    }
    near(o, "dwellA", 2e-3, 5e-6);
    near(o, "intervalA", 2.1e-3, reading(o, "intervalA").uncertainty());
    assertTrue(reading(o, "intervalA").uncertainty() < 2e-5);
  }

  /** A carrier that stays is no hop, nor is noise; a look without any says so. */
  @Test
  public void whatStaysAndNoiseAreNoHops() {
    Outcome nothing = measure(settings(0, 0), record(0.2, 6));
    near(nothing, "hops", 0, 0);
    assertTrue(nothing.summary().startsWith("No hop"), nothing.summary());
    Hopper carrier = new Hopper();
    carrier.channels = new int[] {7};
    carrier.dwell = 10;
    carrier.interval = 10;
    carrier.first = -1;
    Outcome o = measure(settings(FIRST, 40), record(0.5, 7, carrier, main()));
    near(o, "hoppers", 1, 0);
    near(o, "dwellA", 2e-3, 1e-5);
  }

  /** Looks of two hops each, and one stranger that is as long and begins in between. */
  @Test
  public void aStrangerAsLongDoesNotSpoilTheInterval() {
    List<Hop> hops = new ArrayList<>();
    for (int look = 1; look <= 4; look++) {
      double first = 0.3e-3 * look;
      hops.add(new Hop(look, first, first + 2e-3, 0, 1, true, true));
      if (look == 2) {
        hops.add(new Hop(look, first + 0.25e-3, first + 2.25e-3, 1e6, 1, true, true));
      }
      hops.add(new Hop(look, first + 2.1e-3, first + 4.1e-3, 0, 1, true, true));
    }
    assertEquals(HopInterval.of(hops, 1e-6).seconds(), 2.1e-3, 1e-6);
    assertTrue(Double.isNaN(HopInterval.of(hops.subList(0, 2), 1e-6).seconds()));
  }

  @Test
  public void staysAreJudged() {
    HopSettings s =
        new HopSettings(
            0, 0, APART, 0, 0, 10, 0, 0.3e-3, Double.NaN, new Limit(Double.NaN, 1.9e-3));
    assertEquals(reading(measure(s, record(0.3, 8, main())), "dwellA").verdict(), Verdict.FAIL);
  }

  /** Seeded trials: the truth lies inside, and what is claimed is not needlessly wide. */
  @Test
  public void truthLiesInsideAsOftenAsClaimed() {
    int trials = 60;
    int dwell = 0;
    int interval = 0;
    double widest = 0;
    Random random = new Random(9);
    for (int k = 0; k < trials; k++) {
      Hopper h = main();
      h.dwell = 1e-3 + 1.5e-3 * random.nextDouble();
      h.interval = h.dwell * (1.05 + 0.3 * random.nextDouble());
      h.first = h.interval * random.nextDouble();
      h.offHz = 4e3 * random.nextDouble();
      Outcome o = measure(settings(FIRST, 40), record(0.1, 100 + k, h));
      Reading d = reading(o, "dwellA");
      Reading i = reading(o, "intervalA");
      dwell += Math.abs(d.value() - h.dwell) <= d.uncertainty() ? 1 : 0;
      interval += Math.abs(i.value() - h.interval) <= i.uncertainty() ? 1 : 0;
      widest = Math.max(widest, d.uncertainty());
    }
    assertTrue(dwell >= 0.93 * trials, dwell + " stays inside");
    assertTrue(interval >= 0.93 * trials, interval + " intervals inside");
    assertTrue(widest < 40e-6, "as wide as " + widest);
  }

  @Test
  public void whatCannotBeIsRefusedWithTheField() {
    IqRecord r = record(0.05, 10, main());
    refused("channelHz", () -> new HopSettings(0, 0, 1, 0, 0, 1, 0, 1e-3, Double.NaN, Limit.NONE));
    refused("channels", () -> settings(0, -1));
    refused("leastSeconds", () -> measure(least(1e-6), r));
    refused("leastSeconds", () -> least(3));
    refused("overNoiseDb", () -> new HopSettings(0, 0, APART, 0, 0, 1, 0, 1e-3, 0, Limit.NONE));
    refused("spanHz", () -> new HopSettings(0, 5, APART, 0, 0, 1, 0, 1e-3, 10, Limit.NONE));
    refused(
        "startSeconds",
        () -> measure(new HopSettings(0, 0, 900, 0, 0, 1, 0, 0.1, 10, Limit.NONE), r));
  }

  private static HopSettings least(double seconds) {
    return new HopSettings(0, 0, APART, 0, 0, 10, 0, seconds, Double.NaN, Limit.NONE);
  }

  private static void refused(String field, Runnable what) {
    Refusal r = expectThrows(Refusal.class, what::run);
    assertEquals(r.field(), field, r.getMessage());
  }
}
