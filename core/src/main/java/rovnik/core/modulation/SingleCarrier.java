package rovnik.core.modulation;

import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.units.Frequency;

/**
 * What a carrier with linear symbols is: the same value makes it, sets up its analysis, and names
 * what a run was of.
 *
 * @param format how bits become points
 * @param symbolRateHz symbols a second
 * @param filter what one symbol looks like as sent
 * @param mapping points by symbol value in place of the format's own, each I and Q; empty for those
 * @param payload what it sends
 * @param framing a known word that comes again, or {@link Framing#NONE}
 */
public record SingleCarrier(
    Format format,
    double symbolRateHz,
    PulseShape filter,
    List<List<Double>> mapping,
    Payload payload,
    Framing framing) {

  public SingleCarrier {
    if (!(symbolRateHz >= 1 && symbolRateHz <= 10e9)) {
      throw new Refusal("symbolRateHz", "The symbol rate is 1 Hz to 10 GHz, such as 48 kHz.");
    }
    mapping = mapping == null ? List.of() : List.copyOf(mapping);
    if (!mapping.isEmpty()) {
      if (format.differential()) {
        throw new Refusal("mapping", "A format whose bits stand in changes has no own mapping.");
      }
      if (mapping.size() != format.constellation().size()) {
        throw new Refusal(
            "mapping",
            format.label()
                + " has "
                + format.constellation().size()
                + " points; the mapping has "
                + mapping.size()
                + ".");
      }
      for (List<Double> point : mapping) {
        if (point.size() != 2) {
          throw new Refusal("mapping", "Each point of a mapping is two numbers, I and Q.");
        }
      }
    }
    int bits = format.constellation().bitsPerSymbol();
    if (!framing.none()
        && (framing.word().length() % bits != 0
            || framing.symbols(bits) >= framing.everySymbols())) {
      throw new Refusal(
          "word",
          "The known word must be whole symbols of "
              + bits
              + " bits, and shorter than the frame that it begins. Give another one, or take it away.");
    }
  }

  public Constellation constellation() {
    if (mapping.isEmpty()) {
      return format.constellation();
    }
    return new Constellation(
        mapping.stream().mapToDouble(p -> p.get(0)).toArray(),
        mapping.stream().mapToDouble(p -> p.get(1)).toArray());
  }

  /** "QPSK, 48 ksym/s, root-raised cosine 0.35". */
  public String words() {
    return format.label() + ", " + rate(symbolRateHz) + ", " + filter.words();
  }

  private static String rate(double hertz) {
    return Frequency.ofHertz(hertz).toString().replace("Hz", "sym/s");
  }
}
