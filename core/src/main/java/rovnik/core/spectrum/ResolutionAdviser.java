package rovnik.core.spectrum;

import rovnik.core.Refusal;
import rovnik.core.signal.Window;

/**
 * Says whether an RBW separates two lines. For equal lines the trade's rule holds: twice the RBW is
 * clean, four thirds just visible, less is not (common practice). For unequal lines the window's
 * own main lobe and side lobes decide: the weaker one must stand above what the stronger one leaks.
 */
public final class ResolutionAdviser {
  private ResolutionAdviser() {}

  /** How well two lines stand apart. */
  public enum Separation {
    CLEAN("clean"),
    JUST_VISIBLE("just visible"),
    NOT("not separated");

    private final String label;

    Separation(String label) {
      this.label = label;
    }

    public String label() {
      return label;
    }
  }

  /**
   * The answer.
   *
   * @param separation at the RBW asked about
   * @param cleanRbwHz coarsest RBW that separates the lines cleanly
   */
  public record Advice(Separation separation, double cleanRbwHz) {}

  private static final double CLEAN_RBWS = 2;
  private static final double VISIBLE_RBWS = 4 / 3.0;

  /** How far the trace must fall between the lines, below the weaker one. */
  private static final double CLEAN_DIP_DB = 8;

  private static final double VISIBLE_DIP_DB = 2;

  /** Farther apart no search begins; the rectangle's side lobes are 66 dB down there. */
  private static final double FARTHEST_BINS = 640;

  /**
   * Advice for two lines.
   *
   * @param spacingHz their distance
   * @param differenceDb how far the weaker one lies below the stronger one, 0 or more
   * @param rbwHz the RBW in use
   */
  public static Advice advise(double spacingHz, double differenceDb, double rbwHz, Window window) {
    if (!(spacingHz > 0) || Double.isInfinite(spacingHz)) {
      throw new Refusal("spacingHz", "The distance of the lines must be more than 0 Hz.");
    }
    if (!(differenceDb >= 0) || differenceDb > 200) {
      throw new Refusal("differenceDb", "The difference in level must be 0 to 200 dB.");
    }
    double clean = CLEAN_RBWS;
    double visible = VISIBLE_RBWS;
    if (differenceDb > 0) {
      clean = Math.max(clean, spacingRbws(differenceDb, CLEAN_DIP_DB, window));
      visible = Math.max(visible, spacingRbws(differenceDb, VISIBLE_DIP_DB, window));
    }
    double spacing = spacingHz / rbwHz * (1 + 1e-9);
    Separation s =
        spacing >= clean
            ? Separation.CLEAN
            : spacing >= visible ? Separation.JUST_VISIBLE : Separation.NOT;
    return new Advice(s, spacingHz / clean);
  }

  /**
   * Smallest distance in RBW at which the weaker line shows: between the two the trace falls {@code
   * dipDb} below it, and the stronger one's side lobes stay as far below it.
   */
  private static double spacingRbws(double differenceDb, double dipDb, Window window) {
    double weak = Math.pow(10, -differenceDb / 20);
    double wall = weak * Math.pow(10, -dipDb / 20);
    double spacing = FARTHEST_BINS;
    for (double s = FARTHEST_BINS; s > 0.5 && shows(s, weak, wall, window); s *= 0.985) {
      spacing = s;
    }
    return spacing / window.figures().width3dbBins();
  }

  private static boolean shows(double spacing, double weak, double wall, Window window) {
    if (envelope(spacing, window) > wall) {
      return false;
    }
    // The weaker line's main lobe is looked at from its top towards the stronger line.
    double reach = Math.min(spacing, window.mainLobeHalfWidthBins());
    for (double x = 0.05; x <= reach; x += 0.05) {
      double sum = envelope(spacing - x, window) + weak * Math.abs(window.response(x));
      if (sum <= wall) {
        return true;
      }
    }
    return false;
  }

  /** The window's response: itself in the main lobe, the tops of the side lobes beyond it. */
  private static double envelope(double bins, Window window) {
    if (bins < window.mainLobeHalfWidthBins() - 0.5) {
      return Math.abs(window.response(bins));
    }
    double highest = 0;
    for (double x = bins - 0.5; x <= bins + 0.5; x += 0.125) {
      highest = Math.max(highest, Math.abs(window.response(x)));
    }
    return highest;
  }

  /** Advice for a modulation: its side lines lie one rate apart, {@code differenceDb} down. */
  public static Advice adviseModulation(
      double rateHz, double differenceDb, double rbwHz, Window window) {
    return advise(rateHz, differenceDb, rbwHz, window);
  }
}
