package rovnik.server.modulation;

import java.util.List;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import rovnik.server.receiver.ReceiverWorks;

/** What is measured of modulation in single records. */
@Configuration
class ModulationKinds {
  @Bean
  RecordKind<CarrierSettingsDto> singleCarrier(RecordKind.Parts parts) {
    return new RecordKind<>(CarrierSettingsDto.FIRST, CarrierWorks.ALL, parts);
  }

  @Bean
  RecordKind<AnalogSettingsDto> analog(RecordKind.Parts parts) {
    return new RecordKind<>(
        AnalogSettingsDto.FIRST,
        List.of(ReceiverWorks.LEVEL_RUN, ReceiverWorks.SENSITIVITY),
        parts);
  }

  @Bean
  RecordKind<OfdmSettingsDto> ofdm(RecordKind.Parts parts) {
    return new RecordKind<>(OfdmSettingsDto.FIRST, List.of(), parts);
  }
}
