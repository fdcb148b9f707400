package rovnik.server.receiver;

import java.util.List;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import rovnik.core.receiver.Reception;
import rovnik.instruments.InstrumentKind;
import rovnik.server.bench.BenchService;
import rovnik.server.config.Json;
import rovnik.server.jobs.JobService;
import rovnik.server.live.LiveKind;
import rovnik.server.live.Measuring;
import rovnik.server.live.Sources;
import rovnik.server.setups.SettingsFile;
import tools.jackson.databind.JsonNode;

/** Receivers under test: live, and their settings by name. */
@Configuration
class ReceiverKinds {
  @Bean
  LiveKind liveReceiver(BenchService bench, JobService jobs) {
    return new LiveKind() {
      @Override
      public String kind() {
        return Reception.KIND;
      }

      @Override
      public boolean fits(String source) {
        return Sources.isInstrument(source)
            && bench.kind(Sources.id(source)) == InstrumentKind.TESTED_RECEIVER;
      }

      @Override
      public List<Class<?>> described() {
        return List.of(ReceiverSettings.class, ReceiverSource.class);
      }

      @Override
      public Measuring<?> open(String source) {
        return new ReceiverMeasuring(Sources.id(source), bench, jobs);
      }
    };
  }

  @Bean
  SettingsFile.Checked checkedReceiver(Json json) {
    return new SettingsFile.Checked() {
      @Override
      public String kind() {
        return Reception.KIND;
      }

      @Override
      public Object checked(JsonNode settings) {
        return json.read(settings, ReceiverSettings.class).checked();
      }
    };
  }
}
