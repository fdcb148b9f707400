package rovnik.server.spectrum;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.jspecify.annotations.Nullable;
import rovnik.core.emission.EmissionResult;
import rovnik.core.emission.SpectrumOutcome;
import rovnik.core.emission.SpectrumOutcome.Row;
import rovnik.core.emission.ViewPlan;
import rovnik.core.result.Outcome;
import rovnik.core.result.SpoiledBand;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.SpectrumResult;
import rovnik.core.spectrum.Trace;
import rovnik.server.live.Look;

/**
 * What one acquisition led to.
 *
 * @param setting what it was taken with
 * @param rows more traces on the points of the main one
 * @param record the newest samples, null if there are none; their array is reused by the next
 *     acquisition
 * @param facts how it was acquired
 * @param marks why all levels must not be trusted
 * @param spoiled bands that must not be trusted
 * @param progress of a first pass, 1 when it is whole
 * @param remainingSeconds of that pass
 */
record SpectrumLook(
    Setting setting,
    EmissionResult result,
    List<Row> rows,
    @Nullable IqRecord record,
    Facts facts,
    List<String> marks,
    List<SpoiledBand> spoiled,
    double progress,
    double remainingSeconds)
    implements Look {

  /** The same acquisition, read in another way. */
  SpectrumLook with(Setting readWith, EmissionResult read, List<Row> kept) {
    return new SpectrumLook(
        readWith, read, kept, record, facts, marks, spoiled, progress, remainingSeconds);
  }

  /**
   * How a spectrum was acquired.
   *
   * @param fftLength 0 if there was no transform
   * @param recordSeconds length of one transform's record, or of one sweep
   * @param attenuationDb of the receiver, null for a recording
   */
  record Facts(
      int fftLength, double sampleRateHz, double recordSeconds, @Nullable Double attenuationDb) {}

  /**
   * What the screen of a spectrum needs beside the outcome.
   *
   * @param recordSeconds length of one transform's record
   * @param attenuationDb of the receiver, null for a recording
   * @param progress 0 to 1 while a wide scan runs for the first time, 1 otherwise
   * @param remainingSeconds of that first pass
   * @param referenceLevel in the unit of the levels
   * @param linear true if the unit is not one of decibels
   */
  @Schema(name = "SpectrumView")
  record View(
      int fftLength,
      double sampleRateHz,
      double recordSeconds,
      @Nullable Double attenuationDb,
      double progress,
      double remainingSeconds,
      double referenceLevel,
      boolean linear) {}

  Trace trace() {
    return result.base().trace();
  }

  /** In the points and units that the view asks for. */
  @Override
  public Outcome shown() {
    ViewPlan plan = setting.view();
    EmissionResult displayed = plan.display().of(result);
    Trace main = plan.display().of(plan.reducer().reduce(trace(), plan.mostPoints()));
    List<Row> shownRows =
        rows.stream()
            .map(
                r ->
                    new Row(
                        r.label(),
                        plan.display().of(plan.reducer().reduce(r.trace(), plan.mostPoints()))))
            .toList();
    return SpectrumOutcome.of(
        new EmissionResult(
            new SpectrumResult(main, displayed.base().peaks(), displayed.readings()),
            displayed.tables(),
            displayed.limitLines()),
        shownRows,
        marks,
        spoiled);
  }

  /** All points, in dBm. */
  Outcome whole() {
    return SpectrumOutcome.of(result, rows, marks, spoiled);
  }

  @Override
  public View view() {
    double reference = setting.settings().referenceLevelDbm();
    ViewPlan plan = setting.view();
    return new View(
        facts.fftLength(),
        facts.sampleRateHz(),
        facts.recordSeconds(),
        facts.attenuationDb(),
        progress,
        remainingSeconds,
        trace().calibrated() ? plan.display().of(reference) : reference,
        trace().calibrated() && !plan.display().unit().label().startsWith("dB"));
  }

  @Override
  public boolean settled() {
    return facts.attenuationDb() == null || progress >= 1 && trace().segments() >= wantedSegments();
  }

  /** A scan averages within its steps: it is settled when it is whole. */
  private int wantedSegments() {
    return record == null && facts.fftLength() > 0 ? 1 : setting.settings().averages();
  }
}
