package rovnik.core.modulation.wave;

import rovnik.core.Refusal;
import rovnik.core.units.Frequency;

/**
 * A carrier whose amplitude, frequency or phase follows a tone or noise.
 *
 * @param kind what follows
 * @param amount AM: depth, 1 for 100 %; FM: peak deviation in Hz (noise: rms); PM: in radians
 * @param rateHz of the tone, or band of the noise
 * @param noise noise from 0 Hz to the rate instead of a tone
 * @param seed of the noise
 */
public record Modulated(Kind kind, double amount, double rateHz, boolean noise, long seed)
    implements WavePart {
  /** What follows the message. */
  public enum Kind {
    AM("AM"),
    FM("FM"),
    PM("PM");

    private final String label;

    Kind(String label) {
      this.label = label;
    }

    public String label() {
      return label;
    }
  }

  public Modulated {
    if (!(rateHz > 0 && rateHz <= 1e12)) {
      throw new Refusal("rateHz", "The rate of the modulation is more than 0 Hz, such as 1 kHz.");
    }
    if (!(amount >= 0 && amount <= 1e12)) {
      throw new Refusal("amount", "The amount of modulation is 0 or more.");
    }
    if (kind == Kind.AM && amount > 2) {
      throw new Refusal("depthPercent", "The depth of AM is 0 to 200 %.");
    }
  }

  @Override
  public String words() {
    return amountWords() + (noise ? " by noise to " : " at ") + Frequency.ofHertz(rateHz);
  }

  /** "AM 50 %". */
  String amountWords() {
    String much =
        switch (kind) {
          case AM -> String.format(java.util.Locale.ROOT, "%.4g %%", 100 * amount);
          case FM -> Frequency.ofHertz(amount).toString();
          case PM -> String.format(java.util.Locale.ROOT, "%.4g rad", amount);
        };
    return kind.label() + " " + much;
  }

  /** Carson's rule, and an octave of the message more. */
  @Override
  public double reachHz() {
    return switch (kind) {
      case AM -> rateHz;
      case FM -> amount * (noise ? 3 : 1) + 2 * rateHz;
      case PM -> amount * (noise ? 3 : 1) * rateHz + 2 * rateHz;
    };
  }

  @Override
  public Period period(double sampleRateHz) {
    return noise ? Period.ANY : Period.of(sampleRateHz, rateHz);
  }

  @Override
  public double[] make(int samples, double sampleRateHz) {
    double[] m = noise ? noise(samples, sampleRateHz) : tone(samples, sampleRateHz);
    if (kind == Kind.FM && !noise) {
      // The integral of a tone in closed form.
      double[] out = new double[samples];
      for (int n = 0; n < samples; n++) {
        out[n] = Math.sin(2 * Math.PI * (rateHz / sampleRateHz * n % 1.0)) / rateHz;
      }
      return turned(amount, out);
    }
    return carrier(kind, amount, m, sampleRateHz);
  }

  /** A carrier that follows a message. */
  static double[] carrier(Kind kind, double amount, double[] message, double sampleRateHz) {
    if (kind == Kind.AM) {
      double[] out = new double[2 * message.length];
      for (int n = 0; n < message.length; n++) {
        out[2 * n] = 1 + amount * message[n];
      }
      return Tones.unit(out);
    }
    return turned(amount, kind == Kind.PM ? message : integral(message, sampleRateHz));
  }

  private static double[] turned(double amount, double[] phase) {
    double[] out = new double[2 * phase.length];
    for (int n = 0; n < phase.length; n++) {
      double angle = amount * phase[n];
      out[2 * n] = Math.cos(angle);
      out[2 * n + 1] = Math.sin(angle);
    }
    return out;
  }

  private double[] tone(int samples, double sampleRateHz) {
    double[] m = new double[samples];
    for (int n = 0; n < samples; n++) {
      m[n] = Math.cos(2 * Math.PI * (rateHz / sampleRateHz * n % 1.0));
    }
    return m;
  }

  /** Real noise of rms 1 without a part at 0 Hz. */
  private double[] noise(int samples, double sampleRateHz) {
    double[] both = new BandNoise(2 * rateHz, seed).make(samples, sampleRateHz);
    double mean = 0;
    for (int n = 0; n < samples; n++) {
      mean += both[2 * n] / samples;
    }
    double[] m = new double[samples];
    double power = 0;
    for (int n = 0; n < samples; n++) {
      m[n] = both[2 * n] - mean;
      power += m[n] * m[n] / samples;
    }
    double scale = 1 / Math.sqrt(Math.max(power, 1e-300));
    for (int n = 0; n < samples; n++) {
      m[n] *= scale;
    }
    return m;
  }

  /** 2 pi times the integral by the trapezoidal rule; the first sample follows the last. */
  private static double[] integral(double[] m, double sampleRateHz) {
    double[] out = new double[m.length];
    double sum = 0;
    for (int n = 0; n < m.length; n++) {
      out[n] = sum;
      sum += Math.PI * (m[n] + m[(n + 1) % m.length]) / sampleRateHz;
    }
    return out;
  }
}
