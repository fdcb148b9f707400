package rovnik.server.spectrum;

import java.util.List;
import org.jspecify.annotations.Nullable;
import rovnik.core.emission.ViewPlan;
import rovnik.core.path.PathCorrection;
import rovnik.core.result.SpoiledBand;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.uncertainty.InstrumentAccuracy;
import rovnik.server.jobs.JobDto;
import rovnik.server.live.LookSamples;

/**
 * What a look is taken with: a snapshot of the settings and of the job.
 *
 * @param correction from the port to the reading plane, null for a recording without calibration
 */
record Setting(
    SpectrumSettings settings,
    ViewPlan view,
    JobDto job,
    @Nullable PathCorrection correction,
    InstrumentAccuracy accuracy) {

  Setting with(SpectrumSettings otherSettings, ViewPlan otherView) {
    return new Setting(otherSettings, otherView, job, correction, accuracy);
  }

  /** The settings at the instrument's port. */
  SpectrumSettings atPort() {
    return settings.with(
        correction.planeToPortHz(settings.centreHz()),
        settings.spanHz(),
        settings.rbwHz(),
        settings.referenceLevelDbm() + correction.gainToPortDb(settings.centreHz()));
  }

  LookSamples samples(IqRecord record, List<String> marks) {
    return new LookSamples(
        record, context(marks, List.of()), settings.centreHz(), settings.spanHz());
  }

  MeasurementContext context(List<String> marks, List<SpoiledBand> spoiled) {
    return new MeasurementContext(correction, accuracy, job.limits().toCore(), marks, spoiled);
  }
}
