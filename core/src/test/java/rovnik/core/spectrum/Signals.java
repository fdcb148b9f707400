package rovnik.core.spectrum;

import java.util.Random;

/** Plain test signals, made sample by sample. */
final class Signals {
  private Signals() {}

  static float[] tone(int samples, double cyclesPerSample, double amplitude) {
    float[] iq = new float[2 * samples];
    for (int i = 0; i < samples; i++) {
      double phase = 2 * Math.PI * cyclesPerSample * i + 0.3;
      iq[2 * i] = (float) (amplitude * Math.cos(phase));
      iq[2 * i + 1] = (float) (amplitude * Math.sin(phase));
    }
    return iq;
  }

  static float[] noise(int samples, double power, long seed) {
    Random random = new Random(seed);
    double sigma = Math.sqrt(power / 2);
    float[] iq = new float[2 * samples];
    for (int i = 0; i < iq.length; i++) {
      iq[i] = (float) (sigma * random.nextGaussian());
    }
    return iq;
  }

  static float[] sum(float[] a, float[] b) {
    float[] s = new float[a.length];
    for (int i = 0; i < s.length; i++) {
      s[i] = a[i] + b[i];
    }
    return s;
  }
}
