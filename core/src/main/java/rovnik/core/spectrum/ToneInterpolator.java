package rovnik.core.spectrum;

import rovnik.core.signal.Window;

/**
 * Frequency and level of a tone between the bins of a windowed transform.
 *
 * <p>The ratio of two points on either side of the highest one depends only on where the tone lies
 * between them; the window's own transform, known in closed form, is inverted by bisection. Exact
 * for a lone tone; other signals disturb it by their level at the neighbouring points.
 */
public final class ToneInterpolator {
  private static final int BISECTIONS = 40;
  private final Window window;
  private final double binsPerPoint;
  private final int reach;

  /**
   * @param window the window of the trace
   * @param binsPerPoint points' distance in window bins: window length / transform length
   */
  public ToneInterpolator(Window window, double binsPerPoint) {
    this.window = window;
    this.binsPerPoint = binsPerPoint;
    int lobe = window.mainLobeHalfWidthBins();
    int wide = Math.max(1, (int) Math.round(0.45 * lobe / binsPerPoint));
    while (wide > 1 && (wide + 0.5) * binsPerPoint >= lobe * 0.95) {
      wide--;
    }
    this.reach = (wide + 0.5) * binsPerPoint < lobe * 0.95 ? wide : 0;
  }

  /** The interpolator that belongs to a layout. */
  public static ToneInterpolator of(SpectrumLayout layout) {
    return new ToneInterpolator(
        layout.window(), (double) layout.windowLength() / layout.fftLength());
  }

  /**
   * Where the tone lies relative to a highest point, in points, -0.5 to 0.5.
   *
   * @param levelDb trace levels in dB
   * @param top index of the highest point
   */
  public double offsetPoints(float[] levelDb, int top) {
    if (reach > 0) {
      if (top < reach || top + reach >= levelDb.length) {
        return 0;
      }
      double wanted = levelDb[top + reach] - levelDb[top - reach];
      return bisect(-0.5, 0.5, wanted, d -> responseDb(reach - d) - responseDb(reach + d));
    }
    if (top < 1 || top + 1 >= levelDb.length) {
      return 0;
    }
    int side = levelDb[top + 1] >= levelDb[top - 1] ? 1 : -1;
    double wanted = levelDb[top + side] - levelDb[top];
    return side * bisect(0, 0.5, wanted, d -> responseDb(1 - d) - responseDb(d));
  }

  /** How far below its true level the tone reads at the highest point, in positive dB. */
  public double lossDb(double offsetPoints) {
    return -responseDb(offsetPoints);
  }

  /**
   * Highest response of the window near a distance from a tone, 0 inside the main lobe (a second
   * line that is resolved there is a line).
   */
  double sideLobeEnvelope(double points) {
    double bins = points * binsPerPoint;
    if (bins < window.mainLobeHalfWidthBins()) {
      return 0;
    }
    double highest = 0;
    for (double x = bins - 0.5; x <= bins + 0.5; x += 0.125) {
      highest = Math.max(highest, Math.abs(window.response(x)));
    }
    return highest;
  }

  private double responseDb(double points) {
    return 20 * Math.log10(Math.max(Math.abs(window.response(points * binsPerPoint)), 1e-12));
  }

  /** Solves f(x) = wanted for a rising f, held to the ends of the range. */
  private static double bisect(
      double low, double high, double wanted, java.util.function.DoubleUnaryOperator rising) {
    double a = low;
    double b = high;
    for (int i = 0; i < BISECTIONS; i++) {
      double mid = (a + b) / 2;
      if (rising.applyAsDouble(mid) < wanted) {
        a = mid;
      } else {
        b = mid;
      }
    }
    return (a + b) / 2;
  }
}
