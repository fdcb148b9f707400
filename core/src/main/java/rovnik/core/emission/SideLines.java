package rovnik.core.emission;

import rovnik.core.Refusal;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.Window;

/**
 * Amplitude and phase modulation told apart by the phases of a carrier C and its two side lines, U
 * above and L below. With x = U/C and y the conjugate of L/C, sinusoidal AM of depth m has x = y =
 * m/2 e^(j theta), narrow phase modulation of index b has x = -y = j b/2 e^(j theta); so |x + y| is
 * the depth whatever there is of the other (derived from the identities for both; textbooks draw
 * them as phasors). Levels alone cannot tell them.
 *
 * <p>To the second order in b, with J0 = 1 - b^2/4, J1 = b/2, J2 = b^2/8 and the phase modulation
 * psi ahead of the AM, (x + y) / m = 1 + b^2/4 + e^(2 j psi) b^2/8 - (m b cos psi / 2)^2, which is
 * taken off; x - y = j b e^(j psi) tells b and psi.
 *
 * @param depth of AM, 0 to 1 and more for over-modulation
 * @param standard standard uncertainty of it from the noise beside the lines
 */
public record SideLines(double depth, double standard) {
  /** Side lobes at -92 dB: a carrier does not leak into its side lines. */
  private static final Window WINDOW = Window.BLACKMAN_HARRIS;

  /** Bins between carrier and side line that keep their main lobes apart. */
  private static final double BINS_AWAY = 8;

  /** Pieces looked at: their scatter then is small beside what an instrument's linearity allows. */
  private static final int MOST_PIECES = 64;

  /**
   * Looks at a record in pieces that are just long enough to keep the three lines apart.
   *
   * @param carrierHz offset of the carrier from the record's centre
   * @param awayHz distance of the side lines, positive
   * @param noiseShareHz power density of the noise over the carrier's power, in 1/Hz
   * @throws Refusal if the record is too short
   */
  public static SideLines of(
      IqRecord record, double carrierHz, double awayHz, double noiseShareHz) {
    int length = (int) Math.ceil(BINS_AWAY * record.sampleRateHz() / awayHz);
    int pieces = Math.min(MOST_PIECES, record.sampleCount() / length);
    if (pieces < 1) {
      throw new Refusal("amDepth", "the record is too short for side lines this near");
    }
    double[] window = WINDOW.samples(length);
    double noise = noiseShareHz * WINDOW.figures().enbwBins() * record.sampleRateHz() / length;
    double sum = 0;
    double other = 0;
    double crossRe = 0;
    double crossIm = 0;
    for (int p = 0; p < pieces; p++) {
      int from = p * length;
      double[] c = line(record, from, window, carrierHz);
      double[] u = line(record, from, window, carrierHz + awayHz);
      double[] l = line(record, from, window, carrierHz - awayHz);
      double power = c[0] * c[0] + c[1] * c[1];
      // U times the conjugate of C, and the conjugate of (L times the conjugate of C).
      double xRe = (u[0] * c[0] + u[1] * c[1]) / power;
      double xIm = (u[1] * c[0] - u[0] * c[1]) / power;
      double yRe = (l[0] * c[0] + l[1] * c[1]) / power;
      double yIm = -(l[1] * c[0] - l[0] * c[1]) / power;
      sum += Math.pow(xRe + yRe, 2) + Math.pow(xIm + yIm, 2);
      other += Math.pow(xRe - yRe, 2) + Math.pow(xIm - yIm, 2);
      // (x - y) times the conjugate of (x + y), which is j b m e^(j psi).
      crossRe += (xRe - yRe) * (xRe + yRe) + (xIm - yIm) * (xIm + yIm);
      crossIm += (xIm - yIm) * (xRe + yRe) - (xRe - yRe) * (xIm + yIm);
    }
    // The noise of both side lines adds to the mean square.
    double depth = Math.sqrt(Math.max(0, sum / pieces - 2 * noise));
    double square = Math.max(0, other / pieces - 2 * noise);
    double psi = Math.atan2(-crossRe, crossIm);
    double more =
        square / 4
            + Math.cos(2 * psi) * square / 8
            - Math.pow(depth * Math.cos(psi), 2) * square / 4;
    double aside = Math.sin(2 * psi) * square / 8;
    return new SideLines(
        depth / Math.hypot(1 + more, aside),
        Math.hypot(Math.sqrt(noise / pieces), depth * square * square / 16));
  }

  private static double[] line(IqRecord record, int from, double[] window, double hertz) {
    float[] iq = record.iq();
    double turn = -2 * Math.PI * hertz / record.sampleRateHz();
    double re = 0;
    double im = 0;
    for (int i = 0; i < window.length; i++) {
      double c = Math.cos(turn * i) * window[i];
      double s = Math.sin(turn * i) * window[i];
      int at = 2 * (from + i);
      re += iq[at] * c - iq[at + 1] * s;
      im += iq[at] * s + iq[at + 1] * c;
    }
    return new double[] {re, im};
  }
}
