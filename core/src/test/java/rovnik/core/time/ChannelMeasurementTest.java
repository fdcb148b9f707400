package rovnik.core.time;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.Random;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.result.Values;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;

/** Channels against powers that are known. */
public class ChannelMeasurementTest {
  private static final double RATE = 1e6;
  private static final double CENTRE = 164.2e6;

  private static final double RAMP = 1e-3;

  /** What the settings may say; the rest stays. */
  private static final class Wanted {
    double centre;
    double span = 400e3;
    double apart = 25e3;
    double band;
    double first;
    double seconds = 1;
    double start;
    double over = Double.NaN;
    Limit neighbours = Limit.NONE;

    ChannelMeasurement measurement() {
      return new ChannelMeasurement(
          new ChannelSettings(centre, span, apart, band, first, seconds, start, over, neighbours));
    }

    Outcome of(float[] iq) {
      return measurement().of(record(iq, 0), MeasurementContext.BARE);
    }
  }

  private static IqRecord record(float[] iq, double startSeconds) {
    return new IqRecord(iq, RATE, CENTRE, Double.NaN, false, startSeconds);
  }

  private static float[] noise(double seconds, double sigma, long seed) {
    Random random = new Random(seed);
    float[] iq = new float[2 * (int) Math.round(seconds * RATE)];
    for (int i = 0; i < iq.length; i++) {
      iq[i] = (float) (sigma * random.nextGaussian());
    }
    return iq;
  }

  /** A station whose frequency a tone moves, from one time to another. */
  private static void station(
      float[] iq, double offsetHz, double amplitude, double deviationHz, double from, double to) {
    for (int n = Math.max(0, (int) (from * RATE)); n < Math.min(iq.length / 2, to * RATE); n++) {
      double t = n / RATE;
      double phase =
          2 * Math.PI * offsetHz * t + deviationHz / 1000 * Math.sin(2 * Math.PI * 1000 * t);
      double a = amplitude * Math.min(1, Math.min(t - from, to - t) / RAMP);
      iq[2 * n] += (float) (a * Math.cos(phase));
      iq[2 * n + 1] += (float) (a * Math.sin(phase));
    }
  }

  private static Reading reading(Outcome o, String id) {
    return o.reading(id).orElseThrow(() -> new AssertionError(id + ": " + o.summary()));
  }

  private static double cell(Outcome o, double number, int column) {
    ResultTable t = o.tables().get(0);
    return t.rows().stream()
        .filter(r -> r.cells().get(0).value() == number)
        .findFirst()
        .orElseThrow()
        .cells()
        .get(column)
        .value();
  }

  /**
   * Three FM stations of known power, one of which comes and goes: each in its channel, nothing in
   * the others.
   */
  @Test
  public void stationsAreInTheirChannels() {
    float[] iq = noise(0.4, 1e-5, 1);
    station(iq, 0, 0.1, 2500, -1, 2);
    station(iq, 25e3, 1e-3, 2500, -1, 2);
    station(iq, -75e3, 0.02, 2500, 0.1, 0.2);
    Outcome o = new Wanted().of(iq);
    assertEquals(reading(o, "ownLevel").value(), -20, 0.05);
    assertEquals(reading(o, "ownShare").value(), 100, 0.01);
    assertEquals(reading(o, "upper1").value(), -40, 0.1);
    assertEquals(reading(o, "usedChannels").value(), 3.0);
    assertEquals(reading(o, "strongestChannel").value(), -3.0);
    assertEquals(cell(o, -3, 1), CENTRE - 75e3, 1e-3);
    assertEquals(cell(o, -3, 2), -33.98, 0.15, "while used");
    assertEquals(cell(o, -3, 5), -33.98 - 6.02, 0.1, "mean");
    assertEquals(cell(o, -3, 3), 25, 0.6, "share");
    assertEquals(cell(o, -2, 3), 0.0);
    assertTrue(o.summary().contains("2 of 14 others are used: -3, 1."), o.summary());
    // -97 dB of noise in all of the rate, and a channel is 1/60 of it.
    assertEquals(reading(o, "noise").value(), 10 * Math.log10(2e-10 * 2 / 3 * 25e3 / RATE), 0.3);
    assertTrue(reading(o, "lower1").label().contains("at the noise"));
    assertFalse(reading(o, "upper1").label().contains("at the noise"));
    // Over time the third one is there in a quarter of the rows.
    Values.Matrix m = (Values.Matrix) o.series("look").orElseThrow().values();
    int rows = m.rows().points();
    int there = 0;
    for (int r = 0; r < rows; r++) {
      there += m.z()[4 * rows + r] > -40 ? 1 : 0;
    }
    assertEquals(there / (double) rows, 0.25, 0.01);
  }

  /**
   * Adjacent channel power as EN 300 086 has it for 25 kHz: in 16 kHz; of white noise that is as
   * wide as the record a channel has its share of the width, and neighbours are alike strong.
   */
  @Test
  public void powerOfNoiseFollowsTheWidth() {
    Wanted w = new Wanted();
    w.band = 16e3;
    w.over = 6;
    Outcome o = w.of(noise(0.4, 0.05, 2));
    double wanted = 10 * Math.log10(2 * 0.05 * 0.05 * 16e3 / RATE);
    for (int c = -7; c <= 7; c++) {
      assertEquals(cell(o, c, 5), wanted, 0.25, "channel " + c);
    }
    assertEquals(reading(o, "noise").value(), wanted, 0.3);
    assertEquals(reading(o, "usedChannels").value(), 0.0);
    assertTrue(o.summary().contains("was silent for 400 ms. No other of 15"), o.summary());
    assertTrue(o.reading("upper1").isEmpty());
  }

  /** Noise alone is no station, in two hundred looks of random lengths and channels. */
  @Test
  public void noStationIsInvented() {
    Random random = new Random(7);
    int invented = 0;
    for (int k = 0; k < 200; k++) {
      Wanted w = new Wanted();
      w.apart = 5e3 + 20e3 * random.nextDouble();
      invented +=
          reading(w.of(noise(0.05 + 0.06 * random.nextDouble(), 0.01, k)), "usedChannels").value()
                  > 0
              ? 1
              : 0;
    }
    assertEquals(invented, 0);
  }

  /** A limit for the neighbours is judged; they are looked at while the own one is there. */
  @Test
  public void neighboursAreJudgedWhileTheOwnOneIsThere() {
    float[] iq = noise(0.4, 1e-6, 3);
    station(iq, 0, 0.1, 2500, 0, 0.2);
    station(iq, 25e3, 3.16e-4, 500, 0, 0.2);
    station(iq, 25e3, 0.1, 500, 0.2, 0.4);
    Wanted w = new Wanted();
    w.neighbours = new Limit(Double.NaN, -45);
    Outcome o = w.of(iq);
    assertEquals(reading(o, "upper1").value(), -50, 0.5);
    assertEquals(reading(o, "upper1").verdict(), Verdict.PASS);
    assertEquals(cell(o, 1, 2), -23, 0.3, "while used, by whomever");
    w.neighbours = new Limit(Double.NaN, -60);
    assertEquals(reading(w.of(iq), "upper1").verdict(), Verdict.FAIL);
  }

  /** Numbers of a plan: the own channel is the one that is nearest. */
  @Test
  public void channelsAreCountedFromTheFirst() {
    float[] iq = noise(0.2, 1e-5, 4);
    station(iq, 52e3, 0.1, 1000, -1, 2);
    Wanted w = new Wanted();
    w.centre = CENTRE + 52e3;
    w.first = CENTRE - 10 * 25e3;
    Outcome o = w.of(iq);
    assertEquals(cell(o, 13, 1), CENTRE + 50e3, 1e-3);
    assertEquals(cell(o, 13, 2), -20, 0.1);
    assertTrue(o.summary().startsWith("Channel 13 (164.25 MHz): -20.0 dBFS"), o.summary());
  }

  /** Looks add up; other settings begin anew. */
  @Test
  public void looksAddUp() {
    RecordMeasurement.Gathering g = new Wanted().measurement().gathering();
    float[] silent = noise(0.2, 1e-5, 5);
    float[] loud = silent.clone();
    station(loud, 0, 0.1, 2500, -1, 2);
    g.add(record(loud, 0), MeasurementContext.BARE);
    Outcome o = g.add(record(silent, 5), MeasurementContext.BARE);
    assertEquals(reading(o, "ownShare").value(), 50, 0.5);
    assertEquals(reading(o, "ownLevel").value(), -20, 0.05);
    assertEquals(cell(o, 0, 5), -23, 0.05);
    assertEquals(o.series("mean").orElseThrow().fact("looked at"), 0.4, 1e-9);
  }

  /** A click of a station that begins at once is no use of the channels beside it. */
  @Test
  public void aClickIsNoUse() {
    float[] iq = noise(0.3, 1e-5, 8);
    for (int n = 100_000; n < iq.length / 2; n++) {
      iq[2 * n] += 0.1f;
    }
    Outcome o = new Wanted().of(iq);
    assertEquals(reading(o, "usedChannels").value(), 1.0);
    assertEquals(reading(o, "ownShare").value(), 200 / 3.0, 1);
    assertTrue(cell(o, 1, 6) > cell(o, 1, 5) + 20, "but it is the highest there");
  }

  @Test
  public void whatCannotBeIsSaid() {
    float[] iq = noise(0.1, 1e-3, 6);
    Wanted w = new Wanted();
    w.apart = 50;
    assertEquals(expectThrows(Refusal.class, w::measurement).field(), "channelHz");
    w = new Wanted();
    w.band = 30e3;
    assertEquals(expectThrows(Refusal.class, w::measurement).field(), "bandHz");
    w = new Wanted();
    w.span = 2e6;
    Wanted wide = w;
    assertEquals(expectThrows(Refusal.class, () -> wide.of(iq)).field(), "spanHz");
    w = new Wanted();
    w.apart = 300;
    Wanted many = w;
    assertEquals(expectThrows(Refusal.class, () -> many.of(iq)).field(), "channelHz");
    w = new Wanted();
    w.span = 10e3;
    Wanted narrow = w;
    assertEquals(expectThrows(Refusal.class, () -> narrow.of(iq)).field(), "spanHz");
    w = new Wanted();
    w.centre = 170e6;
    Wanted away = w;
    assertEquals(expectThrows(Refusal.class, () -> away.of(iq)).field(), "centreHz");
    Wanted shortOne = new Wanted();
    assertThrows(Refusal.class, () -> shortOne.of(noise(0.001, 1e-3, 6)));
  }
}
