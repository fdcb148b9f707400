package rovnik.server.time;

import java.util.List;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import rovnik.core.time.BurstMeasurement;
import rovnik.core.time.DensityMeasurement;
import rovnik.server.bench.BenchService;
import rovnik.server.config.Json;
import rovnik.server.jobs.JobService;
import rovnik.server.live.LiveKind;
import rovnik.server.measure.FileMeasurement;
import rovnik.server.modulation.CheckedRecord;
import rovnik.server.modulation.RecordKind;
import rovnik.server.modulation.RecordedMeasurement;
import rovnik.server.modulation.RecordedStretches;
import rovnik.server.setups.SettingsFile;

/** What is measured of things that come and go: live, on file, and by name. */
@Configuration
class TimeKinds {
  @Bean
  LiveKind liveBursts(BenchService bench, JobService jobs, RecordedStretches recorded) {
    return new RecordKind<>(
        BurstMeasurement.KIND, BurstSettingsDto.FIRST, List.of(), bench, jobs, recorded);
  }

  @Bean
  FileMeasurement<BurstSettingsDto> recordedBursts(RecordedStretches recorded) {
    return new RecordedMeasurement<>(
        BurstMeasurement.KIND,
        BurstMeasurement.TITLE,
        BurstSettingsDto.class,
        BurstSettingsDto.FIRST,
        recorded);
  }

  @Bean
  SettingsFile.Checked checkedBursts(Json json) {
    return new CheckedRecord<>(BurstMeasurement.KIND, BurstSettingsDto.class, json);
  }

  @Bean
  LiveKind liveDensity(BenchService bench, JobService jobs, RecordedStretches recorded) {
    return new RecordKind<>(
        DensityMeasurement.KIND, DensitySettingsDto.FIRST, List.of(), bench, jobs, recorded);
  }

  @Bean
  FileMeasurement<DensitySettingsDto> recordedDensity(RecordedStretches recorded) {
    return new RecordedMeasurement<>(
        DensityMeasurement.KIND,
        DensityMeasurement.TITLE,
        DensitySettingsDto.class,
        DensitySettingsDto.FIRST,
        recorded);
  }

  @Bean
  SettingsFile.Checked checkedDensity(Json json) {
    return new CheckedRecord<>(DensityMeasurement.KIND, DensitySettingsDto.class, json);
  }
}
