package rovnik.core.time;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.limits.Limit;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.units.Seconds;

/** Bursts made sample by sample from their edges; times, levels and rates are known. */
public class BurstMeasurementTest {
  private static final double RATE = 4e6;

  /** A train of bursts; an edge is a straight line of the voltage. */
  private static final class Train {
    double first = 0.00037;
    double interval = 3.1e-3;
    double length = 14e-6;
    double edge;
    double amplitude = 0.1;
    double offsetHz = 30e3;
    double droopDb;
    double noise = 1e-4;
    double jitter;
    int leaveOut = -1;
    double seconds = 0.05;

    IqRecord record(Random random) {
      int n = (int) (seconds * RATE);
      float[] iq = new float[2 * n];
      double late = 0;
      int last = -1;
      for (int i = 0; i < n; i++) {
        double t = i / RATE - first;
        int k = (int) Math.floor((t + interval / 2) / interval);
        if (k != last) {
          late = jitter * random.nextGaussian();
          last = k;
        }
        double at = t - k * interval - late;
        double up = edge > 0 ? at / edge + 0.5 : at >= 0 ? 1 : 0;
        double down = edge > 0 ? (length - at) / edge + 0.5 : at < length ? 1 : 0;
        double v = amplitude * Math.max(0, Math.min(1, Math.min(up, down)));
        v *= Math.pow(10, -droopDb / 20 * Math.max(0, Math.min(1, at / length)));
        v = k == leaveOut || k < 0 ? 0 : v;
        double angle = 2 * Math.PI * offsetHz * i / RATE + 0.3;
        iq[2 * i] = (float) (v * Math.cos(angle) + noise * random.nextGaussian());
        iq[2 * i + 1] = (float) (v * Math.sin(angle) + noise * random.nextGaussian());
      }
      return new IqRecord(iq, RATE, 212e6, Double.NaN, false);
    }
  }

  private static BurstSettings settings(double bandHz) {
    return new BurstSettings(0, bandHz, 1, 0, Double.NaN, 0, 0, Limit.NONE, Limit.NONE);
  }

  private static Outcome measure(Train t, double bandHz, long seed) {
    return new BurstMeasurement(settings(bandHz))
        .of(t.record(new Random(seed)), MeasurementContext.BARE);
  }

  private static Reading reading(Outcome o, String id) {
    return o.reading(id).orElseThrow();
  }

  private static void near(Outcome o, String id, double truth, double within) {
    assertEquals(reading(o, id).value(), truth, within, id + ": " + o.summary());
  }

  @Test
  public void aTrainOfBursts() {
    Train t = new Train();
    Outcome o = measure(t, 1e6, 1);
    near(o, "bursts", 17, 0);
    near(o, "period", 3.1e-3, 3.1e-8);
    near(o, "rate", 1 / 3.1e-3, 0.004);
    near(o, "length", 14e-6, 0.15e-6);
    near(o, "duty", 100 * 14e-6 / 3.1e-3, 0.006);
    near(o, "burstLevel", -20, 0.05);
    near(o, "carrierFrequency", 212.03e6, 30);
    assertEquals(o.tables().get(0).rows().size(), 17);
    assertEquals(o.series("late").orElseThrow().x().points(), 17);
    assertTrue(o.summary().startsWith("17 bursts of 14"), o.summary());
    assertTrue(o.summary().contains("every 3.1 ms (322.6 Hz)"), o.summary());
  }

  /** Noise in the band of a Gaussian filter: its noise width is 1.064 times that at 3 dB. */
  @Test
  public void onOverOff() {
    Train t = new Train();
    t.length = 400e-6;
    Outcome o = measure(t, 200e3, 2);
    double widthHz = 200e3 * Math.sqrt(Math.PI / Math.log(2) / 4);
    double off = 10 * Math.log10(2 * t.noise * t.noise * widthHz / RATE);
    near(o, "onOff", -20 - off, 0.5);
  }

  @DataProvider
  public Object[][] edges() {
    return new Object[][] {{20e-6}, {50e-6}};
  }

  /**
   * A straight edge takes 0.8 of its length from 10 to 90 %; its middle is where the burst begins.
   */
  @Test(dataProvider = "edges")
  public void slowEdgesAndDroop(double edge) {
    Train t = new Train();
    t.length = 500e-6;
    t.edge = edge;
    t.noise = 1e-5;
    Outcome o = measure(t, 1e6, 3);
    near(o, "rise", 0.8 * edge, 0.02 * edge);
    near(o, "fall", 0.8 * edge, 0.02 * edge);
    near(o, "length", 500e-6, 0.2e-6);
    assertTrue(reading(o, "rise").marks().isEmpty());
    t.droopDb = 1;
    near(measure(t, 1e6, 3), "droop", 1, 0.05);
  }

  /** A filter's own rise is 0.68 over its width (0.34 over that of its half; common practice). */
  @Test
  public void aBandThatRisesSlowlyIsSaid() {
    Train t = new Train();
    t.length = 200e-6;
    Outcome o = measure(t, 100e3, 4);
    near(o, "rise", 6.8e-6, 0.3e-6);
    assertTrue(String.join(" ", reading(o, "rise").marks()).contains("rises in 6.8 \u00b5s"));
    t.length = 5e-6;
    Outcome narrow = measure(t, 100e3, 4);
    assertTrue(
        String.join(" ", reading(narrow, "length").marks()).contains("shorter than the band"));
  }

  @Test
  public void oneThatDoesNotCome() {
    Train t = new Train();
    t.leaveOut = 5;
    Outcome o = measure(t, 1e6, 5);
    near(o, "bursts", 16, 0);
    near(o, "missed", 1, 0);
    near(o, "period", 3.1e-3, 3.1e-8);
    assertTrue(o.summary().contains("1 did not come"), o.summary());
  }

  /** Interval, length and level lie within their uncertainties as often as that says. */
  @Test
  public void keepsItsPromise() {
    String[] ids = {"period", "length", "burstLevel", "carrierFrequency"};
    int[] inside = new int[ids.length];
    double[] squares = new double[ids.length];
    int trials = 150;
    Random random = new Random(77);
    for (int k = 0; k < trials; k++) {
      Train t = new Train();
      t.interval = 2e-3 * (1 + random.nextDouble());
      t.length = 100e-6 * (1 + random.nextDouble());
      t.edge = 8e-6;
      t.noise = 0.004;
      t.jitter = k % 2 * 1e-6;
      t.offsetHz = 60e3 * (random.nextDouble() - 0.5);
      Outcome o = measure(t, 400e3, 1000 + k);
      double[] truth = {t.interval, t.length, -20, 212e6 + t.offsetHz};
      for (int i = 0; i < ids.length; i++) {
        Reading r = reading(o, ids[i]);
        double off = (r.value() - truth[i]) / r.uncertainty();
        inside[i] += Math.abs(off) <= 1 ? 1 : 0;
        squares[i] += off * off / trials;
      }
    }
    for (int i = 0; i < ids.length; i++) {
      String said = ids[i] + " inside " + inside[i] + " of " + trials + ", U over error ";
      double over = 1 / Math.sqrt(squares[i]);
      assertTrue(inside[i] >= 0.91 * trials && over < 3.2, said + over);
    }
  }

  /** Noise alone has no bursts, over and over; what is always there has none either. */
  @Test
  public void whereNoneAre() {
    Train t = new Train();
    t.amplitude = 0;
    t.noise = 0.01;
    int invented = 0;
    for (int k = 0; k < 40; k++) {
      Outcome o = measure(t, 1e6, 300 + k);
      invented += (int) reading(o, "bursts").value();
      assertTrue(o.summary().startsWith("No burst") || invented > 0, o.summary());
    }
    assertEquals(invented, 0);
    t.amplitude = 0.3;
    t.interval = 100;
    t.first = -5;
    t.length = 10;
    Outcome always = measure(t, 1e6, 9);
    near(always, "bursts", 0, 0);
    assertTrue(always.summary().contains("all the time"), always.summary());
  }

  @Test
  public void whatBeginsBeforeIsLeftOut() {
    Train t = new Train();
    t.first = -20e-6 + t.interval;
    t.length = 100e-6;
    t.seconds = 3 * t.interval + 30e-6;
    Outcome o = measure(t, 1e6, 6);
    near(o, "bursts", 2, 0);
    assertTrue(o.summary().contains("left out"), o.summary());
  }

  @Test
  public void thresholdsAndShortestOnes() {
    Train t = new Train();
    Random random = new Random(1);
    IqRecord r = t.record(random);
    Outcome low =
        new BurstMeasurement(new BurstSettings(0, 1e6, 1, 0, 4, 0, 0, Limit.NONE, Limit.NONE))
            .of(r, MeasurementContext.BARE);
    assertTrue(low.summary().contains("Noise passes the threshold"), low.summary());
    assertTrue(!reading(low, "length").marks().isEmpty());
    Outcome none =
        new BurstMeasurement(
                new BurstSettings(0, 1e6, 1, 0, Double.NaN, 1e-4, 0, Limit.NONE, Limit.NONE))
            .of(r, MeasurementContext.BARE);
    assertTrue(none.summary().startsWith("17 bursts are shorter"), none.summary());
    Outcome judged =
        new BurstMeasurement(
                new BurstSettings(
                    0, 1e6, 1, 0, Double.NaN, 0, 0, new Limit(3e-3, 3.05e-3), Limit.NONE))
            .of(r, MeasurementContext.BARE);
    assertEquals(reading(judged, "period").verdict().name(), "FAIL");
  }

  @Test
  public void whatIsRefused() {
    Train t = new Train();
    IqRecord r = t.record(new Random(1));
    expectThrows(Refusal.class, () -> settings(0));
    expectThrows(
        Refusal.class, () -> new BurstMeasurement(settings(1e7)).of(r, MeasurementContext.BARE));
    expectThrows(
        Refusal.class, () -> new BurstMeasurement(settings(100)).of(r, MeasurementContext.BARE));
    IqRecord silent = new IqRecord(new float[20_000], RATE, 212e6, Double.NaN, false);
    Refusal none =
        expectThrows(
            Refusal.class,
            () -> new BurstMeasurement(settings(1e6)).of(silent, MeasurementContext.BARE));
    assertEquals(none.field(), "signal");
  }

  @Test
  public void timesInWords() {
    assertEquals(Seconds.words(3.1e-3), "3.1 ms");
    assertEquals(Seconds.words(14e-6), "14 \u00b5s");
    assertEquals(Seconds.words(0.99999), "1 s");
    assertEquals(Seconds.words(0), "0 s");
    assertEquals(Seconds.words(12), "12 s");
  }

  /**
   * Steps of a signal whose own band ends sharply ring long before and after: Si(pi B t), the
   * integral of sinc. What rings is a part of the burst, not one more.
   */
  @Test
  public void whatRingsIsNoBurstOfItsOwn() {
    double ownBandHz = 0.8e6;
    double[] step = ringingStep(ownBandHz);
    for (int seed = 0; seed < 40; seed++) {
      Random random = new Random(seed);
      double first = 100e-6 + 900e-6 * random.nextDouble();
      int n = (int) (0.02 * RATE);
      float[] iq = new float[2 * n];
      for (int i = 0; i < n; i++) {
        double v = 0;
        for (double start = first - 2e-3; start < 0.022; start += 1e-3) {
          v += at(step, i / RATE - start) - at(step, i / RATE - start - 100e-6);
        }
        iq[2 * i] = (float) (0.3 * v + 2e-4 * random.nextGaussian());
        iq[2 * i + 1] = (float) (2e-4 * random.nextGaussian());
      }
      Outcome o =
          new BurstMeasurement(settings(1e6))
              .of(new IqRecord(iq, RATE, 212e6, Double.NaN, false), MeasurementContext.BARE);
      near(o, "length", 100e-6, 1e-6);
      near(o, "bursts", first > 0.9e-3 ? 19 : 20, 1.01);
      near(o, "period", 1e-3, 1e-7);
    }
  }

  private static final double STEP_SECONDS = 1e-3;
  private static final double FINE = 40e6;

  private static double[] ringingStep(double bandHz) {
    double[] s = new double[(int) (2 * STEP_SECONDS * FINE)];
    double sum = 0;
    for (int k = 0; k < s.length; k++) {
      double x = Math.PI * bandHz * (k / FINE - STEP_SECONDS);
      sum += (Math.abs(x) < 1e-9 ? 1 : Math.sin(x) / x) * bandHz / FINE;
      s[k] = sum;
    }
    return s;
  }

  private static double at(double[] step, double t) {
    double k = (t + STEP_SECONDS) * FINE;
    return k <= 0 ? 0 : k >= step.length - 1 ? 1 : step[(int) k];
  }

  /** A weak one close to a strong one counts where it stands over what a step could leave there. */
  @Test
  public void aWeakBurstBesideAStrongOneCounts() {
    for (double weakDb : new double[] {-12, -20, -26}) {
      Random random = new Random(7);
      int n = (int) (0.01 * RATE);
      float[] iq = new float[2 * n];
      for (int i = 0; i < n; i++) {
        double t = i / RATE % 1e-3;
        double v = t > 400e-6 && t < 440e-6 ? 0.3 : 0;
        v = t > 480e-6 && t < 500e-6 ? 0.3 * Math.pow(10, weakDb / 20) : v;
        iq[2 * i] = (float) (v + 1e-4 * random.nextGaussian());
        iq[2 * i + 1] = (float) (1e-4 * random.nextGaussian());
      }
      Outcome o =
          new BurstMeasurement(settings(0.5e6))
              .of(new IqRecord(iq, RATE, 212e6, Double.NaN, false), MeasurementContext.BARE);
      near(o, "bursts", 20, 0);
    }
  }
}
