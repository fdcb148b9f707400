package rovnik.server.runs;

import java.util.List;
import java.util.Map;
import rovnik.core.emission.EmissionResult;
import rovnik.core.emission.ViewPlan;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.spectrum.Trace;
import rovnik.server.jobs.JobDto;

/**
 * All that becomes a run.
 *
 * @param rows more traces of the view
 * @param record samples to keep with it, or null if they are on file already
 * @param recordingId the recording that it was made from, or null
 */
public record KeptLook(
    JobDto job,
    SpectrumSettings settings,
    ViewPlan view,
    EmissionResult result,
    List<Row> rows,
    IqRecord record,
    Long recordingId,
    Map<String, String> conditions,
    String sourceName,
    String identity,
    String overrideReason) {

  /** One more trace of the view. */
  public record Row(String label, Trace trace) {}
}
