package rovnik.core.modulation.wave;

import rovnik.core.Refusal;
import rovnik.core.units.Frequency;

/** A carrier whose frequency goes evenly from one to another, again and again. */
public record Sweep(double fromHz, double toHz, double seconds) implements WavePart {
  public Sweep {
    Refusal.finite("fromHz", fromHz);
    Refusal.finite("toHz", toHz);
    if (!(seconds > 0 && seconds <= 1e6)) {
      throw new Refusal("seconds", "A sweep lasts more than 0 s, such as 10 ms.");
    }
  }

  @Override
  public String words() {
    return "sweep from " + Frequency.ofHertz(fromHz) + " to " + Frequency.ofHertz(toHz);
  }

  @Override
  public double reachHz() {
    return Math.max(Math.abs(fromHz), Math.abs(toHz));
  }

  /** It comes round if it begins with the phase that it ends with. */
  @Override
  public Period period(double sampleRateHz) {
    double turns = (fromHz + toHz) / 2 * seconds;
    if (Math.abs(turns - Math.rint(turns)) > 1e-6) {
      return Period.NONE;
    }
    double samples = seconds * sampleRateHz;
    double whole = Math.rint(samples);
    return Math.abs(samples - whole) < 1e-6 && whole >= 1 ? new Period((long) whole) : Period.NONE;
  }

  @Override
  public double[] make(int samples, double sampleRateHz) {
    double[] out = new double[2 * samples];
    double rise = (toHz - fromHz) / seconds;
    double before = (fromHz + toHz) / 2 * seconds;
    for (int n = 0; n < samples; n++) {
      double t = n / sampleRateHz;
      double sweeps = Math.floor(t / seconds);
      double in = t - sweeps * seconds;
      double turns = sweeps * before % 1.0 + fromHz * in + rise / 2 * in * in;
      out[2 * n] = Math.cos(2 * Math.PI * (turns % 1.0));
      out[2 * n + 1] = Math.sin(2 * Math.PI * (turns % 1.0));
    }
    return out;
  }
}
