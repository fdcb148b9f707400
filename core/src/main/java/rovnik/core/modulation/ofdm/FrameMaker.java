package rovnik.core.modulation.ofdm;

import java.util.Arrays;
import java.util.SplittableRandom;
import rovnik.core.modulation.Prbs;
import rovnik.core.signal.ComplexFft;
import rovnik.core.signal.Transforms;

/** Makes frames that are described, with data that nobody chose. */
public final class FrameMaker {
  private final OfdmDescription description;
  private final DescribedFrame frame;
  private final int times;
  private final SplittableRandom random;
  private final long[] signs;

  /**
   * @param times samples for each of the transform, a power of two
   * @param seed of the data
   */
  public FrameMaker(OfdmDescription description, int times, long seed) {
    this.description = description;
    this.frame = description.frame();
    this.times = times;
    this.random = new SplittableRandom(seed);
    this.signs = Prbs.PN15.bits(frame.plan().tones().length);
  }

  /** Samples of one frame. */
  public static long samples(OfdmDescription description, int times) {
    DescribedFrame frame = description.frame();
    return at(frame, frame.plan().length(), times) + (long) description.window() * times;
  }

  /** Where a place of a frame is from its beginning. */
  private static int at(DescribedFrame frame, int place, int times) {
    return (frame.plan().head() + place) / ChannelSamples.TIMES * times;
  }

  /** One frame, interleaved; tones of power 1 have the power 1 each. */
  public float[] next() {
    float[] out = new float[2 * (int) samples(description, times)];
    int n = description.transform() * times;
    ComplexFft fft = Transforms.ofLength(n);
    float[] re = new float[n];
    float[] im = new float[n];
    int last = frame.at().length - 1;
    for (int s = 0; s <= last; s++) {
      Arrays.fill(re, 0);
      Arrays.fill(im, 0);
      set(re, im, frame.at()[s]);
      // The inverse is a forward transform with the parts exchanged, before and after.
      fft.forward(im, re);
      int body = at(frame, frame.at()[s], times);
      int guard = frame.guard()[s] / ChannelSamples.TIMES * times;
      // What follows without a guard goes on where this ends.
      int beyond = s == last || frame.guard()[s + 1] > 0 ? description.window() * times : 0;
      for (int i = -guard; i < n + beyond; i++) {
        int from = Math.floorMod(i, n);
        double share = risen(i + guard, guard) * risen(n + beyond - 1 - i, beyond);
        out[2 * (body + i)] += (float) (share * re[from]);
        out[2 * (body + i) + 1] += (float) (share * im[from]);
      }
    }
    return out;
  }

  /** From 0 to 1 over the window, as a raised cosine; 1 where none is. */
  private double risen(int sample, int room) {
    int length = Math.min(room, description.window() * times);
    if (sample >= length) {
      return 1;
    }
    double sine = Math.sin(Math.PI / 2 * (sample + 0.5) / length);
    return sine * sine;
  }

  private void set(float[] re, float[] im, int at) {
    FramePlan plan = frame.plan();
    plan.training().stream().filter(s -> s.at() == at).forEach(s -> set(re, im, s));
    plan.data().stream().filter(s -> s.at() == at).forEach(s -> set(re, im, s));
  }

  private void set(float[] re, float[] im, SymbolPlan s) {
    for (int k = 0; k < frame.plan().tones().length; k++) {
      if (!s.used(k)) {
        continue;
      }
      int bin = Math.floorMod(frame.plan().tones()[k], re.length);
      if (s.roles()[k] == SymbolPlan.Role.DATA) {
        int value = random.nextInt(s.points()[k].size());
        re[bin] = (float) (s.re()[k] * s.points()[k].re(value));
        im[bin] = (float) (s.re()[k] * s.points()[k].im(value));
      } else {
        // Signs that are to be learned are our own.
        boolean turned =
            frame.learned() && s.roles()[k] == SymbolPlan.Role.KNOWN && Prbs.get(signs, k);
        re[bin] = (float) (turned ? -s.re()[k] : s.re()[k]);
        im[bin] = (float) (turned ? -s.im()[k] : s.im()[k]);
      }
    }
  }

  /** Mean power of its symbols with data. */
  public double power() {
    double sum = 0;
    for (SymbolPlan s : frame.plan().data()) {
      for (int k = 0; k < frame.plan().tones().length; k++) {
        sum += s.used(k) ? s.power(k) : 0;
      }
    }
    return sum / frame.plan().data().size();
  }
}
