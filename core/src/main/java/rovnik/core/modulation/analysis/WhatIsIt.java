package rovnik.core.modulation.analysis;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import rovnik.core.Refusal;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.modulation.CarrierReadings;
import rovnik.core.modulation.Format;
import rovnik.core.modulation.Framing;
import rovnik.core.modulation.Payload;
import rovnik.core.modulation.Prbs;
import rovnik.core.modulation.PulseShape;
import rovnik.core.modulation.SingleCarrier;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.result.ResultTable.Cell;
import rovnik.core.result.ResultTable.Column;
import rovnik.core.result.ResultTable.Row;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.PlaneReadings;
import rovnik.core.uncertainty.UncertaintyBudget;
import rovnik.core.units.Frequency;

/**
 * What carrier with data a record holds: where it is and how wide, its symbol rate from the line of
 * its envelope, its roll-off from its spectrum, its format by trying all. Nothing is taken for
 * granted: formats that fit as well are named, and how sure the answer is.
 *
 * @param centreHz where it is looked for, at the reading plane; 0 for anywhere
 * @param bandHz how wide around there; 0 for all of the record
 */
public record WhatIsIt(double centreHz, double bandHz) {
  public static final String KIND = "what-is-it";
  public static final String TITLE = "What is it?";

  private static final int SYMBOLS = 2000;
  private static final int LEAST_SYMBOLS = 150;

  /** A second format this many times worse is none that one has to think of. */
  private static final double CLEARLY = 4;

  /** Steps of the roll-off in the two searches. */
  private static final double STEP = 0.01;

  /** What is left of the error, over that of no symbols at all, up to which it is worth naming. */
  private static final double WORTH = 0.3;

  private static final double FROM_SPECTRUM = 0.1;

  /** Share of the symbol rate that the middle of a spectrum is good to. */
  private static final double PLACE_FROM_SPECTRUM = 0.02;

  private static final double WIDE = 0.06;
  private static final double LOWEST = 0.05;
  private static final int STEPS = 5;

  private static final List<Format> FORMATS =
      List.of(
          Format.BPSK,
          Format.QPSK,
          Format.OFFSET_QPSK,
          Format.PI4_DQPSK,
          Format.PSK8,
          Format.APSK16,
          Format.QAM16,
          Format.APSK32,
          Format.QAM32,
          Format.QAM64,
          Format.QAM128,
          Format.QAM256,
          Format.QAM1024);

  public WhatIsIt {
    if (!(centreHz >= 0 && bandHz >= 0)) {
      throw new Refusal("bandHz", "Centre and band are 0 or more; 0 for all of the record.");
    }
  }

  /** One format that was tried. */
  private record Tried(Format format, double left, double evm, String why) {
    boolean fits() {
      return why.isEmpty();
    }
  }

  public Outcome of(IqRecord record, MeasurementContext context) {
    double near = CarrierReadings.expectedHz(record, context, centreHz);
    CarrierShape.Place place = CarrierShape.place(record, near, bandHz);
    // A steady envelope: it may be the frequency that is keyed.
    Optional<Outcome> keyed = WhatKeyed.of(record, context, place, centreHz);
    if (keyed.isPresent()) {
      return keyed.get();
    }
    CarrierShape shape = CarrierShape.of(record, place);
    List<Tried> all = new ArrayList<>();
    for (Format f : FORMATS) {
      all.add(tried(f, shape.symbolRateHz(), shape.rollOff(), record, shape.offsetHz()));
    }
    List<Tried> fits =
        all.stream().filter(Tried::fits).sorted(Comparator.comparingDouble(Tried::left)).toList();
    RollOff rollOff = new RollOff(shape.rollOff(), FROM_SPECTRUM);
    SingleCarrierMeasurement.Analysis best = null;
    if (!fits.isEmpty()) {
      rollOff = finer(fits.get(0).format(), shape, record);
      best =
          analysed(
                  fits.get(0).format(),
                  shape.symbolRateHz(),
                  rollOff.value(),
                  record,
                  shape.offsetHz())
              .orElse(null);
    }
    return outcome(record, context, shape, all, fits, rollOff, best);
  }

  private static SingleCarrier carrier(Format f, double rate, double rollOff) {
    return new SingleCarrier(
        f,
        rate,
        PulseShape.rootRaisedCosine(rollOff),
        List.of(),
        Payload.of(Prbs.ofOrder(31)),
        Framing.NONE);
  }

  private static SingleCarrierMeasurement.Analysis analyse(
      Format f, double rate, double rollOff, IqRecord record, double offsetHz) {
    SingleCarrierSettings s =
        new SingleCarrierSettings(
            carrier(f, rate, rollOff),
            record.centreHz() + offsetHz,
            0,
            SYMBOLS,
            0,
            null,
            false,
            false,
            Double.NaN);
    return new SingleCarrierMeasurement(s).analyse(record, MeasurementContext.BARE);
  }

  private static Optional<SingleCarrierMeasurement.Analysis> analysed(
      Format f, double rate, double rollOff, IqRecord record, double offsetHz) {
    try {
      return Optional.of(analyse(f, rate, rollOff, record, offsetHz));
    } catch (Refusal r) {
      return Optional.empty();
    }
  }

  private static Tried tried(
      Format f, double rate, double rollOff, IqRecord record, double offsetHz) {
    try {
      Symbols s = analyse(f, rate, rollOff, record, offsetHz).symbols();
      double idle = FormatCheck.idle(f.constellation());
      return new Tried(f, s.meanSquare() / idle, 100 * Math.sqrt(s.meanSquare()), "");
    } catch (Refusal r) {
      return new Tried(f, Double.NaN, Double.NaN, "does not fit");
    }
  }

  /**
   * A roll-off.
   *
   * @param reach how far from it the error is not clearly more
   */
  private record RollOff(double value, double reach) {}

  /** The roll-off that leaves the least error, first in wide steps, then in narrow ones. */
  private static RollOff finer(Format f, CarrierShape shape, IqRecord record) {
    TreeMap<Double, Double> left = new TreeMap<>();
    double coarse = least(f, shape, record, shape.rollOff(), WIDE, left);
    double best = least(f, shape, record, coarse, STEP, left);
    double allowed = left.get(best) * (1 + 2 / Math.sqrt(Math.min(SYMBOLS, shape.symbols())));
    double reach = STEP;
    for (var e : left.entrySet()) {
      reach = e.getValue() <= allowed ? Math.max(reach, Math.abs(e.getKey() - best)) : reach;
    }
    return new RollOff(best, reach);
  }

  private static double least(
      Format f,
      CarrierShape shape,
      IqRecord record,
      double around,
      double step,
      Map<Double, Double> left) {
    double best = around;
    double least = Double.POSITIVE_INFINITY;
    for (int i = -STEPS; i <= STEPS; i++) {
      double a = Math.rint(100 * (around + i * step)) / 100;
      if (a < LOWEST || a > 1) {
        continue;
      }
      double now =
          analysed(f, shape.symbolRateHz(), a, record, shape.offsetHz())
              .map(x -> x.symbols().meanSquare())
              .orElse(Double.POSITIVE_INFINITY);
      left.put(a, now);
      if (now < least) {
        least = now;
        best = a;
      }
    }
    left.putIfAbsent(best, least);
    return best;
  }

  private Outcome outcome(
      IqRecord record,
      MeasurementContext context,
      CarrierShape shape,
      List<Tried> all,
      List<Tried> fits,
      RollOff rollOff,
      SingleCarrierMeasurement.Analysis best) {
    double rate = best == null ? shape.symbolRateHz() : best.symbols().symbolRateHz();
    double half = best == null ? 1 : Math.max(1, best.symbols().count() - 1) / 2.0;
    double[] standard = best == null ? null : best.symbols().fit().standard();
    double ofRate =
        best == null
            ? shape.symbolRateUncertaintyHz() / UncertaintyBudget.K
            : standard[ErrorModel.CLOCK] / half * rate;
    double ofPlace =
        best == null
            ? shape.symbolRateHz() * PLACE_FROM_SPECTRUM / UncertaintyBudget.K
            : standard[ErrorModel.FREQUENCY] / half / (2 * Math.PI) * rate;
    double offset = best == null ? shape.offsetHz() : best.symbols().frequencyHz();
    CarrierReadings carrier = new CarrierReadings(record, context, offset);
    double carrierHz = carrier.carrierHz();
    PlaneReadings maker = carrier.maker();
    double relative = context.accuracy().frequencyRelative();
    List<String> marks = List.copyOf(context.marks());
    List<Reading> readings = new ArrayList<>();
    readings.add(
        maker.reading(
            "symbolRate",
            "Symbol rate",
            rate,
            "Hz",
            new UncertaintyBudget()
                .rectangular("reference", Double.isNaN(relative) ? 0 : relative * rate)
                .normal("symbols", ofRate),
            Limit.NONE,
            marks));
    readings.add(
        maker.reading(
            "rollOff",
            "Roll-off, if root-raised cosine",
            rollOff.value(),
            "",
            new UncertaintyBudget().normal("symbols", rollOff.reach() / UncertaintyBudget.K),
            Limit.NONE,
            marks));
    readings.add(carrier.frequency("symbols", ofPlace, rate, centreHz, marks).get(0));
    return new Outcome(
        KIND,
        TITLE,
        summary(fits, rate, rollOff.value(), carrierHz, shape),
        List.of(
            CarrierShape.spectrum(
                carrierHz - offset + shape.startHz(), shape.stepHz(), shape.db())),
        List.of(table(all, fits)),
        readings,
        marks,
        List.of());
  }

  private static ResultTable table(List<Tried> all, List<Tried> fits) {
    List<Row> rows = new ArrayList<>();
    for (Tried t : fits) {
      rows.add(row(t, t == fits.get(0) ? "fits best" : "fits, too"));
    }
    for (Tried t : all) {
      if (!fits.contains(t)) {
        rows.add(row(t, t.fits() ? "hardly fits" : t.why()));
      }
    }
    return new ResultTable(
        "formats",
        "Formats that were tried",
        List.of(new Column("Format", ""), new Column("EVM rms", "%"), new Column("", "")),
        rows);
  }

  private static Row row(Tried t, String words) {
    return new Row(
        List.of(Cell.of(t.format().label()), Cell.of(t.evm()), Cell.of(words)), Verdict.NONE);
  }

  private static String summary(
      List<Tried> fits, double rate, double rollOff, double carrierHz, CarrierShape shape) {
    String what =
        String.format(
            Locale.ROOT,
            "%s at %s, roll-off %.2f",
            Frequency.ofHertz(Double.parseDouble(String.format(Locale.ROOT, "%.5g", rate)))
                .toString()
                .replace("Hz", "sym/s"),
            Frequency.ofHertz(Math.rint(carrierHz)),
            rollOff);
    if (fits.isEmpty()) {
      return "A carrier with "
          + what
          + ", but none of the formats that are known here fits. It may have another filter or"
          + " mapping, a burst, or too little signal over noise.";
    }
    Tried first = fits.get(0);
    boolean alone = fits.size() == 1 || fits.get(1).left() > CLEARLY * first.left();
    boolean enough = shape.symbols() >= LEAST_SYMBOLS;
    String sure =
        !alone
            ? "open: " + fits.get(1).format().label() + " fits as well"
            : enough && first.left() < 0.1
                ? "sure, no other format fits"
                : "likely; a longer record or more signal over noise would tell";
    String twin =
        first.format() == Format.PSK8
            ? " D8PSK has the same points."
            : first.format() == Format.QPSK ? " Whether it is differential is not known." : "";
    return first.format().label() + ", " + what + ": " + sure + "." + twin;
  }
}
