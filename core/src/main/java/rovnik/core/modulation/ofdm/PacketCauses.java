package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import rovnik.core.modulation.Causes;
import rovnik.core.units.Frequency;

/**
 * Splits the error of a packet's tones into causes, as mean squares over all tones and symbols that
 * are looked at. First what follows one form in all symbols, by least squares beside a gain of each
 * tone's own, which the estimate of the channel may have left: the mirror of the tone across the
 * carrier, and the cube of the waveform (compression). Then what each symbol has of its own: all
 * tones turned or changed alike, and what of a tone reaches its neighbours, which is phase noise if
 * both sides are opposite, else ripple of the level. Then tones that are worse than the others.
 * White errors remain: noise. Of each it is taken what noise alone would have given it.
 *
 * <p>A mirror or a bent symbol spoils the training as well: what that makes of each tone's gain is
 * counted with its cause.
 */
final class PacketCauses {
  /** With fewer symbols a gain of each tone's own cannot be told from its errors. */
  private static final int FEWEST = 4;

  /** So many values tell enough. */
  private static final int ENOUGH = 40_000;

  /** Neighbours that a tone is looked for in, at most and of all tones. */
  private static final int REACH = 8;

  private static final int TONES_EACH = 16;

  /** A sum of squares must stand out so many standard deviations. */
  private static final double SURE = 3;

  /** A tone must be so much worse than chance makes one of all. */
  private static final double TONE_SURE = 4.7;

  private static final double DEGREES = 180 / Math.PI;

  private final OfdmPacket p;
  private final OfdmSettings settings;
  private final double spacingHz;
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
  private final List<Causes.Cause> causes = new ArrayList<>();

  private PacketCauses(OfdmPacket p, OfdmSettings settings, double spacingHz) {
    this.p = p;
    this.settings = settings;
    this.spacingHz = spacingHz;
    this.count = p.tones().length;
    this.symbols = (int) Math.max(FEWEST, Math.min(p.symbols(), ENOUGH / count));
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

  /**
   * The causes; nothing if there are too few symbols.
   *
   * @param spacingHz from tone to tone
   */
  static Causes of(OfdmPacket p, OfdmSettings settings, double spacingHz) {
    return p.symbols() < FEWEST ? null : new PacketCauses(p, settings, spacingHz).split();
  }

  private Causes split() {
    double total = meanSquare();
    takeGains(re, im, gainRe, gainIm);
    common();
    List<double[][]> own = takeSymbols();
    double noise = noise();
    estimate(noise);
    symbols(own, noise);
    double spoilt = tones(noise);
    noise((noise - spoilt) * remains());
    return new Causes(total, causes);
  }

  private void add(String id, String label, double meanSquare, String evidence, String remedy) {
    causes.add(new Causes.Cause(id, label, meanSquare, evidence, remedy));
  }

  private static String words(String format, Object... of) {
    return String.format(Locale.ROOT, format, of).replace('-', '\u2212');
  }

  private double meanSquare() {
    double sum = 0;
    for (int i = 0; i < symbols; i++) {
      for (int k = 0; k < count; k++) {
        sum += re[i][k] * re[i][k] + im[i][k] * im[i][k];
      }
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
  private record Form(double[][] re, double[][] im, double[] gainRe, double[] gainIm) {}

  /** Without what gains take; with what the same does to the training, which sets the gains. */
  private Form form(double[][] x, double[][] y, double[] trainingRe, double[] trainingIm) {
    double[] a = new double[count];
    double[] b = new double[count];
    takeGains(x, y, a, b);
    boolean training = settings.estimate() == OfdmSettings.Estimate.TRAINING;
    for (int k = 0; k < count; k++) {
      a[k] = training ? a[k] - trainingRe[k] : 0;
      b[k] = training ? b[k] - trainingIm[k] : 0;
    }
    return new Form(x, y, a, b);
  }

  private Form mirror() {
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

  private Form cube() {
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

  /** Mirror and cube together, by least squares; taken from errors and gains. */
  private void common() {
    Form[] forms = {mirror(), cube()};
    double[][] normal = new double[2][2 * 2];
    double[] right = new double[2 * 2];
    for (int i = 0; i < 2; i++) {
      double[] own = product(forms[i], re, im);
      right[2 * i] = own[0];
      right[2 * i + 1] = own[1];
      for (int j = 0; j < 2; j++) {
        double[] z = product(forms[i], forms[j].re(), forms[j].im());
        normal[i][2 * j] = z[0];
        normal[i][2 * j + 1] = z[1];
      }
    }
    double[] c = solved(normal, right);
    for (int i = 0; i < 2; i++) {
      take(forms[i], c[2 * i], c[2 * i + 1]);
    }
    double left = meanSquare();
    mirrored(forms[0], c[0], c[1], left * chance(normal[0][0]));
    bent(forms[1], c[2], c[3], left * chance(normal[1][2]));
  }

  private double chance(double square) {
    return square > 0 ? 1 / square : 0;
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

  /** Two complex equations; a form that is not there counts 0. */
  private static double[] solved(double[][] m, double[] r) {
    double first = m[0][0];
    double second = m[1][2];
    double offRe = m[0][2];
    double offIm = m[0][3];
    double det = first * second - offRe * offRe - offIm * offIm;
    if (!(det > 1e-9 * first * second)) {
      return new double[] {
        first > 0 ? r[0] / first : 0,
        first > 0 ? r[1] / first : 0,
        second > 0 && !(first > 0) ? r[2] / second : 0,
        second > 0 && !(first > 0) ? r[3] / second : 0
      };
    }
    return new double[] {
      (second * r[0] - offRe * r[2] + offIm * r[3]) / det,
      (second * r[1] - offRe * r[3] - offIm * r[2]) / det,
      (first * r[2] - offRe * r[0] - offIm * r[1]) / det,
      (first * r[3] - offRe * r[1] + offIm * r[0]) / det
    };
  }

  private void take(Form f, double a, double b) {
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
  private double unit(Form f) {
    double sum = 0;
    for (int k = 0; k < count; k++) {
      sum += (f.gainRe[k] * f.gainRe[k] + f.gainIm[k] * f.gainIm[k]) * power[k];
      for (int i = 0; i < symbols; i++) {
        sum += f.re[i][k] * f.re[i][k] + f.im[i][k] * f.im[i][k];
      }
    }
    return sum / values;
  }

  private void mirrored(Form f, double a, double b, double chance) {
    double square = Math.max(0, a * a + b * b - chance);
    // I by 1 + a and Q by 1 - a make a of the mirror; Q turned by t makes -j t / 2.
    double gainDb = 20 * Math.log10((1 + a) / (1 - a));
    add(
        "mirror",
        "Mirror images",
        square * unit(f),
        words(
            "each tone has %.1f dB of the one across the carrier: I has %+.3f dB more gain than Q,"
                + " and they stand %.2f degrees apart, if it is the transmitter's",
            10 * Math.log10(square + 1e-30), gainDb, 90 - 2 * b * DEGREES),
        words(
            "turn the gain of I against Q by %+.3f dB and the quadrature by %+.2f degrees",
            -gainDb, 2 * b * DEGREES));
  }

  private void bent(Form f, double a, double b, double chance) {
    double unit = unit(f);
    add(
        "amAm",
        "Compression (AM-AM)",
        Math.max(0, a * a - chance / 2) * unit,
        words(
            "the gain %s by %.2f %% for each doubling of power about the mean",
            a < 0 ? "falls" : "rises", 100 * Math.abs(a)),
        "lower the drive: each dB less makes it 2 dB smaller against the signal");
    add(
        "amPm",
        "Turn with level (AM-PM)",
        Math.max(0, b * b - chance / 2) * unit,
        words(
            "the phase turns by %.2f degrees between mean power and twice that",
            DEGREES * Math.abs(b)),
        "lower the drive: each dB less makes it 2 dB smaller against the signal");
  }

  // What each symbol has of its own

  private int reach() {
    return Math.max(1, Math.min(REACH, count / TONES_EACH));
  }

  /**
   * What of the tones reaches those beside them, by distance from minus to plus {@link #reach}, in
   * each symbol; taken from the errors.
   *
   * @return for each distance real and imaginary part by symbol
   */
  private List<double[][]> takeSymbols() {
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
  private double noise() {
    double perSymbol = values / symbols;
    double free = (1 - 1.0 / symbols) * (1 - (2 * reach() + 1) / perSymbol);
    return meanSquare() / free;
  }

  private double meanPower() {
    double sum = 0;
    for (double v : power) {
      sum += v;
    }
    return sum / values;
  }

  private void symbols(List<double[][]> own, double noise) {
    int reach = reach();
    double mean = meanPower();
    // Noise of one such share, of power 1, and how often it was looked at.
    double each = noise / mean / (values / symbols) * (1 - 1.0 / symbols);
    double turn = 0;
    double swell = 0;
    for (int m = 1; m <= reach; m++) {
      double[][] above = own.get(reach + m);
      double[][] below = own.get(reach - m);
      for (int i = 0; i < symbols; i++) {
        double a = above[0][i];
        double b = above[1][i];
        double c = below[0][i];
        double d = -below[1][i];
        turn += ((a - c) * (a - c) + (b - d) * (b - d)) / 2 / symbols;
        swell += ((a + c) * (a + c) + (b + d) * (b + d)) / 2 / symbols;
      }
    }
    double within = reach * each;
    double sure = SURE * within / Math.sqrt((double) reach * symbols);
    turn = turn - within > sure ? turn - within : 0;
    swell = swell - within > sure ? swell - within : 0;
    add(
        "phaseNoise",
        "Phase noise between tones",
        turn * mean,
        words(
            "within a symbol all tones smear into their neighbours: %.3f degrees rms",
            DEGREES * Math.sqrt(turn)),
        "look at the oscillators: measure the phase noise of the plain carrier");
    add(
        "amplitudeNoise",
        "Ripple of the level within symbols",
        swell * mean,
        words("all tones swell within a symbol by %.3f %% rms", 100 * Math.sqrt(swell)),
        "look at the supply and the level control");
    together(own.get(reach), each, mean);
  }

  /** What all tones of a symbol have in common: turned, or another level. */
  private void together(double[][] own, double each, double mean) {
    double level = 0;
    double turn = 0;
    for (int i = 0; i < symbols; i++) {
      level += own[0][i] * own[0][i] / symbols;
      turn += own[1][i] * own[1][i] / symbols;
    }
    double sure = SURE * each / 2 * Math.sqrt(2.0 / symbols);
    level = level - each / 2 > sure ? level - each / 2 : 0;
    turn = turn - each / 2 > sure ? turn - each / 2 : 0;
    add(
        "droop",
        "Level from symbol to symbol",
        level * mean,
        words("symbols differ by %.3f dB rms", 20 / Math.log(10) * Math.sqrt(level)),
        settings.trackLevel()
            ? "pilots set it, whose noise is little against this: look at the power supply"
            : "let the source settle; track the level to see what is left without it");
    add(
        "commonPhase",
        settings.trackPhase() ? "Phase that pilots leave" : "Phase of whole symbols",
        turn * mean,
        words("symbols are turned by %.3f degrees rms", DEGREES * Math.sqrt(turn)),
        settings.trackPhase()
            ? "the few pilots turn each symbol by their own noise: raise the level"
            : "track the phase by pilots, as the standard has it");
  }

  /** Gains that tones keep through all symbols: the channel was taken for another. */
  private void estimate(double noise) {
    double sum = 0;
    for (int k = 0; k < count; k++) {
      sum += (gainRe[k] * gainRe[k] + gainIm[k] * gainIm[k]) * power[k];
    }
    double share = Math.max(0, sum / values - noise / symbols);
    boolean training = settings.estimate() == OfdmSettings.Estimate.TRAINING;
    add(
        "estimate",
        "Channel as it was estimated",
        share,
        words(
            "each tone is off by the same in all symbols, %.3f %% rms",
            100 * Math.sqrt(share / meanPower())),
        training
            ? "it is the noise of "
                + (p.plan().training().size() == 1
                    ? "one symbol of training"
                    : p.plan().training().size() + " symbols of training")
                + " if it goes with training and data; as the standard has it, it counts"
            : "");
  }

  /** Tones that are worse than their level explains. */
  private double tones(double noise) {
    double[] mean = new double[count];
    double[] own = new double[count];
    for (int k = 0; k < count; k++) {
      double n = 0;
      for (int i = 0; i < symbols; i++) {
        if (p.used(chosen[i], k)) {
          mean[k] += re[i][k] * re[i][k] + im[i][k] * im[i][k];
          n++;
        }
      }
      double passes = p.channelRe()[k] * p.channelRe()[k] + p.channelIm()[k] * p.channelIm()[k];
      mean[k] = n > 0 ? mean[k] / n : 0;
      own[k] = mean[k] * passes;
    }
    double[] sorted = own.clone();
    Arrays.sort(sorted);
    double median = sorted[count / 2];
    double n = symbols;
    double limit = median * Math.pow(1 - 1 / (9 * n) + TONE_SURE / (3 * Math.sqrt(n)), 3);
    double sum = 0;
    int worst = -1;
    int found = 0;
    for (int k = 0; k < count; k++) {
      if (own[k] > limit && median > 0) {
        sum += mean[k] * (1 - median / own[k]) * symbols / values;
        worst = worst < 0 || own[k] > own[worst] ? k : worst;
        found++;
      }
    }
    if (worst >= 0) {
      add(
          "tones",
          found == 1 ? "A spur on a tone" : "Spurs on tones",
          sum,
          words(
              "%s, the worst is tone %d, %s the carrier, by %.1f dB",
              found == 1
                  ? "one tone is worse than the others"
                  : found + " tones are worse than the others",
              p.tones()[worst],
              away(p.tones()[worst] * spacingHz),
              10 * Math.log10(own[worst] / median)),
          "look for a line there in the spectrum when the packets are off");
    }
    return sum;
  }

  /** Of noise, what is an error: a channel that is learned from the data has taken its part. */
  private double remains() {
    return settings.estimate() == OfdmSettings.Estimate.TRAINING
        ? 1
        : 1 - 1.0 / (p.symbols() + p.plan().training().size());
  }

  private static String away(double hz) {
    return hz == 0 ? "on" : Frequency.ofHertz(Math.abs(hz)) + (hz > 0 ? " above" : " below");
  }

  private void noise(double noise) {
    add(
        "noise",
        "Noise",
        noise,
        words("alike in all tones and symbols, %.1f dB", 10 * Math.log10(noise / meanPower())),
        "raise the level, lower the attenuation; compare with the receiver's own floor");
  }
}
