package rovnik.server.jobs;

import io.swagger.v3.oas.annotations.media.Schema;
import rovnik.core.Refusal;
import rovnik.core.formats.GainTableCsv;
import rovnik.core.path.ElementKind;
import rovnik.core.path.FrequencyMap;
import rovnik.core.path.Gain;
import rovnik.core.path.PathElement;

/**
 * One element of a path as stored and sent.
 *
 * @param gainKind "number", "table" (CSV text in gainTable) or "file" (a network's S21, written
 *     into gainTable when the path is stored, so that a kept run stands by itself)
 * @param gainDb used if gainKind is "number"
 * @param gainTable CSV of frequency and gain, "" if there is none
 * @param shiftHz output minus input frequency, null or 0 for none
 * @param instrumentId the instrument behind a source or port, or null
 * @param networkId the Touchstone file of a gain of kind "file", or null
 */
@Schema(name = "PathElement")
public record PathElementDto(
    String name,
    ElementKind kind,
    String gainKind,
    Double gainDb,
    String gainTable,
    Double shiftHz,
    double toleranceDb,
    Double highestLevelDbm,
    Double damageLevelDbm,
    boolean dcAllowed,
    Double returnLossDb,
    Double outputLevelDbm,
    Long instrumentId,
    Long networkId) {

  private static double orNan(Double value) {
    return value == null ? Double.NaN : value;
  }

  /** The same element with the gain and the return loss of its file. */
  PathElementDto of(String table, double fileReturnLossDb) {
    return new PathElementDto(
        name,
        kind,
        gainKind,
        gainDb,
        table,
        shiftHz,
        toleranceDb,
        highestLevelDbm,
        damageLevelDbm,
        dcAllowed,
        fileReturnLossDb,
        outputLevelDbm,
        instrumentId,
        networkId);
  }

  /** The element as the core knows it; refuses what cannot be. */
  PathElement toCore() {
    if (kind == null) {
      throw new Refusal("kind", "Say what the element is: pad, cable, amplifier, ...");
    }
    Gain gain =
        switch (gainKind == null ? "number" : gainKind) {
          case "number" -> new Gain.Fixed(gainDb == null ? 0 : gainDb);
          case "table", "file" -> GainTableCsv.parse(gainTable == null ? "" : gainTable);
          default ->
              throw new Refusal("gainKind", "A gain is a \"number\", a \"table\" or a \"file\".");
        };
    FrequencyMap map =
        shiftHz == null || shiftHz == 0
            ? new FrequencyMap.Identity()
            : new FrequencyMap.Shift(shiftHz);
    return new PathElement(
        name,
        kind,
        gain,
        map,
        toleranceDb,
        orNan(highestLevelDbm),
        orNan(damageLevelDbm),
        dcAllowed,
        orNan(returnLossDb),
        orNan(outputLevelDbm));
  }
}
