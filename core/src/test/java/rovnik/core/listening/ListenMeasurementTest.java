package rovnik.core.listening;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.modulation.analog.AudioFilter;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.result.Series;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.Sound;
import rovnik.core.spectrum.MeasurementContext;

/** Channels whose sound was put in. */
public class ListenMeasurementTest {
  private static final double RATE = 500e3;
  private static final double CENTRE = 164.2e6;
  private static final double BAND = 12.5e3;
  private static final AudioFilter VOICE = new AudioFilter(300, 3000, 0, false);

  /** A carrier that does what a message says. */
  private static final class Carrier {
    double amplitude = 0.1;
    double offHz = 70e3;
    double deviationHz;
    double depth;
    DoubleUnaryOperator message = t -> Math.cos(2 * Math.PI * 1e3 * t);
    DoubleUnaryOperator on = t -> 1;

    Carrier fm(double hz) {
      deviationHz = hz;
      return this;
    }

    Carrier am(double share) {
      depth = share;
      return this;
    }

    void add(float[] iq) {
      double phase = 0.3;
      for (int i = 0; i < iq.length / 2; i++) {
        double t = i / RATE;
        double m = message.applyAsDouble(t);
        phase += 2 * Math.PI * (offHz + deviationHz * m) / RATE;
        double a = amplitude * on.applyAsDouble(t) * (1 + depth * m);
        iq[2 * i] += (float) (a * Math.cos(phase));
        iq[2 * i + 1] += (float) (a * Math.sin(phase));
      }
    }
  }

  private static IqRecord record(double seconds, double noise, long seed, Carrier... carriers) {
    float[] iq = new float[2 * (int) Math.round(seconds * RATE)];
    Random random = new Random(seed);
    for (int i = 0; i < iq.length; i++) {
      iq[i] = (float) (noise * random.nextGaussian());
    }
    for (Carrier c : carriers) {
      c.add(iq);
    }
    return new IqRecord(iq, RATE, CENTRE, Double.NaN, false);
  }

  private static ListenSettings settings(Mode mode, AudioFilter audio, Squelch squelch) {
    return new ListenSettings(mode, CENTRE + 70e3, BAND, 10, 0, audio, squelch);
  }

  private static Outcome measure(ListenSettings s, IqRecord r) {
    return new ListenMeasurement(s).of(r, MeasurementContext.BARE);
  }

  private static Reading reading(Outcome o, String id) {
    return o.reading(id).orElseThrow(() -> new AssertionError(id + ": " + o.summary()));
  }

  private static void near(Outcome o, String id, double truth, double within) {
    assertEquals(reading(o, id).value(), truth, within, id + ": " + o.summary());
  }

  /** Narrow FM, off its place, with a tone of the list below the voice. */
  @Test
  public void fmWithItsToneSquelch() {
    Carrier c = new Carrier().fm(1);
    c.offHz = 70e3 + 430;
    c.message =
        t -> 1500 * Math.cos(2 * Math.PI * 1000 * t) + 300 * Math.cos(2 * Math.PI * 114.8 * t);
    Outcome o = measure(settings(Mode.FM, VOICE, Squelch.OPEN), record(1.5, 1e-4, 1, c));
    near(o, "channelPower", -20, 0.01);
    near(o, "toneRate", 1000, 0.01);
    near(o, "toneAmount", 1500, 3);
    near(o, "highest", 1800, 25);
    near(o, "lowest", 1800, 25);
    near(o, "toneSquelch", 114.8, 0.05);
    near(o, "frequencyError", 430, 1);
    near(o, "open", 100, 0);
    assertTrue(o.summary().contains("Tone squelch 114.8 Hz"), o.summary());
    assertTrue(reading(o, "sinad").value() > 30, o.summary());
    Series sound = o.series("sound").orElseThrow();
    assertEquals(java.util.Arrays.stream(sound.y()).max().orElse(0), 1500, 20);
  }

  /** De-emphasis of 50 us: 1 kHz passes with 0.3 dB less, 5 kHz with 5.4 (1 + (2 pi f tau)^2). */
  @Test
  public void broadcastFmWithDeEmphasis() {
    AudioFilter f = new AudioFilter(0, 15e3, 50e-6, false);
    for (double hz : new double[] {1000, 5000}) {
      Carrier c = new Carrier().fm(75e3);
      c.message = t -> Math.cos(2 * Math.PI * hz * t);
      ListenSettings s = new ListenSettings(Mode.FM, CENTRE + 70e3, 200e3, 10, 0, f, Squelch.OPEN);
      Outcome o = measure(s, record(0.4, 1e-5, 2, c));
      near(o, "toneAmount", 75e3, 400);
      double lower = 1 / Math.hypot(1, 2 * Math.PI * hz * 50e-6);
      double most = java.util.Arrays.stream(o.series("sound").orElseThrow().y()).max().orElse(0);
      assertEquals(most / (75e3 * lower), 1, 0.02);
      assertTrue(reading(o, "distortion").value() < 1, o.summary());
    }
  }

  @Test
  public void amAndItsDepth() {
    Carrier c = new Carrier().am(0.6);
    Outcome o =
        measure(
            new ListenSettings(Mode.AM, CENTRE + 70e3, BAND, 10, 0, AudioFilter.NONE, Squelch.OPEN),
            record(0.5, 1e-4, 3, c));
    near(o, "toneAmount", 60, 0.1);
    near(o, "highest", 60, 1);
    near(o, "lowest", 60, 1);
    near(o, "frequencyError", 0, 1.5 * reading(o, "frequencyError").uncertainty());
    assertTrue(reading(o, "frequencyError").uncertainty() < 0.1);
    // Carrier and two side lines: 1 + 0.6^2 / 2.
    near(o, "channelPower", -20 + 10 * Math.log10(1.18), 0.02);
  }

  @DataProvider
  public Object[][] sides() {
    return new Object[][] {{Mode.USB, 1}, {Mode.LSB, -1}};
  }

  /** A line 1.2 kHz beside the suppressed carrier is heard as 1.2 kHz; the other side is not. */
  @Test(dataProvider = "sides")
  public void oneSideBand(Mode mode, int side) {
    Carrier own = new Carrier();
    own.offHz = 70e3 + side * 1200.25;
    Carrier other = new Carrier();
    other.offHz = 70e3 - side * 900;
    other.amplitude = 0.5;
    ListenSettings s =
        new ListenSettings(
            mode, CENTRE + 70e3, 3000, 10, 0, new AudioFilter(200, 3000, 0, false), Squelch.OPEN);
    Outcome o = measure(s, record(0.6, 1e-5, 4, own, other));
    near(o, "toneRate", 1200.25, 0.01);
    assertTrue(reading(o, "sinad").value() > 60, o.summary());
    near(o, "channelPower", -20, 0.05);
    assertEquals(o.series("sound").orElseThrow().plane(), "");
  }

  /** A carrier that comes twice: passages by its level, by how it quiets noise, by its tone. */
  @Test
  public void squelchesOpenWhenTheyShould() {
    Carrier c = new Carrier().fm(1);
    c.on = t -> t > 0.5 && t < 1.1 || t > 1.8 && t < 2.3 ? 1 : 0;
    c.message =
        t -> 1500 * Math.cos(2 * Math.PI * 1000 * t) + 350 * Math.cos(2 * Math.PI * 100 * t);
    IqRecord r = record(2.6, 5e-3, 5, c);
    Squelch[] all = {
      new Squelch(Squelch.By.LEVEL, -25),
      new Squelch(Squelch.By.QUIETING, 10),
      new Squelch(Squelch.By.TONE, 100)
    };
    for (Squelch squelch : all) {
      Outcome o = measure(settings(Mode.FM, VOICE, squelch), r);
      near(o, "passages", 2, 0);
      ResultTable t = o.table("passages").orElseThrow();
      double within = 0.04;
      assertEquals(cell(t, 0, 0), 0.5, within, squelch.toString());
      assertEquals(cell(t, 0, 1), 0.6, 2 * within, squelch.toString());
      assertEquals(cell(t, 1, 0), 1.8, within, squelch.toString());
      assertEquals(cell(t, 1, 1), 0.5, 2 * within, squelch.toString());
      near(o, "toneRate", 1000, 1);
      double[] y = o.series("sound").orElseThrow().y();
      for (int i = 0; i < y.length * 0.3 / 2.6; i++) {
        assertEquals(y[i], 0.0, "silence before");
      }
    }
    Outcome other = measure(settings(Mode.FM, VOICE, new Squelch(Squelch.By.TONE, 103.5)), r);
    assertTrue(other.summary().startsWith("Silent"), other.summary());
    assertTrue(other.summary().contains("There is one of 100.0 Hz"), other.summary());
    near(other, "open", 0, 0);
    Outcome high = measure(settings(Mode.FM, VOICE, new Squelch(Squelch.By.LEVEL, -10)), r);
    assertTrue(high.summary().contains("The highest level is -2"), high.summary());
  }

  private static double cell(ResultTable t, int row, int column) {
    return t.rows().get(row).cells().get(column).value();
  }

  /** Noise alone does not open a squelch, and is called noise where there is none. */
  @Test
  public void noiseIsNoise() {
    IqRecord r = record(1, 1e-2, 6);
    assertTrue(
        measure(settings(Mode.FM, VOICE, new Squelch(Squelch.By.QUIETING, 6)), r)
            .summary()
            .startsWith("Silent"));
    assertTrue(
        measure(settings(Mode.FM, VOICE, new Squelch(Squelch.By.TONE, 100)), r)
            .summary()
            .startsWith("Silent"));
    Outcome open = measure(settings(Mode.FM, VOICE, Squelch.OPEN), r);
    assertTrue(open.summary().contains("This is noise"), open.summary());
    near(open, "quieting", 0, 0.5);
    // A tone that chance brings about opens nothing, in half a minute of noise.
    IqRecord longer = record(30, 1e-2, 9);
    for (double hz : new double[] {67, 123, 254.1}) {
      Outcome o = measure(settings(Mode.FM, VOICE, new Squelch(Squelch.By.TONE, hz)), longer);
      near(o, "open", 0, 0);
    }
  }

  /** Cut into stretches it sounds the same, and a sound device gets it at 48 kHz. */
  @Test
  public void soundGoesOnWhereStretchesMeet() {
    Carrier c = new Carrier().fm(2000);
    IqRecord whole = record(0.7, 1e-4, 7, c);
    ListenMeasurement m = new ListenMeasurement(settings(Mode.FM, VOICE, Squelch.OPEN));
    RecordMeasurement.Gathering once = m.gathering();
    once.add(whole, MeasurementContext.BARE);
    RecordMeasurement.Gathering parts = m.gathering();
    int n = whole.sampleCount();
    int[] cuts = {0, 100_000, 100_001, 222_222, n};
    for (int k = 1; k < cuts.length; k++) {
      float[] iq = java.util.Arrays.copyOfRange(whole.iq(), 2 * cuts[k - 1], 2 * cuts[k]);
      IqRecord part = new IqRecord(iq, RATE, CENTRE, Double.NaN, false, cuts[k - 1] / RATE);
      if (k + 1 < cuts.length) {
        parts.take(part, MeasurementContext.BARE);
      } else {
        parts.add(part, MeasurementContext.BARE);
      }
    }
    float[] a = once.sound().orElseThrow().samples();
    float[] b = parts.sound().orElseThrow().samples();
    assertEquals(b.length, a.length);
    for (int i = 0; i < a.length; i++) {
      assertEquals(b[i], a[i], 0.05, "sample " + i);
    }
    Sound ears = once.sound().orElseThrow().forEars();
    assertEquals(ears.rateHz(), 48_000, 0);
    assertEquals(ears.samples().length, 0.7 * 48_000, 60);
    assertEquals(ears.samples()[10_000 + most(ears.samples(), 10_000, 48)], 0.7f, 0.01f);
    // A tone of 1 kHz crosses 0 upwards once a millisecond.
    int crossings = 0;
    for (int i = 4801; i < 4801 + 24_000; i++) {
      crossings += ears.samples()[i - 1] < 0 && ears.samples()[i] >= 0 ? 1 : 0;
    }
    assertEquals(crossings, 500, 1);
  }

  private static int most(float[] y, int from, int count) {
    int most = 0;
    for (int i = 1; i < count; i++) {
      most = y[from + i] > y[from + most] ? i : most;
    }
    return most;
  }

  /** Near the threshold of FM noise clicks, and takes from the tone: the reading says so. */
  @Test
  public void clicksAreSaid() {
    Outcome o =
        measure(
            settings(Mode.FM, VOICE, Squelch.OPEN), record(1, 0.22, 12, new Carrier().fm(2500)));
    assertTrue(reading(o, "quieting").value() < 15, o.summary());
    assertTrue(reading(o, "toneAmount").marks().get(0).contains("clicks"));
  }

  /** Seeded trials over what carriers do: the truth lies inside as often as claimed. */
  @Test
  public void truthLiesInsideAsOftenAsClaimed() {
    int trials = 120;
    int amount = 0;
    int rate = 0;
    int tone = 0;
    int frequency = 0;
    double widest = 0;
    Random random = new Random(11);
    for (int k = 0; k < trials; k++) {
      double hz = 500 + 2000 * random.nextDouble();
      // As far as the channel's filter lets it.
      double deviation = 500 + (4000 - hz) * random.nextDouble();
      double sub = 250 + 200 * random.nextDouble();
      Carrier c = new Carrier().fm(1);
      c.message =
          t -> deviation * Math.sin(2 * Math.PI * hz * t) + sub * Math.cos(2 * Math.PI * 88.5 * t);
      Outcome o =
          measure(
              settings(Mode.FM, VOICE, Squelch.OPEN),
              record(0.4, 2e-2 * (0.1 + random.nextDouble()), 200 + k, c));
      Reading a = reading(o, "toneAmount");
      Reading r = reading(o, "toneRate");
      Reading s = reading(o, "toneSquelch");
      amount += Math.abs(a.value() - deviation) <= a.uncertainty() ? 1 : 0;
      rate += Math.abs(r.value() - hz) <= r.uncertainty() ? 1 : 0;
      tone += Math.abs(s.value() - 88.5) <= s.uncertainty() ? 1 : 0;
      Reading f = reading(o, "frequencyError");
      frequency += Math.abs(f.value()) <= f.uncertainty() ? 1 : 0;
      widest = Math.max(widest, a.uncertainty() / deviation);
    }
    assertTrue(amount >= 0.93 * trials, amount + " amounts inside");
    assertTrue(rate >= 0.93 * trials, rate + " rates inside");
    assertTrue(tone >= 0.93 * trials, tone + " tones inside");
    assertTrue(frequency >= 0.93 * trials, frequency + " frequencies inside");
    assertTrue(widest < 0.2, "as wide as " + widest);
  }

  @Test
  public void whatCannotBeIsRefusedWithTheField() {
    assertEquals(
        expectThrows(Refusal.class, () -> new Squelch(Squelch.By.TONE, 101)).field(), "squelch");
    assertEquals(
        expectThrows(
                Refusal.class, () -> settings(Mode.AM, VOICE, new Squelch(Squelch.By.QUIETING, 10)))
            .field(),
        "squelchBy");
    assertEquals(
        expectThrows(
                Refusal.class,
                () ->
                    new ListenSettings(
                        Mode.FM, 0, 5000, 1, 0, new AudioFilter(0, 3000, 0, false), Squelch.OPEN))
            .field(),
        "audioHighHz");
    for (double[] pass : new double[][] {{0.001, 0}, {0, 1}}) {
      AudioFilter slow = new AudioFilter(pass[0], pass[1], 0, false);
      expectThrows(Refusal.class, () -> settings(Mode.FM, slow, Squelch.OPEN));
    }
    ListenSettings wide =
        new ListenSettings(Mode.FM, CENTRE, 900e3, 1, 0, AudioFilter.NONE, Squelch.OPEN);
    assertEquals(
        expectThrows(Refusal.class, () -> measure(wide, record(0.1, 1e-3, 8))).field(), "bandHz");
  }
}
