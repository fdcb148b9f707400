package rovnik.core.modulation.wave;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.modulation.PowerStatistics;
import rovnik.core.modulation.Waveform;
import rovnik.core.result.Axis;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.Series;
import rovnik.core.result.Values;
import rovnik.core.signal.ComplexFft;
import rovnik.core.signal.Transforms;

/** What a waveform will be like, before it is sent. */
public final class WaveformLook {
  private static final int MOST_LINES = 2048;

  /** Nothing that a generator makes is as clean as this. */
  private static final double FLOOR = 1e-11;

  private static final int MOST_POINTS = 2000;
  private static final int MOST_SEGMENTS = 4096;

  private WaveformLook() {}

  /** Spectrum, envelope, way in the plane, how often above the mean, and what there is to know. */
  public static Outcome of(Waveform w, String words) {
    List<Series> series = new ArrayList<>();
    double[] power = new double[w.samples()];
    for (int n = 0; n < power.length; n++) {
      double re = w.iq()[2 * n];
      double im = w.iq()[2 * n + 1];
      power[n] = re * re + im * im;
    }
    Spectrum spectrum = Spectrum.of(w);
    series.add(
        Series.curve(
                "spectrum",
                "Spectrum",
                Axis.even(
                    "Offset", "Hz", spectrum.startHz(), spectrum.stepHz(), spectrum.db().length),
                spectrum.db(),
                "dB")
            .of("Share of power"));
    PowerStatistics spread = new PowerStatistics(power);
    series.add(spread.ccdf());
    int shown = Math.min(MOST_POINTS, power.length);
    Axis time = Axis.even("Time", "s", 0, 1 / w.sampleRateHz(), shown);
    double[] level = new double[shown];
    double[] re = new double[shown];
    double[] im = new double[shown];
    for (int n = 0; n < shown; n++) {
      level[n] = 10 * Math.log10(power[n] + 1e-12);
      re[n] = w.iq()[2 * n];
      im[n] = w.iq()[2 * n + 1];
    }
    series.add(
        Series.curve("envelope", "Its beginning", time, level, "dB").of("Power over the mean"));
    series.add(
        new Series(
            "path",
            "Its way in the plane",
            Series.Role.DATA,
            "",
            true,
            time,
            "Amplitude",
            "",
            new Values.Complex(re, im),
            List.of()));
    List<Reading> readings =
        List.of(
            exact("crest", "Peaks over the mean", w.crestDb(), "dB"),
            exact("often", "Peaks of 1 in 10,000", spread.exceededDb(1e-4), "dB"),
            exact("occupied", "99 % of its power within", spectrum.occupiedHz(), "Hz"),
            exact("length", "Length", w.seconds(), "s"));
    return new Outcome(
        "waveform",
        "Waveform",
        String.format(
            Locale.ROOT,
            "%s: %,d samples. %s",
            words,
            w.samples(),
            w.seamless() ? "It repeats without a seam." : w.note()),
        series,
        List.of(),
        readings,
        List.of(),
        List.of());
  }

  private static Reading exact(String id, String label, double value, String unit) {
    return new Reading(
        id, label, value, unit, "", 0, List.of(), Limit.NONE, Verdict.NONE, List.of());
  }

  /** Averaged power in even cells. */
  private record Spectrum(double startHz, double stepHz, double[] db, double occupiedHz) {
    static Spectrum of(Waveform w) {
      int length = 64;
      while (length < MOST_LINES && 2 * length <= w.samples()) {
        length *= 2;
      }
      ComplexFft fft = Transforms.ofLength(length);
      float[] window = new float[length];
      for (int i = 0; i < length; i++) {
        window[i] = (float) (1 - Math.cos(2 * Math.PI * (i + 0.5) / length));
      }
      // It is played on a ring: segments go on over its end.
      float[] iq = Arrays.copyOf(w.iq(), 2 * (w.samples() + length));
      for (int i = 2 * w.samples(); i < iq.length; i++) {
        iq[i] = iq[i - 2 * w.samples()];
      }
      float[] sum = new float[length];
      int step = Math.max(length / 4, w.samples() / MOST_SEGMENTS);
      for (int at = 0; at < w.samples(); at += step) {
        fft.addPower(iq, at, window, sum);
      }
      double all = 0;
      for (float v : sum) {
        all += v;
      }
      double[] db = new double[length];
      double below = 0;
      int low = -1;
      int high = length - 1;
      for (int k = 0; k < length; k++) {
        double p = sum[fft.placeOf((k + length / 2) % length)] / all;
        db[k] = 10 * Math.log10(p + FLOOR);
        below += p;
        low = low < 0 && below > 0.005 ? k : low;
        high = below < 0.995 ? k + 1 : high;
      }
      double cell = w.sampleRateHz() / length;
      return new Spectrum(
          -w.sampleRateHz() / 2, cell, db, (Math.min(high, length - 1) - low + 1) * cell);
    }
  }
}
