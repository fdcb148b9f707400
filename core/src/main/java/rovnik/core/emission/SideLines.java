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
    }
    // The noise of both side lines adds to the mean square.
    return new SideLines(
        Math.sqrt(Math.max(0, sum / pieces - 2 * noise)), Math.sqrt(noise / pieces));
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
