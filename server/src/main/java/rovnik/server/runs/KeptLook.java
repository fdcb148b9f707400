package rovnik.server.runs;

import java.util.Map;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.SpectrumResult;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.server.jobs.JobDto;

/**
 * All that becomes a run.
 *
 * @param record samples to keep with it, or null if they are on file already
 * @param recordingId the recording that it was made from, or null
 */
public record KeptLook(
    JobDto job,
    SpectrumSettings settings,
    SpectrumResult result,
    IqRecord record,
    Long recordingId,
    Map<String, String> conditions,
    String sourceName,
    String identity,
    String overrideReason) {}
