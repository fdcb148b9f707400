package rovnik.core.formats;

import java.io.IOException;
import java.util.Arrays;
import rovnik.core.Refusal;
import rovnik.core.network.NetworkData;

/** Writes S-parameters as Touchstone, in Hz and as real and imaginary parts: no digit is lost. */
public final class TouchstoneWriter {
  /** Pairs on one line, as the specification wants for three ports and more. */
  private static final int PAIRS_A_LINE = 4;

  private TouchstoneWriter() {}

  /**
   * Writes version 1, which has one reference impedance for all ports.
   *
   * @param comment lines for the head, "" for none
   * @throws Refusal if the ports' references differ: 2.0 can hold that
   */
  public static void writeVersion1(NetworkData n, String comment, Appendable out)
      throws IOException {
    double first = n.referenceOhm()[0];
    if (Arrays.stream(n.referenceOhm()).anyMatch(ohm -> ohm != first)) {
      throw new Refusal(
          "version", "The ports have different reference impedances. Write version 2.0.");
    }
    comment(comment, out);
    out.append("# Hz S RI R ").append(text(first)).append('\n');
    points(n, out);
  }

  /** Writes version 2.0. */
  public static void writeVersion2(NetworkData n, String comment, Appendable out)
      throws IOException {
    comment(comment, out);
    out.append("[Version] 2.0\n# Hz S RI R ").append(text(n.referenceOhm()[0])).append('\n');
    out.append("[Number of Ports] ").append(String.valueOf(n.ports())).append('\n');
    if (n.ports() == 2) {
      out.append("[Two-Port Data Order] 21_12\n");
    }
    out.append("[Number of Frequencies] ").append(String.valueOf(n.points())).append('\n');
    out.append("[Reference]");
    for (double ohm : n.referenceOhm()) {
      out.append(' ').append(text(ohm));
    }
    out.append("\n[Matrix Format] Full\n[Network Data]\n");
    points(n, out);
    out.append("[End]\n");
  }

  private static void comment(String comment, Appendable out) throws IOException {
    for (String line : (Iterable<String>) comment.lines()::iterator) {
      out.append("! ").append(line).append('\n');
    }
  }

  private static void points(NetworkData n, Appendable out) throws IOException {
    int ports = n.ports();
    for (int p = 0; p < n.points(); p++) {
      out.append(text(n.frequencyHz()[p]));
      for (int r = 1; r <= ports; r++) {
        for (int c = 1; c <= ports; c++) {
          boolean turned = ports == 2; // S11 S21 S12 S22
          if (ports > 2 && (c - 1) % PAIRS_A_LINE == 0 && (r > 1 || c > 1)) {
            out.append('\n');
          }
          int at = turned ? n.at(p, c, r) : n.at(p, r, c);
          out.append(' ').append(text(n.s()[at])).append(' ').append(text(n.s()[at + 1]));
        }
      }
      out.append('\n');
    }
  }

  private static String text(double v) {
    return v == Math.rint(v) && Math.abs(v) < 1e15 && (v != 0 || 1 / v > 0)
        ? String.valueOf((long) v)
        : String.valueOf(v);
  }
}
