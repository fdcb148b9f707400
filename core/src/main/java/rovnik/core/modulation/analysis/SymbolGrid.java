package rovnik.core.modulation.analysis;

import rovnik.core.modulation.Format;
import rovnik.core.signal.BandTaker;
import rovnik.core.signal.SincSampler;

/**
 * Where in a band the symbols of a carrier lie, and how it is turned there: what is found first and
 * followed later, and what symbols are read by.
 */
final class SymbolGrid {
  private final Format format;
  private BandTaker.Band band;

  /** Symbols that are read. */
  int count;

  double firstSample;
  double samplesPerSymbol;

  /** Radians. */
  double turnPerSymbol;

  double phase;
  double gain = 1;

  /** Angle that was followed, by symbol; null if none was. */
  double[] followed;

  /**
   * The band at the instants that were read last: gain and phase may change without another look.
   */
  private Instants last;

  /**
   * The band at all instants, and for an offset format half a symbol later.
   *
   * @param re of the one axis and of the other
   */
  private record Instants(
      BandTaker.Band band,
      double firstSample,
      double samplesPerSymbol,
      double[] re,
      double[] im,
      double[] lateRe,
      double[] lateIm) {}

  SymbolGrid(Format format) {
    this.format = format;
  }

  BandTaker.Band band() {
    return band;
  }

  /** Another band; where symbols are in it has to be found. */
  void in(BandTaker.Band other) {
    band = other;
  }

  /**
   * The same symbols in a band whose middle is elsewhere.
   *
   * @return by how much, in Hz
   */
  double moveTo(BandTaker.Band other) {
    double movedHz = other.offsetHz() - band.offsetHz();
    double turn = 2 * Math.PI * movedHz / other.rateHz();
    phase -= turn * firstSample;
    turnPerSymbol -= turn * samplesPerSymbol;
    band = other;
    return movedHz;
  }

  /** As it was when symbols were read. */
  void restore(Symbols s) {
    firstSample = s.firstSeconds() * band.rateHz();
    samplesPerSymbol = band.rateHz() / s.symbolRateHz();
    turnPerSymbol =
        2 * Math.PI * (s.frequencyHz() - band.offsetHz()) / band.rateHz() * samplesPerSymbol;
    phase = s.phase();
    gain = s.gain();
    count = s.count();
  }

  double frequencyHz() {
    return band.offsetHz() + turnPerSymbol / 2 / Math.PI * band.rateHz() / samplesPerSymbol;
  }

  /** Takes what was found of gain, phase, frequency, instant and clock into the reading. */
  void follow(double[] v) {
    double half = Math.max(1, count - 1) / 2.0;
    double turn = v[ErrorModel.FREQUENCY] / half;
    double late = bounded(v[ErrorModel.LATE]);
    double clock = bounded(v[ErrorModel.CLOCK]) / half;
    gain *= 1 + Math.max(-0.5, Math.min(0.5, v[ErrorModel.GAIN]));
    phase += v[ErrorModel.PHASE] - turn * half + (late - clock * half) * turnPerSymbol;
    turnPerSymbol += turn + clock * turnPerSymbol;
    firstSample += (late - clock * half) * samplesPerSymbol;
    samplesPerSymbol *= 1 + clock;
  }

  private static double bounded(double symbols) {
    return Math.max(-0.25, Math.min(0.25, symbols));
  }

  /** Symbols with the carrier's turn, phase and gain taken off; each axis at its own instants. */
  void read(double[] re, double[] im) {
    Instants at = instants();
    double turn = turnPerSymbol + format.turn();
    Turner turner = new Turner(-phase, -turn, 1 / gain);
    // Half a symbol later the carrier has turned on; the format's own turn stays with the symbol.
    double lateCos = format.offset() ? Math.cos(turnPerSymbol / 2) : 1;
    double lateSin = format.offset() ? -Math.sin(turnPerSymbol / 2) : 0;
    for (int k = 0; k < count; k++) {
      double c = turner.cos;
      double s = turner.sin;
      re[k] = at.re[k] * c - at.im[k] * s;
      im[k] =
          at.lateRe[k] * (c * lateSin + s * lateCos) + at.lateIm[k] * (c * lateCos - s * lateSin);
      turner.next();
    }
    if (followed != null) {
      for (int k = 0; k < count; k++) {
        double c = Math.cos(followed[k]);
        double s = Math.sin(followed[k]);
        double a = re[k] * c + im[k] * s;
        im[k] = im[k] * c - re[k] * s;
        re[k] = a;
      }
    }
  }

  private Instants instants() {
    if (last != null
        && last.band == band
        && last.firstSample == firstSample
        && last.samplesPerSymbol == samplesPerSymbol
        && last.re.length == count) {
      return last;
    }
    double[] re = new double[count];
    double[] im = new double[count];
    between(0, re, im);
    double[] lateRe = re;
    double[] lateIm = im;
    if (format.offset()) {
      lateRe = new double[count];
      lateIm = new double[count];
      between(0.5, lateRe, lateIm);
    }
    last = new Instants(band, firstSample, samplesPerSymbol, re, im, lateRe, lateIm);
    return last;
  }

  private void between(double lateSymbols, double[] re, double[] im) {
    double first = firstSample + lateSymbols * samplesPerSymbol;
    SincSampler.row(band.re(), band.im(), samples(), first, samplesPerSymbol, re, im);
  }

  /** The way between symbols; see {@link Recovered#path}. */
  double[][] path(int firstSymbol, int symbols, int per) {
    int points = symbols * per + 1;
    double[][] out = new double[2][points];
    SincSampler.row(
        band.re(),
        band.im(),
        samples(),
        firstSample + firstSymbol * samplesPerSymbol,
        samplesPerSymbol / per,
        out[0],
        out[1]);
    double turn = turnPerSymbol + format.turn();
    Turner turner = new Turner(-(phase + turn * firstSymbol), -turn / per, 1 / gain);
    for (int i = 0; i < points; i++) {
      double re = out[0][i];
      double im = out[1][i];
      out[0][i] = re * turner.cos - im * turner.sin;
      out[1][i] = re * turner.sin + im * turner.cos;
      turner.next();
      if (followed != null) {
        double angle = followedAt(firstSymbol + (double) i / per);
        double c = Math.cos(angle);
        double d = Math.sin(angle);
        double x = out[0][i] * c + out[1][i] * d;
        out[1][i] = out[1][i] * c - out[0][i] * d;
        out[0][i] = x;
      }
    }
    return out;
  }

  private double followedAt(double symbol) {
    double at = Math.max(0, Math.min(followed.length - 1.0, symbol));
    int k = (int) Math.min(followed.length - 2.0, at);
    return followed[k] + (at - k) * Math.IEEEremainder(followed[k + 1] - followed[k], 2 * Math.PI);
  }

  private int samples() {
    return Math.min(band.samples(), band.re().length);
  }
}
