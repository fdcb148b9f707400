package rovnik.server.analyzer;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import rovnik.core.network.SweepSettings;

/** A sweep as sent and stored; see SweepSettings. */
@Schema(name = "SweepSettings")
record SweepDto(
    double startHz,
    double stopHz,
    int points,
    SweepSettings.Type type,
    List<SegmentDto> segments,
    double bandwidthHz,
    int averages,
    double powerDbm,
    boolean bothPorts) {

  /** One stretch of even steps. */
  @Schema(name = "SweepSegment")
  record SegmentDto(double startHz, double stopHz, int points) {}

  static SweepDto of(SweepSettings s) {
    return new SweepDto(
        s.startHz(),
        s.stopHz(),
        s.points(),
        s.type(),
        s.segments().stream()
            .map(x -> new SegmentDto(x.startHz(), x.stopHz(), x.points()))
            .toList(),
        s.bandwidthHz(),
        s.averages(),
        s.powerDbm(),
        s.bothPorts());
  }

  SweepSettings toCore() {
    return new SweepSettings(
        startHz,
        stopHz,
        points,
        type,
        segments == null
            ? List.of()
            : segments.stream()
                .map(x -> new SweepSettings.Segment(x.startHz(), x.stopHz(), x.points()))
                .toList(),
        bandwidthHz,
        averages,
        powerDbm,
        bothPorts);
  }
}
