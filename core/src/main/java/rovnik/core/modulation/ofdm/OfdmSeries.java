package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import rovnik.core.result.Axis;
import rovnik.core.result.Series;
import rovnik.core.result.Values;

/** What of one packet can be drawn. */
final class OfdmSeries {
  private static final double DEGREES = 180 / Math.PI;

  private final OfdmPacket p;
  private final List<PacketUser> users;
  private final double spacingHz;
  private final int symbols;
  private final int[] numbers;
  private final int lowest;

  /** Places of an axis of tones: some between may carry nothing. */
  private final int places;

  private final Axis tones;
  private final Axis overSymbols;

  /**
   * @param rateHz of the transform
   * @param users none if all of it is of one
   */
  OfdmSeries(OfdmPacket p, double rateHz, List<PacketUser> users) {
    this.p = p;
    this.users = users;
    this.spacingHz = ChannelSamples.TIMES * rateHz / p.plan().transform();
    this.symbols = p.symbols();
    this.numbers = p.tones();
    this.lowest = numbers[0];
    this.places = numbers[numbers.length - 1] - lowest + 1;
    this.tones = Axis.even("Tone", "", lowest, 1, places);
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
    units(out);
    out.add(TimeResponse.of(numbers, p.channelRe(), p.channelIm(), spacingHz));
    return out;
  }

  private void points(List<Series> out) {
    double[][] v = points((s, k) -> true);
    Axis all = Axis.even("Value", "", 0, 1, v[0].length);
    out.add(Series.points("points", "Tones of all symbols", all, v[0], v[1]));
    out.add(Series.points("ideal", "Where they should be", all, v[2], v[3]));
    for (PacketUser u : users) {
      if (users.size() > 1 && u.read(p)) {
        double[][] own = points(u.part());
        Axis axis = Axis.own("Value", "", own[4]);
        out.add(
            Series.points("points." + u.key(), u.name(), axis, own[0], own[1])
                .as(Series.Role.BESIDE));
      }
    }
  }

  /** Values, where they should be, and which of all they are. */
  private double[][] points(OfdmPacket.Part part) {
    int n = 0;
    int at = 0;
    double[][] v = new double[5][symbols * numbers.length];
    for (int s = 0; s < symbols; s++) {
      for (int k = 0; k < numbers.length; k++) {
        at += p.used(s, k) ? 1 : 0;
        if (p.used(s, k) && part.has(s, k)) {
          double x = p.values().re()[s][k];
          double y = p.values().im()[s][k];
          double idealX = p.ideal().re()[s][k];
          double idealY = p.ideal().im()[s][k];
          v[0][n] = p.plan().straightRe(k, x, y);
          v[1][n] = p.plan().straightIm(k, x, y);
          v[2][n] = p.plan().straightRe(k, idealX, idealY);
          v[3][n] = p.plan().straightIm(k, idealX, idealY);
          v[4][n++] = at - 1;
        }
      }
    }
    for (int i = 0; i < v.length; i++) {
      v[i] = Arrays.copyOf(v[i], n);
    }
    return v;
  }

  /** Whose the tones are, and how strong they came: all, and each user's beside. */
  private void units(List<Series> out) {
    double[] all = new double[numbers.length];
    Arrays.fill(all, Double.NaN);
    List<Series> parts = new ArrayList<>();
    for (PacketUser u : users) {
      double[] own = new double[numbers.length];
      Arrays.fill(own, Double.NaN);
      for (int k : u.tones()) {
        own[k] = 10 * Math.log10(Math.max(1e-30, u.powerOf(p, k)));
        all[k] = own[k];
      }
      parts.add(unit("units." + u.key(), u.name(), own).as(Series.Role.BESIDE));
    }
    if (users.size() > 1 || !users.isEmpty() && p.said() != null) {
      out.add(unit("units", "Users over the band", all));
      out.addAll(parts);
    }
  }

  private Series unit(String id, String label, double[] db) {
    return Series.curve(id, label, tones, placed(db), "dB").of("Over the mean");
  }

  private void errors(List<Series> out) {
    double[] byTone = new double[numbers.length];
    double[] peakOfTone = new double[numbers.length];
    double[] bySymbol = new double[symbols];
    double[] peakOfSymbol = new double[symbols];
    double[] powerOfTone = new double[numbers.length];
    double[] powerOfSymbol = new double[symbols];
    for (int s = 0; s < symbols; s++) {
      SymbolPlan symbol = p.plan().data().get(s);
      for (int k = 0; k < numbers.length; k++) {
        if (symbol.used(k)) {
          double e = p.error(s, k);
          byTone[k] += e;
          bySymbol[s] += e;
          powerOfTone[k] += symbol.power(k);
          powerOfSymbol[s] += symbol.power(k);
          peakOfTone[k] = Math.max(peakOfTone[k], e / symbol.power(k));
          peakOfSymbol[s] = Math.max(peakOfSymbol[s], e / symbol.power(k));
        }
      }
    }
    for (int k = 0; k < numbers.length; k++) {
      byTone[k] /= powerOfTone[k];
    }
    for (int s = 0; s < symbols; s++) {
      bySymbol[s] /= powerOfSymbol[s];
    }
    out.add(percent("overTone", "EVM of each tone", tones, placed(byTone)));
    out.add(percent("peakOverTone", "Peak of each tone", tones, placed(peakOfTone)));
    out.add(percent("overSymbol", "EVM of each symbol", overSymbols, bySymbol));
    out.add(percent("peakOverSymbol", "Peak of each symbol", overSymbols, peakOfSymbol));
  }

  private Series percent(String id, String label, Axis x, double[] squares) {
    double[] y = new double[squares.length];
    for (int i = 0; i < y.length; i++) {
      y[i] = 100 * Math.sqrt(squares[i]);
    }
    return Series.curve(id, label, x, y, "%").of("Error");
  }

  /** Errors of each tone, symbol after symbol. */
  private Series matrix() {
    float[] z = new float[places * symbols];
    Arrays.fill(z, Float.NaN);
    for (int k = 0; k < numbers.length; k++) {
      for (int s = 0; s < symbols; s++) {
        z[(numbers[k] - lowest) * symbols + s] = errorOf(s, k);
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

  private float errorOf(int s, int k) {
    SymbolPlan symbol = p.plan().data().get(s);
    return symbol.used(k) ? (float) (100 * Math.sqrt(p.error(s, k) / symbol.power(k))) : Float.NaN;
  }

  /** What the tones pass, over the mean of the inner ones; with the limits of a standard. */
  private void flatness(List<Series> out) {
    Flatness f = Flatness.of(p);
    out.add(
        Series.curve("flatness", "What each tone passes", tones, placed(f.db()), "dB").of("Level"));
    if (f.high() != null) {
      out.add(limit("limit.flatness.upper", f.high()));
      out.add(limit("limit.flatness.lower", f.low()));
    }
  }

  private Series limit(String id, double[] y) {
    double[] all = placed(y);
    for (int i = 1; i < all.length; i++) {
      all[i] = Double.isNaN(all[i]) ? all[i - 1] : all[i];
    }
    return Series.curve(id, "Flatness of the standard", tones, all, "dB").as(Series.Role.LIMIT);
  }

  /** Values of tones at their places; nothing in the middle. */
  private double[] placed(double[] values) {
    double[] out = new double[places];
    Arrays.fill(out, Double.NaN);
    for (int k = 0; k < values.length; k++) {
      out[numbers[k] - lowest] = values[k];
    }
    return out;
  }
}
