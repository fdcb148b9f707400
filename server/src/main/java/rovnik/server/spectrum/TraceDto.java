package rovnik.server.spectrum;

import io.swagger.v3.oas.annotations.media.Schema;
import rovnik.core.spectrum.Trace;

/** A trace on an even grid. */
@Schema(name = "Trace")
public record TraceDto(
    double startHz,
    double stepHz,
    float[] level,
    String unit,
    String plane,
    double rbwHz,
    double enbwHz,
    int segments,
    String window,
    String detector) {

  public static TraceDto of(Trace t) {
    return new TraceDto(
        t.startHz(),
        t.stepHz(),
        t.level(),
        t.unit(),
        t.plane(),
        t.rbwHz(),
        t.enbwHz(),
        t.segments(),
        t.window(),
        t.detector());
  }
}
