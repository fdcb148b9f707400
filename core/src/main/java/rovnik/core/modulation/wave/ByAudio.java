package rovnik.core.modulation.wave;

import rovnik.core.Refusal;

/**
 * A carrier whose amplitude, frequency or phase follows recorded sound.
 *
 * @param kind what follows
 * @param amount at its loudest. AM: depth, 1 for 100 %; FM: deviation in Hz; PM: in radians
 * @param audio its I, less its mean; one round lasts as long as it does
 */
public record ByAudio(Modulated.Kind kind, double amount, OwnSamples audio) implements WavePart {
  /** Samples to each side that one between them is read from. */
  private static final int REACH = 24;

  public ByAudio {
    // The same bounds as of a tone.
    new Modulated(kind, amount, audio.rateHz() / 2, false, 0);
  }

  @Override
  public String words() {
    return new Modulated(kind, amount, audio.rateHz() / 2, false, 0).amountWords()
        + " by "
        + audio.name();
  }

  @Override
  public double reachHz() {
    double highest = audio.rateHz() / 2;
    return switch (kind) {
      case AM -> highest;
      case FM -> amount + highest;
      case PM -> (amount + 1) * highest;
    };
  }

  @Override
  public Period period(double sampleRateHz) {
    double samples = audio.iq().length / 2 / audio.rateHz() * sampleRateHz;
    return Math.abs(samples - Math.rint(samples)) < 1e-6
        ? new Period(Math.round(samples))
        : Period.NONE;
  }

  /** How long one round is. */
  public double seconds() {
    return audio.iq().length / 2 / audio.rateHz();
  }

  @Override
  public double[] make(int samples, double sampleRateHz) {
    return Modulated.carrier(kind, amount, message(samples, sampleRateHz), sampleRateHz);
  }

  /** The sound at the waveform's own instants, 1 at its loudest: a sinc under a Hann window. */
  private double[] message(int samples, double sampleRateHz) {
    int there = audio.iq().length / 2;
    double[] x = new double[there];
    double mean = 0;
    for (int n = 0; n < there; n++) {
      mean += audio.iq()[2 * n] / there;
    }
    double most = 0;
    for (int n = 0; n < there; n++) {
      x[n] = audio.iq()[2 * n] - mean;
      most = Math.max(most, Math.abs(x[n]));
    }
    if (!(most > 0)) {
      throw new Refusal("recordingId", audio.name() + " is silent. Choose another recording.");
    }
    double step = audio.rateHz() / sampleRateHz;
    double[] out = new double[samples];
    for (int m = 0; m < samples; m++) {
      double place = m * step;
      int here = (int) Math.floor(place);
      double sum = 0;
      for (int k = here - REACH + 1; k <= here + REACH; k++) {
        double t = place - k;
        double window = 0.5 + 0.5 * Math.cos(Math.PI * t / REACH);
        double sinc = Math.abs(t) < 1e-9 ? 1 : Math.sin(Math.PI * t) / (Math.PI * t);
        sum += window * sinc * x[Math.floorMod(k, there)];
      }
      out[m] = sum / most;
    }
    return out;
  }
}
