package rovnik.core.modulation.ofdm;

import java.util.Arrays;
import java.util.List;

/**
 * Which symbols a frame has, where they are and what their tones carry. Lengths are in samples at
 * {@link ChannelSamples#TIMES} times the rate of the transform.
 *
 * @param transform length of a symbol without its guard
 * @param early so much before its end the guard is entered by what is transformed
 * @param head samples of the frame before the transform of the first training
 * @param tones that carry something in any symbol, rising
 * @param units number of the unit of each tone: what tones pass changes little within one
 * @param quarters of a turn by which each tone is sent turned
 * @param training symbols that are known, in their order
 * @param data the others that are read, in their order
 */
record FramePlan(
    int transform,
    int early,
    int head,
    int[] tones,
    int[] units,
    int[] quarters,
    List<SymbolPlan> training,
    List<SymbolPlan> data) {

  /** No tone is turned. */
  FramePlan(
      int transform,
      int early,
      int head,
      int[] tones,
      int[] units,
      List<SymbolPlan> training,
      List<SymbolPlan> data) {
    this(transform, early, head, tones, units, new int[tones.length], training, data);
  }

  /** All tones are of one unit. */
  FramePlan(
      int transform,
      int early,
      int head,
      int[] tones,
      List<SymbolPlan> training,
      List<SymbolPlan> data) {
    this(transform, early, head, tones, new int[tones.length], training, data);
  }

  /** The same frame with other symbols of data. */
  FramePlan with(List<SymbolPlan> others) {
    return new FramePlan(transform, early, head, tones, units, quarters, training, others);
  }

  /** The same frame with other training. */
  FramePlan withTraining(List<SymbolPlan> known) {
    return new FramePlan(transform, early, head, tones, units, quarters, known, data);
  }

  /** Samples from the first training to the end of the last symbol. */
  int length() {
    int last = 0;
    for (SymbolPlan s : training) {
      last = Math.max(last, s.at());
    }
    for (SymbolPlan s : data) {
      last = Math.max(last, s.at());
    }
    return last + transform;
  }

  /** The same to the end of the last training. */
  int trainingEnd() {
    return training.get(training.size() - 1).at() + transform;
  }

  /** Its training is one stretch, within which the carrier does not turn much. */
  boolean adjacent() {
    int least = Integer.MAX_VALUE;
    int most = 0;
    for (SymbolPlan s : training) {
      least = Math.min(least, s.at());
      most = Math.max(most, s.at());
    }
    return most - least <= (training.size() - 1) * transform;
  }

  /** Real part of a value as if its tone were not turned. */
  double straightRe(int k, double x, double y) {
    return switch (quarters[k]) {
      case 1 -> y;
      case 2 -> -x;
      case 3 -> -y;
      default -> x;
    };
  }

  /** Imaginary part of the same. */
  double straightIm(int k, double x, double y) {
    return straightRe(k, y, -x);
  }

  int indexOf(int tone) {
    return Arrays.binarySearch(tones, tone);
  }

  int farthest() {
    return Math.max(Math.abs(tones[0]), Math.abs(tones[tones.length - 1]));
  }
}
