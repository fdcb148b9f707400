package rovnik.core.modulation.ofdm;

import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.modulation.Format;

/**
 * Any OFDM whose symbols are told: which tones of them are known, pilots or data.
 *
 * @param name what it is called
 * @param source where it comes from, "" if nobody says
 * @param spacingHz from tone to tone
 * @param transform tones that the transform has: spacing times this is its rate
 * @param window samples over which one symbol passes into the next, the first of its guard; 0 for
 *     edges
 * @param evmLimitPercent highest EVM that passes, null for none
 * @param symbols in their order
 */
public record OfdmDescription(
    String name,
    String source,
    double spacingHz,
    int transform,
    int window,
    Double evmLimitPercent,
    List<Symbol> symbols) {
  private static final int SHORTEST_TRANSFORM = 16;
  private static final int LONGEST_TRANSFORM = 16_384;
  private static final int LONGEST_NAME = 80;

  /**
   * One symbol, or several that are alike.
   *
   * @param name of the field that it belongs to
   * @param count how many follow each other
   * @param guard samples before each that repeat its end, at the rate of the transform
   * @param carries what its tones are; those that are not named carry nothing
   */
  public record Symbol(String name, int count, int guard, List<Tones> carries) {
    public Symbol {
      carries = List.copyOf(carries);
    }
  }

  /**
   * Tones that are of one kind.
   *
   * @param what known, learned, pilots or data
   * @param tones such as "-26..26 not -21, -7, 0, 7, 21"
   * @param re real parts, in the order of the tones: of known tones and pilots what they are, of
   *     learned ones how strong (null for 1); of data the points of a constellation of their own
   * @param im imaginary parts; null for none
   * @param gold a sequence that known tones and pilots have in place of re and im; null for none
   * @param signs 1 or -1 by symbol, over and over: what is known is times this; null for all 1
   * @param format of data; null if they have their own points
   * @param levelDb of data over a mean power of 1
   * @param user whose data they are, "" for one user
   */
  public record Tones(
      What what,
      String tones,
      List<Double> re,
      List<Double> im,
      Gold gold,
      List<Integer> signs,
      Format format,
      double levelDb,
      String user) {
    public Tones {
      re = re == null ? null : List.copyOf(re);
      im = im == null ? null : List.copyOf(im);
      signs = signs == null ? null : List.copyOf(signs);
    }
  }

  /**
   * Corners of a square by bits of a Gold sequence.
   *
   * @param init what it begins with, 31 bits
   * @param from number of the corner that the first tone has
   */
  public record Gold(long init, int from) {}

  /** What tones are there for. */
  public enum What {
    KNOWN("known"),
    /** Known but for their signs. */
    LEARNED("learned"),
    PILOTS("pilots"),
    DATA("data");

    private final String label;

    What(String label) {
      this.label = label;
    }

    public String label() {
      return label;
    }
  }

  public OfdmDescription {
    symbols = List.copyOf(symbols);
    if (name.isBlank() || name.length() > LONGEST_NAME) {
      throw wrong("Give the description a name of up to 80 characters.");
    }
    if (!(spacingHz >= 100 && spacingHz <= 10e6)) {
      throw wrong("spacingHz, from tone to tone, is 100 Hz to 10 MHz.");
    }
    if (transform < SHORTEST_TRANSFORM || transform > LONGEST_TRANSFORM) {
      throw wrong("transform is 16 to 16,384; leave tones empty to fill it.");
    }
    if (window < 0 || window > transform / 2) {
      throw wrong("window, from symbol to symbol, is 0 to half of the transform.");
    }
    if (evmLimitPercent != null && !(evmLimitPercent > 0 && evmLimitPercent <= 100)) {
      throw wrong("evmLimitPercent is over 0 and up to 100.");
    }
    DescribedFrame.of(transform, window, symbols); // refuses what cannot be
  }

  static Refusal wrong(String sentence) {
    return new Refusal("description", sentence);
  }

  /** Rate of the transform. */
  public double rateHz() {
    return spacingHz * transform;
  }

  /** From the carrier to the edge of the farthest tone. */
  public double reachHz() {
    return (frame().plan().farthest() + 0.5) * spacingHz;
  }

  DescribedFrame frame() {
    return DescribedFrame.of(transform, window, symbols);
  }
}
