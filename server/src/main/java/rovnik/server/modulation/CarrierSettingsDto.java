package rovnik.server.modulation;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.jspecify.annotations.Nullable;
import rovnik.core.Refusal;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.modulation.analysis.Equalizer;
import rovnik.core.modulation.analysis.SingleCarrierMeasurement;
import rovnik.core.modulation.analysis.SingleCarrierSettings;
import rovnik.server.config.Choices;

/**
 * Settings of the measurement of one carrier, as sent and stored.
 *
 * @param carrier what it is
 * @param centreHz where it is expected, at the reading plane; 0 for anywhere in the recording
 * @param searchHz how far it may be from there; 0 for a quarter of the symbol rate
 * @param symbols result length, 0 for as many as there are
 * @param startSeconds where in a recording it begins
 * @param measuringFilter of the receiver, null for the one that matches the transmitter's
 * @param measuringParameter its roll-off or B T
 * @param errorsOf what errors are percent of: mean or outermost
 * @param knownData errors from what was sent, where that is found, instead of from decisions
 * @param evmLimitPercent highest EVM that passes, null for no limit
 * @param referenceLevelDbm highest level that is expected at the reading plane
 * @param equalizer off, trained (anew by each result) or held; null for off
 * @param equalizerReach symbols to each side that one is trained over, null for 5
 * @param equalizerTaps weights of one that is held, half a symbol apart, each [re, im]: the series
 *     equalizerTaps of a result that it was trained by
 * @param trackSymbols the carrier's phase is followed, as the mean over so many symbols; null or 0
 *     for the phase of the whole result
 */
@Schema(name = "SingleCarrierSettings")
public record CarrierSettingsDto(
    CarrierDto carrier,
    double centreHz,
    double searchHz,
    int symbols,
    double startSeconds,
    @Nullable String measuringFilter,
    @Nullable Double measuringParameter,
    String errorsOf,
    boolean knownData,
    @Nullable Double evmLimitPercent,
    double referenceLevelDbm,
    @Nullable String equalizer,
    @Nullable Integer equalizerReach,
    @Nullable List<List<Double>> equalizerTaps,
    @Nullable Integer trackSymbols)
    implements RecordSettings<CarrierSettingsDto> {

  /** Symbols of a live look. */
  private static final int LIVE_SYMBOLS = 2000;

  /** First look at a small transmitter. */
  static final CarrierSettingsDto FIRST =
      near(CarrierDto.FIRST, 458.525e6, LIVE_SYMBOLS, false, null, 33);

  /** Settings of which the rest is as usual. */
  public static CarrierSettingsDto near(
      CarrierDto carrier,
      double centreHz,
      int symbols,
      boolean knownData,
      @Nullable Double evmLimitPercent,
      double referenceLevelDbm) {
    return new CarrierSettingsDto(
        carrier,
        centreHz,
        0,
        symbols,
        0,
        null,
        null,
        "mean",
        knownData,
        evmLimitPercent,
        referenceLevelDbm,
        null,
        null,
        null,
        null);
  }

  /** The same, anywhere in a recording and over all of it. */
  @Override
  public CarrierSettingsDto ofWhole() {
    return with(0, 0, referenceLevelDbm);
  }

  @Override
  public CarrierSettingsDto withReference(double levelDbm) {
    return with(centreHz, symbols, levelDbm);
  }

  private CarrierSettingsDto with(double centre, int result, double levelDbm) {
    return new CarrierSettingsDto(
        carrier,
        centre,
        searchHz,
        result,
        startSeconds,
        measuringFilter,
        measuringParameter,
        errorsOf,
        knownData,
        evmLimitPercent,
        levelDbm,
        equalizer,
        equalizerReach,
        equalizerTaps,
        trackSymbols);
  }

  @Override
  public RecordMeasurement measurement() {
    return new SingleCarrierMeasurement(toCore());
  }

  SingleCarrierSettings toCore() {
    if (carrier == null) {
      throw new Refusal("carrier", "Describe the carrier: format, symbolRateHz, filter.");
    }
    boolean outermost = "outermost".equals(errorsOf);
    if (!outermost && errorsOf != null && !errorsOf.equals("mean")) {
      throw new Refusal("errorsOf", "Errors are percent of \"mean\" or of \"outermost\".");
    }
    RecordSettings.checkReference(referenceLevelDbm);
    return new SingleCarrierSettings(
        carrier.toCore(),
        centreHz,
        searchHz,
        symbols,
        startSeconds,
        measuringFilter == null || measuringFilter.isEmpty()
            ? null
            : CarrierDto.shape(
                measuringFilter,
                measuringParameter == null ? carrier.filterParameter() : measuringParameter),
        outermost,
        knownData,
        evmLimitPercent == null ? Double.NaN : evmLimitPercent,
        equalizerOf(),
        trackSymbols == null ? 0 : trackSymbols);
  }

  private Equalizer equalizerOf() {
    if (equalizer == null || equalizer.isEmpty()) {
      return Equalizer.OFF;
    }
    return new Equalizer(
        Choices.named(Equalizer.Mode.values(), Equalizer.Mode::label, "equalizer", equalizer),
        equalizerReach == null ? Equalizer.USUAL_REACH : equalizerReach,
        equalizerTaps == null ? List.of() : equalizerTaps);
  }
}
