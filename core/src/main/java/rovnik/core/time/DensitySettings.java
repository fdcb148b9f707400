package rovnik.core.time;

import java.util.ArrayList;
import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.result.Fact;
import rovnik.core.signal.Window;

/**
 * What a density of levels over frequency, and its history, are made with.
 *
 * @param centreHz middle of the span, at the reading plane; 0 for the middle of the record
 * @param spanHz that is looked at; 0 for all that the record holds
 * @param rbwHz width of the resolution filter; 0 for a five-hundredth of the span
 * @param window of each spectrum
 * @param overlapPercent of one window with the next
 * @param seconds length of the result
 * @param startSeconds where in the record it begins
 * @param decaySeconds after which a spectrum counts for a third; 0 where all count alike
 */
public record DensitySettings(
    double centreHz,
    double spanHz,
    double rbwHz,
    Window window,
    double overlapPercent,
    double seconds,
    double startSeconds,
    double decaySeconds) {
  private static final double LONGEST_SECONDS = 60;
  private static final double AUTOMATIC = 500;

  /** Windows side by side that a record holds with an automatic RBW, unless points get too few. */
  private static final double SPECTRA = 16;

  private static final double FEWEST_POINTS = 50;

  public DensitySettings {
    if (!(centreHz >= 0)) {
      throw new Refusal("centreHz", "Say where the span is, such as 458.5 MHz.");
    }
    if (!(spanHz == 0 || spanHz >= 100 && spanHz <= 1e10)) {
      throw new Refusal("spanHz", "The span is 100 Hz to 10 GHz wide, such as 2 MHz.");
    }
    if (!(rbwHz == 0 || rbwHz > 0 && (spanHz == 0 || rbwHz <= spanHz))) {
      throw new Refusal("rbwHz", "The RBW is narrower than the span; 0 lets the span decide.");
    }
    if (!(overlapPercent >= 0 && overlapPercent <= 98)) {
      throw new Refusal("overlapPercent", "Windows overlap by 0 to 98 %, such as 50 %.");
    }
    if (!(seconds > 0 && seconds <= LONGEST_SECONDS)) {
      throw new Refusal("seconds", "The result is more than 0 s and at most 60 s long.");
    }
    if (!(startSeconds >= 0)) {
      throw new Refusal("startSeconds", "The result begins at 0 s or later in the record.");
    }
    if (!(decaySeconds >= 0)) {
      throw new Refusal("decaySeconds", "The decay is a time, or 0 for none.");
    }
  }

  /** The RBW where the span is so wide; automatic, there are some spectra in so short a time. */
  double rbwOf(double span, double recordSeconds) {
    double some = SPECTRA * window.figures().width3dbBins() / recordSeconds;
    return rbwHz > 0 ? rbwHz : Math.max(span / AUTOMATIC, Math.min(some, span / FEWEST_POINTS));
  }

  /** The settings in words, as runs keep and compare them. */
  public List<Fact> words() {
    List<Fact> out = new ArrayList<>();
    out.add(
        centreHz == 0
            ? Fact.of("centre", "middle of the record")
            : Fact.of("centre", centreHz, "Hz"));
    out.add(spanHz == 0 ? Fact.of("span", "the record's") : Fact.of("span", spanHz, "Hz"));
    out.add(rbwHz == 0 ? Fact.of("RBW", "automatic") : Fact.of("RBW", rbwHz, "Hz"));
    out.add(Fact.of("window", window.label()));
    out.add(Fact.of("overlap", overlapPercent, "%"));
    out.add(Fact.of("result", seconds, "s"));
    if (startSeconds > 0) {
      out.add(Fact.of("begins at", startSeconds, "s"));
    }
    if (decaySeconds > 0) {
      out.add(Fact.of("decay", decaySeconds, "s"));
    }
    return List.copyOf(out);
  }
}
