package rovnik.core.modulation.wave;

import java.util.random.RandomGenerator;
import java.util.random.RandomGeneratorFactory;
import rovnik.core.Refusal;
import rovnik.core.signal.DoubleTransforms;
import rovnik.core.units.Frequency;

/**
 * Gaussian noise that fills a band evenly and comes round.
 *
 * @param bandHz width, around the centre
 * @param seed of its numbers
 */
public record BandNoise(double bandHz, long seed) implements WavePart {
  public BandNoise {
    if (!(bandHz > 0 && bandHz <= 1e12)) {
      throw new Refusal("bandHz", "The band of noise is more than 0 Hz, such as 5 MHz.");
    }
  }

  @Override
  public String words() {
    return "noise " + Frequency.ofHertz(bandHz) + " wide";
  }

  @Override
  public double reachHz() {
    return bandHz / 2;
  }

  @Override
  public Period period(double sampleRateHz) {
    return Period.ANY;
  }

  /** Each line of the band has a random phase and size. */
  @Override
  public double[] make(int samples, double sampleRateHz) {
    RandomGenerator random = RandomGeneratorFactory.of("L64X128MixRandom").create(seed);
    double[] lines = new double[2 * samples];
    int reach = (int) Math.min((samples - 1) / 2, Math.floor(bandHz / 2 / sampleRateHz * samples));
    for (int k = -reach; k <= reach; k++) {
      int at = 2 * Math.floorMod(k, samples);
      lines[at] = random.nextGaussian();
      lines[at + 1] = random.nextGaussian();
    }
    DoubleTransforms.once(samples).complexInverse(lines, false);
    return Tones.unit(lines);
  }
}
