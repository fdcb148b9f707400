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

  /** A sum of squares must stand out so many standard deviations. */
  private static final double SURE = 3;

  /** A tone must be so much worse than chance makes one of all. */
  private static final double TONE_SURE = 4.7;

  private static final double DEGREES = 180 / Math.PI;

  private final OfdmPacket p;
  private final OfdmSettings settings;
  private final double spacingHz;
  private final PacketErrors e;
  private final List<Causes.Cause> causes = new ArrayList<>();

  private PacketCauses(OfdmPacket p, OfdmSettings settings, double spacingHz) {
    this.p = p;
    this.settings = settings;
    this.spacingHz = spacingHz;
    this.e = new PacketErrors(p, ofTraining(settings), FEWEST);
  }

  private static boolean ofTraining(OfdmSettings settings) {
    return settings.estimate() == OfdmSettings.Estimate.TRAINING;
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
    double total = e.meanSquare();
    e.takeGains();
    common();
    List<double[][]> own = e.takeSymbols();
    double noise = e.noise();
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

  /** Mirror and cube together, by least squares; taken from errors and gains. */
  private void common() {
    PacketErrors.Form[] forms = {e.mirror(), e.cube()};
    double[][] normal = new double[2][2 * 2];
    double[] right = new double[2 * 2];
    for (int i = 0; i < 2; i++) {
      double[] own = e.product(forms[i]);
      right[2 * i] = own[0];
      right[2 * i + 1] = own[1];
      for (int j = 0; j < 2; j++) {
        double[] z = e.product(forms[i], forms[j]);
        normal[i][2 * j] = z[0];
        normal[i][2 * j + 1] = z[1];
      }
    }
    double[] c = solved(normal, right);
    for (int i = 0; i < 2; i++) {
      e.take(forms[i], c[2 * i], c[2 * i + 1]);
    }
    double left = e.meanSquare();
    mirrored(forms[0], c[0], c[1], left * chance(normal[0][0]));
    bent(forms[1], c[2], c[3], left * chance(normal[1][2]));
  }

  private double chance(double square) {
    return square > 0 ? 1 / square : 0;
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

  private void mirrored(PacketErrors.Form f, double a, double b, double chance) {
    double square = Math.max(0, a * a + b * b - chance);
    // I by 1 + a and Q by 1 - a make a of the mirror; Q turned by t makes -j t / 2.
    double gainDb = 20 * Math.log10((1 + a) / (1 - a));
    add(
        "mirror",
        "Mirror images",
        square * e.unit(f),
        words(
            "each tone has %.1f dB of the one across the carrier: I has %+.3f dB more gain than Q,"
                + " and they stand %.2f degrees apart, if it is the transmitter's",
            10 * Math.log10(square + 1e-30), gainDb, 90 - 2 * b * DEGREES),
        words(
            "turn the gain of I against Q by %+.3f dB and the quadrature by %+.2f degrees",
            -gainDb, 2 * b * DEGREES));
  }

  private void bent(PacketErrors.Form f, double a, double b, double chance) {
    double unit = e.unit(f);
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

  private void symbols(List<double[][]> own, double noise) {
    int reach = e.reach();
    int symbols = e.symbols();
    double mean = e.meanPower();
    // Noise of one such share, of power 1, and how often it was looked at.
    double each = noise / mean / e.perSymbol() * (1 - 1.0 / symbols);
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
    int symbols = e.symbols();
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
    double share = Math.max(0, e.ofGains() - noise / e.symbols());
    boolean training = ofTraining(settings);
    add(
        "estimate",
        "Channel as it was estimated",
        share,
        words(
            "each tone is off by the same in all symbols, %.3f %% rms",
            100 * Math.sqrt(share / e.meanPower())),
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
    double[] mean = e.ofTones();
    double[] own = new double[mean.length];
    for (int k = 0; k < own.length; k++) {
      double passes = p.channelRe()[k] * p.channelRe()[k] + p.channelIm()[k] * p.channelIm()[k];
      own[k] = mean[k] * passes;
    }
    double[] sorted = own.clone();
    Arrays.sort(sorted);
    double median = sorted[sorted.length / 2];
    double n = e.symbols();
    double limit = median * Math.pow(1 - 1 / (9 * n) + TONE_SURE / (3 * Math.sqrt(n)), 3);
    double sum = 0;
    int worst = -1;
    int found = 0;
    for (int k = 0; k < own.length; k++) {
      if (own[k] > limit && median > 0) {
        sum += mean[k] * (1 - median / own[k]) / e.perSymbol();
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
    return ofTraining(settings) ? 1 : 1 - 1.0 / (p.symbols() + p.plan().training().size());
  }

  private static String away(double hz) {
    return hz == 0 ? "on" : Frequency.ofHertz(Math.abs(hz)) + (hz > 0 ? " above" : " below");
  }

  private void noise(double noise) {
    add(
        "noise",
        "Noise",
        noise,
        words("alike in all tones and symbols, %.1f dB", 10 * Math.log10(noise / e.meanPower())),
        "raise the level, lower the attenuation; compare with the receiver's own floor");
  }
}
