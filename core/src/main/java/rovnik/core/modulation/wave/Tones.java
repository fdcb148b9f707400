package rovnik.core.modulation.wave;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.signal.DoubleTransforms;
import rovnik.core.units.Frequency;

/**
 * Tones side by side.
 *
 * @param tones at least one
 * @param label as shown
 */
public record Tones(List<Tone> tones, String label) implements WavePart {
  private static final int MOST = 4096;
  private static final int FEW = 8;
  private static final long MOST_WORK = 200_000_000;

  /**
   * One of them.
   *
   * @param offsetHz from the centre
   * @param levelDb against the others
   */
  public record Tone(double offsetHz, double levelDb, double phaseRadians) {
    public Tone {
      Refusal.finite("offsetHz", offsetHz);
      Refusal.finite("phaseRadians", phaseRadians);
      if (!(Math.abs(levelDb) <= 200)) {
        throw new Refusal("levelDb", "The level of a tone is -200 to 200 dB against the others.");
      }
    }
  }

  public Tones {
    tones = List.copyOf(tones);
    if (tones.isEmpty() || tones.size() > MOST) {
      throw new Refusal("tones", "Give 1 to " + MOST + " tones.");
    }
  }

  public static Tones carrier() {
    return new Tones(List.of(new Tone(0, 0, 0)), "carrier");
  }

  /**
   * Tones of one level in even steps around the centre.
   *
   * @param lowCrest phases that keep the peaks low, as the square of the number (M. R. Schroeder,
   *     IEEE Trans. Inf. Theory 16, 1970, from memory); all 0 otherwise
   */
  public static Tones comb(int count, double spacingHz, boolean lowCrest) {
    if (count < 1 || count > MOST) {
      throw new Refusal("count", "Give 1 to " + MOST + " tones.");
    }
    if (!(spacingHz > 0 && spacingHz <= 1e12)) {
      throw new Refusal("spacingHz", "The spacing of tones is more than 0 Hz, such as 10 kHz.");
    }
    List<Tone> all = new ArrayList<>();
    for (int k = 0; k < count; k++) {
      double phase = lowCrest ? Math.PI * ((double) k * k / count % 2) : 0;
      all.add(new Tone((k - (count - 1) / 2.0) * spacingHz, 0, phase));
    }
    return new Tones(all, count + " tones every " + Frequency.ofHertz(spacingHz));
  }

  @Override
  public String words() {
    return label;
  }

  @Override
  public double reachHz() {
    return tones.stream().mapToDouble(t -> Math.abs(t.offsetHz())).max().orElse(0);
  }

  @Override
  public Period period(double sampleRateHz) {
    return Period.of(sampleRateHz, tones.stream().mapToDouble(Tone::offsetHz).toArray());
  }

  @Override
  public double[] make(int samples, double sampleRateHz) {
    double[] out = new double[2 * samples];
    if (tones.size() > FEW && onLines(samples, sampleRateHz)) {
      for (Tone t : tones) {
        int line = (int) Math.rint(t.offsetHz() / sampleRateHz * samples);
        double a = Math.pow(10, t.levelDb() / 20);
        out[2 * Math.floorMod(line, samples)] += a * Math.cos(t.phaseRadians());
        out[2 * Math.floorMod(line, samples) + 1] += a * Math.sin(t.phaseRadians());
      }
      DoubleTransforms.once(samples).complexInverse(out, false);
      return unit(out);
    }
    if ((long) tones.size() * samples > MOST_WORK) {
      throw new Refusal(
          "tones",
          "So many tones without a common step take too long. Give them offsets with one, or make"
              + " the waveform shorter.");
    }
    for (Tone t : tones) {
      double a = Math.pow(10, t.levelDb() / 20);
      double step = t.offsetHz() / sampleRateHz;
      for (int n = 0; n < samples; n++) {
        double angle = 2 * Math.PI * (step * n % 1.0) + t.phaseRadians();
        out[2 * n] += a * Math.cos(angle);
        out[2 * n + 1] += a * Math.sin(angle);
      }
    }
    return unit(out);
  }

  /** Each is one line of a spectrum over all samples. */
  private boolean onLines(int samples, double sampleRateHz) {
    return tones.stream()
        .mapToDouble(t -> t.offsetHz() / sampleRateHz * samples)
        .allMatch(k -> Math.abs(k - Math.rint(k)) < 1e-6);
  }

  /** Scales to mean power 1. */
  static double[] unit(double[] x) {
    double power = Arrays.stream(x).map(v -> v * v).sum() / (x.length / 2.0);
    double scale = 1 / Math.sqrt(Math.max(power, 1e-300));
    for (int i = 0; i < x.length; i++) {
      x[i] *= scale;
    }
    return x;
  }
}
