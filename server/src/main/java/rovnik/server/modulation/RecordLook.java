package rovnik.server.modulation;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import rovnik.core.Refusal;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.Sound;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.server.live.Look;

/**
 * One record and what was measured of it.
 *
 * @param sound what can be heard of it
 * @param refused why there is no result of this record; "" if there is one
 * @param field of the settings that the refusal is about
 * @param settled all that the settings ask for is in it
 */
record RecordLook(
    Outcome outcome,
    @Nullable IqRecord record,
    Facts facts,
    Optional<Sound> sound,
    String refused,
    String field,
    boolean settled)
    implements Look {
  private static final String EARLIER = "of an earlier record";

  /**
   * How it was acquired.
   *
   * @param attenuationDb of the receiver, null for a recording
   * @param fittingReferenceDbm reference level that the highest level of this record asks for, at
   *     the reading plane; null for a recording
   */
  @Schema(name = "RecordFacts")
  record Facts(
      double sampleRateHz,
      long samples,
      @Nullable Double attenuationDb,
      @Nullable Double fittingReferenceDbm) {}

  /**
   * What the screen needs beside the outcome.
   *
   * @param refused why there is no result of the newest record, "" if there is one
   * @param field of the settings that it is about
   */
  @Schema(name = "RecordView")
  record View(Facts facts, String refused, String field) {}

  @Override
  public Outcome shown() {
    return outcome;
  }

  @Override
  public Object view() {
    return new View(facts, refused, field);
  }

  @Override
  public boolean readable() {
    return true;
  }

  /**
   * Measures a record with those before; where that cannot be done, the last result goes on, marked
   * as such.
   */
  static RecordLook of(
      RecordMeasurement measurement,
      RecordMeasurement.Gathering gathering,
      IqRecord record,
      MeasurementContext context,
      Facts facts,
      @Nullable RecordLook last) {
    try {
      Outcome all = gathering.add(record, context);
      return new RecordLook(all, record, facts, gathering.sound(), "", "", true);
    } catch (Refusal r) {
      Outcome before = last == null ? nothing(measurement) : last.outcome;
      return new RecordLook(
          earlier(before, r.getMessage()),
          record,
          facts,
          Optional.empty(),
          r.getMessage(),
          r.field(),
          true);
    }
  }

  /** The same, of a longer record than the last that was taken. */
  RecordLook of(IqRecord longer, @Nullable Double fittingReferenceDbm) {
    Facts of =
        new Facts(
            facts.sampleRateHz(), longer.sampleCount(), facts.attenuationDb(), fittingReferenceDbm);
    return new RecordLook(outcome, longer, of, sound, refused, field, settled);
  }

  /** The same, with another outcome, of which there is more to come or not. */
  RecordLook with(Outcome other, boolean all) {
    return new RecordLook(other, record, facts, sound, refused, field, all);
  }

  private static Outcome nothing(RecordMeasurement m) {
    return new Outcome(
        m.kind(), m.title(), "", List.of(), List.of(), List.of(), List.of(), List.of());
  }

  private static Outcome earlier(Outcome o, String sentence) {
    return new Outcome(
        o.kind(),
        o.title(),
        sentence,
        o.series(),
        o.tables(),
        o.readings().stream().map(RecordLook::earlier).toList(),
        o.marks().contains(EARLIER) ? o.marks() : with(o.marks()),
        o.spoiled());
  }

  private static Reading earlier(Reading r) {
    return r.marks().contains(EARLIER)
        ? r
        : new Reading(
            r.id(),
            r.label(),
            r.value(),
            r.unit(),
            r.plane(),
            r.uncertainty(),
            r.contributions(),
            Limit.NONE,
            Verdict.NONE,
            with(r.marks()));
  }

  private static List<String> with(List<String> marks) {
    List<String> all = new ArrayList<>(marks);
    all.add(EARLIER);
    return List.copyOf(all);
  }
}
