package rovnik.core.signal;

import java.util.function.DoubleUnaryOperator;

/**
 * A band taken from samples that go on: shifted to 0 Hz, filtered, at a rate that suits it, by
 * transforms of overlapping stretches (overlap-save, Oppenheim and Schafer, from memory). What
 * comes out does not depend on how the samples are cut into pieces.
 */
public final class BandStream {
  private static final int SHORTEST = 1024;

  /** Of each transform at most this part is for what the filter rings. */
  private static final int RINGING_PART = 3;

  /** Takes samples of the band. */
  @FunctionalInterface
  public interface Sink {
    void take(float[] re, float[] im, int from, int count);
  }

  private final double rateHz;
  private final int length;
  private final int outLength;
  private final int guard;
  private final int centre;
  private final float[] response;
  private final float[] held;
  private int filled;

  /** Sample of the stream that is the first of those held. */
  private long begins;

  private long given;
  private long wanted;

  /**
   * @param rateHz samples a second that come
   * @param offsetHz middle of the band; the shift is to a near place, and told
   * @param halfHz how far the band reaches to each side
   * @param leastRateHz of the samples that come out, at most that of those that come
   * @param ringsSeconds how long the response rings to each side
   * @param response amplitude over frequency from the middle, the same on both sides
   */
  public BandStream(
      double rateHz,
      double offsetHz,
      double halfHz,
      double leastRateHz,
      double ringsSeconds,
      DoubleUnaryOperator response) {
    this.rateHz = rateHz;
    int rings = (int) Math.max(1, Math.ceil(ringsSeconds * rateHz));
    int part = 1;
    while (part * 2 * leastRateHz <= rateHz) {
      part *= 2;
    }
    this.guard = (rings + part - 1) / part * part;
    int n = Math.max(SHORTEST, 64 * part);
    while (n < 2 * RINGING_PART * guard) {
      n *= 2;
    }
    this.length = n;
    this.outLength = n / part;
    double bin = rateHz / n;
    this.centre = (int) Math.rint(offsetHz / bin);
    this.response = new float[1 + (int) Math.min(Math.floor(halfHz / bin), outLength / 2.0 - 1)];
    for (int k = 0; k < this.response.length; k++) {
      this.response[k] = (float) response.applyAsDouble(k * bin);
    }
    this.held = new float[2 * length];
    this.filled = guard;
    this.begins = -guard;
  }

  /** Samples a second that come out. */
  public double outRateHz() {
    return rateHz * outLength / length;
  }

  /** What the band is shifted by. */
  public double offsetHz() {
    return centre * rateHz / length;
  }

  /**
   * Takes more samples; what of the band is complete goes to the sink.
   *
   * @param iq interleaved
   */
  public void take(float[] iq, int from, int samples, Sink sink) {
    int at = from;
    int left = samples;
    wanted += samples;
    while (left > 0) {
      int now = Math.min(left, length - filled);
      System.arraycopy(iq, 2 * at, held, 2 * filled, 2 * now);
      filled += now;
      at += now;
      left -= now;
      if (filled == length) {
        give(sink);
      }
    }
  }

  /** Gives what is left, as if nothing followed. */
  public void end(Sink sink) {
    while (given * length < wanted * outLength) {
      java.util.Arrays.fill(held, 2 * filled, 2 * length, 0);
      filled = length;
      give(sink);
    }
  }

  private void give(Sink sink) {
    BandTaker.Band band =
        new BandTaker(held, 0, length, rateHz).take(offsetHz(), 0.999 * outRateHz(), response);
    // Each stretch is shifted from its own beginning: turned to that of the stream.
    double turn = -2 * Math.PI * Math.floorMod(centre * begins, (long) length) / length;
    float c = (float) Math.cos(turn);
    float s = (float) Math.sin(turn);
    float[] re = band.re();
    float[] im = band.im();
    int part = length / outLength;
    int from = guard / part;
    int count =
        (int) Math.min(outLength - 2 * from, (wanted * outLength + length - 1) / length - given);
    for (int i = from; i < from + count; i++) {
      float x = re[i];
      re[i] = x * c - im[i] * s;
      im[i] = x * s + im[i] * c;
    }
    int hop = length - 2 * guard;
    System.arraycopy(held, 2 * hop, held, 0, 4 * guard);
    filled = 2 * guard;
    begins += hop;
    given += count;
    sink.take(re, im, from, count);
  }
}
