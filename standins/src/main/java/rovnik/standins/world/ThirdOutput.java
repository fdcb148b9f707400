package rovnik.standins.world;

/**
 * The generator's third baseband output: a real voltage of its own, played in step with I and Q, as
 * a receiver of 50 ohm sees it.
 */
public final class ThirdOutput {
  /** Milliwatts of a tone of one volt into 50 ohm. */
  private static final double MILLIWATTS = 1000.0 / 2 / 50;

  public final Connector connector = new Connector();
  private double[] lines;
  private double most;

  /** Samples to play, full scale 1; null for none. What I and Q get of them is I here. */
  synchronized void setSamples(float[] iq) {
    if (iq == null) {
      lines = null;
      return;
    }
    int n = iq.length / 2;
    double[] x = new double[iq.length];
    most = 0;
    for (int i = 0; i < iq.length; i += 2) {
      x[i] = iq[i];
      most = Math.max(most, Math.abs(x[i]));
    }
    Dft.forward(x, n);
    // A real voltage as lines that turn one way, of twice the size.
    double[] up = new double[iq.length];
    for (int k = 1; k < (n + 1) / 2; k++) {
      up[2 * k] = 2 * x[2 * k] / n;
      up[2 * k + 1] = 2 * x[2 * k + 1] / n;
    }
    lines = up;
  }

  private double amplitude() {
    return Connector.FULL_SCALE_VOLTS * connector.gain() * Math.sqrt(MILLIWATTS);
  }

  synchronized double peakDbm() {
    return lines == null ? -200 : 20 * Math.log10(Math.max(1e-9, most * amplitude()));
  }

  synchronized void receive(
      double[] iq, int count, double startSeconds, double centreHz, double rateHz, double clockHz) {
    if (lines == null) {
      return;
    }
    int n = lines.length / 2;
    double late = connector.delaySeconds;
    Repeated seen =
        Repeated.seen(
            lines,
            n,
            clockHz / n,
            -centreHz,
            rateHz,
            (hz, r) -> {
              r[0] = Math.cos(2 * Math.PI * hz * late);
              r[1] = -Math.sin(2 * Math.PI * hz * late);
            });
    if (seen == null) {
      return;
    }
    double[] still = new double[2 * count];
    for (int m = 0; m < count; m++) {
      still[2 * m] = 1;
    }
    seen.add(iq, count, startSeconds, rateHz, amplitude(), still);
  }
}
