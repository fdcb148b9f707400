package rovnik.core.emission;

import java.util.List;
import java.util.Locale;
import rovnik.core.spectrum.RecordSpectrum;
import rovnik.core.spectrum.SpectrumEstimator;
import rovnik.core.spectrum.SpectrumLayout;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.spectrum.TraceMode;
import rovnik.core.spectrum.TraceRow;
import rovnik.core.spectrum.TraceStack;

/**
 * Further traces of a sequence of records: each block of samples that gives at least one spectrum
 * is one look. Weighted rows see all samples.
 */
public final class RecordLooks implements RecordSpectrum.Listener {
  private final TraceStack stack;
  private final SpectrumLayout layout;
  private final SpectrumSettings settings;
  private final CisprBank bank;
  private SpectrumEstimator estimator;
  private double[] power;

  /**
   * @param tunedHz centre of the records at the instrument's port
   * @param frozen what frozen rows show, see {@link TraceStack}
   */
  public RecordLooks(
      List<TraceRow> rows,
      SpectrumLayout layout,
      SpectrumSettings settings,
      double tunedHz,
      List<double[]> frozen) {
    this.stack = new TraceStack(rows, layout.points(), frozen);
    this.layout = layout;
    this.settings = settings;
    this.bank = rows.stream().anyMatch(r -> r.mode().weighted()) ? bank(layout, tunedHz) : null;
  }

  private static CisprBank bank(SpectrumLayout layout, double tunedHz) {
    double middleHz = tunedHz + layout.offsetHz(layout.points() / 2);
    return new CisprBank(
        CisprBand.of(middleHz),
        layout.sampleRateHz(),
        layout.offsetHz(0),
        layout.stepHz(),
        layout.points());
  }

  /** The rows as they stand. */
  public TraceStack stack() {
    return stack;
  }

  /**
   * Takes one look.
   *
   * @param spectrum linear power of the points, made of the same samples
   */
  public void take(double[] spectrum, float[] iq, int samples) {
    if (bank != null) {
      bank.accept(iq, samples);
    }
    stack.take(spectrum, this::weigh);
  }

  @Override
  public void block(float[] iq, int samples) {
    if (stack.rows().isEmpty()) {
      return;
    }
    if (estimator == null) {
      estimator = new SpectrumEstimator(layout, settings.detector());
      power = new double[layout.points()];
    }
    estimator.accumulate(iq, 0, samples);
    if (estimator.segments() > 0) {
      estimator.powerInto(power);
      take(power, iq, samples);
      estimator.reset();
    } else if (bank != null) {
      bank.accept(iq, samples);
    }
  }

  /** Goes on watching with the weighted rows alone; see {@link #watched}. */
  public void watch(float[] iq, int samples) {
    if (bank != null) {
      bank.accept(iq, samples);
    }
  }

  /** True if some rows want to see as much of a signal as there is. */
  public boolean watches() {
    return bank != null;
  }

  /** Ends watching: the weighted rows show what they have seen by now. */
  public void watched() {
    if (bank != null) {
      stack.weigh(this::weigh);
    }
  }

  /**
   * What must be said of the weighted rows: the time that they saw, if their meter had not settled.
   */
  public String unsettled() {
    if (bank == null || bank.seconds() >= bank.settledSeconds()) {
      return "";
    }
    return String.format(
        Locale.ROOT,
        "quasi-peak and average saw %.2g s; their meter takes %.2g s to settle, so they read low",
        bank.seconds(),
        bank.settledSeconds());
  }

  private void weigh(TraceMode mode, double[] out) {
    if (mode == TraceMode.QUASI_PEAK) {
      bank.quasiPeakInto(out);
    } else {
      bank.averageInto(out);
    }
  }
}
