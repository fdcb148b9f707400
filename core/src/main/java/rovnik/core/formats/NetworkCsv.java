package rovnik.core.formats;

import rovnik.core.network.NetworkData;

/** S-parameters as a table for spreadsheets: hertz, then real and imaginary part of each. */
public final class NetworkCsv {
  private NetworkCsv() {}

  /** One line a frequency, with a head; no digit is lost. */
  public static String write(NetworkData n) {
    StringBuilder text = new StringBuilder("frequency_Hz");
    for (int r = 1; r <= n.ports(); r++) {
      for (int c = 1; c <= n.ports(); c++) {
        String name = NetworkData.name(r, c).replace(',', '_');
        text.append(',').append(name).append("_re,").append(name).append("_im");
      }
    }
    text.append('\n');
    for (int p = 0; p < n.points(); p++) {
      text.append(n.frequencyHz()[p]);
      for (int k = 0; k < 2 * n.ports() * n.ports(); k++) {
        text.append(',').append(n.s()[2 * n.ports() * n.ports() * p + k]);
      }
      text.append('\n');
    }
    return text.toString();
  }
}
