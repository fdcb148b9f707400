package rovnik.server.modulation;

import java.util.List;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import rovnik.core.modulation.analog.AnalogMeasurement;
import rovnik.core.modulation.analysis.SingleCarrierMeasurement;
import rovnik.server.bench.BenchService;
import rovnik.server.config.Json;
import rovnik.server.jobs.JobService;
import rovnik.server.live.LiveKind;
import rovnik.server.measure.FileMeasurement;
import rovnik.server.receiver.ReceiverWorks;
import rovnik.server.setups.SettingsFile;

/** What is measured of single records: live, on file, and by name. */
@Configuration
class ModulationKinds {
  @Bean
  LiveKind liveSingleCarrier(BenchService bench, JobService jobs, RecordedStretches recorded) {
    return new RecordKind<>(
        SingleCarrierMeasurement.KIND,
        CarrierSettingsDto.FIRST,
        CarrierWorks.ALL,
        bench,
        jobs,
        recorded);
  }

  @Bean
  FileMeasurement<CarrierSettingsDto> recordedSingleCarrier(RecordedStretches recorded) {
    return new RecordedMeasurement<>(
        SingleCarrierMeasurement.KIND,
        SingleCarrierMeasurement.TITLE,
        CarrierSettingsDto.class,
        CarrierSettingsDto.FIRST,
        recorded);
  }

  @Bean
  SettingsFile.Checked checkedSingleCarrier(Json json) {
    return new CheckedRecord<>(SingleCarrierMeasurement.KIND, CarrierSettingsDto.class, json);
  }

  @Bean
  LiveKind liveAnalog(BenchService bench, JobService jobs, RecordedStretches recorded) {
    return new RecordKind<>(
        AnalogMeasurement.KIND,
        AnalogSettingsDto.FIRST,
        List.of(ReceiverWorks.LEVEL_RUN, ReceiverWorks.SENSITIVITY),
        bench,
        jobs,
        recorded);
  }

  @Bean
  FileMeasurement<AnalogSettingsDto> recordedAnalog(RecordedStretches recorded) {
    return new RecordedMeasurement<>(
        AnalogMeasurement.KIND,
        AnalogMeasurement.TITLE,
        AnalogSettingsDto.class,
        AnalogSettingsDto.FIRST,
        recorded);
  }

  @Bean
  SettingsFile.Checked checkedAnalog(Json json) {
    return new CheckedRecord<>(AnalogMeasurement.KIND, AnalogSettingsDto.class, json);
  }
}
