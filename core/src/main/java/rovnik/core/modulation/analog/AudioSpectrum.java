package rovnik.core.modulation.analog;

import java.util.Arrays;
import rovnik.core.result.Axis;
import rovnik.core.result.Series;
import rovnik.core.signal.DoubleTransforms;

/** The spectrum of what one hears. */
public final class AudioSpectrum {
  private static final int MOST_POINTS = 2000;

  private AudioSpectrum() {}

  /**
   * Peak amplitudes under a Hann window, dB of the tone, or of all of it where there is none.
   *
   * @param audio samples
   * @param highestHz end of the curve
   * @param tone what was found in it
   */
  public static Series of(
      double[] audio, double rateHz, double highestHz, SineFit tone, String label) {
    int n = audio.length;
    int length = Integer.highestOneBit(Math.max(2, 2 * n - 1));
    double[] work = new double[length];
    double mean = Arrays.stream(audio).average().orElse(0);
    for (int i = 0; i < n; i++) {
      work[i] = (audio[i] - mean) * (1 - Math.cos(2 * Math.PI * (i + 0.5) / n));
    }
    DoubleTransforms.of(length).realForward(work);
    double step = rateHz / length;
    int lines = (int) Math.min(length / 2.0, Math.ceil(highestHz / step));
    double reference =
        tone.found() ? tone.amplitude()[0] : Math.max(1e-12, rms(audio) * Math.sqrt(2));
    double[] db = new double[lines];
    for (int k = 1; k < lines; k++) {
      double a = 2.0 / n * Math.hypot(work[2 * k], work[2 * k + 1]);
      db[k] = 20 * Math.log10(a / reference + 1e-9);
    }
    db[0] = lines > 1 ? db[1] : 0;
    return thinned(
        Series.curve(
                "audioSpectrum",
                label,
                Axis.even("Audio frequency", "Hz", 0, step, lines),
                db,
                "dB")
            .of(tone.found() ? "Over the tone" : "Over the whole"));
  }

  /** The highest of each few points where there are too many. */
  static Series thinned(Series s) {
    double[] y = s.y();
    int each = (y.length + MOST_POINTS - 1) / MOST_POINTS;
    if (each <= 1) {
      return s;
    }
    double[] out = new double[(y.length + each - 1) / each];
    Arrays.fill(out, Double.NEGATIVE_INFINITY);
    for (int i = 0; i < y.length; i++) {
      out[i / each] = Math.max(out[i / each], y[i]);
    }
    Axis x =
        Axis.even(s.x().quantity(), s.x().unit(), s.x().start(), s.x().step() * each, out.length);
    return Series.curve(s.id(), s.label(), x, out, s.unit()).of(s.quantity());
  }

  /** Of all but the mean. */
  public static double rms(double[] x) {
    double mean = Arrays.stream(x).average().orElse(0);
    double sum = 0;
    for (double v : x) {
      sum += (v - mean) * (v - mean) / x.length;
    }
    return Math.sqrt(sum);
  }
}
