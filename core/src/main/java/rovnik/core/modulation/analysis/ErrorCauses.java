package rovnik.core.modulation.analysis;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rovnik.core.modulation.Causes;
import rovnik.core.modulation.PulseShape;
import rovnik.core.modulation.SingleCarrier;

/**
 * Splits the error vector into causes, as mean squares of symbols of mean power 1. What has one
 * form over all symbols (leakage, imbalance, quadrature, delay, droop) comes from the joint fit;
 * then what bends with the waveform's power (compression), what hangs on neighbouring symbols
 * (ripple and group delay), what is a line (spur), and what turns the points more than it moves
 * them (phase noise) are taken from what is left, one after the other. White errors remain: noise.
 */
final class ErrorCauses {
  /**
   * All causes; the values of {@link ErrorModel} beside all the others, and their standard
   * uncertainties.
   */
  record Split(Causes all, double[] linear, double[] standard) {}

  /** Share of the echoes' power that is alike before and after. */
  private static final double ALIKE = 0.9;

  private static final String OWN_AXES =
      "trim gain and quadrature of I against Q in turn: which axis is I is not known of this format";

  private final SingleCarrier carrier;
  private final Symbols s;
  private final int n;
  private final CauseFit fit;
  private final List<Causes.Cause> causes = new ArrayList<>();

  ErrorCauses(SingleCarrier carrier, PulseShape measured, Symbols s) {
    this.carrier = carrier;
    this.s = s;
    this.n = s.count();
    this.fit = new CauseFit(carrier, measured, s);
  }

  Split split() {
    double total = s.meanSquare();
    linear();
    if (carrier.format().plainPoints()) {
      compression();
      echoes();
    }
    lines();
    turnsAndNoise();
    return new Split(new Causes(total, causes), fit.linear, fit.standard);
  }

  private void add(String id, String label, double meanSquare, String evidence, String remedy) {
    causes.add(new Causes.Cause(id, label, Math.max(0, meanSquare), evidence, remedy));
  }

  private static String words(String format, Object... values) {
    return String.format(Locale.ROOT, format, values);
  }

  /** What noise alone would have given a cause that was fitted with this uncertainty. */
  private static double beyond(double value, double standard) {
    return Math.max(0, value * value - standard * standard);
  }

  /** The causes of the joint fit. */
  private void linear() {
    double[] v = fit.linear;
    double[] u = fit.standard;
    double slope = 0;
    for (int k = 0; k < n; k++) {
      double di = s.ideal().iSlope()[k];
      double dq = s.ideal().qSlope()[k];
      slope += (di * di + dq * dq) / 4;
    }
    double leak =
        beyond(v[ErrorModel.LEAK_I], u[ErrorModel.LEAK_I])
            + beyond(v[ErrorModel.LEAK_Q], u[ErrorModel.LEAK_Q]);
    // The phase of a keyed carrier begins anywhere.
    boolean own = carrier.format().keyed();
    double offset = 10 * Math.log10(leak + 1e-30);
    add(
        "leakage",
        "Carrier leakage",
        leak,
        words("all points moved alike, %.1f dBc on the carrier", offset),
        own
            ? "trim the leakage, or adjust the generator here"
            : words(
                "trim I by %+.3f %% and Q by %+.3f %% of the signal, or adjust the generator here",
                -100 * v[ErrorModel.LEAK_I], -100 * v[ErrorModel.LEAK_Q]));
    double imbalance = SymbolReadings.imbalanceDb(v[ErrorModel.IMBALANCE]);
    add(
        "imbalance",
        "Gain imbalance",
        beyond(v[ErrorModel.IMBALANCE], u[ErrorModel.IMBALANCE]) / 4,
        words("I has %+.3f dB more gain than Q", imbalance),
        own ? OWN_AXES : words("turn the gain of I against Q by %+.3f dB", -imbalance));
    double angle = Math.toDegrees(v[ErrorModel.QUADRATURE]);
    add(
        "quadrature",
        "Quadrature error",
        beyond(v[ErrorModel.QUADRATURE], u[ErrorModel.QUADRATURE]) / 4,
        words("I and Q stand %.2f degrees apart", 90 + angle),
        own ? OWN_AXES : words("turn the quadrature by %+.2f degrees", -angle));
    double delay = v[ErrorModel.DELAY] / s.symbolRateHz();
    add(
        "delay",
        "Delay between I and Q",
        beyond(v[ErrorModel.DELAY], u[ErrorModel.DELAY]) * slope / n,
        words("Q comes %.3g s %s I", Math.abs(delay), delay > 0 ? "after" : "before"),
        words("move Q by %+.3g s", -delay));
    add(
        "droop",
        "Droop",
        beyond(v[ErrorModel.DROOP], u[ErrorModel.DROOP]) / 3,
        words(
            "the level changes by %+.3f dB over the record",
            SymbolReadings.droopDb(v[ErrorModel.DROOP])),
        "let the source settle, or measure a shorter stretch");
  }

  /** What follows the cube of the waveform, seen behind the measuring filter. */
  private void compression() {
    double ofOne = fit.bendMeanSquare;
    double chance = ofOne > 0 ? fit.left() / 2 / n / ofOne : 0;
    double along = fit.bend[0];
    double across = fit.bend[1];
    add(
        "amAm",
        "Compression (AM-AM)",
        Math.max(0, along * along - chance) * ofOne,
        words(
            "the gain %s by %.2f %% for each doubling of power about the mean",
            along < 0 ? "falls" : "rises", 100 * Math.abs(along)),
        "lower the drive: each dB less makes it 2 dB smaller against the signal");
    add(
        "amPm",
        "Turn with level (AM-PM)",
        Math.max(0, across * across - chance) * ofOne,
        words(
            "the phase turns by %.2f degrees between mean power and twice that",
            Math.toDegrees(Math.abs(across))),
        "lower the drive: each dB less makes it 2 dB smaller against the signal");
  }

  /** Linear distortion: echoes of the neighbours. */
  private void echoes() {
    double chance = fit.left() / n;
    double sum = 0;
    double strongest = 0;
    int place = 0;
    double even = 0;
    double all = 0;
    for (int d = -CauseFit.ECHOES; d <= CauseFit.ECHOES; d++) {
      double[] e = fit.echo[d + CauseFit.ECHOES];
      double share = e[0] * e[0] + e[1] * e[1] - (d == 0 ? 0 : chance);
      sum += share;
      // Real and the same on both sides: what two filters do that do not belong together.
      double[] other = fit.echo[CauseFit.ECHOES - d];
      even += Math.pow((e[0] + other[0]) / 2, 2);
      all += e[0] * e[0] + e[1] * e[1];
      if (share > strongest) {
        strongest = share;
        place = d;
      }
    }
    boolean alike = even > ALIKE * all;
    add(
        "ripple",
        "Ripple and group delay",
        sum,
        words(
            "echoes of neighbouring symbols, the strongest %.1f dB at %+d symbols%s",
            10 * Math.log10(strongest + 1e-30), place, alike ? ", alike before and after" : ""),
        alike
            ? "check the roll-off and the filters: those that do not match make echoes alike on both"
                + " sides"
            : "mend the filter or the mismatch, or widen the channel");
  }

  /** Lines in the error: a spur turns around each point. */
  private void lines() {
    double sum = 0;
    List<String> found = new ArrayList<>();
    for (CauseFit.Line line : fit.lines) {
      double cycles = line.turn / (2 * Math.PI);
      sum += line.meanSquare();
      found.add(
          words(
              "%+.6g Hz at %.1f dBc",
              (cycles > 0.5 ? cycles - 1 : cycles) * s.symbolRateHz(),
              10 * Math.log10(line.meanSquare())));
    }
    add(
        "spur",
        "Spur",
        sum,
        found.isEmpty()
            ? ""
            : "a ring around each point: a line "
                + String.join(", ", found)
                + " from the carrier"
                + (found.size() == 1 ? "" : " each")
                + ", or a symbol rate further",
        "find what makes this frequency; the spectrum shows it when the carrier is off");
  }

  /** What turns points more than it moves them is phase noise; the other way, amplitude noise. */
  private void turnsAndNoise() {
    double across = 0;
    double along = 0;
    int counted = 0;
    for (int k = 0; k < n; k++) {
      double u = s.ideal().i()[k];
      double v = s.ideal().q()[k];
      double p = u * u + v * v;
      if (p < 1e-12) {
        continue;
      }
      double a = fit.re[k] * u + fit.im[k] * v;
      double b = fit.im[k] * u - fit.re[k] * v;
      along += a * a / p;
      across += b * b / p;
      counted++;
    }
    double all = fit.left();
    across /= Math.max(1, counted);
    along /= Math.max(1, counted);
    // Three standard deviations of the difference of two mean squares.
    double chance = 6 / Math.sqrt(Math.max(1, counted)) * Math.min(across, along);
    double turn = across - along > chance ? across - along : 0;
    double swell = along - across > chance ? along - across : 0;
    add(
        "phaseNoise",
        "Phase noise",
        turn,
        words(
            "points turn by %.3f degrees rms beyond what noise does",
            Math.toDegrees(Math.sqrt(turn))),
        "look at the oscillators: measure the phase noise of the plain carrier");
    add(
        "amplitudeNoise",
        "Amplitude noise",
        swell,
        words("points swell by %.3f %% rms beyond what noise does", 100 * Math.sqrt(swell)),
        "look at the supply and the level control");
    double white = all - turn - swell;
    add(
        "noise",
        "Noise",
        white,
        words(
            "alike in all directions and from symbol to symbol, %.1f dB",
            10 * Math.log10(white + 1e-30)),
        "raise the level, lower the attenuation or the bandwidth; compare with the receiver's own floor");
  }
}
