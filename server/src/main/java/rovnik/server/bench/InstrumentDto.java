package rovnik.server.bench;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rovnik.instruments.Control;
import rovnik.instruments.Hint;
import rovnik.instruments.InstrumentKind;
import rovnik.server.results.SeriesDto;

/**
 * An instrument as shown at the Bench.
 *
 * @param message why it is lost or in error, "" if all is well
 * @param identity its answer to *IDN?, "" before the first connection
 * @param controls what can be switched, with its state; empty while that is unknown
 * @param facts what else is worth knowing
 * @param hints what should be known of its present state
 * @param inputs of a receiver, null for others
 */
@Schema(name = "Instrument")
public record InstrumentDto(
    long id,
    String name,
    InstrumentKind kind,
    String kindLabel,
    String host,
    int port,
    String dialect,
    ConnectionState state,
    String message,
    String identity,
    List<ControlDto> controls,
    List<SeriesDto.FactDto> facts,
    List<HintDto> hints,
    @Nullable Integer inputs) {

  /**
   * What should be known.
   *
   * @param offer what can be done about it, "" for nothing
   * @param values controls to set for that
   */
  @Schema(name = "Hint")
  public record HintDto(String sentence, String offer, Map<String, String> values) {
    static HintDto of(Hint h) {
      return new HintDto(h.sentence(), h.offer(), h.values());
    }
  }

  /**
   * A control.
   *
   * @param value "on" or "off", a choice, or a number; "" for an action
   * @param unit of a number
   * @param lowest number that it takes
   * @param highest number that it takes
   * @param minor out of sight until one looks for it
   * @param raisesPower power may flow that did not before: the level plan is asked first
   */
  @Schema(name = "Control")
  public record ControlDto(
      String id,
      String label,
      Control.Form form,
      String value,
      String unit,
      double lowest,
      double highest,
      List<String> choices,
      boolean raisesPower,
      boolean minor) {
    static ControlDto of(Control c) {
      return new ControlDto(
          c.id(),
          c.label(),
          c.form(),
          c.value(),
          c.unit(),
          c.lowest(),
          c.highest(),
          c.choices(),
          c.raisesPower(),
          c.minor());
    }
  }
}
