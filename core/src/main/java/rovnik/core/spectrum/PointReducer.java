package rovnik.core.spectrum;

import rovnik.core.Refusal;
import rovnik.core.units.Decibels;

/** Shows many bins in fewer points: each point stands for the bins of its cell. */
public enum PointReducer {
  /** Highest bin: no line is lost. */
  PEAK("peak"),
  /** Lowest bin. */
  NEGATIVE_PEAK("negative peak"),
  /** The bin in the middle: what a lone look would show. */
  SAMPLE("sample"),
  /** Mean of the powers: noise keeps its level. */
  RMS("RMS");

  private final String label;

  PointReducer(String label) {
    this.label = label;
  }

  public String label() {
    return label;
  }

  /**
   * Reduces a trace to at most {@code most} points, all of the same number of bins; a rest that
   * fills no cell makes a last one of its own. A short trace comes back as it is.
   */
  public Trace reduce(Trace t, int most) {
    if (most < 1) {
      throw new Refusal("points", "A trace needs at least one point.");
    }
    int bins = t.points();
    if (bins <= most) {
      return t;
    }
    int cell = (bins + most - 1) / most;
    float[] reduced = new float[(bins + cell - 1) / cell];
    for (int i = 0; i < reduced.length; i++) {
      reduced[i] = reduce(t.level(), i * cell, Math.min(bins, (i + 1) * cell));
    }
    return t.on(t.startHz() + (cell - 1) / 2.0 * t.stepHz(), t.stepHz() * cell, reduced, t.unit());
  }

  private float reduce(float[] level, int from, int to) {
    switch (this) {
      case SAMPLE:
        return level[(from + to - 1) / 2];
      case RMS:
        double sum = 0;
        for (int i = from; i < to; i++) {
          sum += Decibels.toPowerRatio(level[i]);
        }
        return (float) Decibels.fromPowerRatio(sum / (to - from));
      default:
        float best = level[from];
        for (int i = from + 1; i < to; i++) {
          best = this == PEAK ? Math.max(best, level[i]) : Math.min(best, level[i]);
        }
        return best;
    }
  }
}
