package rovnik.server.modulation;

import java.util.Map;
import org.jspecify.annotations.Nullable;
import rovnik.core.modulation.analysis.SingleCarrierMeasurement;
import rovnik.core.signal.IqRecord;
import rovnik.instruments.Instrument;
import rovnik.server.config.Conflict;
import rovnik.server.jobs.JobDto;
import rovnik.server.live.Look;
import rovnik.server.live.Measuring;
import rovnik.server.recordings.RecordingDto;
import rovnik.server.runs.KeptLook;

/** One carrier of a recording: computed whole at every change, then still. */
final class RecordingCarrierMeasuring implements Measuring<CarrierSettingsDto> {
  private final long recording;
  private final RecordedCarriers recorded;
  private CarrierSettingsDto settings = CarrierSettingsDto.FIRST;
  private JobDto job = JobDto.NONE;
  private @Nullable CarrierLook last;

  RecordingCarrierMeasuring(long recording, RecordedCarriers recorded) {
    this.recording = recording;
    this.recorded = recorded;
  }

  @Override
  public String kind() {
    return SingleCarrierMeasurement.KIND;
  }

  @Override
  public String sourceName() {
    return recorded.find(recording).name();
  }

  @Override
  public Class<CarrierSettingsDto> settingsType() {
    return CarrierSettingsDto.class;
  }

  @Override
  public CarrierSettingsDto first() {
    return recorded.whole(recording);
  }

  @Override
  public CarrierSettingsDto checked(CarrierSettingsDto wanted, JobDto with) {
    wanted.toCore(); // refuses what cannot be
    return wanted;
  }

  @Override
  public Object facts(CarrierSettingsDto now, JobDto with) {
    return new CarrierSource(recorded.find(recording).sampleRateHz(), false);
  }

  @Override
  public void prepare(CarrierSettingsDto wanted, JobDto with, boolean afresh) {
    settings = wanted;
    job = with;
  }

  @Override
  public Look step(@Nullable Instrument none) {
    RecordingDto r = recorded.find(recording);
    IqRecord record = recorded.record(r, settings);
    last =
        CarrierLook.of(
            new SingleCarrierMeasurement(settings.toCore()),
            record,
            recorded.context(r, job),
            new CarrierLook.Facts(r.sampleRateHz(), record.sampleCount(), null),
            last);
    return last;
  }

  @Override
  public KeptLook.Parts kept(Look look, CarrierSettingsDto with, JobDto of) {
    CarrierLook l = (CarrierLook) look;
    if (!l.refused().isEmpty()) {
      throw Conflict.state("There is no result to keep. " + l.refused());
    }
    return new KeptLook.Parts(l.outcome(), with.toCore().words(), null, recording, null, Map.of());
  }
}
