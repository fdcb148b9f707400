package rovnik.server.modulation;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.jspecify.annotations.Nullable;
import rovnik.core.Refusal;
import rovnik.core.modulation.Format;
import rovnik.core.modulation.ofdm.OfdmDescription;
import rovnik.server.config.Choices;

/**
 * OFDM frames by description: what their symbols carry. A file with it is this, as JSON.
 *
 * @param name up to 80 characters
 * @param source where it comes from; null if nobody says
 * @param spacingHz from tone to tone, 100 Hz to 10 MHz
 * @param transform its length, 16 to 16,384; guards count at spacing times this
 * @param window samples over which a symbol passes into the next, the first of its guard, as a
 *     raised cosine; null for none
 * @param evmLimitPercent highest EVM that passes; null for none
 * @param symbols in their order, at most 4,000 with all counts
 */
@Schema(name = "OfdmDescription")
public record OfdmDescriptionDto(
    String name,
    @Nullable String source,
    double spacingHz,
    int transform,
    @Nullable Integer window,
    @Nullable Double evmLimitPercent,
    List<Symbol> symbols) {
  private static final String FIELD = "description";

  /**
   * One symbol, or several that are alike.
   *
   * @param name of the field that it belongs to
   * @param count how many follow each other, null for one
   * @param guard samples before each that repeat its end
   * @param carries what its tones are; the others carry nothing
   */
  @Schema(name = "OfdmSymbols")
  public record Symbol(
      @Nullable String name, @Nullable Integer count, int guard, List<Tones> carries) {}

  /**
   * Tones of one kind in a symbol.
   *
   * @param what known (the channel is learned from them), learned (the same, but their signs are
   *     found in the signal), pilots (each symbol is turned by them) or data
   * @param tones such as "-26..26 not -21, -7, 0, 7, 21", or "0..1196/4" for every fourth
   * @param re real parts of known tones and pilots, in their order, over the root of the power of
   *     data; of learned ones how strong they are, null for 1; of data the points of their own
   *     constellation in the order of their bits, in place of constellation
   * @param im imaginary parts, null for 0
   * @param gold bits that known tones and pilots have in place of re and im
   * @param signs 1 or -1 by symbol, over and over, times what is known; null for 1
   * @param constellation of data, such as 64-QAM
   * @param levelDb of data over a mean power of 1, null for 0
   * @param user whose data they are, null for one user
   */
  @Schema(name = "OfdmTones")
  public record Tones(
      String what,
      String tones,
      @Nullable List<Double> re,
      @Nullable List<Double> im,
      @Nullable Sequence gold,
      @Nullable List<Integer> signs,
      @Nullable String constellation,
      @Nullable Double levelDb,
      @Nullable String user) {

    static Tones of(OfdmDescription.Tones t) {
      return new Tones(
          t.what().label(),
          t.tones(),
          t.re(),
          t.im(),
          t.gold() == null ? null : new Sequence(t.gold().init(), t.gold().from()),
          t.signs(),
          t.format() == null ? null : t.format().label(),
          t.what() == OfdmDescription.What.DATA ? t.levelDb() : null,
          t.user().isEmpty() ? null : t.user());
    }

    OfdmDescription.Tones told() {
      if (what == null || tones == null) {
        throw new Refusal(
            FIELD, "Each of carries needs what (known, learned, pilots, data) and tones.");
      }
      return new OfdmDescription.Tones(
          Choices.named(OfdmDescription.What.values(), OfdmDescription.What::label, FIELD, what),
          tones,
          re,
          im,
          gold == null ? null : gold.told(),
          signs,
          constellation == null
              ? null
              : Choices.named(Format.values(), Format::label, FIELD, constellation),
          levelDb == null ? 0 : levelDb,
          user == null ? "" : user);
    }
  }

  /**
   * Corners of a square, 1 - 2 c(2n) + j (1 - 2 c(2n + 1)) over the root of 2, by the Gold sequence
   * of 3GPP TS 36.211 (7.2) and TS 38.211 (5.2.1).
   *
   * @param init c_init, 0 to 2,147,483,647
   * @param from n of the first tone, 0 to 1,048,576; null for 0
   */
  @Schema(name = "OfdmGold")
  public record Sequence(long init, @Nullable Integer from) {
    OfdmDescription.Gold told() {
      return new OfdmDescription.Gold(init, from == null ? 0 : from);
    }
  }

  static OfdmDescriptionDto of(OfdmDescription d) {
    return new OfdmDescriptionDto(
        d.name(),
        d.source(),
        d.spacingHz(),
        d.transform(),
        d.window() == 0 ? null : d.window(),
        d.evmLimitPercent(),
        d.symbols().stream()
            .map(
                s ->
                    new Symbol(
                        s.name(),
                        s.count(),
                        s.guard(),
                        s.carries().stream().map(Tones::of).toList()))
            .toList());
  }

  OfdmDescription told() {
    if (name == null || symbols == null || symbols.stream().anyMatch(s -> s.carries() == null)) {
      throw new Refusal(FIELD, "A description needs name and symbols, each symbol carries.");
    }
    return new OfdmDescription(
        name,
        source == null ? "" : source,
        spacingHz,
        transform,
        window == null ? 0 : window,
        evmLimitPercent,
        symbols.stream()
            .map(
                s ->
                    new OfdmDescription.Symbol(
                        s.name() == null ? "" : s.name(),
                        s.count() == null ? 1 : s.count(),
                        s.guard(),
                        s.carries().stream().map(Tones::told).toList()))
            .toList());
  }
}
