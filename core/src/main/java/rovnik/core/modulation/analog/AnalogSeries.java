package rovnik.core.modulation.analog;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import rovnik.core.result.Axis;
import rovnik.core.result.Series;
import rovnik.core.signal.DoubleTransforms;

/**
 * What of an analog carrier can be drawn.
 *
 * @param audio the demodulated signal behind its filter
 * @param frequency over time, Hz from what the channel was shifted by
 * @param phase over time without the carrier's own frequency, radians
 * @param meanHz of the carrier, from what the channel was shifted by
 * @param highestHz of the demodulated signal
 */
record AnalogSeries(
    AnalogSettings settings,
    Demodulated d,
    double[] audio,
    SineFit tone,
    double[] frequency,
    double[] phase,
    double meanHz,
    double highestHz) {
  private static final int MOST_POINTS = 2000;

  /** Periods of the tone that a curve over time shows. */
  private static final int PERIODS = 8;

  List<Series> series() {
    List<Series> out = new ArrayList<>();
    AnalogSettings.Kind k = settings.kind();
    out.add(over("audio", "Demodulated " + k.label(), audio, k.scale(), k.unit(), k.amount()));
    out.add(
        AudioSpectrum.of(audio, d.rateHz(), highestHz, tone, "Spectrum of the demodulated signal"));
    out.add(channel());
    double[] envelope = new double[d.re().length];
    for (int i = 0; i < envelope.length; i++) {
      double p = d.re()[i] * d.re()[i] + d.im()[i] * d.im()[i];
      envelope[i] = 10 * Math.log10(p / d.power() + 1e-12);
    }
    out.add(over("envelope", "Amplitude over time", envelope, 1, "dB", "Power over the mean"));
    double[] f = Arrays.stream(frequency).map(v -> v - meanHz).toArray();
    out.add(over("frequency", "Frequency over time", f, 1, "Hz", "Off the carrier"));
    out.add(over("phase", "Phase over time", phase, 1, "rad", "Phase"));
    return out;
  }

  /** A curve over the first periods of the tone. */
  private Series over(
      String id, String label, double[] y, double factor, String unit, String quantity) {
    double wanted = tone.found() ? PERIODS / tone.rateHz() * d.rateHz() : y.length;
    int shown = (int) Math.max(2, Math.min(Math.min(y.length, MOST_POINTS), Math.ceil(wanted)));
    double[] part = new double[shown];
    for (int i = 0; i < shown; i++) {
      part[i] = factor * y[i];
    }
    return Series.curve(id, label, Axis.even("Time", "s", 0, 1 / d.rateHz(), shown), part, unit)
        .of(quantity);
  }

  /** The channel around its carrier. */
  private Series channel() {
    int n = d.re().length;
    int length = Integer.highestOneBit(Math.max(2, 2 * n - 1));
    double[] work = new double[2 * length];
    for (int i = 0; i < n; i++) {
      double w = 1 - Math.cos(2 * Math.PI * (i + 0.5) / n);
      work[2 * i] = w * d.re()[i];
      work[2 * i + 1] = w * d.im()[i];
    }
    DoubleTransforms.of(length).complexForward(work);
    double step = d.rateHz() / length;
    int half = (int) Math.min(length / 2.0 - 1, Math.ceil(0.6 * settings.bandHz() / step));
    double[] db = new double[2 * half + 1];
    double full = 10 * Math.log10(d.power());
    for (int k = -half; k <= half; k++) {
      int at = 2 * Math.floorMod(k, length);
      double a = Math.hypot(work[at], work[at + 1]) / n;
      db[k + half] = 20 * Math.log10(a + 1e-12) - full;
    }
    return AudioSpectrum.thinned(
        Series.curve(
                "spectrum",
                "Spectrum of the channel",
                Axis.even("Offset", "Hz", -half * step - meanHz, step, db.length),
                db,
                "dB")
            .of("Over its power"));
  }
}
