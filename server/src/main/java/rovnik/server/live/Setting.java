package rovnik.server.live;

import java.util.List;
import rovnik.core.emission.ViewPlan;
import rovnik.core.path.PathCorrection;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.spectrum.SpoiledBand;
import rovnik.core.uncertainty.InstrumentAccuracy;
import rovnik.server.jobs.JobDto;

/**
 * What a look is taken with: a snapshot of the settings and of the job.
 *
 * @param correction from the port to the reading plane, null for a recording without calibration
 */
record Setting(
    SpectrumSettings settings,
    ViewPlan view,
    JobDto job,
    PathCorrection correction,
    InstrumentAccuracy accuracy) {

  /** The settings at the instrument's port. */
  SpectrumSettings atPort() {
    return settings.with(
        correction.planeToPortHz(settings.centreHz()),
        settings.spanHz(),
        settings.rbwHz(),
        settings.referenceLevelDbm() + correction.gainToPortDb(settings.centreHz()));
  }

  MeasurementContext context(List<String> marks, List<SpoiledBand> spoiled) {
    return new MeasurementContext(correction, accuracy, job.limits().toCore(), marks, spoiled);
  }
}
