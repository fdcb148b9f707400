package rovnik.core.spectrum;

import java.util.function.DoubleUnaryOperator;
import rovnik.core.signal.Window;
import rovnik.core.units.Decibels;

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

  /**
   * A window that loses less half-way between two bins has a flat top, so many bins to each side.
   */
  private static final double FLAT_DB = 0.1;

  private static final double FLAT_BINS = 1.5;

  /** Amplitude response over the distance in bins, 1 at 0. */
  private final DoubleUnaryOperator response;

  /** Null for a swept filter, whose sweeps share no noise. */
  private final Window window;

  /** The highest point may be so far from the tone: a flat top does not tell. */
  private final double farthest;

  private final double lobeBins;
  private final double binsPerPoint;
  private final int reach;

  /**
   * @param window the window of the trace
   * @param binsPerPoint points' distance in window bins: window length / transform length
   */
  public ToneInterpolator(Window window, double binsPerPoint) {
    this(window::response, window, window.mainLobeHalfWidthBins(), binsPerPoint);
  }

  private ToneInterpolator(
      DoubleUnaryOperator response, Window window, double lobe, double binsPerPoint) {
    this.response = response;
    this.window = window;
    boolean flat = window != null && window.figures().scallopLossDb() < FLAT_DB;
    this.farthest = flat ? FLAT_BINS / binsPerPoint : 0.5;
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
    return new ToneInterpolator(x -> Math.exp(-2 * Math.log(2) * x * x), null, 2, stepHz / rbwHz);
  }

  /** The interpolator that belongs to a layout. */
  public static ToneInterpolator of(SpectrumLayout layout) {
    return new ToneInterpolator(
        layout.window(), (double) layout.windowLength() / layout.fftLength());
  }

  /** The interpolator that belongs to a trace, by its window's name; a swept one has none. */
  public static ToneInterpolator of(Trace trace) {
    return Window.labelled(trace.window())
        .map(
            w ->
                new ToneInterpolator(
                    w, w.figures().width3dbBins() * trace.stepHz() / trace.rbwHz()))
        .orElseGet(() -> gaussian(trace.rbwHz(), trace.stepHz()));
  }

  /**
   * Where the tone lies relative to a highest point, in points, -0.5 to 0.5 (more for a flat top).
   *
   * @param levelDb trace levels in dB
   * @param top index of the highest point
   */
  public double offsetPoints(float[] levelDb, int top) {
    return offsetPoints(levelDb, top, Double.NEGATIVE_INFINITY);
  }

  /** The same without the noise that lies under the line, of this mean level. */
  public double offsetPoints(float[] levelDb, int top, double floorDb) {
    if (reach > 0) {
      if (top < reach || top + reach >= levelDb.length) {
        return 0;
      }
      double wanted = above(levelDb[top + reach], floorDb) - above(levelDb[top - reach], floorDb);
      return solve(-farthest, farthest, wanted, d -> responseDb(reach - d) - responseDb(reach + d));
    }
    if (top < 1 || top + 1 >= levelDb.length) {
      return 0;
    }
    int side = levelDb[top + 1] >= levelDb[top - 1] ? 1 : -1;
    double wanted = above(levelDb[top + side], floorDb) - above(levelDb[top], floorDb);
    return side * solve(0, 0.5, wanted, d -> responseDb(1 - d) - responseDb(d));
  }

  private static double above(double levelDb, double floorDb) {
    double share = Decibels.toPowerRatio(floorDb - levelDb);
    return levelDb + Decibels.fromPowerRatio(Math.max(0.1, 1 - share));
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

  /** Highest response so far from a tone, in its main lobe and beside it. */
  double reachesTo(double points) {
    return points < lobePoints() ? amplitude(points) : sideLobeEnvelope(points);
  }

  /**
   * Noise may lift a side lobe by this. Beside a narrow lobe the line's own place is less well
   * known, and with it that of its side lobes.
   */
  double leakageMarginDb() {
    return lobeBins <= 1 ? 4 : 1;
  }

  /** Response of the window so far from a tone, 1 at 0. */
  double amplitude(double points) {
    return Math.abs(response.applyAsDouble(points * binsPerPoint));
  }

  /** How fast the levels' difference that tells the offset changes with it, dB a point. */
  public double slopeDb(double offset) {
    double h = 0.005;
    return Math.abs(differenceDb(offset + h, offset) - differenceDb(offset - h, offset)) / (2 * h);
  }

  private double differenceDb(double offset, double side) {
    double far = Math.copySign(1, side);
    return reach > 0
        ? responseDb(reach - offset) - responseDb(reach + offset)
        : responseDb(far - offset) - responseDb(offset);
  }

  /** Distances from the tone of the two points whose difference tells the offset, in points. */
  private double[] tellers(double offset) {
    return reach > 0
        ? new double[] {reach - offset, -reach - offset}
        : new double[] {Math.copySign(1, offset) - offset, -offset};
  }

  /** Half the width of the main lobe in points. */
  int lobePoints() {
    return (int) Math.ceil(lobeBins / binsPerPoint);
  }

  /** How far from the highest point levels are read, in points. */
  int tellerDistance() {
    return Math.max(1, reach);
  }

  /** Height of the line at the lower of these. */
  public double tellerAmplitude(double offset) {
    double[] at = tellers(offset);
    return Math.min(amplitude(at[0]), amplitude(at[1]));
  }

  /**
   * Variance of that difference in squared nepers of power: averaged over segments that overlap by
   * half.
   *
   * @param noise power at a point over that of the line
   * @param noisePoint relative variance of noise alone at a point
   */
  double offsetVariance(double offset, double noise, int segments, double noisePoint) {
    double[] at = tellers(offset);
    double a = at[0] * binsPerPoint;
    double b = at[1] * binsPerPoint;
    double gainA = 1 / response.applyAsDouble(a);
    double gainB = 1 / response.applyAsDouble(b);
    double alone = gainA * gainA + gainB * gainB;
    double shared = 0;
    if (window != null) {
      alone -= 2 * gainA * gainB * window.noiseCorrelation(a - b);
      shared =
          gainA * gainA * window.overlapCorrelation(a, a)
              + gainB * gainB * window.overlapCorrelation(b, b)
              - gainA * gainB * (window.overlapCorrelation(a, b) + window.overlapCorrelation(b, a));
    }
    double sum = alone + 2 * shared * (segments - 1) / segments;
    double ofNoise = noise * noise * (Math.pow(gainA, 4) + Math.pow(gainB, 4)) * noisePoint;
    return 2 * noise * Math.max(sum, 0.02 * alone) / segments + ofNoise;
  }

  /** How far the phase between the line and another turns from one segment to the next averages. */
  double steady(double points, int segments) {
    if (window == null) {
      return 1;
    }
    double half = Math.PI * points * binsPerPoint / 2;
    double s = segments * Math.sin(half);
    return Math.abs(s) < 1e-9 ? 1 : Math.min(1, Math.abs(Math.sin(segments * half) / s));
  }

  /** How fast the loss between points changes, dB a point. */
  double lossSlopeDb(double offset) {
    return (responseDb(offset + 0.01) - responseDb(offset - 0.01)) / 0.02;
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
