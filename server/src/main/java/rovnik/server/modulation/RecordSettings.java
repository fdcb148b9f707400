package rovnik.server.modulation;

import org.jspecify.annotations.Nullable;
import rovnik.core.Refusal;
import rovnik.core.limits.Limit;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.server.live.LookSamples;

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

  /**
   * The same for the whole length of a record that something else was measured of.
   *
   * @param longest what may be looked at, in seconds
   */
  default S ofSamples(LookSamples samples, double longest) {
    return ofWhole();
  }

  /** The oscilloscope beside the receiver, where one is needed; null for the only one. */
  default @Nullable Long oscilloscopeId() {
    return null;
  }

  /** How many stretches of what goes on are kept as recordings. */
  default int mostKept() {
    return 0;
  }

  /** After how many of them all that is asked for is there; 0 for at once. */
  default int keptWanted() {
    return 0;
  }

  /** Limits of which either may be missing. */
  static Limit limit(String field, @Nullable Double least, @Nullable Double most) {
    if (least != null && most != null && least > most) {
      throw new Refusal(
          field, "The least that passes is more than the most. Swap or correct them.");
    }
    return new Limit(number(least), number(most));
  }

  /** Words that must be there, even if there are none of them. */
  static String words(String field, @Nullable String value) {
    if (value == null) {
      throw new Refusal(
          field, "This is a text and cannot be left out; \"\" says that it is empty.");
    }
    return value;
  }

  /** NaN for what is missing. */
  static double number(@Nullable Double value) {
    return value == null ? Double.NaN : value;
  }

  /** Refuses a reference level that is none. */
  static void checkReference(double levelDbm) {
    if (!(Math.abs(levelDbm) <= 200)) {
      throw new Refusal(
          "referenceLevelDbm", "The reference level is a number of dBm from -200 to 200.");
    }
  }
}
