package rovnik.core.signal;

/** One sample after the other. */
final class PlainPowers extends Powers {
  @Override
  public void of(
      float[] iq,
      int from,
      int samples,
      float[] power,
      float[] highest,
      float[] lowest,
      float[] sum) {
    for (int i = 0, at = 2 * from; i < samples; i++, at += 2) {
      power[i] = iq[at] * iq[at] + iq[at + 1] * iq[at + 1];
    }
    blocks(power, samples, highest, lowest, sum);
  }

  @Override
  public float gather(
      float[] power, int points, float[] sum, float[] lowest, float[] highest, int first) {
    return gather(power, 0, points, sum, lowest, highest, first);
  }
}
