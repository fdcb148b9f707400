package rovnik.core.modulation.analysis;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
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
import rovnik.core.signal.BandTaker;
import rovnik.core.signal.DoubleTransforms;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.PlaneReadings;
import rovnik.core.uncertainty.UncertaintyBudget;
import rovnik.core.units.Frequency;

/**
 * What keyed frequency a record holds: the rate of its symbols from the line that the square of the
 * frequency's change has, its deviation from how far the frequency goes, its format by trying all.
 */
final class WhatKeyed {
  private static final int SYMBOLS = 2000;
  private static final int FEWEST = 100;

  /** The line stands so far above the median around it. */
  private static final double LINE = 40;

  /** A line at a part of the strongest one's frequency is the rate if it has this share. */
  private static final double FUNDAMENTAL = 0.5;

  private static final int LOWEST_PART = 4;

  /** The rate is looked for in these shares of the width. */
  private static final double NARROWEST = 0.04;

  private static final double WIDEST = 1.3;

  /** How much wider than what stands out the band is that is taken. */
  private static final double ROOM = 1.4;

  /** Errors of so many symbols scatter by one over the root of their number; so many scatters. */
  private static final double CLEARLY = 8;

  /** What stands out: so far above the floor, and at most so far below the highest, as powers. */
  private static final double ABOVE = 8;

  private static final double DOWN = 0.003;

  /** Variance of the power of an envelope that is steady but for noise and filters. */
  private static final double UNSTEADY = 0.15;

  /** A quarter of the rate, as deviation, within this share is least shift. */
  private static final double LEAST_SHIFT = 0.02;

  /** Products of bandwidth and symbol that are tried for a Gaussian filter. */
  private static final double[] PRODUCTS = {
    0.15, 0.2, 0.25, 0.3, 0.35, 0.4, 0.45, 0.5, 0.6, 0.7, 0.85, 1
  };

  private static final PulseShape RECTANGLE = new PulseShape(PulseShape.Kind.RECTANGULAR, 0);

  /** One format that was tried. */
  private record Tried(
      Format format, PulseShape filter, SingleCarrierMeasurement.Analysis analysis) {
    boolean fits() {
      return analysis != null;
    }

    double left() {
      return analysis.symbols().meanSquare();
    }

    String words() {
      return filter.kind() == PulseShape.Kind.GAUSSIAN
          ? String.format(Locale.ROOT, "%s, B T %.2g", format.label(), filter.parameter())
          : format.label();
    }
  }

  private final IqRecord record;
  private final MeasurementContext context;
  private final CarrierShape.Place place;
  private final double centreHz;
  private double rateHz;
  private double deviationHz;

  private WhatKeyed(
      IqRecord record, MeasurementContext context, CarrierShape.Place place, double centreHz) {
    this.record = record;
    this.context = context;
    this.place = place;
    this.centreHz = centreHz;
  }

  /** The answer; nothing if the envelope is not steady, or no keyed format fits. */
  static Optional<Outcome> of(
      IqRecord record, MeasurementContext context, CarrierShape.Place place, double centreHz) {
    WhatKeyed w = new WhatKeyed(record, context, wide(place), centreHz);
    return w.keyed() ? w.outcome() : Optional.empty();
  }

  /** All that stands out: the lobes of a frequency that goes far lie apart. */
  private static CarrierShape.Place wide(CarrierShape.Place place) {
    double[] raw = place.raw();
    double[] sorted = raw.clone();
    Arrays.sort(sorted);
    double edge = Math.max(ABOVE * sorted[sorted.length / 10], DOWN * sorted[sorted.length - 1]);
    int low = place.low();
    int high = place.high();
    for (int i = 0; i < raw.length; i++) {
      if (raw[i] > edge) {
        low = Math.min(low, i);
        high = Math.max(high, i);
      }
    }
    double sum = 0;
    double moment = 0;
    for (int i = low; i <= high; i++) {
      sum += raw[i];
      moment += raw[i] * i;
    }
    double cell = place.cellHz();
    return new CarrierShape.Place(
        place.startHz() + moment / sum * cell,
        (high - low + 1) * cell,
        place.samples(),
        cell,
        place.db(),
        raw,
        low,
        high);
  }

  /** Finds rate and deviation. */
  private boolean keyed() {
    double fs = record.sampleRateHz();
    BandTaker taker = new BandTaker(record.iq(), 0, place.samples(), fs);
    double half = Math.min(fs / 2, ROOM / 2 * place.widthHz());
    BandTaker.Band band = taker.take(place.offsetHz(), half, 8 * half, hz -> 1);
    int n = band.samples() - 1;
    if (n < FEWEST || !steady(band)) {
      return false;
    }
    double[] f = new double[n];
    double toHz = band.rateHz() / (2 * Math.PI);
    for (int i = 0; i < n; i++) {
      double c =
          band.re()[i + 1] * (double) band.re()[i] + band.im()[i + 1] * (double) band.im()[i];
      double s =
          band.im()[i + 1] * (double) band.re()[i] - band.re()[i + 1] * (double) band.im()[i];
      f[i] = toHz * Math.atan2(s, c);
    }
    double[] sorted = f.clone();
    Arrays.sort(sorted);
    deviationHz = (sorted[n - 1 - n / 50] - sorted[n / 50]) / 2;
    rateHz = rate(f, band.rateHz());
    return rateHz > 0 && place.samples() / fs * rateHz >= FEWEST;
  }

  private static boolean steady(BandTaker.Band band) {
    double mean = 0;
    double square = 0;
    int n = band.samples();
    for (int i = 0; i < n; i++) {
      double p = band.re()[i] * band.re()[i] + band.im()[i] * band.im()[i];
      mean += p / n;
      square += p * p / n;
    }
    return square - mean * mean < UNSTEADY * mean * mean;
  }

  /** The line of the square of the frequency's change, 0 if there is none. */
  private double rate(double[] f, double fs) {
    int n = f.length - 1;
    int length = Integer.highestOneBit(2 * n - 1);
    double[] p = new double[length];
    double mean = 0;
    for (int i = 0; i < n; i++) {
      double d = f[i + 1] - f[i];
      p[i] = d * d;
      mean += p[i] / n;
    }
    for (int i = 0; i < n; i++) {
      p[i] = (p[i] - mean) * (1 - Math.cos(2 * Math.PI * (i + 0.5) / n));
    }
    DoubleTransforms.of(length).realForward(p);
    double bin = fs / length;
    int first = Math.max(4, (int) (NARROWEST * place.widthHz() / bin));
    int last = (int) Math.min(length / 2.0 - 2, WIDEST * place.widthHz() / bin);
    if (last - first < 16) {
      return 0;
    }
    double[] level = new double[last + 2];
    for (int k = first - 1; k <= last + 1; k++) {
      level[k] = p[2 * k] * p[2 * k] + p[2 * k + 1] * p[2 * k + 1];
    }
    int best = first;
    for (int k = first; k <= last; k++) {
      best = level[k] > level[best] ? k : best;
    }
    double[] sorted = Arrays.copyOfRange(level, first, last + 1);
    Arrays.sort(sorted);
    if (!(level[best] > LINE * sorted[sorted.length / 2])) {
      return 0;
    }
    int lowest = best;
    for (int part = 2; part <= LOWEST_PART && best / part > first; part++) {
      int at = (int) Math.rint((double) best / part);
      for (int k = at - 1; k <= at + 1; k++) {
        lowest = level[k] > FUNDAMENTAL * level[best] ? k : lowest;
      }
    }
    double a = Math.sqrt(level[lowest - 1]);
    double b = Math.sqrt(level[lowest]);
    double c = Math.sqrt(level[lowest + 1]);
    double curve = a - 2 * b + c;
    return (lowest + (curve < 0 ? (a - c) / 2 / curve : 0)) * bin;
  }

  private Tried tried(Format format, PulseShape filter) {
    Tried first = tried(format, filter, deviationHz);
    // The deviation as it was found says better which filter was there.
    return first.fits() && !format.minimumShift()
        ? tried(format, filter, first.analysis().keying().deviationHz())
        : first;
  }

  private Tried tried(Format format, PulseShape filter, double deviation) {
    try {
      SingleCarrier c =
          new SingleCarrier(
              format,
              rateHz,
              filter,
              List.of(),
              Payload.of(Prbs.ofOrder(31)),
              Framing.NONE,
              format.minimumShift() ? 0 : deviation);
      SingleCarrierSettings s =
          new SingleCarrierSettings(
              c,
              record.centreHz() + place.offsetHz(),
              0,
              SYMBOLS,
              0,
              null,
              false,
              false,
              Double.NaN);
      SingleCarrierMeasurement.Analysis a =
          new SingleCarrierMeasurement(s).analyse(record, MeasurementContext.BARE);
      double shift = a.keying().deviationHz() / (rateHz / 4);
      boolean other = format.minimumShift() && Math.abs(shift - 1) > LEAST_SHIFT;
      return new Tried(format, filter, a.decisionsFail() || other ? null : a);
    } catch (Refusal r) {
      return new Tried(format, filter, null);
    }
  }

  private Optional<Outcome> outcome() {
    List<Tried> all = new ArrayList<>();
    all.add(tried(Format.MSK, RECTANGLE));
    for (double bt : new double[] {0.25, 0.3, 0.5}) {
      all.add(tried(Format.GMSK, new PulseShape(PulseShape.Kind.GAUSSIAN, bt)));
    }
    for (Format f : new Format[] {Format.FSK2, Format.FSK4, Format.FSK8}) {
      all.add(tried(f, RECTANGLE));
      all.add(tried(f, new PulseShape(PulseShape.Kind.GAUSSIAN, 0.5)));
    }
    List<Tried> fits =
        all.stream().filter(Tried::fits).sorted(Comparator.comparingDouble(this::rank)).toList();
    if (fits.isEmpty()) {
      return Optional.empty();
    }
    boolean gaussian = fits.get(0).filter().kind() == PulseShape.Kind.GAUSSIAN;
    if (gaussian) {
      fits = finer(fits);
    }
    SingleCarrierMeasurement.Analysis best = fits.get(0).analysis();
    double offset = best.symbols().frequencyHz();
    CarrierReadings carrier = new CarrierReadings(record, context, offset);
    List<Reading> readings = readings(carrier, best);
    if (gaussian) {
      double bt = fits.get(0).filter().parameter();
      readings.add(
          carrier
              .maker()
              .reading(
                  "bt",
                  "B T, nearest of those tried",
                  bt,
                  "",
                  new UncertaintyBudget().rectangular("steps", step(bt)),
                  Limit.NONE,
                  List.copyOf(context.marks())));
    }
    return Optional.of(
        new Outcome(
            WhatIsIt.KIND,
            WhatIsIt.TITLE,
            summary(fits, carrier.carrierHz(), readings.get(0).value()),
            List.of(
                CarrierShape.spectrum(
                    carrier.carrierHz() - offset + place.startHz(), place.cellHz(), place.db())),
            List.of(table(all, fits)),
            readings,
            List.copyOf(context.marks()),
            List.of()));
  }

  /** The same with the B T that leaves the least error in the first place. */
  private List<Tried> finer(List<Tried> fits) {
    Tried best = fits.get(0);
    for (double bt : PRODUCTS) {
      Tried t = tried(best.format(), new PulseShape(PulseShape.Kind.GAUSSIAN, bt));
      best = t.fits() && t.left() < best.left() ? t : best;
    }
    List<Tried> out = new ArrayList<>(fits);
    out.set(0, best);
    return out;
  }

  /** The wider of the two steps to the products beside one. */
  private static double step(double bt) {
    double widest = 0;
    for (int i = 1; i < PRODUCTS.length; i++) {
      boolean beside = PRODUCTS[i] == bt || PRODUCTS[i - 1] == bt;
      widest = beside ? Math.max(widest, PRODUCTS[i] - PRODUCTS[i - 1]) : widest;
    }
    return widest;
  }

  /** MSK is 2-FSK of a quarter of the rate: of two names the shorter description comes first. */
  private double rank(Tried t) {
    return t.left() * (t.format().minimumShift() ? 1 : 1.1);
  }

  private Reading reading(
      CarrierReadings carrier,
      String id,
      String label,
      double value,
      String unit,
      double standard) {
    PlaneReadings maker = carrier.maker();
    return maker.reading(
        id,
        label,
        value,
        unit,
        new UncertaintyBudget().normal("symbols", standard),
        Limit.NONE,
        List.copyOf(context.marks()));
  }

  private List<Reading> readings(CarrierReadings carrier, SingleCarrierMeasurement.Analysis best) {
    List<Reading> out = new ArrayList<>();
    Symbols s = best.symbols();
    double half = Math.max(1, s.count() - 1) / 2.0;
    double[] u = s.fit().standard();
    double rate = s.symbolRateHz();
    out.add(
        reading(
            carrier, "symbolRate", "Symbol rate", rate, "Hz", u[ErrorModel.CLOCK] / half * rate));
    Keying k = best.keying();
    out.add(
        reading(carrier, "deviation", "Deviation", k.deviationHz(), "Hz", k.deviationStandardHz()));
    double place = u[ErrorModel.FREQUENCY] / half / (2 * Math.PI) * rate;
    out.add(
        carrier.frequency("symbols", place, rate, centreHz, List.copyOf(context.marks())).get(0));
    return out;
  }

  private static ResultTable table(List<Tried> all, List<Tried> fits) {
    List<Row> rows = new ArrayList<>();
    for (Tried t : fits) {
      rows.add(row(t, 100 * Math.sqrt(t.left()), t == fits.get(0) ? "fits best" : "fits, too"));
    }
    for (Tried t : all) {
      if (!t.fits()) {
        rows.add(row(t, Double.NaN, "does not fit"));
      }
    }
    return new ResultTable(
        "formats",
        "Formats that were tried",
        List.of(
            new Column("Format", ""),
            new Column("EVM rms", "%"),
            new Column("", ""),
            new Column("Filter", "")),
        rows);
  }

  private static Row row(Tried t, double evm, String words) {
    return new Row(
        List.of(
            Cell.of(t.format().label()), Cell.of(evm), Cell.of(words), Cell.of(t.filter().words())),
        Verdict.NONE);
  }

  private String summary(List<Tried> fits, double carrierHz, double rate) {
    String what =
        String.format(
            Locale.ROOT,
            "%s at %s",
            Frequency.ofHertz(Double.parseDouble(String.format(Locale.ROOT, "%.5g", rate)))
                .toString()
                .replace("Hz", "sym/s"),
            Frequency.ofHertz(Math.rint(carrierHz)));
    Tried first = fits.get(0);
    double dev = first.analysis().keying().deviationHz();
    boolean same = Math.abs(dev / (rate / 4) - 1) < LEAST_SHIFT;
    Tried other =
        fits.stream()
            .filter(t -> t.format() != first.format())
            .filter(t -> !(same && t.format() == Format.FSK2))
            .findFirst()
            .orElse(null);
    boolean alone =
        other == null
            || other.left()
                > (1 + CLEARLY / Math.sqrt(first.analysis().symbols().count())) * first.left();
    String sure = alone ? "sure, no other format fits" : "open: " + other.words() + " fits as well";
    return String.format(
        Locale.ROOT,
        "%s, %s, deviation %s: %s.",
        first.words(),
        what,
        Frequency.ofHertz(Double.parseDouble(String.format(Locale.ROOT, "%.5g", dev))),
        sure);
  }
}
