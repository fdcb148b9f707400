package rovnik.server.measure;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rovnik.core.result.Outcome;
import rovnik.core.signal.Sound;
import rovnik.server.jobs.JobDto;
import tools.jackson.databind.JsonNode;

/**
 * A kind of measurement that can be made of what is on file. A bean of each kind registers itself
 * by being there.
 *
 * @param <S> settings as sent
 */
public interface FileMeasurement<S> {
  /** What a measurement takes. */
  enum Takes {
    IQ,
    SWEEP,
    NETWORK,
    WAVEFORM
  }

  /** Stable key, such as "spectrum". */
  String kind();

  String title();

  Set<Takes> takes();

  Class<S> settingsType();

  /** Settings to begin with, for something of which nothing is known. */
  S defaults();

  /** Settings that suit a recording or a network. */
  S defaultsFor(Subject subject);

  /** Settings with markers at these frequencies, where the kind reads something at markers. */
  default S withMarkers(S settings, List<Double> hertz) {
    return settings;
  }

  /** Settings of a live look in the form of this one, null if they say nothing here. */
  default @Nullable JsonNode ofLive(JsonNode kept) {
    return kept;
  }

  Outcome measure(Subject subject, S settings);

  /** What can be heard of it. */
  default Optional<Sound> sound(Subject subject, S settings) {
    return Optional.empty();
  }

  /**
   * What is measured.
   *
   * @param recordingId samples, or null
   * @param networkId S-parameters, or null
   * @param job whose path and limits apply; {@link JobDto#NONE} for none
   */
  record Subject(@Nullable Long recordingId, @Nullable Long networkId, JobDto job) {}
}
