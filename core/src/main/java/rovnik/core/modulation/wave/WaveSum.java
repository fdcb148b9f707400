package rovnik.core.modulation.wave;

import java.util.List;
import java.util.stream.Collectors;
import rovnik.core.Refusal;
import rovnik.core.modulation.Waveform;
import rovnik.core.units.Frequency;

/** A waveform of several parts, each moved and scaled, as long as it takes to come round. */
public final class WaveSum {
  /**
   * One part in its place.
   *
   * @param offsetHz how far it is moved
   * @param levelDb against the others
   */
  public record Placed(WavePart part, double offsetHz, double levelDb) {
    public Placed {
      Refusal.finite("offsetHz", offsetHz);
      if (!(Math.abs(levelDb) <= 200)) {
        throw new Refusal("levelDb", "The level of a part is -200 to 200 dB against the others.");
      }
    }

    double reachHz() {
      return part.reachHz() + Math.abs(offsetHz);
    }
  }

  /** Longest waveform, samples: it is put together in doubles. */
  public static final int LONGEST = 1 << 22;

  private static final int MOST_PARTS = 64;
  private final List<Placed> parts;

  public WaveSum(List<Placed> parts) {
    this.parts = List.copyOf(parts);
    if (parts.isEmpty() || parts.size() > MOST_PARTS) {
      throw new Refusal("parts", "A waveform has 1 to " + MOST_PARTS + " parts.");
    }
  }

  public String words() {
    return parts.stream().map(p -> p.part().words()).distinct().collect(Collectors.joining(" + "));
  }

  /** Least sample rate that holds all of it. */
  public double leastRateHz() {
    return 2 * parts.stream().mapToDouble(Placed::reachHz).max().orElse(0);
  }

  /**
   * Makes it.
   *
   * @param leastSeconds as much longer as it takes to repeat without a seam, where that fits
   */
  public Waveform make(double sampleRateHz, double leastSeconds) {
    if (leastRateHz() > sampleRateHz) {
      throw new Refusal(
          "sampleRateHz",
          "This waveform reaches "
              + Frequency.ofHertz(leastRateHz() / 2)
              + " to each side: use a sample rate of "
              + Frequency.ofHertz(leastRateHz())
              + " or more.");
    }
    double least = leastSeconds * sampleRateHz;
    if (!(least >= 1 && least <= LONGEST)) {
      throw new Refusal("seconds", "A waveform has 1 sample or more and at most " + LONGEST + ".");
    }
    WavePart.Period all = WavePart.Period.ANY;
    for (Placed p : parts) {
      all = all.with(p.part().period(sampleRateHz));
      all = all.with(WavePart.Period.of(sampleRateHz, p.offsetHz()));
    }
    long wanted = (long) Math.ceil(least - 1e-9);
    long whole =
        all.samples() == 0 ? -1 : (wanted + all.samples() - 1) / all.samples() * all.samples();
    boolean seamless = whole > 0 && whole <= LONGEST;
    int samples = (int) (seamless ? whole : wanted);
    double[] sum = new double[2 * samples];
    for (Placed p : parts) {
      add(sum, p, sampleRateHz);
    }
    Tones.unit(sum);
    float[] iq = new float[sum.length];
    for (int i = 0; i < iq.length; i++) {
      iq[i] = (float) sum[i];
    }
    String note =
        seamless
            ? ""
            : all.samples() == 0
                ? "Its parts have no common period: there is a seam where it repeats."
                : "It would take more than "
                    + LONGEST
                    + " samples to come round: there is a seam where it repeats.";
    return new Waveform(iq, sampleRateHz, seamless, note);
  }

  private static void add(double[] sum, Placed p, double rateHz) {
    int samples = sum.length / 2;
    double[] x = p.part().make(samples, rateHz);
    double a = Math.pow(10, p.levelDb() / 20);
    double step = p.offsetHz() / rateHz;
    for (int n = 0; n < samples; n++) {
      double angle = 2 * Math.PI * (step * n % 1.0);
      double c = a * Math.cos(angle);
      double s = a * Math.sin(angle);
      sum[2 * n] += x[2 * n] * c - x[2 * n + 1] * s;
      sum[2 * n + 1] += x[2 * n] * s + x[2 * n + 1] * c;
    }
  }
}
