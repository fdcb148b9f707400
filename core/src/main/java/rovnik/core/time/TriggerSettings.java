package rovnik.core.time;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rovnik.core.Refusal;
import rovnik.core.result.Fact;
import rovnik.core.units.Seconds;

/**
 * What is waited for, and how much around it is of interest.
 *
 * @param centreHz middle of the band, at the reading plane; 0 for the middle of the record
 * @param bandHz whose power is watched, 6 dB down at its edges; 0 for all that the record holds
 * @param seconds that are watched in a recording, and that a ring holds
 * @param startSeconds where in the record it begins
 * @param by what the power does
 * @param levelDb where, at the reading plane; dBFS of a record without levels
 * @param leastSeconds it stays there at least so long, 0 for any
 * @param mostSeconds it stays there at most so long, infinite for any
 * @param pauseSeconds it may leave for so long without having left, 0 for none
 * @param holdOffSeconds after one trigger the next one comes no sooner
 * @param beforeSeconds that belong to a trigger
 * @param afterSeconds that belong to a trigger
 * @param mask that spectra are held against, instead of the power of the band
 * @param pattern times from one to the next
 */
public record TriggerSettings(
    double centreHz,
    double bandHz,
    double seconds,
    double startSeconds,
    By by,
    double levelDb,
    double leastSeconds,
    double mostSeconds,
    double pauseSeconds,
    double holdOffSeconds,
    double beforeSeconds,
    double afterSeconds,
    TriggerMask mask,
    IntervalPattern pattern) {
  public static final double LONGEST_SECONDS = 600;
  private static final double SHORTEST_SECONDS = 1e-3;

  /** What the power does at a trigger. */
  public enum By {
    NONE("none", "nothing"),
    RISES("rises", "rises over"),
    FALLS("falls", "falls below"),
    MASK("mask", "rises over"),
    EXTERNAL("external", "");

    private final String label;
    private final String words;

    By(String label, String words) {
      this.label = label;
      this.words = words;
    }

    public String label() {
      return label;
    }

    String words() {
      return words;
    }
  }

  public TriggerSettings {
    if (!(centreHz >= 0 && centreHz <= 1e12)) {
      throw new Refusal("centreHz", "Say where the band is, such as 164.2 MHz.");
    }
    if (!(bandHz == 0 || bandHz >= 10 && bandHz <= 1e10)) {
      throw new Refusal("bandHz", "The band is 10 Hz to 10 GHz wide, or 0 for all there is.");
    }
    if (!(seconds >= SHORTEST_SECONDS && seconds <= LONGEST_SECONDS)) {
      throw new Refusal("seconds", "What is watched is 1 ms to 600 s long.");
    }
    if (!(startSeconds >= 0)) {
      throw new Refusal("startSeconds", "The result begins at 0 s or later in the record.");
    }
    if (!(Math.abs(levelDb) <= 250)) {
      throw new Refusal("levelDb", "The trigger level is -250 to 250 dBm or dBFS.");
    }
    if (!(leastSeconds >= 0 && leastSeconds <= seconds)) {
      throw new Refusal("leastSeconds", "The least it lasts is no longer than what is watched.");
    }
    if (!(mostSeconds >= leastSeconds && mostSeconds > 0)) {
      throw new Refusal("mostSeconds", "The most it lasts is no less than the least.");
    }
    if (!(pauseSeconds >= 0 && pauseSeconds <= seconds)) {
      throw new Refusal("pauseSeconds", "A pause is no longer than what is watched.");
    }
    if (!(holdOffSeconds >= 0 && holdOffSeconds <= 86400)) {
      throw new Refusal("holdOffSeconds", "The hold-off is 0 s to a day.");
    }
    if (!(beforeSeconds >= 0
        && afterSeconds >= 0
        && beforeSeconds + afterSeconds > 0
        && beforeSeconds + afterSeconds <= seconds)) {
      throw new Refusal(
          "beforeSeconds",
          "What belongs to a trigger, before and after it together, is more than 0 s and no longer"
              + " than what is watched.");
    }
    if (by == By.MASK) {
      check(mask, centreHz, bandHz);
    }
  }

  private static void check(TriggerMask mask, double centreHz, double bandHz) {
    if (mask.none()) {
      return;
    }
    double slack = 1e-9 * mask.highHz();
    if (bandHz > 0
        && (mask.lowHz() < centreHz - bandHz / 2 - slack
            || mask.highHz() > centreHz + bandHz / 2 + slack)) {
      throw mask.beyond("the band. Make the band as wide.");
    }
  }

  /** True if what is waited for has a length. */
  boolean lasts() {
    return by != By.NONE && by != By.EXTERNAL;
  }

  /** What a level must last to be one, in words; empty for any. */
  String lasting() {
    String least = Seconds.words(leastSeconds);
    String most = Seconds.words(mostSeconds);
    if (Double.isInfinite(mostSeconds)) {
      return leastSeconds > 0 ? " for " + least + " or longer" : "";
    }
    return leastSeconds > 0 ? " for " + least + " to " + most : " for " + most + " at most";
  }

  /** The settings in words, as runs keep and compare them. */
  public List<Fact> words() {
    List<Fact> out = new ArrayList<>();
    out.add(
        centreHz == 0
            ? Fact.of("centre", "middle of the record")
            : Fact.of("centre", centreHz, "Hz"));
    out.add(bandHz == 0 ? Fact.of("band", "the record's") : Fact.of("band", bandHz, "Hz"));
    out.add(Fact.of("watched", seconds, "s"));
    if (startSeconds > 0) {
      out.add(Fact.of("begins at", startSeconds, "s"));
    }
    if (by == By.NONE) {
      out.add(Fact.of("trigger", "none"));
      return List.copyOf(out);
    }
    switch (by) {
      case EXTERNAL -> out.add(Fact.of("trigger", "an edge at the trigger input"));
      case MASK -> {
        out.add(Fact.of("trigger", "the spectrum rises over the mask" + lasting()));
        String levels =
            mask.none() ? String.format(Locale.ROOT, "flat at %.1f", levelDb) : mask.words();
        out.add(Fact.of("mask", levels + " dBm or dBFS"));
        out.add(
            mask.rbwHz() == 0
                ? Fact.of("RBW", "a hundredth of the mask")
                : Fact.of("RBW", mask.rbwHz(), "Hz"));
      }
      default -> {
        out.add(Fact.of("trigger", "the power " + by.words() + " the level" + lasting()));
        out.add(Fact.of("trigger level", String.format(Locale.ROOT, "%.1f dBm or dBFS", levelDb)));
      }
    }
    if (!pattern.any()) {
      out.add(Fact.of("only", pattern.words().substring(2)));
    }
    if (lasts() && pauseSeconds > 0) {
      out.add(Fact.of("pauses up to", pauseSeconds, "s"));
    }
    if (holdOffSeconds > 0) {
      out.add(Fact.of("hold-off", holdOffSeconds, "s"));
    }
    out.add(Fact.of("before", beforeSeconds, "s"));
    out.add(Fact.of("after", afterSeconds, "s"));
    return List.copyOf(out);
  }
}
