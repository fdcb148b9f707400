package rovnik.core.nets;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.TracesBeside;
import rovnik.core.signal.VoltageRecord;
import rovnik.core.spectrum.MeasurementContext;

/** Bursts and nets made from their instants, with clocks that run apart by as much as is said. */
public class NetMeasurementTest {
  private static final double SECONDS = 0.062;
  private static final double EVERY = 3.1e-3;
  private static final double LENGTH = 14e-6;
  private static final double FIRST = 0.00037;
  private static final double IQ_RATE = 16e6;
  private static final double SCOPE_RATE = 20e6;

  /** Where the oscilloscope really begins after the trigger, and what is known of it. */
  private static final double DELAY = 183e-9;

  private static final double KNOWN_DELAY = 180e-9;
  private static final double KNOWN_WITHIN = 10e-9;
  private static final double[] NOISE =
      new Random(99).doubles(1 << 16).map(u -> Math.sqrt(12) * (u - 0.5)).toArray();

  /** Bursts begin here. */
  private static double[] bursts(double first, double every) {
    return IntStream.range(0, (int) Math.ceil((SECONDS - first) / every))
        .mapToDouble(k -> first + k * every)
        .toArray();
  }

  private static IqRecord record(double[] bursts, Random random) {
    int n = (int) (SECONDS * IQ_RATE);
    float[] iq = new float[2 * n];
    for (int i = 0; i < 2 * n; i++) {
      iq[i] = (float) (1e-4 * random.nextGaussian());
    }
    double edge = 0.3e-6;
    for (double b : bursts) {
      for (int i = (int) ((b - edge) * IQ_RATE); i < (b + LENGTH + edge) * IQ_RATE && i < n; i++) {
        double t = i / IQ_RATE - b;
        double v = Math.max(0, Math.min(1, Math.min(t / edge, (LENGTH - t) / edge) + 0.5));
        iq[2 * i] += (float) (0.1 * v * Math.cos(0.05 * i));
        iq[2 * i + 1] += (float) (0.1 * v * Math.sin(0.05 * i));
      }
    }
    return new IqRecord(iq, IQ_RATE, 212e6, Double.NaN, false);
  }

  /** A net that is high for a while from each instant on. */
  private static VoltageRecord net(
      double[] from, double high, double rateHz, double fastRelative, Random random) {
    int n = (int) (SECONDS * rateHz);
    float[] v = new float[n];
    int k = 0;
    int shift = random.nextInt(NOISE.length);
    for (int i = 0; i < n; i++) {
      double t = DELAY + i / rateHz / (1 + fastRelative);
      while (k + 1 < from.length && t >= from[k + 1]) {
        k++;
      }
      boolean on = from.length > 0 && t >= from[k] && t < from[k] + high;
      v[i] = (float) ((on ? 3.3 : 0.1) + 0.03 * NOISE[(i + shift) % NOISE.length]);
    }
    return new VoltageRecord(v, rateHz, KNOWN_DELAY);
  }

  private static double[] shifted(double[] x, double by) {
    return Arrays.stream(x).map(v -> v + by).toArray();
  }

  private static NetSettings settings(String... nets) {
    return new NetSettings(212e6, 2e6, SECONDS, List.of(nets), 2e-6, 1e-6, 20e-6, 0, 1);
  }

  private static TracesBeside beside(VoltageRecord... nets) {
    return new TracesBeside(List.of(nets), KNOWN_WITHIN, 25e-6);
  }

  private static Outcome measured(NetSettings s, IqRecord record, VoltageRecord... nets) {
    RecordMeasurement.Gathering g = new NetMeasurement(s).gathering();
    g.beside(beside(nets));
    return g.add(record, MeasurementContext.BARE);
  }

  private static Reading reading(Outcome o, String id) {
    return o.reading(id).orElseThrow(() -> new AssertionError(id + ": " + o.summary()));
  }

  private static String is(Outcome o, String net) {
    return o.table("ranking").orElseThrow().rows().stream()
        .filter(r -> r.cells().get(0).text().equals(net))
        .map(r -> r.cells().get(1).text())
        .findFirst()
        .orElseThrow();
  }

  @Test
  public void aStrobeJustBeforeTheBurstsIsCoincidentAndASleepLineComesLate() {
    Random random = new Random(1);
    double[] at = bursts(FIRST, EVERY);
    Outcome o =
        measured(
            settings("strobe", "sleep"),
            record(shifted(at, 0.3e-6), random),
            net(at, 2e-6, SCOPE_RATE, 0, random),
            net(shifted(at, 40e-6), 1e-3, SCOPE_RATE, 0, random));
    assertEquals(is(o, "strobe"), Relation.COINCIDENT.words(), o.summary());
    assertEquals(is(o, "sleep"), "in step, but late", o.summary());
    Reading lag = reading(o, "lag1");
    assertEquals(lag.value(), 0.3e-6, lag.uncertainty());
    assertEquals(lag.value(), 0.3e-6, 20e-9);
    assertEquals(reading(o, "lag2").value(), -39.7e-6, 30e-9);
    assertEquals(reading(o, "score1").value(), 1, 1e-9);
    assertEquals(o.table("ranking").orElseThrow().rows().get(0).cells().get(0).text(), "strobe");
    assertTrue(o.summary().contains("after its rising edge, 20 of 20 times"), o.summary());
    assertTrue(o.summary().contains("before its rising edge"), o.summary());
  }

  @Test
  public void clocksAndWatchdogsAreNotRelated() {
    Random random = new Random(2);
    double[] at = bursts(FIRST, EVERY);
    double[] clock = bursts(0.00007, 1e-3);
    double[] watchdog = random.doubles(20, 0, SECONDS).sorted().toArray();
    Outcome o =
        measured(
            settings("clock enable", "watchdog"),
            record(at, random),
            net(clock, 2e-6, SCOPE_RATE, 0, random),
            net(watchdog, 2e-6, SCOPE_RATE, 0, random));
    assertEquals(is(o, "clock enable"), Relation.UNRELATED.words(), o.summary());
    assertEquals(is(o, "watchdog"), Relation.UNRELATED.words(), o.summary());
    assertTrue(o.reading("lag1").isEmpty());
  }

  @Test
  public void aNetThatIsLowInRestIsReadByItsFallingEdge() {
    Random random = new Random(3);
    double[] at = bursts(FIRST, EVERY);
    VoltageRecord high = net(at, 5e-6, SCOPE_RATE, 0, random);
    float[] v = high.volts();
    for (int i = 0; i < v.length; i++) {
      v[i] = 3.4f - v[i];
    }
    Outcome o = measured(settings("select"), record(shifted(at, 0.5e-6), random), high);
    assertEquals(reading(o, "lag1").value(), 0.5e-6, 20e-9);
    assertTrue(o.summary().contains("after its falling edge"), o.summary());
  }

  @Test
  public void aBusThatTransfersIsOneActivity() {
    Random random = new Random(4);
    double[] at = bursts(FIRST, EVERY);
    double[] edges =
        Arrays.stream(at)
            .flatMap(t -> IntStream.range(0, 64).mapToDouble(k -> t + k * 4e-6))
            .toArray();
    Outcome start =
        measured(
            settings("bus clock"),
            record(shifted(at, 0.4e-6), random),
            net(edges, 2e-6, SCOPE_RATE, 0, random));
    assertEquals(reading(start, "lag1").value(), 0.4e-6, 20e-9);
    // What begins when the transfer ends: the last falling edge.
    double last = 63 * 4e-6 + 2e-6;
    Outcome end =
        measured(
            settings("bus clock"),
            record(shifted(at, last + 0.7e-6), random),
            net(edges, 2e-6, SCOPE_RATE, 0, random));
    assertEquals(reading(end, "lag1").value(), 0.7e-6, 20e-9);
    assertTrue(end.summary().contains("the end of its activity"), end.summary());
  }

  @DataProvider
  Object[][] drifts() {
    return new Object[][] {{3e-6}, {-20e-6}, {24e-6}};
  }

  @Test(dataProvider = "drifts")
  public void clocksThatRunApartAreSeenAndTheLagIsThatAtTheTrigger(double fast) {
    Random random = new Random(5);
    double[] at = bursts(FIRST, EVERY);
    Outcome o =
        measured(
            settings("strobe"),
            record(shifted(at, 0.3e-6), random),
            net(at, 2e-6, SCOPE_RATE, fast, random));
    Reading drift = reading(o, "drift1");
    // A fast oscilloscope says edges come later than they do: lags shrink.
    assertEquals(drift.value(), -fast * 1e6, 1.2 * drift.uncertainty());
    assertEquals(reading(o, "lag1").value(), 0.3e-6, 20e-9);
    assertTrue(o.summary().contains("run apart by"), o.summary());
  }

  @Test
  public void whatIsNotConnectedHasNoEdgesAndAClockNeverRests() {
    Random random = new Random(6);
    double[] at = bursts(FIRST, EVERY);
    VoltageRecord open = net(new double[0], 0, SCOPE_RATE, 0, random);
    VoltageRecord clock = net(bursts(1e-6, 10e-6), 5e-6, SCOPE_RATE, 0, random);
    Outcome o = measured(settings("open", "clock"), record(at, random), open, clock);
    assertEquals(is(o, "open"), Relation.NO_EDGES.words());
    assertTrue(o.summary().contains("open stands still at 0.100 V"), o.summary());
    assertEquals(is(o, "clock"), Relation.UNRELATED.words());
    assertTrue(o.summary().contains("never rests"), o.summary());
  }

  @Test
  public void fewBurstsTellNothing() {
    Random random = new Random(7);
    double[] two = {0.01, 0.04};
    Outcome o =
        measured(settings("strobe"), record(two, random), net(two, 2e-6, SCOPE_RATE, 0, random));
    assertEquals(is(o, "strobe"), Relation.OPEN.words(), o.summary());
    Outcome none =
        measured(
            settings("strobe"),
            record(new double[0], random),
            net(two, 2e-6, SCOPE_RATE, 0, random));
    assertTrue(none.summary().contains("No burst"), none.summary());
    assertEquals(is(none, "strobe"), Relation.OPEN.words());
  }

  @Test
  public void netsAreRankedOneAfterTheOther() {
    Random random = new Random(8);
    double[] at = bursts(FIRST, EVERY);
    IqRecord record = record(shifted(at, 0.3e-6), random);
    RecordMeasurement.Gathering first = new NetMeasurement(settings("strobe")).gathering();
    first.beside(beside(net(at, 2e-6, SCOPE_RATE, 0, random)));
    first.add(record, MeasurementContext.BARE);
    RecordMeasurement.Gathering next = new NetMeasurement(settings("clock")).gathering(first);
    next.beside(beside(net(bursts(0, 1e-3), 2e-6, SCOPE_RATE, 0, random)));
    Outcome o = next.add(record, MeasurementContext.BARE);
    assertEquals(is(o, "strobe"), Relation.COINCIDENT.words());
    assertEquals(is(o, "clock"), Relation.UNRELATED.words());
    assertTrue(o.summary().contains("First of the ranking is strobe, coincident."), o.summary());
    // Elsewhere in the spectrum it is another question.
    NetSettings other =
        new NetSettings(213e6, 2e6, SECONDS, List.of("clock"), 2e-6, 1e-6, 20e-6, 0, 1);
    RecordMeasurement.Gathering anew = new NetMeasurement(other).gathering(next);
    anew.beside(beside(net(at, 2e-6, SCOPE_RATE, 0, random)));
    Outcome alone =
        anew.add(
            new IqRecord(record.iq(), IQ_RATE, 213e6, Double.NaN, false), MeasurementContext.BARE);
    assertEquals(alone.table("ranking").orElseThrow().rows().size(), 1);
  }

  @Test
  public void withoutATriggerThereIsNothingToCompare() {
    NetMeasurement m = new NetMeasurement(settings("strobe"));
    IqRecord record = record(bursts(FIRST, EVERY), new Random(9));
    Refusal r = expectThrows(Refusal.class, () -> m.of(record, MeasurementContext.BARE));
    assertTrue(r.getMessage().contains("got no trigger"), r.getMessage());
  }

  @Test
  public void settingsThatCannotBeAreRefused() {
    expectThrows(Refusal.class, () -> settings("", " "));
    expectThrows(Refusal.class, () -> settings("a", "a"));
    expectThrows(
        Refusal.class,
        () -> new NetSettings(212e6, 2e6, SECONDS, List.of("a"), 1e-7, 1e-6, 20e-6, 0, 1));
    expectThrows(
        Refusal.class,
        () -> new NetSettings(0, 2e6, SECONDS, List.of("a"), 2e-6, 1e-6, 20e-6, 0, 1));
  }

  // What is said of many nets

  private static NetLook look(double[] bursts, double[] edges, double high, Random random) {
    double rate = 2e6;
    double[] sorted = edges.clone();
    Arrays.sort(sorted);
    return new NetLook(
        0,
        SECONDS,
        bursts,
        3e-9,
        0.5 / rate,
        new Activity(net(sorted, high, rate, 0, random), 20e-6));
  }

  private static NetScore score(List<NetLook> looks) {
    return NetScore.of(looks, 20e-6, 1e-6, 2e-6, 25e-6);
  }

  /** Other intervals, no interval, the same interval but late, and several of them at once. */
  private static double[] wrong(int k, double[] bursts, double high, Random random) {
    return switch (k % 5) {
      case 0 -> bursts(random.nextDouble() * 1e-3, 0.2e-3 + 8e-3 * random.nextDouble());
      case 1 -> random.doubles(1 + random.nextInt(200), 0, SECONDS).toArray();
      case 2 -> {
        double late = 4e-6 + 1e-3 * random.nextDouble();
        yield shifted(bursts, random.nextBoolean() ? late : -high - late);
      }
      case 3 -> bursts(random.nextDouble() * 1e-3, EVERY * (1 + 1e-3 * (1 + random.nextDouble())));
      default -> bursts(random.nextDouble() * 1e-3, EVERY / (2 + random.nextInt(30)));
    };
  }

  @Test
  public void aThousandWrongNetsAreNeverCoincident() {
    Random random = new Random(10);
    int late = 0;
    for (int k = 0; k < 1000; k++) {
      double[] at = bursts(1e-4 + 1e-3 * random.nextDouble(), EVERY);
      double high = Math.pow(10, -5.7 + 2 * random.nextDouble());
      NetScore s = score(List.of(look(at, wrong(k, at, high, random), high, random)));
      assertTrue(s.relation() != Relation.COINCIDENT, k + ": " + s);
      late += s.relation() == Relation.IN_STEP ? 1 : 0;
    }
    assertTrue(late > 150, "in step, late: " + late);
  }

  @Test
  public void theRightNetIsFoundAmongSeededTriesAndItsLagIsAsGoodAsIsSaid() {
    Random random = new Random(11);
    int inside = 0;
    double width = 0;
    double squares = 0;
    int tries = 400;
    for (int k = 0; k < tries; k++) {
      double lag = 1.5e-6 * random.nextDouble();
      double jitter = 30e-9;
      double[] edges = bursts(1e-4 + 1e-3 * random.nextDouble(), EVERY);
      List<Double> begins = new ArrayList<>();
      for (double e : edges) {
        if (random.nextInt(10) > 0) { // not each write is heard
          begins.add(e + lag + jitter * random.nextGaussian());
        }
      }
      double[] at = begins.stream().mapToDouble(Double::doubleValue).toArray();
      NetLook l = look(at, edges, 5e-6, random);
      NetScore s = score(List.of(l));
      assertEquals(s.relation(), Relation.COINCIDENT, k + ": " + s);
      RankedNet ranked = new RankedNet("right", 1, s, KNOWN_WITHIN, 25e-6, l);
      double u = ranked.lagBudget().expanded();
      double off = s.lag() - lag;
      inside += Math.abs(off) <= u ? 1 : 0;
      width += u / tries;
      squares += off * off / tries;
    }
    assertTrue(inside >= 0.94 * tries, inside + " of " + tries);
    assertTrue(width < 2.5 * Math.sqrt(squares), width + " s for errors of " + Math.sqrt(squares));
  }

  @Test
  public void aClockOfItsOwnOfTheSameIntervalIsToldByLookingAgain() {
    Random random = new Random(12);
    double[] at = bursts(FIRST, EVERY);
    List<NetLook> looks = new ArrayList<>();
    for (int k = 0; k < 4; k++) {
      looks.add(look(at, shifted(at, -1e-6 + 7e-6 * k), 5e-6, random));
    }
    assertEquals(score(looks.subList(0, 1)).relation(), Relation.COINCIDENT);
    assertEquals(score(looks).relation(), Relation.UNRELATED, score(looks).toString());
  }

  @Test
  public void statesAndEdgesAreThoseOfAPulse() {
    // IEEE Std 181: states by the histogram, instants where half of the way is passed. A ramp of
    // 10 samples from 0 to 2 V passes 1 V in its middle, whatever overshoot follows.
    float[] v = new float[4000];
    for (int i = 0; i < v.length; i++) {
      double ramp = Math.max(0, Math.min(1, (i - 1000) / 10.0));
      double fall = Math.max(0, Math.min(1, (3000 - i) / 10.0));
      v[i] = (float) (2 * Math.min(ramp, fall) + (i > 1010 && i < 1020 ? 0.6 : 0));
    }
    Activity a = new Activity(new VoltageRecord(v, 1e6, 0.5), 100e-6);
    assertEquals(a.lowVolts(), 0, 0.01);
    assertEquals(a.highVolts(), 2, 0.01);
    assertEquals(a.at(Activity.Event.RISING)[0], 0.5 + 1005e-6, 1e-9);
    assertEquals(a.at(Activity.Event.FALLING)[0], 0.5 + 2995e-6, 1e-9);
    assertEquals(a.edgeCount(), 2);
  }
}
