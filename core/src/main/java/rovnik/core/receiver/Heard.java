package rovnik.core.receiver;

import java.util.Arrays;
import rovnik.core.modulation.analog.AudioFilter;
import rovnik.core.modulation.analog.SineFit;
import rovnik.core.modulation.analog.ToneFigures;

/**
 * A stretch of what a receiver's loudspeaker gives, and the tone in it.
 *
 * @param samples behind the filter, without what that needs to settle
 * @param rateHz samples a second
 * @param highestHz of what is listened to
 */
public record Heard(
    double[] samples, double rateHz, double highestHz, SineFit tone, ToneFigures figures) {
  private static final double LOWEST_HZ = 200;
  private static final double HIGHEST_SHARE = 0.45;

  /**
   * Listens to a stretch.
   *
   * @param audio full scale 1
   */
  public static Heard of(double[] audio, double rateHz, AudioFilter filter) {
    double[] x = audio;
    if (!filter.none()) {
      x = filter.applied(audio, rateHz);
      int guard = (int) Math.min(x.length / 4.0, filter.settlesSeconds() * rateHz);
      x = Arrays.copyOfRange(x, guard, x.length - guard);
    }
    double high =
        Math.min(HIGHEST_SHARE * rateHz, filter.highHz() > 0 ? 1.2 * filter.highHz() : rateHz);
    double low = filter.lowHz() > 0 ? 0.8 * filter.lowHz() : LOWEST_HZ;
    SineFit tone = SineFit.of(x, rateHz, low, high, high);
    double seconds = x.length / rateHz;
    double independent = Math.max(2, 2 * (high - low) * seconds);
    return new Heard(x, rateHz, high, tone, ToneFigures.of(tone, independent, seconds));
  }

  /** SINAD and how it scatters; nothing where no tone stands out. */
  public Quality quality() {
    return tone.found()
        ? Quality.ofSinad(figures.sinadDb(), figures.sinadStandardDb())
        : Quality.nothing("no tone is heard");
  }

  /** Root mean square, dB of full scale. */
  public double levelDbfs() {
    double sum = 0;
    for (double v : samples) {
      sum += v * v / samples.length;
    }
    return 10 * Math.log10(2 * sum + 1e-20);
  }
}
