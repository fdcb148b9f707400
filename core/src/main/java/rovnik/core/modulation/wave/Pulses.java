package rovnik.core.modulation.wave;

import rovnik.core.Refusal;
import rovnik.core.units.Frequency;

/**
 * A train of pulses; the edges are halves of a raised cosine.
 *
 * @param widthSeconds between the middles of the edges
 * @param intervalSeconds from pulse to pulse
 * @param edgeSeconds how long an edge lasts; 0 for none
 */
public record Pulses(double widthSeconds, double intervalSeconds, double edgeSeconds)
    implements WavePart {
  public Pulses {
    if (!(widthSeconds > 0 && intervalSeconds > widthSeconds && intervalSeconds <= 1e6)) {
      throw new Refusal(
          "widthSeconds", "A pulse has a width of more than 0 s, shorter than the interval.");
    }
    if (!(edgeSeconds >= 0
        && edgeSeconds <= Math.min(widthSeconds, intervalSeconds - widthSeconds))) {
      throw new Refusal("edgeSeconds", "An edge is no longer than the pulse and the pause.");
    }
  }

  @Override
  public String words() {
    return String.format(
        java.util.Locale.ROOT, "pulses of %.4g s every %.4g s", widthSeconds, intervalSeconds);
  }

  /** The fifth zero of the spectrum of one pulse. */
  @Override
  public double reachHz() {
    return 5 / widthSeconds;
  }

  @Override
  public Period period(double sampleRateHz) {
    return Period.every(intervalSeconds, sampleRateHz);
  }

  @Override
  public double[] make(int samples, double sampleRateHz) {
    if (widthSeconds * sampleRateHz < 2) {
      throw new Refusal(
          "sampleRateHz",
          "A pulse is shorter than two samples. Use "
              + Frequency.ofHertz(Math.ceil(4 / widthSeconds))
              + " or more.");
    }
    double[] out = new double[2 * samples];
    for (int n = 0; n < samples; n++) {
      double t = (n / sampleRateHz + edgeSeconds / 2) % intervalSeconds - edgeSeconds / 2;
      out[2 * n] = edge(t) * (1 - edge(t - widthSeconds));
    }
    return out;
  }

  private double edge(double t) {
    if (t <= -edgeSeconds / 2) {
      return t == 0 ? 1 : 0;
    }
    return t >= edgeSeconds / 2 ? 1 : (1 + Math.sin(Math.PI * t / edgeSeconds)) / 2;
  }
}
