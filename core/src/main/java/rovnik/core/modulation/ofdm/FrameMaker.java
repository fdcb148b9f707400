package rovnik.core.modulation.ofdm;

import java.util.Arrays;
import java.util.SplittableRandom;
import rovnik.core.signal.ComplexFft;
import rovnik.core.signal.Transforms;

/** Makes frames that are described, with data that nobody chose. */
public final class FrameMaker {
  private final OfdmDescription description;
  private final OfdmDescription.Frame frame;
  private final int times;
  private final SplittableRandom random;

  /**
   * @param times samples for each of the transform, a power of two
   * @param seed of the data
   */
  public FrameMaker(OfdmDescription description, int times, long seed) {
    this.description = description;
    this.frame = description.frame();
    this.times = times;
    this.random = new SplittableRandom(seed);
  }

  /** Samples of one frame. */
  public static long samples(OfdmDescription description, int times) {
    return at(description.frame(), description.frame().plan().length(), times);
  }

  /** Where a place of a frame is from its beginning. */
  private static int at(OfdmDescription.Frame frame, int place, int times) {
    return (frame.plan().head() + place) / ChannelSamples.TIMES * times;
  }

  /** One frame, interleaved; tones of power 1 have the power 1 each. */
  public float[] next() {
    FramePlan plan = frame.plan();
    float[] out = new float[2 * at(frame, plan.length(), times)];
    int n = description.transform() * times;
    ComplexFft fft = Transforms.ofLength(n);
    float[] re = new float[n];
    float[] im = new float[n];
    for (int s = 0; s < frame.at().length; s++) {
      Arrays.fill(re, 0);
      Arrays.fill(im, 0);
      set(re, im, frame.at()[s]);
      // The inverse is a forward transform with the parts exchanged, before and after.
      fft.forward(im, re);
      int body = at(frame, frame.at()[s], times);
      int guard = frame.guard()[s] / ChannelSamples.TIMES * times;
      for (int i = -guard; i < n; i++) {
        int from = i < 0 ? i + n : i;
        out[2 * (body + i)] = re[from];
        out[2 * (body + i) + 1] = im[from];
      }
    }
    return out;
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
        re[bin] = (float) s.re()[k];
        im[bin] = (float) s.im()[k];
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
