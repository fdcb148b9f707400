package rovnik.server.time;

import java.util.List;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import rovnik.server.modulation.RecordKind;

/** What is measured of things that come and go. */
@Configuration
class TimeKinds {
  @Bean
  RecordKind<BurstSettingsDto> bursts(RecordKind.Parts parts) {
    return new RecordKind<>(BurstSettingsDto.FIRST, List.of(), parts);
  }

  @Bean
  RecordKind<AmplitudeSettingsDto> amplitude(RecordKind.Parts parts) {
    return new RecordKind<>(AmplitudeSettingsDto.FIRST, List.of(), parts);
  }

  @Bean
  RecordKind<HopSettingsDto> hops(RecordKind.Parts parts) {
    return new RecordKind<>(HopSettingsDto.FIRST, List.of(), parts);
  }

  @Bean
  RecordKind<ChannelSettingsDto> channels(RecordKind.Parts parts) {
    return new RecordKind<>(ChannelSettingsDto.FIRST, List.of(), parts);
  }

  @Bean
  RecordKind<ListenSettingsDto> audio(RecordKind.Parts parts) {
    return new RecordKind<>(ListenSettingsDto.FIRST, List.of(), parts);
  }

  @Bean
  RecordKind<TriggerSettingsDto> trigger(RecordKind.Parts parts) {
    return new RecordKind<>(TriggerSettingsDto.FIRST, List.of(), parts);
  }

  @Bean
  RecordKind<SpectrogramSettingsDto> spectrogram(RecordKind.Parts parts) {
    return new RecordKind<>(SpectrogramSettingsDto.FIRST, List.of(), parts);
  }

  @Bean
  RecordKind<DensitySettingsDto> density(RecordKind.Parts parts) {
    return new RecordKind<>(DensitySettingsDto.FIRST, List.of(), parts);
  }

  @Bean
  RecordKind<NetSettingsDto> nets(RecordKind.Parts parts) {
    return new RecordKind<>(NetSettingsDto.FIRST, List.of(), parts);
  }

  @Bean
  RecordKind<PlaceSettingsDto> places(RecordKind.Parts parts) {
    return new RecordKind<>(PlaceSettingsDto.FIRST, List.of(), parts);
  }
}
