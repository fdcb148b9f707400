package rovnik.core.places;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import rovnik.core.modulation.CarrierReadings;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.result.Outcome;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.time.Burst;
import rovnik.core.time.BurstMeasurement;
import rovnik.core.time.FoundBursts;

/**
 * The places that a probe was held at, one after the other, in one or several states of the board:
 * what is looked at now is begun anew, the rest keeps its levels.
 */
final class PlaceMap implements RecordMeasurement.Gathering {
  private final PlaceSettings settings;
  private final Map<String, Spot> spots = new LinkedHashMap<>();

  /**
   * What is known of one place.
   *
   * @param levels by the state of the board
   */
  record Spot(String name, double acrossMetres, double upMetres, Map<String, Level> levels) {
    Spot with(String state, Level level) {
      Map<String, Level> all = new LinkedHashMap<>(levels);
      if (level == null) {
        all.remove(state);
      } else {
        all.put(state, level);
      }
      return new Spot(name, acrossMetres, upMetres, all);
    }

    /** In a state, dBm or dBFS; NaN if it was not looked at. */
    double db(String state) {
      Level level = levels.get(state);
      return level == null ? Double.NaN : level.db();
    }
  }

  /**
   * The level at a place, of all looks.
   *
   * @param power mean of them, in mW or of full scale
   * @param square mean of its square
   */
  record Level(double power, double square, int looks, boolean bursts) {
    static final Level NONE = new Level(0, 0, 0, false);

    Level and(double more, boolean ofBursts) {
      int n = looks + 1;
      return new Level(
          power + (more - power) / n, square + (more * more - square) / n, n, bursts || ofBursts);
    }

    double db() {
      return 10 * Math.log10(Math.max(power, 1e-30));
    }

    /** Standard uncertainty by how looks scatter; NaN of one. */
    double standardDb() {
      if (looks < 2) {
        return Double.NaN;
      }
      double variance = Math.max(0, square - power * power) * looks / (looks - 1);
      double few = looks > 3 ? Math.sqrt((looks - 1.0) / (looks - 3)) : 3;
      return 10 / Math.log(10) * few * Math.sqrt(variance / looks) / power;
    }
  }

  PlaceMap(PlaceSettings settings, PlaceMap before) {
    this.settings = settings;
    if (before != null && settings.sameMap(before.settings)) {
      spots.putAll(before.spots);
    }
    Spot known = spots.get(settings.place());
    Map<String, Level> levels = known == null ? Map.of() : known.levels();
    spots.put(
        settings.place(),
        new Spot(settings.place(), settings.acrossMetres(), settings.upMetres(), levels)
            .with(settings.state(), null));
  }

  @Override
  public Outcome add(IqRecord record, MeasurementContext context) {
    FoundBursts found = new BurstMeasurement(settings.bursts()).found(record, context);
    double near = CarrierReadings.expectedHz(record, context, settings.centreHz());
    CarrierReadings carrier = new CarrierReadings(record, context, near);
    double scale = Math.pow(10, carrier.referredDb() / 10);
    boolean comes = !found.bursts().isEmpty() && !found.firesOnNoise();
    double power = scale * (comes ? whileThere(found) : mean(found.power()));
    Spot spot = spots.get(settings.place());
    Level before = spot.levels().getOrDefault(settings.state(), Level.NONE);
    spots.put(settings.place(), spot.with(settings.state(), before.and(power, comes)));
    return new PlaceOutcome(settings, record, context, carrier.maker(), ranked()).outcome();
  }

  private static double whileThere(FoundBursts found) {
    double sum = 0;
    double seconds = 0;
    for (Burst b : found.bursts()) {
      sum += b.power() * b.length();
      seconds += b.length();
    }
    return sum / seconds;
  }

  private static double mean(double[] power) {
    double sum = 0;
    for (double p : power) {
      sum += p;
    }
    return sum / power.length;
  }

  /** The strongest of the present state first; what was not looked at in it comes last. */
  private List<Spot> ranked() {
    List<Spot> out = new ArrayList<>(spots.values());
    out.removeIf(s -> s.levels().isEmpty());
    String state = settings.state();
    out.sort(
        (a, b) ->
            Double.compare(
                Double.isNaN(b.db(state)) ? -1e9 : b.db(state),
                Double.isNaN(a.db(state)) ? -1e9 : a.db(state)));
    return out;
  }
}
