package rovnik.core.modulation;

import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.units.Frequency;

/**
 * What a carrier with data is: the same value makes it, sets up its analysis, and names what a run
 * was of.
 *
 * @param format how bits become points
 * @param symbolRateHz symbols a second
 * @param filter what one symbol looks like as sent; of keyed formats what its frequency does
 * @param mapping points by symbol value in place of the format's own, each I and Q; empty for those
 * @param payload what it sends
 * @param framing a known word that comes again, or {@link Framing#NONE}
 * @param deviationHz of keyed formats: how far the outermost symbol, again and again, moves the
 *     frequency; 0 of the others
 */
public record SingleCarrier(
    Format format,
    double symbolRateHz,
    PulseShape filter,
    List<List<Double>> mapping,
    Payload payload,
    Framing framing,
    double deviationHz) {
  private static final double WIDEST = 100;

  /** One with points in the plane, or keyed by the least shift. */
  public SingleCarrier(
      Format format,
      double symbolRateHz,
      PulseShape filter,
      List<List<Double>> mapping,
      Payload payload,
      Framing framing) {
    this(format, symbolRateHz, filter, mapping, payload, framing, 0);
  }

  public SingleCarrier {
    if (!(symbolRateHz >= 1 && symbolRateHz <= 10e9)) {
      throw new Refusal("symbolRateHz", "The symbol rate is 1 Hz to 10 GHz, such as 48 kHz.");
    }
    deviationHz = keyed(format, symbolRateHz, filter, deviationHz);
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

  private static double keyed(Format f, double rateHz, PulseShape filter, double deviationHz) {
    if (f == Format.MSK
        && filter.kind() != PulseShape.Kind.RECTANGULAR
        && filter.kind() != PulseShape.Kind.NONE) {
      throw new Refusal("filter", "MSK has no filter but the rectangle; choose GMSK or 2-FSK.");
    }
    if (f == Format.GMSK && filter.kind() != PulseShape.Kind.GAUSSIAN) {
      throw new Refusal("filter", "GMSK has a Gaussian filter, such as B T 0.3.");
    }
    if (!f.keyed()) {
      return 0;
    }
    if (f.minimumShift()) {
      return rateHz / 4;
    }
    if (!(deviationHz > 0 && deviationHz <= WIDEST * rateHz)) {
      throw new Refusal(
          "deviationHz",
          f.label()
              + " needs its deviation: how far the outermost symbol moves the frequency, more than 0"
              + " and at most "
              + Frequency.ofHertz(WIDEST * rateHz)
              + ".");
    }
    return deviationHz;
  }

  /** Outermost deviation in symbol rates. */
  public double deviation() {
    return deviationHz / symbolRateHz;
  }

  /**
   * The filter that a receiver of this carrier has: of points the one that keeps symbols from
   * meeting, of keyed frequencies one behind the discriminator.
   */
  public PulseShape matched() {
    if (!format.keyed()) {
      return filter.matched();
    }
    return switch (filter.kind()) {
      case ROOT_RAISED_COSINE -> filter;
      case RAISED_COSINE -> PulseShape.NO_FILTER;
      // Gentle, so that neighbours do not close the eye further.
      case GAUSSIAN ->
          new PulseShape(
              PulseShape.Kind.GAUSSIAN, Math.min(3, Math.max(0.5, 2 * filter.parameter())));
      case HALF_SINE, RECTANGULAR, NONE -> new PulseShape(PulseShape.Kind.RECTANGULAR, 0);
    };
  }

  /** How far from its middle the carrier reaches, where that is limited; else infinite. */
  public double halfBandHz() {
    if (format.keyed()) {
      return deviationHz
          + Math.max(1, filter.bandLimited() ? filter.halfWidth() : 1) * symbolRateHz;
    }
    return filter.bandLimited() ? filter.halfWidth() * symbolRateHz : Double.POSITIVE_INFINITY;
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
    String by =
        deviationHz > 0 && !format.minimumShift()
            ? ", deviation " + Frequency.ofHertz(deviationHz)
            : "";
    String shape = format == Format.MSK ? "" : ", " + filter.words();
    return format.label() + ", " + rate(symbolRateHz) + by + shape;
  }

  private static String rate(double hertz) {
    return Frequency.ofHertz(hertz).toString().replace("Hz", "sym/s");
  }
}
