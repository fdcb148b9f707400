package rovnik.core.modulation.wave;

import rovnik.core.Refusal;
import rovnik.core.modulation.ofdm.FrameMaker;
import rovnik.core.modulation.ofdm.OfdmDescription;
import rovnik.core.units.Frequency;
import rovnik.core.units.Seconds;

/**
 * An OFDM frame by description, again and again, with data of a pseudorandom sequence.
 *
 * @param intervalSeconds from the beginning of one to that of the next
 * @param seed of the data
 */
public record FramePart(OfdmDescription description, double intervalSeconds, long seed)
    implements WavePart {
  private static final double CLOSE = 1e-9;

  public FramePart {
    double lasts = FrameMaker.samples(description, 1) / description.rateHz();
    if (!(intervalSeconds >= lasts * (1 - CLOSE) && intervalSeconds <= 1)) {
      throw new Refusal(
          "intervalSeconds",
          "A frame lasts " + Seconds.words(lasts) + "; the next begins then or later, within 1 s.");
    }
  }

  @Override
  public String words() {
    return "OFDM frames, " + description.name() + ", every " + Seconds.words(intervalSeconds);
  }

  @Override
  public double reachHz() {
    return description.reachHz();
  }

  @Override
  public Period period(double sampleRateHz) {
    return Period.every(intervalSeconds, sampleRateHz);
  }

  @Override
  public double[] make(int samples, double sampleRateHz) {
    int times = (int) Math.rint(sampleRateHz / description.rateHz());
    if (times < 1
        || Integer.bitCount(times) != 1
        || Math.abs(times * description.rateHz() / sampleRateHz - 1) > CLOSE) {
      throw new Refusal(
          "sampleRateHz",
          "These frames are made at 1, 2, 4 or 8 times the rate of their transform: "
              + Frequency.ofHertz(description.rateHz()).toString().replace("Hz", "S/s")
              + ".");
    }
    FrameMaker maker = new FrameMaker(description, times, seed);
    double scale = 1 / Math.sqrt(maker.power());
    double[] out = new double[2 * samples];
    for (double t = 0; ; t += intervalSeconds) {
      long first = Math.round(t * sampleRateHz);
      if (first >= samples) {
        return out;
      }
      float[] frame = maker.next();
      for (int n = 0; n < frame.length / 2 && first + n < samples; n++) {
        out[2 * (int) (first + n)] += scale * frame[2 * n];
        out[2 * (int) (first + n) + 1] += scale * frame[2 * n + 1];
      }
    }
  }
}
