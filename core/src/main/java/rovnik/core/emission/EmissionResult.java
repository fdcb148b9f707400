package rovnik.core.emission;

import java.util.List;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.result.Series;
import rovnik.core.spectrum.SpectrumResult;

/**
 * A spectrum with all that its view asked for.
 *
 * @param base trace, lines and readings; the readings asked for are among them
 * @param tables of segments, channels, lines
 * @param limitLines to be drawn over the trace, in its unit
 */
public record EmissionResult(
    SpectrumResult base, List<ResultTable> tables, List<Series> limitLines) {

  /** A spectrum and nothing else. */
  public static EmissionResult plain(SpectrumResult base) {
    return new EmissionResult(base, List.of(), List.of());
  }

  public List<Reading> readings() {
    return base.readings();
  }
}
