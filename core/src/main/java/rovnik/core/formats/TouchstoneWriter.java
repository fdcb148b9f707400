package rovnik.core.formats;

import java.io.IOException;
import java.util.Arrays;
import rovnik.core.Refusal;
import rovnik.core.network.NetworkData;
import rovnik.core.network.NoiseParameters;

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
    writeVersion1(n, null, comment, out);
  }

  /**
   * Writes version 1 with noise parameters behind the network.
   *
   * @param noise null for none; their resistance over the reference impedance
   */
  public static void writeVersion1(
      NetworkData n, NoiseParameters noise, String comment, Appendable out) throws IOException {
    double first = n.referenceOhm()[0];
    if (Arrays.stream(n.referenceOhm()).anyMatch(ohm -> ohm != first)) {
      throw new Refusal(
          "version", "The ports have different reference impedances. Write version 2.0.");
    }
    comment(comment, out);
    out.append("# Hz S RI R ").append(text(first)).append('\n');
    points(n, out);
    if (noise != null) {
      // The first frequency that does not rise begins them, so they cannot lie all above the
      // network.
      if (noise.frequencyHz()[0] > n.frequencyHz()[n.points() - 1]) {
        throw new Refusal(
            "version",
            "The noise parameters begin above the last frequency of the network. Write version 2.0.");
      }
      noise(noise, 1, out);
    }
  }

  /** Writes version 2.0. */
  public static void writeVersion2(NetworkData n, String comment, Appendable out)
      throws IOException {
    writeVersion2(n, null, comment, out);
  }

  /**
   * Writes version 2.0 with noise parameters.
   *
   * @param noise null for none; their resistance over the reference impedance
   */
  public static void writeVersion2(
      NetworkData n, NoiseParameters noise, String comment, Appendable out) throws IOException {
    comment(comment, out);
    out.append("[Version] 2.0\n# Hz S RI R ").append(text(n.referenceOhm()[0])).append('\n');
    out.append("[Number of Ports] ").append(String.valueOf(n.ports())).append('\n');
    if (n.ports() == 2) {
      out.append("[Two-Port Data Order] 21_12\n");
    }
    out.append("[Number of Frequencies] ").append(String.valueOf(n.points())).append('\n');
    if (noise != null) {
      out.append("[Number of Noise Frequencies] ")
          .append(String.valueOf(noise.frequencyHz().length))
          .append('\n');
    }
    out.append("[Reference]");
    for (double ohm : n.referenceOhm()) {
      out.append(' ').append(text(ohm));
    }
    out.append("\n[Matrix Format] Full\n[Network Data]\n");
    points(n, out);
    if (noise != null) {
      out.append("[Noise Data]\n");
      noise(noise, n.referenceOhm()[0], out);
    }
    out.append("[End]\n");
  }

  /**
   * @param ohm what the resistance is multiplied by: version 1 has it over the reference, 2.0 in
   *     ohm
   */
  private static void noise(NoiseParameters noise, double ohm, Appendable out) throws IOException {
    for (int i = 0; i < noise.frequencyHz().length; i++) {
      double re = noise.sourceReflection()[2 * i];
      double im = noise.sourceReflection()[2 * i + 1];
      out.append(text(noise.frequencyHz()[i]))
          .append(' ')
          .append(text(noise.minimumFigureDb()[i]))
          .append(' ')
          .append(text(Math.hypot(re, im)))
          .append(' ')
          .append(text(Math.toDegrees(Math.atan2(im, re))))
          .append(' ')
          .append(text(noise.resistance()[i] * ohm))
          .append('\n');
    }
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
