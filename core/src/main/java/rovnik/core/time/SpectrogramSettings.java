package rovnik.core.time;

import java.util.ArrayList;
import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.result.Fact;
import rovnik.core.signal.Window;

/**
 * What a spectrogram is made with.
 *
 * @param centreHz middle of the span, at the reading plane; 0 for the middle of the record
 * @param spanHz that is looked at; 0 for all that the record holds
 * @param rbwHz width of the resolution filter; 0 for a five-hundredth of the span
 * @param window of each spectrum
 * @param overlapPercent of one window with the next
 * @param seconds length of the result
 * @param startSeconds where in the record it begins
 * @param rows at most; each has the highest of the spectra that it stands for
 */
public record SpectrogramSettings(
    double centreHz,
    double spanHz,
    double rbwHz,
    Window window,
    double overlapPercent,
    double seconds,
    double startSeconds,
    int rows) {
  private static final double LONGEST_SECONDS = 3600;
  private static final int MOST_ROWS = 2000;

  public SpectrogramSettings {
    // Span, RBW, overlap and centre are held to what a density's are.
    new DensitySettings(centreHz, spanHz, rbwHz, window, overlapPercent, 1, startSeconds, 0);
    if (!(seconds > 0 && seconds <= LONGEST_SECONDS)) {
      throw new Refusal("seconds", "The result is more than 0 s and at most an hour long.");
    }
    if (!(rows >= 10 && rows <= MOST_ROWS)) {
      throw new Refusal("rows", "A spectrogram has 10 to " + MOST_ROWS + " rows, such as 400.");
    }
  }

  /** The RBW where the span is so wide. */
  double rbwOf(double span, double recordSeconds) {
    return new DensitySettings(centreHz, spanHz, rbwHz, window, overlapPercent, 1, 0, 0)
        .rbwOf(span, recordSeconds);
  }

  /** The settings in words, as runs keep and compare them. */
  public List<Fact> words() {
    List<Fact> out =
        new ArrayList<>(
            new DensitySettings(centreHz, spanHz, rbwHz, window, overlapPercent, 1, startSeconds, 0)
                .words());
    out.removeIf(f -> f.label().equals("result"));
    out.add(Fact.of("result", seconds, "s"));
    out.add(Fact.of("rows at most", rows, ""));
    return List.copyOf(out);
  }
}
