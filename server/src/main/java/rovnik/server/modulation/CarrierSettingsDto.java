package rovnik.server.modulation;

import io.swagger.v3.oas.annotations.media.Schema;
import org.jspecify.annotations.Nullable;
import rovnik.core.Refusal;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.modulation.analysis.SingleCarrierMeasurement;
import rovnik.core.modulation.analysis.SingleCarrierSettings;

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
    double referenceLevelDbm)
    implements RecordSettings<CarrierSettingsDto> {

  /** Symbols of a live look. */
  private static final int LIVE_SYMBOLS = 2000;

  /** First look at a small transmitter. */
  static final CarrierSettingsDto FIRST =
      new CarrierSettingsDto(
          CarrierDto.FIRST, 458.525e6, 0, LIVE_SYMBOLS, 0, null, null, "mean", false, null, 33);

  /** The same, anywhere in a recording and over all of it. */
  @Override
  public CarrierSettingsDto ofWhole() {
    return new CarrierSettingsDto(
        carrier,
        0,
        searchHz,
        0,
        startSeconds,
        measuringFilter,
        measuringParameter,
        errorsOf,
        knownData,
        evmLimitPercent,
        referenceLevelDbm);
  }

  @Override
  public CarrierSettingsDto withReference(double levelDbm) {
    return new CarrierSettingsDto(
        carrier,
        centreHz,
        searchHz,
        symbols,
        startSeconds,
        measuringFilter,
        measuringParameter,
        errorsOf,
        knownData,
        evmLimitPercent,
        levelDbm);
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
    if (!(Math.abs(referenceLevelDbm) <= 200)) {
      throw new Refusal(
          "referenceLevelDbm", "The reference level is a number of dBm from -200 to 200.");
    }
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
        evmLimitPercent == null ? Double.NaN : evmLimitPercent);
  }
}
