package rovnik.core.network;

/**
 * What the receivers of an analyzer saw in one sweep, nothing put right.
 *
 * @param ratios two ports; S12 and S22 are zero if port 2 did not send
 * @param switch1 reflection of port 1's switch at the receivers while port 2 sends, interleaved;
 *     empty if the analyzer cannot tell
 * @param switch2 of port 2's while port 1 sends
 */
public record RawSweep(NetworkData ratios, double[] switch1, double[] switch2) {

  /** One parameter, interleaved. */
  double[] parameter(int row, int column) {
    double[] v = new double[2 * ratios.points()];
    for (int p = 0; p < ratios.points(); p++) {
      v[2 * p] = ratios.re(p, row, column);
      v[2 * p + 1] = ratios.im(p, row, column);
    }
    return v;
  }
}
