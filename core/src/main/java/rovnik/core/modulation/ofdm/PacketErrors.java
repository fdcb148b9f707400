package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.List;

/**
 * Errors of the tones of a packet, from which one form after the other is taken: gains that tones
 * have in all symbols, what follows the ideal values alike in all of them, and what each symbol has
 * of its own.
 */
final class PacketErrors {
  /** So many values tell enough. */
  private static final int ENOUGH = 40_000;

  /** Neighbours that a tone is looked for in, at most and of all tones. */
  private static final int REACH = 8;

  private static final int TONES_EACH = 16;

  private final OfdmPacket p;
  private final boolean training;
  private final int[] chosen;
  private final int symbols;
  private final int count;

  /** What is left of the errors, and what should be there. */
  private final double[][] re;

  private final double[][] im;
  private final double[][] idealRe;
  private final double[][] idealIm;

  /** Of each tone: power of what should be there over all symbols, and mean gain of its errors. */
  private final double[] power;

  private final double[] gainRe;
  private final double[] gainIm;
  private final double values;

  /**
   * @param training gains come of what the training was, not of the data
   * @param fewest symbols that are looked at
   */
  PacketErrors(OfdmPacket p, boolean training, int fewest) {
    this.p = p;
    this.training = training;
    this.count = p.tones().length;
    this.symbols = (int) Math.max(fewest, Math.min(p.symbols(), ENOUGH / count));
    this.chosen = new int[symbols];
    this.re = new double[symbols][count];
    this.im = new double[symbols][count];
    this.idealRe = new double[symbols][];
    this.idealIm = new double[symbols][];
    this.power = new double[count];
    double used = 0;
    for (int i = 0; i < symbols; i++) {
      int s = (int) ((long) i * p.symbols() / symbols);
      chosen[i] = s;
      idealRe[i] = p.ideal().re()[s];
      idealIm[i] = p.ideal().im()[s];
      for (int k = 0; k < count; k++) {
        if (p.used(s, k)) {
          re[i][k] = p.values().re()[s][k] - idealRe[i][k];
          im[i][k] = p.values().im()[s][k] - idealIm[i][k];
          power[k] += idealRe[i][k] * idealRe[i][k] + idealIm[i][k] * idealIm[i][k];
          used++;
        }
      }
    }
    this.values = used;
    this.gainRe = new double[count];
    this.gainIm = new double[count];
  }

  /** Symbols that are looked at. */
  int symbols() {
    return symbols;
  }

  /** Values in a symbol, as a mean. */
  double perSymbol() {
    return values / symbols;
  }

  /** Of a value, of what is left. */
  double meanSquare() {
    double sum = 0;
    for (int i = 0; i < symbols; i++) {
      for (int k = 0; k < count; k++) {
        sum += re[i][k] * re[i][k] + im[i][k] * im[i][k];
      }
    }
    return sum / values;
  }

  /** Of what should be there. */
  double meanPower() {
    double sum = 0;
    for (double v : power) {
      sum += v;
    }
    return sum / values;
  }

  /** Takes what each tone has of its ideal values, the same in all symbols. */
  void takeGains() {
    takeGains(re, im, gainRe, gainIm);
  }

  /** Mean square of what was taken so. */
  double ofGains() {
    double sum = 0;
    for (int k = 0; k < count; k++) {
      sum += (gainRe[k] * gainRe[k] + gainIm[k] * gainIm[k]) * power[k];
    }
    return sum / values;
  }

  /** Takes from values of tones what they have of the ideal ones, the same in all symbols. */
  private void takeGains(double[][] x, double[][] y, double[] a, double[] b) {
    for (int k = 0; k < count; k++) {
      double sumRe = 0;
      double sumIm = 0;
      for (int i = 0; i < symbols; i++) {
        double u = idealRe[i][k];
        double v = idealIm[i][k];
        sumRe += x[i][k] * u + y[i][k] * v;
        sumIm += y[i][k] * u - x[i][k] * v;
      }
      a[k] = power[k] > 0 ? sumRe / power[k] : 0;
      b[k] = power[k] > 0 ? sumIm / power[k] : 0;
      for (int i = 0; i < symbols; i++) {
        double u = idealRe[i][k];
        double v = idealIm[i][k];
        x[i][k] -= a[k] * u - b[k] * v;
        y[i][k] -= a[k] * v + b[k] * u;
      }
    }
  }

  /** A form that errors of all symbols have alike: its values, and what it makes of each gain. */
  record Form(double[][] re, double[][] im, double[] gainRe, double[] gainIm) {}

  /** Without what gains take; with what the same does to the training, which sets the gains. */
  private Form form(double[][] x, double[][] y, double[] trainingRe, double[] trainingIm) {
    double[] a = new double[count];
    double[] b = new double[count];
    takeGains(x, y, a, b);
    for (int k = 0; k < count; k++) {
      a[k] = training ? a[k] - trainingRe[k] : 0;
      b[k] = training ? b[k] - trainingIm[k] : 0;
    }
    return new Form(x, y, a, b);
  }

  /** The tone across the carrier, conjugated. */
  Form mirror() {
    double[][] x = new double[symbols][count];
    double[][] y = new double[symbols][count];
    double[] trainingRe = new double[count];
    double[] trainingIm = new double[count];
    for (int k = 0; k < count; k++) {
      int across = p.plan().indexOf(-p.tones()[k]);
      if (across < 0 || across == k) {
        continue;
      }
      for (int i = 0; i < symbols; i++) {
        boolean used = p.used(chosen[i], k);
        x[i][k] = used ? idealRe[i][across] : 0;
        y[i][k] = used ? -idealIm[i][across] : 0;
      }
      addRatio(k, trainingRe, trainingIm, s -> new double[] {s.re()[across], -s.im()[across]});
    }
    return form(x, y, trainingRe, trainingIm);
  }

  /** What a tone of a symbol has besides, over what it should be. */
  private interface Besides {
    double[] of(SymbolPlan s);
  }

  /** Over all training: what is besides, as the gain that it seems to be. */
  private void addRatio(int k, double[] a, double[] b, Besides besides) {
    double weight = 0;
    for (SymbolPlan s : p.plan().training()) {
      double u = s.used(k) ? s.re()[k] : 0;
      double v = s.used(k) ? s.im()[k] : 0;
      if (u != 0 || v != 0) {
        double[] z = besides.of(s);
        a[k] += z[0] * u + z[1] * v;
        b[k] += z[1] * u - z[0] * v;
        weight += u * u + v * v;
      }
    }
    a[k] = weight > 0 ? a[k] / weight : 0;
    b[k] = weight > 0 ? b[k] / weight : 0;
  }

  /** The waveform times its power. */
  Form cube() {
    CubedSymbol cubed = new CubedSymbol(p.plan());
    double[][] x = new double[symbols][count];
    double[][] y = new double[symbols][count];
    for (int i = 0; i < symbols; i++) {
      cubed.of(idealRe[i], idealIm[i], x[i], y[i]);
      for (int k = 0; k < count; k++) {
        boolean used = p.used(chosen[i], k);
        x[i][k] = used ? x[i][k] : 0;
        y[i][k] = used ? y[i][k] : 0;
      }
    }
    List<SymbolPlan> trainings = p.plan().training();
    double[][] ofRe = new double[trainings.size()][count];
    double[][] ofIm = new double[trainings.size()][count];
    for (int t = 0; t < trainings.size(); t++) {
      SymbolPlan s = trainings.get(t);
      double[] u = new double[count];
      double[] v = new double[count];
      for (int k = 0; k < count; k++) {
        boolean known = s.used(k) && s.roles()[k] != SymbolPlan.Role.DATA;
        u[k] = known ? s.re()[k] : 0;
        v[k] = known ? s.im()[k] : 0;
      }
      cubed.of(u, v, ofRe[t], ofIm[t]);
    }
    double[] trainingRe = new double[count];
    double[] trainingIm = new double[count];
    for (int k = 0; k < count; k++) {
      int tone = k;
      addRatio(
          k,
          trainingRe,
          trainingIm,
          s -> {
            int t = trainings.indexOf(s);
            return new double[] {ofRe[t][tone], ofIm[t][tone]};
          });
    }
    return form(x, y, trainingRe, trainingIm);
  }

  /** Of what is left with a form. */
  double[] product(Form f) {
    return product(f, re, im);
  }

  double[] product(Form f, Form g) {
    return product(f, g.re(), g.im());
  }

  private double[] product(Form f, double[][] x, double[][] y) {
    double a = 0;
    double b = 0;
    for (int i = 0; i < symbols; i++) {
      for (int k = 0; k < count; k++) {
        a += x[i][k] * f.re[i][k] + y[i][k] * f.im[i][k];
        b += y[i][k] * f.re[i][k] - x[i][k] * f.im[i][k];
      }
    }
    return new double[] {a, b};
  }

  /** Takes a form of a size from errors and gains. */
  void take(Form f, double a, double b) {
    for (int k = 0; k < count; k++) {
      for (int i = 0; i < symbols; i++) {
        re[i][k] -= a * f.re[i][k] - b * f.im[i][k];
        im[i][k] -= a * f.im[i][k] + b * f.re[i][k];
      }
      gainRe[k] -= a * f.gainRe[k] - b * f.gainIm[k];
      gainIm[k] -= a * f.gainIm[k] + b * f.gainRe[k];
    }
  }

  /** Mean square of the errors that a form makes whose size is 1. */
  double unit(Form f) {
    double sum = 0;
    for (int k = 0; k < count; k++) {
      sum += (f.gainRe[k] * f.gainRe[k] + f.gainIm[k] * f.gainIm[k]) * power[k];
      for (int i = 0; i < symbols; i++) {
        sum += f.re[i][k] * f.re[i][k] + f.im[i][k] * f.im[i][k];
      }
    }
    return sum / values;
  }

  /** To so many neighbours it is looked. */
  int reach() {
    return Math.max(1, Math.min(REACH, count / TONES_EACH));
  }

  /**
   * What of the tones reaches those beside them, by distance from minus to plus {@link #reach}, in
   * each symbol; taken from the errors.
   *
   * @return for each distance real and imaginary part by symbol
   */
  List<double[][]> takeSymbols() {
    int reach = reach();
    List<double[][]> out = new ArrayList<>();
    for (int m = -reach; m <= reach; m++) {
      out.add(new double[2][symbols]);
    }
    int[] beside = new int[count];
    // The nearest first: they are the largest, and hardly know of each other.
    for (int n = 0; n <= 2 * reach; n++) {
      int m = (n + 1) / 2 * (n % 2 == 0 ? 1 : -1);
      for (int k = 0; k < count; k++) {
        beside[k] = p.plan().indexOf(p.tones()[k] - m);
      }
      for (int i = 0; i < symbols; i++) {
        takeFromBeside(i, beside, out.get(m + reach));
      }
    }
    return out;
  }

  private void takeFromBeside(int i, int[] beside, double[][] into) {
    double a = 0;
    double b = 0;
    double all = 1e-300;
    for (int k = 0; k < count; k++) {
      int j = beside[k];
      if (j >= 0 && p.used(chosen[i], k)) {
        double u = idealRe[i][j];
        double v = idealIm[i][j];
        a += re[i][k] * u + im[i][k] * v;
        b += im[i][k] * u - re[i][k] * v;
        all += u * u + v * v;
      }
    }
    a /= all;
    b /= all;
    into[0][i] = a;
    into[1][i] = b;
    for (int k = 0; k < count; k++) {
      int j = beside[k];
      if (j >= 0 && p.used(chosen[i], k)) {
        double u = idealRe[i][j];
        double v = idealIm[i][j];
        re[i][k] -= a * u - b * v;
        im[i][k] -= a * v + b * u;
      }
    }
  }

  /** Of a value, from what is left of all of them. */
  double noise() {
    double perSymbol = values / symbols;
    double free = (1 - 1.0 / symbols) * (1 - (2 * reach() + 1) / perSymbol);
    return meanSquare() / free;
  }

  /** Mean square of what is left of each tone; 0 where it carries nothing. */
  double[] ofTones() {
    double[] mean = new double[count];
    for (int k = 0; k < count; k++) {
      double n = 0;
      for (int i = 0; i < symbols; i++) {
        if (p.used(chosen[i], k)) {
          mean[k] += re[i][k] * re[i][k] + im[i][k] * im[i][k];
          n++;
        }
      }
      mean[k] = n > 0 ? mean[k] / n : 0;
    }
    return mean;
  }
}
