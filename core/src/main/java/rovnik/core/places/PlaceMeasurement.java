package rovnik.core.places;

import rovnik.core.modulation.StretchMeasurement;
import rovnik.core.result.Outcome;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;

/** Levels of a band by the place that a probe is held at. */
public final class PlaceMeasurement extends StretchMeasurement {
  public static final String KIND = "places";
  public static final String TITLE = "Places";

  private final PlaceSettings settings;

  public PlaceMeasurement(PlaceSettings settings) {
    super(KIND, TITLE, 2 * settings.bandHz(), settings.seconds(), settings.words());
    this.settings = settings;
    settings.bursts(); // refuses what cannot be
  }

  @Override
  public Outcome of(IqRecord record, MeasurementContext context) {
    return gathering().add(record, context);
  }

  /** What was taken at one place is not that of another. */
  @Override
  public boolean readsAgain() {
    return false;
  }

  @Override
  public Gathering gathering() {
    return new PlaceMap(settings, null);
  }

  @Override
  public Gathering gathering(Gathering before) {
    return new PlaceMap(settings, before instanceof PlaceMap m ? m : null);
  }
}
