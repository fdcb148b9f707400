package rovnik.server.modulation;

import rovnik.core.Refusal;
import rovnik.core.modulation.RecordMeasurement;

/**
 * Settings of what is measured of one record around one carrier, as sent and stored.
 *
 * @param <S> the settings themselves
 */
public interface RecordSettings<S extends RecordSettings<S>> {
  /** The measurement with these settings; what cannot be is refused. */
  RecordMeasurement measurement();

  /** Where the carrier is expected, at the reading plane; 0 for anywhere in a recording. */
  double centreHz();

  /** Where in a recording it begins. */
  double startSeconds();

  /** Highest level that is expected at the reading plane. */
  double referenceLevelDbm();

  S withReference(double levelDbm);

  /** The same for a recording: anywhere in it. */
  S ofWhole();

  /** Refuses a reference level that is none. */
  static void checkReference(double levelDbm) {
    if (!(Math.abs(levelDbm) <= 200)) {
      throw new Refusal(
          "referenceLevelDbm", "The reference level is a number of dBm from -200 to 200.");
    }
  }
}
