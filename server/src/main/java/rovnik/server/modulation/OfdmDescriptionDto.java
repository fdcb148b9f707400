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
 * @param transform its length, a power of two from 16 to 16,384; guards count at spacing times this
 * @param evmLimitPercent highest EVM that passes; null for none
 * @param symbols in their order, at most 4,000 with all counts
 */
@Schema(name = "OfdmDescription")
public record OfdmDescriptionDto(
    String name,
    @Nullable String source,
    double spacingHz,
    int transform,
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
   * @param what known (the channel is learned from them), pilots (each symbol is turned by them) or
   *     data
   * @param tones such as "-26..26 not -21, -7, 0, 7, 21", or "0..1196/4" for every fourth
   * @param re real parts of known tones and pilots, in their order, over the root of the power of
   *     data
   * @param im imaginary parts, null for 0
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
          t.signs(),
          t.format() == null ? null : t.format().label(),
          t.format() == null ? null : t.levelDb(),
          t.user().isEmpty() ? null : t.user());
    }

    OfdmDescription.Tones told() {
      if (what == null || tones == null) {
        throw new Refusal(FIELD, "Each of carries needs what (known, pilots, data) and tones.");
      }
      return new OfdmDescription.Tones(
          Choices.named(OfdmDescription.What.values(), OfdmDescription.What::label, FIELD, what),
          tones,
          re,
          im,
          signs,
          constellation == null
              ? null
              : Choices.named(Format.values(), Format::label, FIELD, constellation),
          levelDb == null ? 0 : levelDb,
          user == null ? "" : user);
    }
  }

  static OfdmDescriptionDto of(OfdmDescription d) {
    return new OfdmDescriptionDto(
        d.name(),
        d.source(),
        d.spacingHz(),
        d.transform(),
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
