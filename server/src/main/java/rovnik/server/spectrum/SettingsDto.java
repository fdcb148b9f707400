package rovnik.server.spectrum;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.Arrays;
import java.util.Locale;
import java.util.stream.Collectors;
import rovnik.core.Refusal;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.Detector;
import rovnik.core.spectrum.SpectrumSettings;

/**
 * Settings of a spectrum as sent and stored.
 *
 * @param rbwHz 0 for automatic (span / 1000)
 * @param window name in any case: rectangular, hann, hamming, blackman, blackman-harris, flat-top
 * @param detector rms, peak, minimum, sample, log-average
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
    double channelWidthHz) {

  public static SettingsDto of(SpectrumSettings s) {
    return new SettingsDto(
        s.centreHz(),
        s.spanHz(),
        s.rbwHz(),
        s.window().name(),
        s.detector().name(),
        s.averages(),
        s.referenceLevelDbm(),
        s.channelWidthHz());
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
        channelWidthHz);
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

  private static <E extends Enum<E>> E byName(E[] values, String field, String text) {
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
