package rovnik.core.modulation.analysis;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import rovnik.core.modulation.PowerStatistics;
import rovnik.core.path.PathCorrection;
import rovnik.core.result.Axis;
import rovnik.core.result.Fact;
import rovnik.core.result.Series;
import rovnik.core.result.Values;
import rovnik.core.signal.ComplexFft;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.Transforms;

/** What of one carrier can be drawn. */
final class SingleCarrierSeries {
  private static final String SYMBOL = "Symbol";
  private static final String WRONG_BITS = SingleCarrierMeasurement.WRONG_BITS;
  private static final String COMPARED = SingleCarrierMeasurement.BITS_COMPARED;

  /** Symbols whose way is shown. */
  private static final int PATH_SYMBOLS = 200;

  private static final int POINTS_PER_SYMBOL = 8;
  static final int EYE_SYMBOLS = 600;
  static final int EYE_COLUMNS = 48;
  private static final int EYE_ROWS = 64;
  private static final double TURN = 2 * Math.PI;
  private static final double DEGREES = 180 / Math.PI;
  private static final int SPECTRUM_POINTS = 801;
  private static final int RESPONSE_POINTS = 201;
  private static final int ERROR_SEGMENT = 256;

  private final IqRecord record;
  private final PathCorrection correction;
  private final SingleCarrierMeasurement.Analysis a;
  private final Symbols s;
  private final SymbolErrors errors;
  private final int n;
  private final double scale;
  private final Axis symbols;

  /**
   * @param correction null without a path
   * @param scale of errors, for percent
   */
  SingleCarrierSeries(
      IqRecord record,
      PathCorrection correction,
      SingleCarrierMeasurement.Analysis a,
      SymbolErrors errors,
      double scale) {
    this.record = record;
    this.correction = correction;
    this.a = a;
    this.s = a.symbols();
    this.n = s.count();
    this.errors = errors;
    this.scale = scale;
    this.symbols = Axis.even(SYMBOL, "", 0, 1, n);
  }

  List<Series> series() {
    List<Series> out = new ArrayList<>();
    out.add(Series.points("points", "Symbols", symbols, s.re(), s.im()));
    out.add(Series.points("ideal", "Where they should be", symbols, s.ideal().i(), s.ideal().q()));
    int shown = Math.min(PATH_SYMBOLS, n - 1);
    double[][] path = a.recovery().path(s, 0, shown, POINTS_PER_SYMBOL);
    out.add(
        Series.points(
            "path",
            "Way between symbols",
            Axis.even(SYMBOL, "", 0, 1.0 / POINTS_PER_SYMBOL, path[0].length),
            path[0],
            path[1]));
    eyes(out);
    out.add(real("error", "Error vector", symbols, percent(errors.vector()), "%", "Error"));
    out.add(
        real("magnitude", "Magnitude error", symbols, percent(errors.magnitude()), "%", "Error"));
    out.add(
        real(
            "phase",
            "Phase error",
            symbols,
            SymbolErrors.times(DEGREES, errors.angle()),
            "deg",
            "Phase"));
    out.add(
        real(
            "symbols",
            "Symbols in rows",
            symbols,
            Arrays.stream(a.data().map(KnownData::decided).orElse(s.values()))
                .asDoubleStream()
                .toArray(),
            "",
            "Value"));
    if (a.data().isPresent()) {
      Series wrong =
          real(
              WRONG_BITS,
              "Wrong bits",
              symbols,
              Arrays.stream(a.data().get().wrong()).asDoubleStream().toArray(),
              "",
              "Bits");
      out.add(
          new Series(
              wrong.id(),
              wrong.label(),
              wrong.role(),
              wrong.plane(),
              wrong.calibrated(),
              wrong.x(),
              wrong.quantity(),
              wrong.unit(),
              wrong.values(),
              List.of(Fact.of(COMPARED, a.data().get().bits(), ""))));
    }
    if (a.keying() != null) {
      keying(out);
    }
    overTime(out, path);
    if (a.weights() != null) {
      equalizer(out, a.weights());
    }
    spectra(out);
    out.add(ccdf(path));
    return out;
  }

  private static Series real(
      String id, String label, Axis x, double[] y, String unit, String quantity) {
    return Series.curve(id, label, x, y, unit).of(quantity);
  }

  private double[] percent(double[] x) {
    return SymbolErrors.times(scale, x);
  }

  private void eyes(List<Series> out) {
    int shown = Math.min(EYE_SYMBOLS, n - 3);
    if (shown < 4) {
      return;
    }
    double[][] way = a.recovery().path(s, 0, shown + 2, EYE_COLUMNS / 2);
    double most = 1e-9;
    for (double[] part : way) {
      for (double v : part) {
        most = Math.max(most, Math.abs(v));
      }
    }
    out.add(eye("eyeI", "Eye of I", way[0], shown, most, ""));
    out.add(eye("eyeQ", "Eye of Q", way[1], shown, most, ""));
  }

  /** How often a way between symbols passes each place, over two symbols. */
  private static Series eye(
      String id, String label, double[] way, int shown, double most, String unit) {
    int half = EYE_COLUMNS / 2;
    double step = 2 * most / EYE_ROWS;
    float[] z = new float[(EYE_COLUMNS + 1) * EYE_ROWS];
    for (int k = 1; k <= shown; k++) {
      for (int i = 0; i <= EYE_COLUMNS; i++) {
        double v = way[(k - 1) * half + i];
        int row = (int) Math.min(EYE_ROWS - 1, Math.max(0, (v + most) / step));
        z[i * EYE_ROWS + row] += 100f / shown;
      }
    }
    String up = unit.isEmpty() ? "Amplitude" : Axis.FREQUENCY;
    return new Series(
        id,
        label,
        Series.Role.DATA,
        "",
        true,
        Axis.even("Symbols from the instant", "", -1, 1.0 / half, EYE_COLUMNS + 1),
        "Share of symbols",
        "%",
        new Values.Matrix(z, Axis.even(up, unit, -most + step / 2, step, EYE_ROWS)),
        List.of());
  }

  /** What the frequency of a keyed carrier does. */
  private void keying(List<Series> out) {
    Keying k = a.keying();
    double most = 1e-9;
    for (double v : k.wayHz()) {
      most = Math.max(most, Math.abs(v));
    }
    int shown = k.wayHz().length / k.pointsPerSymbol() - 2;
    if (shown >= 4) {
      out.add(eye("eyeFrequency", "Eye of the frequency", k.wayHz(), shown, most, "Hz"));
    }
    out.add(real("levels", "Frequency of symbols", symbols, k.levelHz(), "Hz", Axis.FREQUENCY));
    double[] error = new double[n];
    for (int i = 0; i < n; i++) {
      error[i] = 100 * (k.levelHz()[i] - k.idealHz()[i]) / k.deviationHz();
    }
    out.add(real("levelError", "Frequency error of symbols", symbols, error, "%", "Error"));
  }

  /** What the equalizer does, over frequency and as weights. */
  private void equalizer(List<Series> out, Weights w) {
    double half = s.symbolRateHz() / 2;
    double step = 2 * half / (RESPONSE_POINTS - 1);
    double[] db = new double[RESPONSE_POINTS];
    double[] phase = new double[RESPONSE_POINTS];
    double[] h = new double[2];
    for (int i = 0; i < RESPONSE_POINTS; i++) {
      w.response((-half + i * step) / s.symbolRateHz(), h);
      db[i] = 20 * Math.log10(Math.hypot(h[0], h[1]) + 1e-15);
      phase[i] = Math.toDegrees(Math.atan2(h[1], h[0]));
    }
    Axis offset = Axis.even("Offset", "Hz", -half, step, RESPONSE_POINTS);
    out.add(real("equalizer", "Equalizer response", offset, db, "dB", "Gain"));
    out.add(real("equalizerPhase", "Equalizer phase", offset, phase, "deg", "Phase"));
    Axis place = Axis.even("Symbols before", "", -w.reach(), 0.5, w.re().length);
    out.add(Series.points("equalizerTaps", "Equalizer weights", place, w.re(), w.im()));
  }

  /** Amplitude, phase and frequency of the way between symbols, over time. */
  private void overTime(List<Series> out, double[][] path) {
    int points = path[0].length;
    double stepSeconds = 1 / s.symbolRateHz() / POINTS_PER_SYMBOL;
    double[] amplitude = new double[points];
    double[] phase = new double[points];
    for (int i = 0; i < points; i++) {
      amplitude[i] = 100 * Math.hypot(path[0][i], path[1][i]);
      double angle = Math.atan2(path[1][i], path[0][i]);
      double step = i == 0 ? angle : angle - phase[i - 1];
      phase[i] = (i == 0 ? 0 : phase[i - 1]) + step - TURN * Math.rint(step / TURN);
    }
    double[] frequency = new double[points - 1];
    for (int i = 0; i + 1 < points; i++) {
      frequency[i] = (phase[i + 1] - phase[i]) / TURN / stepSeconds;
    }
    Axis time = Axis.even("Time", "s", 0, stepSeconds, points);
    out.add(real("amplitude", "Amplitude over time", time, amplitude, "%", "Amplitude"));
    double[] degrees = SymbolErrors.times(DEGREES, phase);
    out.add(real("phaseOverTime", "Phase over time", time, degrees, "deg", "Phase"));
    out.add(
        real(
            "frequencyOverTime",
            "Frequency over time",
            Axis.even("Time", "s", stepSeconds / 2, stepSeconds, points - 1),
            frequency,
            "Hz",
            Axis.FREQUENCY));
  }

  private void spectra(List<Series> out) {
    double fs = record.sampleRateHz();
    double[] db = a.taker().spectrumDb(SPECTRUM_POINTS);
    double centre =
        correction == null ? record.centreHz() : correction.portToPlaneHz(record.centreHz());
    double cell = fs / SPECTRUM_POINTS;
    out.add(
        real(
            "spectrum",
            "Spectrum of the record",
            Axis.even(Axis.FREQUENCY, "Hz", centre - fs / 2 + cell / 2, cell, SPECTRUM_POINTS),
            db,
            "dB",
            "Share of the power"));
    if (n < ERROR_SEGMENT) {
      return;
    }
    ComplexFft fft = Transforms.ofLength(ERROR_SEGMENT);
    float[] window = new float[ERROR_SEGMENT];
    double power = 0;
    for (int i = 0; i < ERROR_SEGMENT; i++) {
      window[i] = (float) (1 - Math.cos(2 * Math.PI * (i + 0.5) / ERROR_SEGMENT));
      power += window[i] * window[i];
    }
    float[] e = new float[2 * n];
    for (int k = 0; k < n; k++) {
      e[2 * k] = (float) (s.re()[k] - s.ideal().i()[k]);
      e[2 * k + 1] = (float) (s.im()[k] - s.ideal().q()[k]);
    }
    float[] sum = new float[ERROR_SEGMENT];
    int segments = 0;
    for (int at = 0; at + ERROR_SEGMENT <= n; at += ERROR_SEGMENT / 2) {
      fft.addPower(e, at, window, sum);
      segments++;
    }
    double[] y = new double[ERROR_SEGMENT];
    for (int k = 0; k < ERROR_SEGMENT; k++) {
      int bin = (k + ERROR_SEGMENT / 2) % ERROR_SEGMENT;
      y[k] = 10 * Math.log10(sum[fft.placeOf(bin)] / segments / power / ERROR_SEGMENT + 1e-30);
    }
    double step = s.symbolRateHz() / ERROR_SEGMENT;
    out.add(
        real(
            "errorSpectrum",
            "Spectrum of the error",
            Axis.even("Offset", "Hz", -s.symbolRateHz() / 2, step, ERROR_SEGMENT),
            y,
            "dBc",
            "Level"));
  }

  /** Power on the way between symbols, too. */
  private static Series ccdf(double[][] path) {
    double[] p = new double[path[0].length];
    for (int i = 0; i < p.length; i++) {
      p[i] = path[0][i] * path[0][i] + path[1][i] * path[1][i];
    }
    return new PowerStatistics(p).ccdf();
  }
}
