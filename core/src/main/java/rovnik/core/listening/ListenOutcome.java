package rovnik.core.listening;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import rovnik.core.modulation.CarrierReadings;
import rovnik.core.result.Outcome;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.Sound;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.PlacedSeries;
import rovnik.core.units.Frequency;
import rovnik.core.units.Seconds;

/** What was heard: in words, and with its readings, passages and curves. */
final class ListenOutcome {
  /** A carrier makes noise less by this at least. */
  private static final double NO_CARRIER_DB = 3;

  private final ListenSettings settings;
  private final IqRecord record;
  private final MeasurementContext context;
  private final double nearHz;
  private final double startSeconds;
  private final Heard heard;
  private final Optional<HeardTone> tone;

  ListenOutcome(
      ListenSettings settings,
      IqRecord record,
      MeasurementContext context,
      Demodulator demodulator,
      double nearHz,
      double startSeconds) {
    this.settings = settings;
    this.record = record;
    this.context = context;
    this.nearHz = nearHz;
    this.startSeconds = startSeconds;
    double addDb = new CarrierReadings(record, context, nearHz).referredDb();
    this.heard = new Heard(settings, demodulator, addDb);
    this.tone = HeardTone.of(heard);
  }

  Sound sound() {
    return new Sound(heard.sound, heard.d.soundRateHz());
  }

  private String unit() {
    return record.calibrated() ? "dBm" : "dBFS";
  }

  Outcome outcome() {
    CarrierReadings carrier = new CarrierReadings(record, context, nearHz + heard.carrierHz());
    ListenSeries drawn =
        new ListenSeries(heard, tone, PlacedSeries.of(record, context), startSeconds, unit());
    return new Outcome(
        ListenMeasurement.KIND,
        ListenMeasurement.TITLE,
        summary(),
        drawn.series(),
        heard.passages.isEmpty() ? List.of() : List.of(drawn.table()),
        new ListenReadings(heard, tone, context, carrier, unit()).readings(),
        List.copyOf(carrier.maker().levelMarks()),
        List.of());
  }

  private String summary() {
    Squelch squelch = settings.squelch();
    if (heard.passages.isEmpty()) {
      return "Silent: the squelch stayed closed. " + why(squelch);
    }
    boolean always = squelch.by() == Squelch.By.NONE;
    StringBuilder out = new StringBuilder(settings.mode().label());
    out.append(
        always
            ? String.format(Locale.ROOT, ", %s.", Seconds.words(heard.seconds()))
            : String.format(
                Locale.ROOT,
                ", open for %s of %s.",
                Seconds.words(heard.open() * heard.d.slotSeconds()),
                Seconds.words(heard.seconds())));
    out.append(
        tone.filter(HeardTone::found)
            .map(
                t ->
                    String.format(
                        Locale.ROOT,
                        " Heard: a tone of %s, SINAD %.1f dB.",
                        Frequency.ofHertz(rounded(t.fit.rateHz())),
                        t.figures().sinadDb()))
            .orElse(" No single tone stands out of what is heard."));
    heard
        .squelchTone()
        .ifPresent(
            t -> out.append(String.format(Locale.ROOT, " Tone squelch %.1f Hz.", t.nominalHz())));
    if (settings.mode() == Mode.FM && always && heard.quietingDb() < NO_CARRIER_DB) {
      out.append(" This is noise: no carrier quiets it. Check the frequency and the source.");
    }
    return out.toString();
  }

  /** How far it stayed below what opens it. */
  private String why(Squelch squelch) {
    return switch (squelch.by()) {
      case NONE -> "The record is too short.";
      case LEVEL ->
          String.format(
              Locale.ROOT,
              "The highest level is %.1f %s; it opens at %.1f.",
              Gate.levelDb(heard.d.powers.most()) + heard.addDb,
              unit(),
              squelch.value());
      case QUIETING ->
          String.format(
              Locale.ROOT,
              "The most quieting is %.1f dB; it opens at %.1f.",
              heard.quietingDb(heard.d.bends.least()),
              squelch.value());
      case TONE ->
          String.format(Locale.ROOT, "No tone of %.1f Hz was there.", squelch.value())
              + heard
                  .squelchTone()
                  .map(t -> String.format(Locale.ROOT, " There is one of %.1f Hz.", t.nominalHz()))
                  .orElse("");
    };
  }

  private static double rounded(double hz) {
    return Double.parseDouble(String.format(Locale.ROOT, "%.4g", hz));
  }
}
