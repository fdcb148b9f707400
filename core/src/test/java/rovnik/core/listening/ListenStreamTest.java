package rovnik.core.listening;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.modulation.analog.AudioFilter;
import rovnik.core.result.Outcome;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.Sound;
import rovnik.core.spectrum.MeasurementContext;

/** Sound of samples that go on, however they are cut, with gaps and without. */
public class ListenStreamTest {
  private static final double RATE = 62_500;
  private static final double CENTRE = 164.2e6;
  private static final double BAND = 25e3;
  private static final AudioFilter VOICE = new AudioFilter(300, 3000, 0, false);

  /** FM of 1 kHz while it talks, noise between. */
  private static float[] talk(double seconds, DoubleUnaryOperator on, long seed) {
    Random random = new Random(seed);
    float[] iq = new float[2 * (int) (seconds * RATE)];
    double phase = 0.2;
    for (int i = 0; i < iq.length / 2; i++) {
      double t = i / RATE;
      phase +=
          2
              * Math.PI
              * (300
                  + 2500 * Math.cos(2 * Math.PI * 1000 * t)
                  + 350 * Math.cos(2 * Math.PI * 123 * t))
              / RATE;
      double a = 0.1 * on.applyAsDouble(t);
      iq[2 * i] = (float) (a * Math.cos(phase) + 3e-4 * random.nextGaussian());
      iq[2 * i + 1] = (float) (a * Math.sin(phase) + 3e-4 * random.nextGaussian());
    }
    return iq;
  }

  private static ListenSettings settings(Mode mode, double seconds, Squelch squelch) {
    return new ListenSettings(mode, CENTRE, BAND, seconds, 0, VOICE, squelch);
  }

  private static IqRecord block(float[] iq, int from, int samples, double shiftSeconds) {
    return new IqRecord(
        Arrays.copyOfRange(iq, 2 * from, 2 * (from + samples)),
        RATE,
        CENTRE,
        Double.NaN,
        false,
        from / RATE + shiftSeconds);
  }

  /** What is heard of all of it, and the last that was said. */
  private static final class Run {
    final List<Float> sound = new ArrayList<>();
    RecordMeasurement.Gathering stream;
    Outcome last;

    Run(ListenSettings s) {
      stream = new ListenMeasurement(s).stream();
    }

    Run take(IqRecord r) {
      last = stream.more(r, MeasurementContext.BARE);
      Sound s = stream.toHear().orElseThrow();
      assertEquals(s.rateHz(), 48_000.0);
      for (float v : s.samples()) {
        sound.add(v);
      }
      return this;
    }

    double[] heard() {
      return sound.stream().mapToDouble(Float::doubleValue).toArray();
    }
  }

  private static Run run(float[] iq, ListenSettings s, Random cuts) {
    Run out = new Run(s);
    for (int at = 0; at < iq.length / 2; ) {
      int left = iq.length / 2 - at;
      int now = Math.min(left, cuts == null ? 1250 : 200 + cuts.nextInt(9000));
      out.take(block(iq, at, now, 0));
      at += now;
    }
    return out;
  }

  /** Amplitude of a tone from one second to another. */
  private static double tone(double[] x, double hz, double from, double to) {
    double re = 0;
    double im = 0;
    int first = (int) (from * 48_000);
    int end = (int) (to * 48_000);
    for (int i = first; i < end; i++) {
      re += x[i] * Math.cos(2 * Math.PI * hz * i / 48_000);
      im += x[i] * Math.sin(2 * Math.PI * hz * i / 48_000);
    }
    return 2 * Math.hypot(re, im) / (end - first);
  }

  private static double rms(double[] x, double from, double to) {
    double sum = 0;
    int first = (int) (from * 48_000);
    int end = (int) (to * 48_000);
    for (int i = first; i < end; i++) {
      sum += x[i] * x[i] / (end - first);
    }
    return Math.sqrt(sum);
  }

  @DataProvider
  Object[][] squelches() {
    return new Object[][] {
      {new Squelch(Squelch.By.LEVEL, -30)},
      {new Squelch(Squelch.By.QUIETING, 10)},
      {new Squelch(Squelch.By.TONE, 123.0)}
    };
  }

  /** It talks from 0.5 to 1.5 s and from 2 to 2.6 s; there is silence else, to the last bit. */
  @Test(dataProvider = "squelches")
  public void whatIsSaidIsHeardAndNothingElse(Squelch squelch) {
    DoubleUnaryOperator on = t -> t > 0.5 && t < 1.5 || t > 2 && t < 2.6 ? 1 : 0;
    double[] x = run(talk(3.5, on, 1), settings(Mode.FM, 2, squelch), null).heard();
    assertTrue(x.length > 3.05 * 48_000, x.length / 48e3 + " s");
    assertEquals(rms(x, 0.05, 0.45), 0, 0);
    assertEquals(rms(x, 1.6, 1.9), 0, 0);
    assertEquals(rms(x, 2.7, 3.0), 0, 0);
    for (double[] said : new double[][] {{0.75, 1.4}, {2.25, 2.5}}) {
      double amplitude = tone(x, 1000, said[0], said[1]);
      assertEquals(amplitude, 0.68, 0.06);
      double rest = Math.sqrt(Math.pow(rms(x, said[0], said[1]), 2) - amplitude * amplitude / 2);
      assertTrue(rest < 0.03 * amplitude, rest + " of " + amplitude);
    }
    // Softly in and out: no step is larger than a tone of 1 kHz makes them, and a click would be.
    for (int i = 1; i < x.length; i++) {
      assertTrue(Math.abs(x[i] - x[i - 1]) < 0.13 * 1.3, "a click at " + i / 48e3 + " s");
      assertTrue(Math.abs(x[i]) <= 1, "too loud at " + i / 48e3 + " s");
    }
  }

  @Test
  public void howItIsCutIsNotHeard() {
    float[] iq = talk(2.5, t -> t % 0.9 < 0.6 ? 1 : 0, 2);
    ListenSettings s = settings(Mode.FM, 1, new Squelch(Squelch.By.QUIETING, 10));
    double[] even = run(iq, s, null).heard();
    for (int k = 0; k < 5; k++) {
      double[] other = run(iq, s, new Random(k)).heard();
      int n = Math.min(even.length, other.length);
      assertTrue(n > 2 * 48_000);
      for (int i = 0; i < n; i++) {
        assertEquals(other[i], even[i], 1e-6, "sample " + i + ", cut " + k);
      }
    }
  }

  @Test
  public void soundComesAsSamplesComeAndEndsWithThem() {
    Run r = new Run(settings(Mode.FM, 2, Squelch.OPEN));
    float[] iq = talk(10, t -> 1, 3);
    for (int at = 0; at + 1250 <= iq.length / 2; at += 1250) {
      r.take(block(iq, at, 1250, 0));
      double late = (at + 1250) / RATE - r.sound.size() / 48e3;
      assertTrue(late < 0.2, "late by " + late + " s");
    }
    assertEquals(r.sound.size() / 48e3, 10, 0.2);
  }

  @Test
  public void readingsAreOfTheNewestStretch() {
    // It stops talking after 2 s: what is read then is of noise.
    Run r = run(talk(6, t -> t < 2.5 ? 1 : 0, 4), settings(Mode.FM, 1, Squelch.OPEN), null);
    assertTrue(r.last.summary().contains("This is noise"), r.last.summary());
    Run talks = run(talk(4, t -> 1, 5), settings(Mode.FM, 1, Squelch.OPEN), null);
    assertEquals(talks.last.reading("toneAmount").orElseThrow().value(), 2500, 10);
    assertEquals(talks.last.reading("toneSquelch").orElseThrow().value(), 123, 0.1);
    assertEquals(talks.last.reading("seen").orElseThrow().value(), 100, 1e-9);
    assertEquals(talks.stream.window().orElseThrow().sampleCount(), (int) RATE);
    Sound kept = talks.stream.sound().orElseThrow();
    assertEquals(kept.samples().length / kept.rateHz(), 1, 0.01);
  }

  @Test
  public void aGapIsCountedAndTheSoundGoesOn() {
    Run r = new Run(settings(Mode.FM, 2, Squelch.OPEN));
    float[] iq = talk(4, t -> 1, 6);
    for (int at = 0; at + 1250 <= iq.length / 2; at += 1250) {
      r.take(block(iq, at, 1250, at < 2 * RATE ? 0 : 1));
    }
    assertTrue(r.last.summary().contains("1 gap: 1 s was not heard, "), r.last.summary());
    assertEquals(r.last.reading("seen").orElseThrow().value(), 80, 1.5);
    double[] x = r.heard();
    assertEquals(x.length / 48e3, 4, 0.4);
    assertEquals(tone(x, 1000, 3, 3.4), 0.68, 0.08);
  }

  @Test
  public void amAndOneSideBandAreHeardToo() {
    int n = (int) (2 * RATE);
    float[] am = new float[2 * n];
    float[] usb = new float[2 * n];
    for (int i = 0; i < n; i++) {
      double t = i / RATE;
      am[2 * i] = (float) (0.1 * (1 + 0.5 * Math.cos(2 * Math.PI * 1000 * t)));
      usb[2 * i] = (float) (0.01 * Math.cos(2 * Math.PI * 1000 * t));
      usb[2 * i + 1] = (float) (0.01 * Math.sin(2 * Math.PI * 1000 * t));
    }
    double[] heard = run(am, settings(Mode.AM, 1, Squelch.OPEN), null).heard();
    assertEquals(tone(heard, 1000, 1, 1.5), 0.7, 0.03);
    assertEquals(rms(heard, 1, 1.5), 0.7 / Math.sqrt(2), 0.03);
    double[] side = run(usb, settings(Mode.USB, 1, Squelch.OPEN), null).heard();
    assertEquals(tone(side, 1000, 1, 1.5), 0.7, 0.03);
  }
}
