package rovnik.core.modulation.wave;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.List;
import org.testng.annotations.Test;
import rovnik.core.Refusal;
import rovnik.core.modulation.Waveform;

/** Recorded sound as a message: a recorded tone must do what a tone does. */
public class ByAudioTest {
  private static final double AUDIO = 16e3;

  private static OwnSamples tone(double hertz, int samples) {
    float[] iq = new float[2 * samples];
    for (int n = 0; n < samples; n++) {
      iq[2 * n] = (float) (0.1 + 0.3 * Math.cos(2 * Math.PI * hertz * n / AUDIO));
    }
    return new OwnSamples(iq, AUDIO, "tone.wav");
  }

  private static float[] made(WavePart part) {
    Waveform w = new WaveSum(List.of(new WaveSum.Placed(part, 0, 0))).make(4 * AUDIO, 0.1);
    assertTrue(w.seamless());
    return w.iq();
  }

  @Test
  public void aRecordedToneIsATone() {
    for (Modulated.Kind kind : Modulated.Kind.values()) {
      double amount = kind == Modulated.Kind.FM ? 2500 : 0.5;
      float[] by = made(new ByAudio(kind, amount, tone(1000, 1600)));
      float[] expected = made(new Modulated(kind, amount, 1000, false, 0));
      double error = 0;
      double re = 0;
      double im = 0;
      for (int n = 0; n < by.length / 2; n++) {
        re += by[2 * n] * expected[2 * n] + by[2 * n + 1] * expected[2 * n + 1];
        im += by[2 * n + 1] * expected[2 * n] - by[2 * n] * expected[2 * n + 1];
      }
      // A running sum begins at another phase than a closed form.
      double turn = Math.atan2(im, re);
      for (int n = 0; n < by.length / 2; n++) {
        double x = by[2 * n] * Math.cos(turn) + by[2 * n + 1] * Math.sin(turn);
        double y = by[2 * n + 1] * Math.cos(turn) - by[2 * n] * Math.sin(turn);
        error += Math.pow(x - expected[2 * n], 2) + Math.pow(y - expected[2 * n + 1], 2);
      }
      double db = 10 * Math.log10(2 * error / by.length);
      assertTrue(db < -50, kind + ": " + db);
    }
  }

  @Test
  public void lengthsAndSilence() {
    ByAudio odd = new ByAudio(Modulated.Kind.AM, 0.5, tone(1000, 1601));
    assertEquals(odd.period(4 * AUDIO).samples(), 6404);
    assertEquals(odd.period(30e3).samples(), 0);
    assertEquals(odd.seconds(), 1601 / AUDIO, 1e-12);
    OwnSamples still = new OwnSamples(new float[200], AUDIO, "still.wav");
    expectThrows(Refusal.class, () -> new ByAudio(Modulated.Kind.FM, 1e3, still).make(100, 64e3));
    expectThrows(Refusal.class, () -> new ByAudio(Modulated.Kind.AM, 3, still));
  }
}
