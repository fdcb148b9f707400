package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.List;
import rovnik.core.modulation.Format;
import rovnik.core.modulation.Prbs;
import rovnik.core.modulation.ofdm.OfdmDescription.Symbol;
import rovnik.core.modulation.ofdm.OfdmDescription.Tones;
import rovnik.core.modulation.ofdm.OfdmDescription.What;

/**
 * Descriptions to begin with. Their lengths and spacings are those of a standard where they name
 * one; what is known of their tones is of a pseudorandom sequence of ours, and of no standard.
 */
public final class ReadyDescriptions {
  private static final double HALF = Math.sqrt(0.5);

  private ReadyDescriptions() {}

  public static List<OfdmDescription> all() {
    return List.of(subframe(), wide());
  }

  private static List<Double> ofBits(int count, int from, double size) {
    long[] bits = Prbs.PN15.bits(from + count);
    List<Double> out = new ArrayList<>(count);
    for (int i = 0; i < count; i++) {
      out.add(Prbs.get(bits, from + i) ? size : -size);
    }
    return out;
  }

  private static Tones known(String tones, List<Double> re, List<Double> im) {
    return new Tones(What.KNOWN, tones, re, im, null, null, 0, "");
  }

  private static Tones data(String tones, Format format) {
    return new Tones(What.DATA, tones, null, null, null, format, 0, "");
  }

  /**
   * A subframe of 1 ms as 3GPP TS 36.211 (6.12) and 38.211 (5.3.1) have it at 15 kHz: prefixes of
   * 160 samples of 2,048 in the first symbol of seven and 144 in the others; from memory. Every
   * second tone of two symbols is known, as with demodulation reference signals.
   */
  private static OfdmDescription subframe() {
    List<Symbol> out = new ArrayList<>();
    for (int s = 0; s < 14; s++) {
      int guard = s % 7 == 0 ? 160 : 144;
      if (s == 2 || s == 11) {
        out.add(
            new Symbol(
                "Reference",
                1,
                guard,
                List.of(
                    known(
                        "-600..598/2",
                        ofBits(600, 1200 * s, HALF),
                        ofBits(600, 1200 * s + 600, HALF)),
                    data("-599..599/2", Format.QAM64))));
      } else {
        out.add(new Symbol("Data", 1, guard, List.of(data("-600..599", Format.QAM64))));
      }
    }
    return new OfdmDescription(
        "Cellular-like, 20 MHz",
        "lengths of 3GPP TS 36.211 and 38.211 at 15 kHz; known values are our own",
        15e3,
        2048,
        8.0,
        out);
  }

  private static OfdmDescription wide() {
    Tones training = known("-280..280 not 0", ofBits(560, 0, 1), null);
    return new OfdmDescription(
        "700 MHz wide",
        "our own, for 1.28 GS/s",
        1.25e6,
        1024,
        null,
        List.of(
            new Symbol("Training", 2, 256, List.of(training)),
            new Symbol(
                "Data",
                16,
                64,
                List.of(
                    data("-280..280 not -210, -70, 0, 70, 210", Format.QAM256),
                    new Tones(
                        What.PILOTS,
                        "-210, -70, 70, 210",
                        List.of(1.0, 1.0, 1.0, -1.0),
                        null,
                        ofBits(127, 600, 1).stream().map(Double::intValue).toList(),
                        null,
                        0,
                        "")))));
  }
}
