package rovnik.core.network;

import java.util.Arrays;
import rovnik.core.Refusal;

/**
 * What a network analyzer adds to what it measures, and how it is taken away again: the twelve-term
 * model of a two-port test set (S. Rehnmark, "On the calibration process of automatic network
 * analyzer systems", IEEE Trans. MTT 22, 1974). Each term is an array of interleaved real and
 * imaginary parts, one pair a point.
 *
 * @param frequencyHz rising
 * @param forward terms while port 1 sends
 * @param reverse terms while port 2 sends; null if only port 1 was calibrated
 */
public record ErrorTerms(double[] frequencyHz, Side forward, Side reverse) {

  /**
   * Terms of one direction.
   *
   * @param directivity what comes back although nothing reflects
   * @param match reflection of the sending port as the part sees it
   * @param tracking of the reflection, both ways
   * @param loadMatch reflection of the receiving port
   * @param through tracking of the transmission
   * @param isolation what goes across without a part
   */
  public record Side(
      double[] directivity,
      double[] match,
      double[] tracking,
      double[] loadMatch,
      double[] through,
      double[] isolation) {

    /** A port that reflects alone: nothing is known of a transmission. */
    static Side onePort(double[] directivity, double[] match, double[] tracking) {
      int length = directivity.length;
      return new Side(
          directivity, match, tracking, new double[length], ones(length / 2), new double[length]);
    }

    static double[] ones(int points) {
      double[] one = new double[2 * points];
      for (int i = 0; i < one.length; i += 2) {
        one[i] = 1;
      }
      return one;
    }
  }

  public int points() {
    return frequencyHz.length;
  }

  /**
   * The part behind the errors.
   *
   * @param measured raw, on the frequencies of the terms; one port, or two
   * @throws Refusal if the frequencies differ or a second port was not calibrated
   */
  public NetworkData correct(NetworkData measured) {
    if (!Arrays.equals(measured.frequencyHz(), frequencyHz)) {
      throw new Refusal(
          "frequencyHz",
          "The calibration holds for other frequencies. Interpolate it, or calibrate anew.");
    }
    if (measured.ports() > 2 || measured.ports() == 2 && reverse == null) {
      throw new Refusal(
          "ports", "Only port 1 was calibrated. Calibrate both ports for a two-port.");
    }
    double[] out = new double[measured.s().length];
    if (measured.ports() == 1) {
      onePort(measured.s(), out);
    } else {
      twoPort(measured.s(), out);
    }
    return new NetworkData(measured.ports(), measured.referenceOhm(), frequencyHz, out);
  }

  private void onePort(double[] m, double[] out) {
    for (int i = 0; i < m.length; i += 2) {
      double re = m[i] - forward.directivity[i];
      double im = m[i + 1] - forward.directivity[i + 1];
      // gamma = x / (tracking + match x)
      double es = forward.match[i];
      double et = forward.match[i + 1];
      double br = forward.tracking[i] + es * re - et * im;
      double bi = forward.tracking[i + 1] + es * im + et * re;
      double square = br * br + bi * bi;
      out[i] = (re * br + im * bi) / square;
      out[i + 1] = (im * br - re * bi) / square;
    }
  }

  /** S11, S12, S21, S22 of each point; a, b, c, d are the measured ones less what is known. */
  private void twoPort(double[] m, double[] out) {
    Side f = forward;
    Side r = reverse;
    for (int p = 0, i = 0; i < 2 * points(); p += 8, i += 2) {
      double ar = m[p] - f.directivity[i];
      double ai = m[p + 1] - f.directivity[i + 1];
      double t = f.tracking[i] * f.tracking[i] + f.tracking[i + 1] * f.tracking[i + 1];
      double a1 = (ar * f.tracking[i] + ai * f.tracking[i + 1]) / t;
      double a2 = (ai * f.tracking[i] - ar * f.tracking[i + 1]) / t;

      double br = m[p + 6] - r.directivity[i];
      double bi = m[p + 7] - r.directivity[i + 1];
      t = r.tracking[i] * r.tracking[i] + r.tracking[i + 1] * r.tracking[i + 1];
      double b1 = (br * r.tracking[i] + bi * r.tracking[i + 1]) / t;
      double b2 = (bi * r.tracking[i] - br * r.tracking[i + 1]) / t;

      double cr = m[p + 4] - f.isolation[i];
      double ci = m[p + 5] - f.isolation[i + 1];
      t = f.through[i] * f.through[i] + f.through[i + 1] * f.through[i + 1];
      double c1 = (cr * f.through[i] + ci * f.through[i + 1]) / t;
      double c2 = (ci * f.through[i] - cr * f.through[i + 1]) / t;

      double dr = m[p + 2] - r.isolation[i];
      double di = m[p + 3] - r.isolation[i + 1];
      t = r.through[i] * r.through[i] + r.through[i + 1] * r.through[i + 1];
      double d1 = (dr * r.through[i] + di * r.through[i + 1]) / t;
      double d2 = (di * r.through[i] - dr * r.through[i + 1]) / t;

      // u = 1 + a es, v = 1 + b es'
      double u1 = 1 + a1 * f.match[i] - a2 * f.match[i + 1];
      double u2 = a1 * f.match[i + 1] + a2 * f.match[i];
      double v1 = 1 + b1 * r.match[i] - b2 * r.match[i + 1];
      double v2 = b1 * r.match[i + 1] + b2 * r.match[i];
      double cd1 = c1 * d1 - c2 * d2;
      double cd2 = c1 * d2 + c2 * d1;
      // fl = el c d, rl = el' c d
      double fl1 = cd1 * f.loadMatch[i] - cd2 * f.loadMatch[i + 1];
      double fl2 = cd1 * f.loadMatch[i + 1] + cd2 * f.loadMatch[i];
      double rl1 = cd1 * r.loadMatch[i] - cd2 * r.loadMatch[i + 1];
      double rl2 = cd1 * r.loadMatch[i + 1] + cd2 * r.loadMatch[i];
      double den1 = u1 * v1 - u2 * v2 - (fl1 * r.loadMatch[i] - fl2 * r.loadMatch[i + 1]);
      double den2 = u1 * v2 + u2 * v1 - (fl1 * r.loadMatch[i + 1] + fl2 * r.loadMatch[i]);
      double square = den1 * den1 + den2 * den2;

      double n1 = a1 * v1 - a2 * v2 - fl1;
      double n2 = a1 * v2 + a2 * v1 - fl2;
      out[p] = (n1 * den1 + n2 * den2) / square;
      out[p + 1] = (n2 * den1 - n1 * den2) / square;

      // w = 1 + a (es - el')
      double x1 = f.match[i] - r.loadMatch[i];
      double x2 = f.match[i + 1] - r.loadMatch[i + 1];
      double w1 = 1 + a1 * x1 - a2 * x2;
      double w2 = a1 * x2 + a2 * x1;
      n1 = d1 * w1 - d2 * w2;
      n2 = d1 * w2 + d2 * w1;
      out[p + 2] = (n1 * den1 + n2 * den2) / square;
      out[p + 3] = (n2 * den1 - n1 * den2) / square;

      x1 = r.match[i] - f.loadMatch[i];
      x2 = r.match[i + 1] - f.loadMatch[i + 1];
      w1 = 1 + b1 * x1 - b2 * x2;
      w2 = b1 * x2 + b2 * x1;
      n1 = c1 * w1 - c2 * w2;
      n2 = c1 * w2 + c2 * w1;
      out[p + 4] = (n1 * den1 + n2 * den2) / square;
      out[p + 5] = (n2 * den1 - n1 * den2) / square;

      n1 = b1 * u1 - b2 * u2 - rl1;
      n2 = b1 * u2 + b2 * u1 - rl2;
      out[p + 6] = (n1 * den1 + n2 * den2) / square;
      out[p + 7] = (n2 * den1 - n1 * den2) / square;
    }
  }

  /**
   * The terms on other frequencies, straight between points.
   *
   * @throws Refusal if they reach beyond the calibrated range
   */
  public ErrorTerms on(double[] wantedHz) {
    double low = frequencyHz[0];
    double high = frequencyHz[points() - 1];
    double slack = 1e-9 * high;
    if (wantedHz[0] < low - slack || wantedHz[wantedHz.length - 1] > high + slack) {
      throw new Refusal(
          "frequencyHz",
          String.format(
              "The calibration reaches from %.6g to %.6g MHz. Sweep within it, or calibrate anew.",
              low / 1e6, high / 1e6));
    }
    return new ErrorTerms(
        wantedHz, side(forward, wantedHz), reverse == null ? null : side(reverse, wantedHz));
  }

  /** The terms on other frequencies; beyond their ends the last ones are held. */
  public ErrorTerms stretchedOn(double[] wantedHz) {
    if (Arrays.equals(wantedHz, frequencyHz)) {
      return this;
    }
    return new ErrorTerms(
        wantedHz, side(forward, wantedHz), reverse == null ? null : side(reverse, wantedHz));
  }

  private Side side(Side s, double[] wanted) {
    return new Side(
        term(s.directivity, wanted),
        term(s.match, wanted),
        term(s.tracking, wanted),
        term(s.loadMatch, wanted),
        term(s.through, wanted),
        term(s.isolation, wanted));
  }

  private double[] term(double[] t, double[] wanted) {
    double[] out = new double[2 * wanted.length];
    int i = 0;
    for (int p = 0; p < wanted.length; p++) {
      while (i < points() - 2 && frequencyHz[i + 1] < wanted[p]) {
        i++;
      }
      int next = Math.min(i + 1, points() - 1);
      double share =
          next == i
              ? 0
              : Math.min(
                  1,
                  Math.max(0, (wanted[p] - frequencyHz[i]) / (frequencyHz[next] - frequencyHz[i])));
      for (int k = 0; k < 2; k++) {
        out[2 * p + k] = t[2 * i + k] + share * (t[2 * next + k] - t[2 * i + k]);
      }
    }
    return out;
  }
}
