package rovnik.core.time;

import rovnik.core.modulation.Digesting;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.Powers;
import rovnik.core.spectrum.SpectrumLayout;

/**
 * Spectra of a part of a recording, in rows that keep the highest and the sum of each point. Powers
 * are kept in the upper half of their bits, which is 0.02 dB.
 */
final class SpectraDigest implements Digesting.Digest {
  private static final int HALF = 16;

  private final int points;
  private final double firstSeconds;
  private final double rowSeconds;
  private final short[] highest;
  private final short[] sum;

  /** Sum over the spectra of each row of the power of all points. */
  private final double[] whole;

  private final int[] spectra;

  private float most;
  private double mostAt;

  /**
   * @param part with what lies beyond it, so that spectra that begin in it end in it
   * @param samples of the part itself
   * @param rows that it is divided in
   */
  SpectraDigest(IqRecord part, SpectrumLayout layout, int hop, int samples, int rows) {
    this.points = layout.points();
    this.highest = new short[rows * points];
    this.whole = new double[rows];
    this.spectra = new int[rows];
    this.sum = new short[rows * points];
    int reach = Math.min(part.sampleCount(), samples + layout.windowLength());
    double fs = layout.sampleRateHz();
    this.rowSeconds = samples / fs / rows;
    // A row is of the spectra that begin in it; each is of the middle of its window.
    this.firstSeconds = part.startSeconds() + layout.windowLength() / 2.0 / fs;
    if (reach < layout.windowLength()) {
      return; // too little is left of the recording
    }
    FrameSpectra frames = new FrameSpectra(part, layout, 0, reach, hop);
    float[] row = new float[points];
    float[] all = new float[points];
    float[] lowest = new float[points];
    int[] now = {0};
    frames.each(
        (frame, power) -> {
          long first = (long) frame * hop;
          if (first >= samples) {
            return;
          }
          int r = (int) (first * rows / samples);
          if (r != now[0]) {
            store(now[0], row, all);
            now[0] = r;
          }
          float highest = Powers.fastest().gather(power, points, all, lowest, row, 0);
          spectra[r]++;
          if (highest > most) {
            most = highest;
            mostAt = part.startSeconds() + frames.seconds(frame);
          }
        });
    store(now[0], row, all);
  }

  /** A row is whole; both are used again. */
  private void store(int row, float[] powers, float[] sums) {
    for (float p : sums) {
      whole[row] += p;
    }
    store(row, powers, highest);
    store(row, sums, sum);
  }

  private void store(int row, float[] power, short[] into) {
    for (int i = 0; i < points; i++) {
      int bits = Float.floatToRawIntBits(power[i]) + (1 << HALF - 1);
      into[row * points + i] = (short) (bits >>> HALF);
      power[i] = 0;
    }
  }

  int rows() {
    return whole.length;
  }

  double rowSeconds() {
    return rowSeconds;
  }

  /** Middle of a row. */
  double seconds(int row) {
    return firstSeconds + (row + 0.5) * rowSeconds;
  }

  int spectra(int row) {
    return spectra[row];
  }

  double whole(int row) {
    return whole[row];
  }

  /** Highest powers of a row. */
  void highest(int row, float[] into) {
    load(row, highest, into);
  }

  /** Sums of a row's spectra. */
  void sum(int row, float[] into) {
    load(row, sum, into);
  }

  private void load(int row, short[] from, float[] into) {
    for (int i = 0, at = row * points; i < points; i++, at++) {
      into[i] = Float.intBitsToFloat(from[at] << HALF);
    }
  }

  float most() {
    return most;
  }

  /** When the highest was. */
  double mostAt() {
    return mostAt;
  }

  @Override
  public long bytes() {
    return 4L * highest.length + 12L * whole.length;
  }
}
