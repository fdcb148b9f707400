package rovnik.server.runs;

import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rovnik.core.network.NetworkData;
import rovnik.core.result.Fact;
import rovnik.core.result.Outcome;
import rovnik.core.signal.IqRecord;
import rovnik.core.uncertainty.InstrumentAccuracy;
import rovnik.server.jobs.JobDto;

/**
 * All that becomes a run.
 *
 * @param settings as sent: an immutable record of the measurement's kind
 * @param work what guided work was told, null if it was none
 */
public record KeptLook(
    JobDto job,
    Object settings,
    @Nullable Object work,
    Parts parts,
    String sourceName,
    String identity,
    String overrideReason) {

  /** Samples, and how far off their levels and frequencies may be. */
  public record Samples(IqRecord record, InstrumentAccuracy accuracy) {}

  /**
   * What the measurement adds.
   *
   * @param words its settings in words
   * @param samples to keep with it, null if there are none or they are on file already
   * @param recordingId the recording that it was made from, or null
   * @param network S-parameters to keep with it, or null
   * @param conditions further facts, such as the receiver's attenuation
   */
  public record Parts(
      Outcome outcome,
      List<Fact> words,
      @Nullable Samples samples,
      @Nullable Long recordingId,
      @Nullable NetworkData network,
      Map<String, String> conditions) {

    public static Parts of(Outcome outcome, List<Fact> words) {
      return new Parts(outcome, words, null, null, null, Map.of());
    }

    /** A finding in place of the outcome; samples of the last look say nothing of it. */
    public Parts found(Outcome finding) {
      return new Parts(finding, words, null, null, null, conditions);
    }

    public Parts with(Map<String, String> otherConditions) {
      return new Parts(outcome, words, samples, recordingId, network, otherConditions);
    }
  }
}
