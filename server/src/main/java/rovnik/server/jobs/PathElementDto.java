package rovnik.server.jobs;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import rovnik.core.Refusal;
import rovnik.core.formats.GainTableCsv;
import rovnik.core.path.ElementKind;
import rovnik.core.path.FrequencyMap;
import rovnik.core.path.Gain;
import rovnik.core.path.PathElement;
import rovnik.core.path.Supply;
import rovnik.server.config.Refusals;
import rovnik.server.results.Nulls;

/**
 * One element of a path as stored and sent.
 *
 * @param gainKind "number", "table" (CSV text in gainTable) or "file" (a network's S21, written
 *     into gainTable when the path is stored, so that a kept run stands by itself)
 * @param gainDb used if gainKind is "number"
 * @param gainTable CSV of frequency and gain, "" if there is none
 * @param shiftHz output minus input frequency, null or 0 for none
 * @param outputLevelDbm expected level of a source, or at a combiner's other input
 * @param instrumentId the instrument behind a source or port or at a combiner's other input, or
 *     null
 * @param networkId the Touchstone file of a gain of kind "file", or null
 * @param sideGainDb gain from a combiner's other input, null for all others
 * @param supplyLowestVolts of a source that an instrument feeds: lowest supply that it works at;
 *     null of all others
 * @param supplyHighestVolts highest supply that it works at, null likewise
 * @param supplyDamageVolts supply that it must never see; null for the highest
 */
@Schema(name = "PathElement")
public record PathElementDto(
    String name,
    ElementKind kind,
    String gainKind,
    @Nullable Double gainDb,
    String gainTable,
    @Nullable Double shiftHz,
    double toleranceDb,
    @Nullable Double highestLevelDbm,
    @Nullable Double damageLevelDbm,
    boolean dcAllowed,
    @Nullable Double returnLossDb,
    @Nullable Double outputLevelDbm,
    @Nullable Long instrumentId,
    @Nullable Long networkId,
    @Nullable Double sideGainDb,
    @Nullable Double supplyLowestVolts,
    @Nullable Double supplyHighestVolts,
    @Nullable Double supplyDamageVolts) {

  /** An element without gain, such as a source or a port. */
  public static PathElementDto plain(
      String name, ElementKind kind, Double outputDbm, Double damageDbm, Long instrument) {
    return new PathElementDto(
        name,
        kind,
        "number",
        0.0,
        "",
        null,
        0,
        null,
        damageDbm,
        kind != ElementKind.PORT,
        null,
        outputDbm,
        instrument,
        null,
        null,
        null,
        null,
        null);
  }

  /** The same element with the gain and the return loss of its file. */
  PathElementDto of(String table, double fileReturnLossDb) {
    return with(table, fileReturnLossDb, outputLevelDbm, sideGainDb, supplies());
  }

  /** The same combiner with another level at its other input, null for nothing. */
  PathElementDto sending(@Nullable Double levelDbm) {
    return with(gainTable, returnLossDb, levelDbm, sideGainDb, supplies());
  }

  /** The same as a combiner with this gain from its other input. */
  public PathElementDto besides(double gainFromSideDb) {
    return with(gainTable, returnLossDb, outputLevelDbm, gainFromSideDb, supplies());
  }

  /** The same as a source that its instrument feeds. */
  public PathElementDto fed(double lowestVolts, double highestVolts, double damageVolts) {
    return with(
        gainTable,
        returnLossDb,
        outputLevelDbm,
        sideGainDb,
        new Double[] {lowestVolts, highestVolts, damageVolts});
  }

  private @Nullable Double[] supplies() {
    return new Double[] {supplyLowestVolts, supplyHighestVolts, supplyDamageVolts};
  }

  private PathElementDto with(
      String table,
      @Nullable Double newReturnLossDb,
      @Nullable Double newOutputLevelDbm,
      @Nullable Double newSideGainDb,
      @Nullable Double[] volts) {
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
        newReturnLossDb,
        newOutputLevelDbm,
        instrumentId,
        networkId,
        newSideGainDb,
        volts[0],
        volts[1],
        volts[2]);
  }

  /** What the supply of a source may be, where that is told; refuses what cannot be. */
  public Optional<Supply> supply() {
    if (supplyLowestVolts == null && supplyHighestVolts == null && supplyDamageVolts == null) {
      return Optional.empty();
    }
    if (kind != ElementKind.SOURCE) {
      throw new Refusal("supplyLowestVolts", "Only the source of a path has a supply here.");
    }
    return Optional.of(
        new Supply(
            Nulls.orNan(supplyLowestVolts),
            Nulls.orNan(supplyHighestVolts),
            Nulls.orNan(supplyDamageVolts)));
  }

  /** The element as the core knows it; refuses what cannot be. */
  PathElement toCore() {
    Refusals.named(name, "name", "element");
    supply();
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
        Nulls.orNan(highestLevelDbm),
        Nulls.orNan(damageLevelDbm),
        dcAllowed,
        Nulls.orNan(returnLossDb),
        Nulls.orNan(outputLevelDbm),
        Nulls.orNan(sideGainDb));
  }
}
