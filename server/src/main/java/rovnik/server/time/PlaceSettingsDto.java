package rovnik.server.time;

import io.swagger.v3.oas.annotations.media.Schema;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.places.PlaceMeasurement;
import rovnik.core.places.PlaceSettings;
import rovnik.server.modulation.RecordSettings;

/**
 * Settings of the map of levels over a board, as sent and stored.
 *
 * @param centreHz middle of the band, at the reading plane
 * @param bandHz that is looked at, 3 dB down at its edges
 * @param seconds length of a look
 * @param place name of where the probe is held
 * @param acrossMetres of the place from the left edge of the board
 * @param upMetres of the place from its lower edge
 * @param state of the board, such as "before" or "with shield"
 * @param map places of one map are compared; another number begins an empty one
 * @param referenceLevelDbm highest level that is expected at the reading plane
 */
@Schema(name = "PlaceSettings")
public record PlaceSettingsDto(
    double centreHz,
    double bandHz,
    double seconds,
    String place,
    double acrossMetres,
    double upMetres,
    String state,
    int map,
    double referenceLevelDbm)
    implements RecordSettings<PlaceSettingsDto> {
  static final PlaceSettingsDto FIRST =
      new PlaceSettingsDto(458.525e6, 500e3, 0.05, "place 1", 0, 0, "as it is", 1, 33);

  /** Emissions near a frequency, at a first place. */
  public static PlaceSettingsDto of(
      double centreHz, double bandHz, double seconds, String place, double referenceDbm) {
    return new PlaceSettingsDto(
        centreHz, bandHz, seconds, place, 0.02, 0.03, FIRST.state, 1, referenceDbm);
  }

  @Override
  public double startSeconds() {
    return 0;
  }

  @Override
  public PlaceSettingsDto ofWhole() {
    return this;
  }

  @Override
  public PlaceSettingsDto withReference(double levelDbm) {
    return new PlaceSettingsDto(
        centreHz, bandHz, seconds, place, acrossMetres, upMetres, state, map, levelDbm);
  }

  @Override
  public RecordMeasurement measurement() {
    RecordSettings.checkReference(referenceLevelDbm);
    return new PlaceMeasurement(
        new PlaceSettings(
            centreHz,
            bandHz,
            seconds,
            RecordSettings.words("place", place),
            acrossMetres,
            upMetres,
            RecordSettings.words("state", state),
            map));
  }
}
