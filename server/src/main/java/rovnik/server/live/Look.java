package rovnik.server.live;

import java.util.List;
import rovnik.core.emission.EmissionResult;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.SpoiledBand;
import rovnik.core.spectrum.Trace;

/**
 * What one acquisition led to.
 *
 * @param rows more traces on the points of the main one
 * @param record the newest samples, null if there are none
 * @param facts how it was acquired
 * @param marks why all levels must not be trusted
 * @param spoiled bands that must not be trusted
 * @param progress of a first pass, 1 when it is whole
 * @param remainingSeconds of that pass
 */
record Look(
    EmissionResult result,
    List<Row> rows,
    IqRecord record,
    Facts facts,
    List<String> marks,
    List<SpoiledBand> spoiled,
    double progress,
    double remainingSeconds) {

  /** One more trace. */
  record Row(String label, Trace trace) {}

  /** The same acquisition, read in another way. */
  Look with(EmissionResult read, List<Row> kept) {
    return new Look(read, kept, record, facts, marks, spoiled, progress, remainingSeconds);
  }

  /**
   * How a spectrum was acquired.
   *
   * @param fftLength 0 if there was no transform
   * @param recordSeconds length of one transform's record, or of one sweep
   * @param attenuationDb of the receiver, null for a recording
   */
  record Facts(int fftLength, double sampleRateHz, double recordSeconds, Double attenuationDb) {}
}
