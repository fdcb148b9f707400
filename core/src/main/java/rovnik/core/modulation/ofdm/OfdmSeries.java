package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import rovnik.core.result.Axis;
import rovnik.core.result.Series;
import rovnik.core.result.Values;

/** What of one packet can be drawn. */
final class OfdmSeries {
  /** IEEE 802.11-2020, 17.3.9.7.2: tones to 16 within 4 dB, those beyond 4 up or 6 down. */
  private static final double FLAT_DB = 4;

  private static final double OUTER_DOWN_DB = 6;
  private static final int INNER = 16;
  private static final double DEGREES = 180 / Math.PI;
  private static final int[] TONES = OfdmPacket.TONES;

  /** Places of an axis of tones: the one in the middle carries nothing. */
  private static final int PLACES = 2 * LegacyTones.LAST + 1;

  private final OfdmPacket p;
  private final int symbols;
  private final Axis tones;
  private final Axis overSymbols;

  OfdmSeries(OfdmPacket p) {
    this.p = p;
    this.symbols = p.symbols();
    this.tones = Axis.even("Tone", "", -LegacyTones.LAST, 1, PLACES);
    this.overSymbols = Axis.even("OFDM symbol", "", 1, 1, symbols);
  }

  List<Series> series() {
    List<Series> out = new ArrayList<>();
    points(out);
    errors(out);
    out.add(matrix());
    double[] phase = p.phase().clone();
    for (int s = 0; s < symbols; s++) {
      phase[s] *= DEGREES;
    }
    out.add(
        Series.curve("phase", "Phase that all tones share", overSymbols, phase, "deg").of("Phase"));
    flatness(out);
    return out;
  }

  private void points(List<Series> out) {
    int n = symbols * TONES.length;
    double[][] v = new double[4][n];
    for (int s = 0; s < symbols; s++) {
      int at = s * TONES.length;
      System.arraycopy(p.values().re()[s], 0, v[0], at, TONES.length);
      System.arraycopy(p.values().im()[s], 0, v[1], at, TONES.length);
      System.arraycopy(p.ideal().re()[s], 0, v[2], at, TONES.length);
      System.arraycopy(p.ideal().im()[s], 0, v[3], at, TONES.length);
    }
    Axis all = Axis.even("Value", "", 0, 1, n);
    out.add(Series.points("points", "Tones of all symbols", all, v[0], v[1]));
    out.add(Series.points("ideal", "Where they should be", all, v[2], v[3]));
  }

  private void errors(List<Series> out) {
    double[] byTone = new double[TONES.length];
    double[] peakOfTone = new double[TONES.length];
    double[] bySymbol = new double[symbols];
    double[] peakOfSymbol = new double[symbols];
    for (int s = 0; s < symbols; s++) {
      for (int k = 0; k < TONES.length; k++) {
        double e = p.error(s, k);
        byTone[k] += e / symbols;
        bySymbol[s] += e / TONES.length;
        peakOfTone[k] = Math.max(peakOfTone[k], e);
        peakOfSymbol[s] = Math.max(peakOfSymbol[s], e);
      }
    }
    out.add(percent("overTone", "EVM of each tone", tones, placed(byTone)));
    out.add(percent("peakOverTone", "Peak of each tone", tones, placed(peakOfTone)));
    out.add(percent("overSymbol", "EVM of each symbol", overSymbols, bySymbol));
    out.add(percent("peakOverSymbol", "Peak of each symbol", overSymbols, peakOfSymbol));
  }

  private static Series percent(String id, String label, Axis x, double[] squares) {
    double[] y = new double[squares.length];
    for (int i = 0; i < y.length; i++) {
      y[i] = 100 * Math.sqrt(squares[i]);
    }
    return Series.curve(id, label, x, y, "%").of("Error");
  }

  /** Errors of each tone, symbol after symbol. */
  private Series matrix() {
    float[] z = new float[PLACES * symbols];
    Arrays.fill(z, Float.NaN);
    for (int k = 0; k < TONES.length; k++) {
      for (int s = 0; s < symbols; s++) {
        z[(TONES[k] + LegacyTones.LAST) * symbols + s] = (float) (100 * Math.sqrt(p.error(s, k)));
      }
    }
    return new Series(
        "errors",
        "EVM by tone and symbol",
        Series.Role.DATA,
        "",
        true,
        tones,
        "Error",
        "%",
        new Values.Matrix(z, overSymbols),
        List.of());
  }

  /** What the tones pass, over the mean of the inner ones, with the limits of the standard. */
  private void flatness(List<Series> out) {
    double[] db = new double[TONES.length];
    double mean = 0;
    for (int k = 0; k < TONES.length; k++) {
      double power = p.channelRe()[k] * p.channelRe()[k] + p.channelIm()[k] * p.channelIm()[k];
      db[k] = 10 * Math.log10(Math.max(1e-30, power));
      mean += Math.abs(TONES[k]) <= INNER ? power / (2 * INNER) : 0;
    }
    double[] low = new double[TONES.length];
    double[] high = new double[TONES.length];
    for (int k = 0; k < TONES.length; k++) {
      db[k] -= 10 * Math.log10(mean);
      low[k] = Math.abs(TONES[k]) <= INNER ? -FLAT_DB : -OUTER_DOWN_DB;
      high[k] = FLAT_DB;
    }
    out.add(Series.curve("flatness", "What each tone passes", tones, placed(db), "dB").of("Level"));
    out.add(limit("limit.flatness.upper", high));
    out.add(limit("limit.flatness.lower", low));
  }

  private Series limit(String id, double[] y) {
    double[] all = placed(y);
    all[LegacyTones.LAST] = all[LegacyTones.LAST - 1];
    return Series.curve(id, "Flatness of the standard", tones, all, "dB").as(Series.Role.LIMIT);
  }

  /** Values of tones at their places; nothing in the middle. */
  private static double[] placed(double[] values) {
    double[] out = new double[PLACES];
    Arrays.fill(out, Double.NaN);
    for (int k = 0; k < values.length; k++) {
      out[TONES[k] + LegacyTones.LAST] = values[k];
    }
    return out;
  }
}
