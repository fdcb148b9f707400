package rovnik.server.spectrum;

import java.util.ArrayList;
import java.util.List;
import org.springframework.stereotype.Component;
import rovnik.core.emission.SpectrumOutcome;
import rovnik.instruments.InstrumentKind;
import rovnik.server.bench.BenchService;
import rovnik.server.jobs.JobService;
import rovnik.server.live.LiveKind;
import rovnik.server.live.Measuring;
import rovnik.server.live.Sources;
import rovnik.server.recordings.RecordingService;

/** Opens spectra of receivers, swept analyzers and recordings. */
@Component
class SpectrumKind implements LiveKind {
  private final BenchService bench;
  private final JobService jobs;
  private final RecordingService recordings;
  private final RecordingSpectra spectra;

  SpectrumKind(
      BenchService bench, JobService jobs, RecordingService recordings, RecordingSpectra spectra) {
    this.bench = bench;
    this.jobs = jobs;
    this.recordings = recordings;
    this.spectra = spectra;
  }

  @Override
  public String kind() {
    return SpectrumOutcome.KIND;
  }

  @Override
  public boolean fits(String source) {
    if (Sources.isRecording(source)) {
      return true;
    }
    InstrumentKind kind = bench.kind(Sources.id(source));
    return kind == InstrumentKind.IQ_RECEIVER || kind == InstrumentKind.SWEPT_ANALYZER;
  }

  @Override
  public List<Class<?>> described() {
    List<Class<?>> all =
        new ArrayList<>(List.of(SettingsDto.class, SpectrumFacts.class, SpectrumLook.View.class));
    SpectrumWorks.ALL.forEach(w -> all.add(w.form().getClass()));
    return all;
  }

  @Override
  public Measuring<?> open(String source) {
    long id = Sources.id(source);
    if (Sources.isRecording(source)) {
      recordings.find(id);
      return new RecordingMeasuring(id, recordings, spectra);
    }
    return new ReceiverMeasuring(id, bench, jobs);
  }
}
