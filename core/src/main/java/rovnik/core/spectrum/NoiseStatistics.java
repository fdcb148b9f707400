package rovnik.core.spectrum;

import java.util.Optional;
import rovnik.core.signal.Window;
import rovnik.core.signal.WindowFigures;

/**
 * How much the noise of a trace scatters. Segments overlap by half and share some of their samples;
 * what two of them say of noise is correlated by the window's overlap (P. D. Welch, "The use of
 * fast Fourier transform for the estimation of power spectra", IEEE Trans. AU-15, 1967).
 */
public final class NoiseStatistics {
  /** One neper of power in decibels. */
  private static final double DECIBELS = 10 / Math.log(10);

  private final int segments;
  private final double overlapAmplitude;
  private final double spreadHz;
  private final double overlapSpreadHz;
  private final double enbwHz;
  private final double windowSeconds;

  public NoiseStatistics(Trace trace) {
    this.segments = Math.max(1, trace.segments());
    this.enbwHz = trace.enbwHz();
    Optional<Window> window = Window.labelled(trace.window());
    if (window.isEmpty()) {
      // Sweeps are taken one after the other and share nothing.
      overlapAmplitude = 0;
      spreadHz = enbwHz;
      overlapSpreadHz = 0;
      windowSeconds = 2 / enbwHz;
    } else {
      WindowFigures f = window.get().figures();
      double perLength = enbwHz / f.enbwBins();
      windowSeconds = 1 / perLength;
      overlapAmplitude = f.overlapAmplitude();
      spreadHz = f.spread() * perLength;
      overlapSpreadHz = f.overlapSpread() * perLength;
    }
  }

  /** Relative variance of the power of noise at one point. */
  public double point() {
    return averaged(1, overlapAmplitude * overlapAmplitude);
  }

  /** Relative variance of the power of white noise in a band. */
  public double band(double widthHz) {
    return averaged(
        Math.min(1, spreadHz / widthHz),
        Math.min(overlapAmplitude * overlapAmplitude, overlapSpreadHz / widthHz));
  }

  /**
   * Variance of the power of a noise-like signal, from the squared density of its power: the
   * integral of S^2 df times this, in hertz.
   */
  public double perSquaredDensity() {
    return averaged(spreadHz, overlapSpreadHz);
  }

  /** Relative variance of a line's power for a noise at its point of one times its own power. */
  double line() {
    return 2 * averaged(1, overlapAmplitude);
  }

  private double averaged(double alone, double withNext) {
    return (alone + 2 * withNext * (segments - 1) / segments) / segments;
  }

  /** Standard deviation in dB of a relative variance of power. */
  public static double decibels(double relativeVariance) {
    return DECIBELS * Math.sqrt(relativeVariance);
  }

  /** How far the mean of noise lies above the median of averaged points, dB. */
  double meanAboveMedianDb() {
    // Wilson and Hilferty: the median of a gamma variate of shape n, with mean 1.
    double n = Math.max(1, 1 / point());
    return -30 * Math.log10(1 - 1 / (9 * n));
  }

  /**
   * How long was looked, effectively: segments overlap by half, and a window looks at its middle.
   */
  public double seconds() {
    return 1 / perSquaredDensity();
  }

  /** Length of one window. */
  public double windowSeconds() {
    return windowSeconds;
  }
}
