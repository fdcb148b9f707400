package rovnik.standins.world;

import java.util.function.DoublePredicate;
import java.util.function.DoubleUnaryOperator;

/**
 * A carrier whose phase moves as slowly as speech: a few exact phases, and between them a turn that
 * grows evenly. Several times as quick as a sine and cosine a sample.
 */
final class SmoothTurn {
  /**
   * With tones to 2 kHz and deviations to 5 kHz the phase between is then off by less than 1e-4.
   */
  private static final double STRETCH_SECONDS = 12e-6;

  private static final int SHORTEST = 4;
  private static final int LONGEST = 64;

  private SmoothTurn() {}

  /**
   * Adds the carrier.
   *
   * @param phase over time, radians
   * @param there at which times it is; nothing shorter than a stretch
   */
  static void add(
      double[] iq,
      int samples,
      double startSeconds,
      double rateHz,
      double amplitude,
      DoubleUnaryOperator phase,
      DoublePredicate there) {
    int stretch = Math.min(LONGEST, (int) (STRETCH_SECONDS * rateHz));
    for (int n = 0; n < samples; n += Math.max(1, stretch)) {
      int to = Math.min(samples, n + Math.max(1, stretch));
      boolean begins = there.test(startSeconds + n / rateHz);
      boolean ends = there.test(startSeconds + (to - 1) / rateHz);
      if (begins && ends && stretch >= SHORTEST) {
        turn(iq, n, to, startSeconds, rateHz, amplitude, phase);
        continue;
      }
      for (int k = n; k < to && (begins || ends); k++) {
        double t = startSeconds + k / rateHz;
        if (there.test(t)) {
          double p = phase.applyAsDouble(t);
          iq[2 * k] += amplitude * Math.cos(p);
          iq[2 * k + 1] += amplitude * Math.sin(p);
        }
      }
    }
  }

  private static void turn(
      double[] iq,
      int from,
      int to,
      double startSeconds,
      double rateHz,
      double amplitude,
      DoubleUnaryOperator phase) {
    double count = to - from;
    double p = phase.applyAsDouble(startSeconds + from / rateHz);
    double half = phase.applyAsDouble(startSeconds + (from + count / 2) / rateHz) - p;
    double whole = phase.applyAsDouble(startSeconds + to / rateHz) - p;
    // The parabola through all three: first * k + second * k * k.
    double second = 2 * (whole - 2 * half) / (count * count);
    double first = (4 * half - whole) / count;
    double re = amplitude * Math.cos(p);
    double im = amplitude * Math.sin(p);
    double stepRe = Math.cos(first + second);
    double stepIm = Math.sin(first + second);
    double growRe = Math.cos(2 * second);
    double growIm = Math.sin(2 * second);
    for (int k = from; k < to; k++) {
      iq[2 * k] += re;
      iq[2 * k + 1] += im;
      double next = re * stepRe - im * stepIm;
      im = re * stepIm + im * stepRe;
      re = next;
      double step = stepRe * growRe - stepIm * growIm;
      stepIm = stepRe * growIm + stepIm * growRe;
      stepRe = step;
    }
  }
}
