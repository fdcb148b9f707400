package rovnik.core.modulation.analysis;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.hipparchus.util.KthSelector;
import rovnik.core.limits.Limit;
import rovnik.core.modulation.CarrierReadings;
import rovnik.core.modulation.Framing;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.Products;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.PlaneReadings;
import rovnik.core.uncertainty.SquareScatter;
import rovnik.core.uncertainty.UncertaintyBudget;

/** Readings and tables of one carrier. */
final class SingleCarrierOutcome {
  private final SingleCarrierSettings settings;
  private final IqRecord record;
  private final MeasurementContext context;
  private final SingleCarrierMeasurement.Analysis a;
  private final Symbols s;
  private final int n;
  private final SymbolErrors errors;
  private final double scale;
  private final CarrierReadings carrier;
  private final PlaneReadings maker;

  SingleCarrierOutcome(
      SingleCarrierSettings settings,
      IqRecord record,
      MeasurementContext context,
      SingleCarrierMeasurement.Analysis a) {
    this.settings = settings;
    this.record = record;
    this.context = context;
    this.a = a;
    this.s = a.symbols();
    this.n = s.count();
    this.errors = SymbolErrors.of(s);
    this.scale = 100 / (settings.toPeak() ? settings.carrier().constellation().largest() : 1);
    this.carrier = new CarrierReadings(record, context, s.frequencyHz());
    this.maker = carrier.maker();
  }

  Outcome outcome() {
    List<Reading> readings = readings();
    return new Outcome(
        SingleCarrierMeasurement.KIND,
        SingleCarrierMeasurement.TITLE,
        summary(readings.get(0)),
        new SingleCarrierSeries(record, context.correction(), a, errors, scale).series(),
        tables(),
        readings,
        List.copyOf(maker.levelMarks()),
        List.of());
  }

  private String summary(Reading evm) {
    StringBuilder words = new StringBuilder();
    words.append(
        String.format(
            Locale.ROOT,
            "%s: EVM %.3g %% over %d symbols",
            settings.carrier().words(),
            evm.value(),
            n));
    words.append(a.causes().all().words());
    words.append('.');
    if (a.data().isEmpty()
        && !settings.carrier().format().differential()
        && settings.carrier().format().symmetry() > 1) {
      words.append(" What was sent was not found: which axis is I is not known.");
      Framing f = settings.carrier().framing();
      int whole = f.everySymbols() + f.symbols(settings.carrier().constellation().bitsPerSymbol());
      if (!f.none() && n < whole) {
        words.append(" Only ").append(whole).append(" symbols or more always hold the known word.");
      }
    }
    return words.toString();
  }

  // Readings

  private List<Reading> readings() {
    List<String> own = new ArrayList<>();
    own.addAll(context.marks());
    List<String> ofError = new ArrayList<>(own);
    if (a.decisionsFail()) {
      ofError.add("many symbols are decided wrongly, so errors read low: give the known data");
    }
    List<Reading> out = new ArrayList<>();
    double rms = Math.sqrt(s.meanSquare());
    double evm = scale * rms;
    out.add(
        maker.reading(
            "evm",
            settings.toPeak() ? "EVM rms, of the outermost point" : "EVM rms",
            evm,
            "%",
            new UncertaintyBudget().normal("symbols", evm * relativeOfVector()),
            new Limit(Double.NaN, settings.evmLimitPercent()),
            ofError));
    int worst = 0;
    for (int k = 1; k < n; k++) {
      worst = errors.vector()[k] > errors.vector()[worst] ? k : worst;
    }
    double[] reordered = errors.vector().clone();
    // The largest of n Rayleigh-distributed errors scatters as Gumbel's distribution does.
    double ofLargest = Math.PI / Math.sqrt(6) / Math.sqrt(2 * Math.log(n)) / Math.sqrt(2);
    out.add(
        of(
            "evmPeak",
            "EVM peak, at symbol " + worst,
            scale * errors.vector()[worst],
            "%",
            evm * ofLargest,
            ofError));
    out.add(
        of(
            "evm95",
            "EVM, 95 of 100 symbols below",
            scale * quantile(reordered, 0.95),
            "%",
            scale * ofQuantile(reordered, 0.95),
            ofError));
    double mer = -20 * Math.log10(rms);
    out.add(
        maker.reading(
            "mer",
            "MER",
            mer,
            "dB",
            new UncertaintyBudget().normal("symbols", 20 / Math.log(10) * relativeOfVector()),
            Limit.NONE,
            ofError));
    double magnitude = scale * rms(errors.magnitude());
    out.add(
        of(
            "magnitudeError",
            "Magnitude error rms",
            magnitude,
            "%",
            magnitude * relative(errors.magnitude()),
            ofError));
    double phase = Math.toDegrees(phaseRms());
    out.add(
        of(
            "phaseError",
            "Phase error rms",
            phase,
            "deg",
            phase * relative(errors.angle()),
            ofError));
    frequency(out, own);
    levels(out);
    if (a.keying() != null) {
      keying(out, own);
    }
    impairments(out, own);
    double rho = rho();
    out.add(of("rho", "Rho", rho, "", 2 * (1 - rho) * relativeOfVector(), ofError));
    bits(out, own);
    return out;
  }

  private Reading of(
      String id, String label, double value, String unit, double standard, List<String> marks) {
    return maker.reading(
        id,
        label,
        value,
        unit,
        new UncertaintyBudget().normal("symbols", standard),
        Limit.NONE,
        marks);
  }

  /** Puts values into another order. */
  private static double quantile(double[] x, double share) {
    int at = (int) Math.max(0, Math.min(x.length - 1, Math.ceil(share * x.length) - 1));
    return new KthSelector().select(x, null, at);
  }

  /** Standard deviation of a quantile, from those that so many symbols more or fewer would give. */
  private static double ofQuantile(double[] x, double share) {
    double away = Math.sqrt(share * (1 - share) / x.length);
    // Over twice the width, so that the few values there do not scatter much themselves.
    return (quantile(x, share + 2 * away) - quantile(x, share - 2 * away)) / 4;
  }

  private static double rms(double[] x) {
    return Math.sqrt(Products.sum(x, 0, x, 0, x.length) / x.length);
  }

  /** Angles of points near 0 say nothing: weighed by the ideal point's power. */
  private double phaseRms() {
    double sum = 0;
    double all = 1e-300;
    for (int k = 0; k < n; k++) {
      double w = errors.reference()[k] * errors.reference()[k];
      sum += w * errors.angle()[k] * errors.angle()[k];
      all += w;
    }
    return Math.sqrt(sum / all);
  }

  /** Standard deviation of an rms as a share of itself, from how the squares scatter. */
  private double relative(double[]... parts) {
    // What was fitted is missing in the errors.
    double freedom = Math.max(1, n - ErrorModel.ALL);
    return SquareScatter.widened(SquareScatter.perValue(parts), freedom) / 2;
  }

  /** Of the whole error: along the ideal point, and across. */
  private double relativeOfVector() {
    double[] across = new double[n];
    for (int k = 0; k < n; k++) {
      across[k] = errors.angle()[k] * errors.reference()[k];
    }
    return relative(errors.magnitude(), across);
  }

  private double rho() {
    double re = 0;
    double im = 0;
    double z = 0;
    double u = 0;
    for (int k = 0; k < n; k++) {
      double a1 = s.ideal().i()[k];
      double b1 = s.ideal().q()[k];
      re += s.re()[k] * a1 + s.im()[k] * b1;
      im += s.im()[k] * a1 - s.re()[k] * b1;
      z += s.re()[k] * s.re()[k] + s.im()[k] * s.im()[k];
      u += a1 * a1 + b1 * b1;
    }
    return (re * re + im * im) / (z * u);
  }

  /** How much wider than for white errors a mean over time scatters: the errors of whole blocks. */
  private double correlated() {
    int block = Math.max(8, n / 32);
    int blocks = n / block;
    if (blocks < 8) {
      return 1;
    }
    double white = 0;
    double ofBlocks = 0;
    for (int b = 0; b < blocks; b++) {
      double mean = 0;
      for (int k = b * block; k < (b + 1) * block; k++) {
        mean += errors.angle()[k] / block;
        white += errors.angle()[k] * errors.angle()[k];
      }
      ofBlocks += mean * mean;
    }
    return Math.sqrt(Math.max(1, block * (ofBlocks / blocks) / (white / blocks / block)));
  }

  private void frequency(List<Reading> out, List<String> marks) {
    double half = Math.max(1, n - 1) / 2.0;
    double standardHz =
        correlated()
            * s.fit().standard()[ErrorModel.FREQUENCY]
            / half
            / (2 * Math.PI)
            * s.symbolRateHz();
    double relative = context.accuracy().frequencyRelative();
    out.addAll(
        carrier.frequency("symbols", standardHz, s.symbolRateHz(), settings.centreHz(), marks));
    double clock = s.fit().standard()[ErrorModel.CLOCK] / half;
    out.add(
        maker.reading(
            "symbolRateError",
            "Symbol rate error",
            (s.symbolRateHz() / settings.carrier().symbolRateHz() - 1) * 1e6,
            "ppm",
            new UncertaintyBudget()
                .rectangular("reference", Double.isNaN(relative) ? 0 : relative * 1e6)
                .normal("symbols", clock * 1e6),
            Limit.NONE,
            marks));
  }

  private void levels(List<Reading> out) {
    double gain = s.fit().standard()[ErrorModel.GAIN];
    double db = 10 * Math.log10(a.recovery().power(s));
    out.add(carrier.power(db, 20 / Math.log(10) * gain));
  }

  /** Deviation, and how well symbols keep their levels. */
  private void keying(List<Reading> out, List<String> marks) {
    Keying k = a.keying();
    double told = settings.carrier().deviationHz();
    out.add(of("deviation", "Deviation", k.deviationHz(), "Hz", k.deviationStandardHz(), marks));
    out.add(
        of(
            "deviationError",
            "Deviation error",
            100 * (k.deviationHz() / told - 1),
            "%",
            100 * k.deviationStandardHz() / told,
            marks));
    double[] error = new double[n];
    for (int i = 0; i < n; i++) {
      error[i] = k.levelHz()[i] - k.idealHz()[i];
    }
    double rms = 100 * k.error();
    out.add(of("fskError", "FSK error rms", rms, "%", rms * relative(error), marks));
  }

  private void impairments(List<Reading> out, List<String> marks) {
    double[] v = a.causes().linear();
    double[] u = a.causes().standard();
    double leak = Math.hypot(v[ErrorModel.LEAK_I], v[ErrorModel.LEAK_Q]);
    double leakU = Math.max(u[ErrorModel.LEAK_I], u[ErrorModel.LEAK_Q]);
    List<String> ofLeak = new ArrayList<>(marks);
    if (leak < 2 * leakU) {
      ofLeak.add("lost in noise: this is about the most it can be");
    }
    out.add(
        maker.reading(
            "iqOffset",
            "Carrier leakage",
            20 * Math.log10(Math.max(leak, leakU)),
            "dBc",
            new UncertaintyBudget()
                .normal("symbols", 20 / Math.log(10) * leakU / Math.max(leak, leakU)),
            Limit.NONE,
            ofLeak));
    double toDb = 20 / Math.log(10);
    List<String> ofAxes = new ArrayList<>(marks);
    if (a.keying() != null) {
      ofAxes.add("against axes of its own: which is I is not known");
    }
    out.add(
        of(
            "gainImbalance",
            "Gain imbalance, I over Q",
            SymbolReadings.imbalanceDb(v[ErrorModel.IMBALANCE]),
            "dB",
            toDb * u[ErrorModel.IMBALANCE],
            ofAxes));
    out.add(
        of(
            "quadratureError",
            "Quadrature error",
            Math.toDegrees(v[ErrorModel.QUADRATURE]),
            "deg",
            Math.toDegrees(u[ErrorModel.QUADRATURE]),
            ofAxes));
    out.add(
        of(
            "iqDelay",
            "Delay of Q against I",
            v[ErrorModel.DELAY] / s.symbolRateHz(),
            "s",
            u[ErrorModel.DELAY] / s.symbolRateHz(),
            marks));
    out.add(
        of(
            "droop",
            "Droop over the result",
            SymbolReadings.droopDb(v[ErrorModel.DROOP]),
            "dB",
            2 * toDb * u[ErrorModel.DROOP],
            marks));
  }

  private void bits(List<Reading> out, List<String> marks) {
    if (a.data().isEmpty()) {
      return;
    }
    KnownData d = a.data().get();
    BitErrorRatio ber = BitErrorRatio.of(d.errors(), d.bits());
    double half = Math.max(ber.high() - ber.ratio(), ber.ratio() - ber.low());
    out.add(
        of(
            "ber",
            String.format(
                Locale.ROOT,
                "Bit error ratio, %d of %d bits (%.2g to %.2g)",
                d.errors(),
                d.bits(),
                ber.low(),
                ber.high()),
            ber.ratio(),
            "",
            half / 2,
            marks));
  }

  // Tables

  private List<ResultTable> tables() {
    return List.of(a.causes().all().table(scale));
  }
}
