package rovnik.server.results;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import rovnik.core.limits.Verdict;
import rovnik.core.result.Outcome;
import rovnik.core.result.Series;
import rovnik.core.result.SpoiledBand;

/**
 * What a measurement led to.
 *
 * @param kind of the measurement, such as "spectrum"
 * @param summary one sentence, "" where the numbers speak
 * @param series the first of role DATA is the main one
 * @param marks why nothing of it must be trusted
 * @param spoiled stretches that must not be trusted
 * @param verdict worst of the readings
 */
@Schema(name = "Outcome")
public record OutcomeDto(
    String kind,
    String title,
    String summary,
    List<SeriesDto> series,
    List<TableDto> tables,
    List<ReadingDto> readings,
    List<String> marks,
    List<SpoiledBand> spoiled,
    Verdict verdict,
    String verdictText) {

  /** With all arrays. */
  public static OutcomeDto whole(Outcome o) {
    return of(o, o.series().stream().map(SeriesDto::whole).toList());
  }

  /** Without arrays, which go beside it. */
  public static OutcomeDto head(Outcome o) {
    return of(o, o.series().stream().map(SeriesDto::head).toList());
  }

  private static OutcomeDto of(Outcome o, List<SeriesDto> series) {
    Verdict verdict = o.verdict();
    return new OutcomeDto(
        o.kind(),
        o.title(),
        o.summary(),
        series,
        o.tables().stream().map(TableDto::of).toList(),
        o.readings().stream().map(ReadingDto::of).toList(),
        o.marks(),
        o.spoiled(),
        verdict,
        verdict.label());
  }

  /** The outcome again, with its arrays from elsewhere. */
  public Outcome toCore(SeriesDto.Arrays arrays) {
    return new Outcome(
        kind,
        title,
        summary,
        series.stream().map(s -> s.toCore(arrays)).toList(),
        tables.stream().map(TableDto::toCore).toList(),
        readings.stream().map(ReadingDto::toCore).toList(),
        marks,
        spoiled);
  }

  /** Arrays of a series with the names that they have beside it. */
  public static void forEachArray(Series s, ArrayTaker taker) {
    if (s.x().own() != null) {
      taker.take(s.id() + ".x", s.x().own());
    }
    if (s.values() instanceof rovnik.core.result.Values.Real r) {
      taker.take(s.id() + ".y", r.y());
    } else if (s.values() instanceof rovnik.core.result.Values.Complex c) {
      taker.take(s.id() + ".re", c.re());
      taker.take(s.id() + ".im", c.im());
    } else if (s.values() instanceof rovnik.core.result.Values.Matrix m) {
      taker.take(s.id() + ".z", m.z());
    }
  }

  /** Takes arrays one by one; each is a {@code double[]} or a {@code float[]}. */
  public interface ArrayTaker {
    void take(String name, Object array);
  }
}
