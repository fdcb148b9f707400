package rovnik.server.modulation;

import java.util.List;
import org.springframework.stereotype.Component;
import rovnik.core.modulation.analysis.SingleCarrierMeasurement;
import rovnik.instruments.InstrumentKind;
import rovnik.server.bench.BenchService;
import rovnik.server.jobs.JobService;
import rovnik.server.live.LiveKind;
import rovnik.server.live.Measuring;
import rovnik.server.live.Sources;

/** Opens carriers of receivers and recordings. */
@Component
class CarrierKind implements LiveKind {
  private final BenchService bench;
  private final JobService jobs;
  private final RecordedCarriers recorded;

  CarrierKind(BenchService bench, JobService jobs, RecordedCarriers recorded) {
    this.bench = bench;
    this.jobs = jobs;
    this.recorded = recorded;
  }

  @Override
  public String kind() {
    return SingleCarrierMeasurement.KIND;
  }

  @Override
  public boolean fits(String source) {
    return Sources.isRecording(source)
        || bench.kind(Sources.id(source)) == InstrumentKind.IQ_RECEIVER;
  }

  @Override
  public List<Class<?>> described() {
    return List.of(CarrierSettingsDto.class, CarrierSource.class, CarrierLook.View.class);
  }

  @Override
  public Measuring<?> open(String source) {
    long id = Sources.id(source);
    if (Sources.isRecording(source)) {
      recorded.find(id);
      return new RecordingCarrierMeasuring(id, recorded);
    }
    return new ReceiverCarrierMeasuring(id, bench, jobs);
  }
}
