package rovnik.server.spectrum;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.Arrays;
import java.util.Locale;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rovnik.core.Refusal;
import rovnik.core.emission.ViewPlan;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.Detector;
import rovnik.core.spectrum.LineSearch;
import rovnik.core.spectrum.SpectrumSettings;

/**
 * Settings of a spectrum as sent and stored.
 *
 * @param rbwHz 0 for automatic (span / 1000)
 * @param window name in any case: rectangular, hann, hamming, blackman, blackman-harris, flat-top
 * @param detector rms, peak, minimum, sample, log-average
 * @param fftLength points of one transform, null or 0 to let the RBW decide
 * @param lines what counts as a line, null for what follows from the noise
 * @param view what is shown and read beside the main trace, null for nothing
 */
@Schema(name = "SpectrumSettings")
public record SettingsDto(
    double centreHz,
    double spanHz,
    double rbwHz,
    String window,
    String detector,
    int averages,
    double referenceLevelDbm,
    double channelWidthHz,
    @Nullable Integer fftLength,
    @Nullable LinesDto lines,
    @Nullable ViewDto view) {

  /** First look at something unknown: wide, at the level of a small transmitter. */
  static final SettingsDto FIRST =
      of(
          new SpectrumSettings(460e6, 20e6, 0, Window.HANN, Detector.RMS, 16, 30, 75e3),
          ViewPlan.PLAIN);

  /**
   * What counts as a line.
   *
   * @param threshold lowest level at the reading plane, null to follow the noise
   */
  @Schema(name = "LineSearch")
  public record LinesDto(
      @Nullable Double threshold, @Nullable Double excursionDb, @Nullable Integer most) {
    static LinesDto of(LineSearch s) {
      return new LinesDto(
          Double.isNaN(s.threshold()) ? null : s.threshold(), s.excursionDb(), s.most());
    }

    LineSearch toCore() {
      return new LineSearch(
          threshold == null ? Double.NaN : threshold,
          excursionDb == null ? LineSearch.AUTO.excursionDb() : excursionDb,
          most == null ? LineSearch.AUTO.most() : most);
    }
  }

  public static SettingsDto of(SpectrumSettings s, ViewPlan view) {
    return new SettingsDto(
        s.centreHz(),
        s.spanHz(),
        s.rbwHz(),
        s.window().name(),
        s.detector().name(),
        s.averages(),
        s.referenceLevelDbm(),
        s.channelWidthHz(),
        s.fftLength(),
        LinesDto.of(s.lines()),
        ViewDto.of(view));
  }

  private SettingsDto with(int otherAverages, @Nullable ViewDto otherView) {
    return new SettingsDto(
        centreHz,
        spanHz,
        rbwHz,
        window,
        detector,
        otherAverages,
        referenceLevelDbm,
        channelWidthHz,
        fftLength,
        lines,
        otherView);
  }

  SettingsDto averaging(int otherAverages) {
    return with(otherAverages, view);
  }

  SettingsDto with(ViewDto otherView) {
    return with(averages, otherView);
  }

  /** What is asked for beside the main trace. */
  public ViewPlan viewToCore() {
    return view == null ? ViewPlan.PLAIN : view.toCore();
  }

  public SpectrumSettings toCore() {
    return new SpectrumSettings(
        centreHz,
        spanHz,
        rbwHz,
        parseWindow(window),
        parseDetector(detector),
        averages,
        referenceLevelDbm,
        channelWidthHz,
        fftLength == null ? 0 : fftLength,
        lines == null ? LineSearch.AUTO : lines.toCore());
  }

  static Window parseWindow(String text) {
    return byName(Window.values(), "window", text);
  }

  static Detector parseDetector(String text) {
    String t = letters(text);
    if (t.equals("AVERAGE") || t.equals("MEAN")) {
      return Detector.RMS;
    }
    return t.equals("MIN") ? Detector.MINIMUM : byName(Detector.values(), "detector", text);
  }

  static <E extends Enum<E>> E byName(E[] values, String field, String text) {
    String wanted = letters(text);
    for (E v : values) {
      if (letters(v.name()).equals(wanted)) {
        return v;
      }
    }
    throw new Refusal(
        field,
        "There is no "
            + field
            + " \""
            + text
            + "\"; use one of "
            + Arrays.stream(values)
                .map(v -> v.name().toLowerCase(Locale.ROOT).replace('_', '-'))
                .collect(Collectors.joining(", "))
            + ".");
  }

  private static String letters(String text) {
    return text == null ? "" : text.toUpperCase(Locale.ROOT).replaceAll("[^A-Z]", "");
  }
}
