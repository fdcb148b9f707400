package rovnik.core.spectrum;

import java.util.function.DoubleUnaryOperator;
import rovnik.core.signal.Window;

/**
 * Frequency and level of a tone between the bins of a windowed transform.
 *
 * <p>The ratio of two points on either side of the highest one depends only on where the tone lies
 * between them; the window's own transform, known in closed form, is inverted numerically. Exact
 * for a lone tone; other signals disturb it by their level at the neighbouring points.
 */
public final class ToneInterpolator {
  /** Halvings and false positions in turns: both ends close in, whatever the curve. */
  private static final int ROUNDS = 14;

  private static final double CLOSE_POINTS = 1e-7;

  /** Amplitude response over the distance in bins, 1 at 0. */
  private final DoubleUnaryOperator response;

  private final double lobeBins;
  private final double binsPerPoint;
  private final int reach;

  /**
   * @param window the window of the trace
   * @param binsPerPoint points' distance in window bins: window length / transform length
   */
  public ToneInterpolator(Window window, double binsPerPoint) {
    this(window::response, window.mainLobeHalfWidthBins(), binsPerPoint);
  }

  private ToneInterpolator(DoubleUnaryOperator response, double lobe, double binsPerPoint) {
    this.response = response;
    this.lobeBins = lobe;
    this.binsPerPoint = binsPerPoint;
    int wide = Math.max(1, (int) Math.round(0.45 * lobe / binsPerPoint));
    while (wide > 1 && (wide + 0.5) * binsPerPoint >= lobe * 0.95) {
      wide--;
    }
    this.reach = (wide + 0.5) * binsPerPoint < lobe * 0.95 ? wide : 0;
  }

  /** For a trace of a swept Gaussian filter; a bin is the RBW there. */
  public static ToneInterpolator gaussian(double rbwHz, double stepHz) {
    return new ToneInterpolator(x -> Math.exp(-2 * Math.log(2) * x * x), 2, stepHz / rbwHz);
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
      return solve(-0.5, 0.5, wanted, d -> responseDb(reach - d) - responseDb(reach + d));
    }
    if (top < 1 || top + 1 >= levelDb.length) {
      return 0;
    }
    int side = levelDb[top + 1] >= levelDb[top - 1] ? 1 : -1;
    double wanted = levelDb[top + side] - levelDb[top];
    return side * solve(0, 0.5, wanted, d -> responseDb(1 - d) - responseDb(d));
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
    if (bins < lobeBins) {
      return 0;
    }
    double highest = 0;
    for (double x = bins - 0.5; x <= bins + 0.5; x += 0.125) {
      highest = Math.max(highest, Math.abs(response.applyAsDouble(x)));
    }
    return highest;
  }

  private double responseDb(double points) {
    return 20
        * Math.log10(Math.max(Math.abs(response.applyAsDouble(points * binsPerPoint)), 1e-12));
  }

  /**
   * Solves f(x) = wanted for a rising f, held to the ends of the range: false position with the
   * Illinois weight (Dowell and Jarratt, BIT 11, 1971).
   */
  private static double solve(double low, double high, double wanted, DoubleUnaryOperator rising) {
    double a = low;
    double b = high;
    double fa = rising.applyAsDouble(a) - wanted;
    double fb = rising.applyAsDouble(b) - wanted;
    if (fa >= 0) {
      return a;
    }
    if (fb <= 0) {
      return b;
    }
    int side = 0;
    double x = a;
    for (int i = 0; i < ROUNDS && b - a > CLOSE_POINTS; i++) {
      double before = x;
      x = (fa * b - fb * a) / (fa - fb);
      double f = rising.applyAsDouble(x) - wanted;
      if (f < 0) {
        a = x;
        fa = f;
        fb *= side == -1 ? 0.5 : 1;
        side = -1;
      } else {
        b = x;
        fb = f;
        fa *= side == 1 ? 0.5 : 1;
        side = 1;
      }
      if (Math.abs(x - before) < CLOSE_POINTS) {
        break;
      }
    }
    return x;
  }
}
