package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import rovnik.core.Refusal;
import rovnik.core.result.Fact;

/**
 * What packets are measured with.
 *
 * @param centreHz middle of the channel, at the reading plane; 0 for the middle of the record
 * @param channelHz its width: 5, 10, 20, 40, 80, 160 or 320 MHz
 * @param seconds that are searched
 * @param startSeconds where in the record that begins
 * @param packet which of those found is shown, the first is 1
 * @param estimate what the channel is found from
 * @param trackPhase pilots turn each symbol back, as the standard has it
 * @param trackLevel pilots set the level of each symbol, which the standard does not
 * @param description what the frames are; null for packets of IEEE 802.11 clause 17, which say it
 *     themselves
 * @param trigger what packets answer that do not say it themselves; null if that is not known
 */
public record OfdmSettings(
    double centreHz,
    double channelHz,
    double seconds,
    double startSeconds,
    int packet,
    Estimate estimate,
    boolean trackPhase,
    boolean trackLevel,
    OfdmDescription description,
    Trigger trigger) {
  /** What the channel is found from. */
  public enum Estimate {
    TRAINING("training", "training alone, as the standard has it"),
    TRAINING_AND_DATA("training and data", "training and data");

    private final String label;
    private final String words;

    Estimate(String label, String words) {
      this.label = label;
      this.words = words;
    }

    public String label() {
      return label;
    }
  }

  private static final List<Double> WIDTHS_HZ = List.of(5e6, 10e6, 20e6, 40e6, 80e6, 160e6, 320e6);

  /** Packets say in so much of a wider channel what they are. */
  private static final double PREAMBLE_HZ = 20e6;

  private static final double SHORTEST_SECONDS = 5e-6;
  private static final double LONGEST_SECONDS = 0.1;
  private static final int MOST_PACKETS = 1000;

  /** Of packets that say all themselves, or of frames that are described. */
  public OfdmSettings(
      double centreHz,
      double channelHz,
      double seconds,
      double startSeconds,
      int packet,
      Estimate estimate,
      boolean trackPhase,
      boolean trackLevel,
      OfdmDescription description) {
    this(
        centreHz,
        channelHz,
        seconds,
        startSeconds,
        packet,
        estimate,
        trackPhase,
        trackLevel,
        description,
        null);
  }

  public OfdmSettings {
    if (description == null && !WIDTHS_HZ.contains(channelHz)) {
      throw new Refusal("channelHz", "The channel is 5, 10, 20, 40, 80, 160 or 320 MHz wide.");
    }
    if (!(seconds >= SHORTEST_SECONDS && seconds <= LONGEST_SECONDS)) {
      throw new Refusal("seconds", "The search is 5 us to 100 ms long.");
    }
    if (!(startSeconds >= 0)) {
      throw new Refusal("startSeconds", "The search begins at 0 s or later in the record.");
    }
    if (!(centreHz >= 0)) {
      throw new Refusal("centreHz", "Say where the channel is, such as 5.5 GHz.");
    }
    if (trigger != null && description == null) {
      trigger.in(
          Math.min(8, (int) Math.max(1, channelHz / PREAMBLE_HZ))); // refuses what has no unit
    }
    if (packet < 1 || packet > MOST_PACKETS) {
      throw new Refusal("packet", "Packets count from 1 to 1,000.");
    }
  }

  /** True if the error is what the standard means by it. */
  boolean asTheStandard() {
    return estimate == Estimate.TRAINING && trackPhase && !trackLevel;
  }

  /** Rate of the transform: the width of the channel, where a standard names one. */
  double rateHz() {
    return description == null ? channelHz : description.rateHz();
  }

  /** Width in which a preamble says what follows. */
  double preambleHz() {
    return Math.min(PREAMBLE_HZ, channelHz);
  }

  /** Of a channel: how often it has that width. */
  int width() {
    return (int) Math.rint(channelHz / preambleHz());
  }

  /** From its middle to that of the lowest part with a preamble. */
  double toLowestHz() {
    return (preambleHz() - channelHz) / 2;
  }

  /** What the frames are; packets of IEEE 802.11 have none. */
  Optional<OfdmDescription> described() {
    return Optional.ofNullable(description);
  }

  /** Packets that are looked for at most. */
  int most() {
    return MOST_PACKETS;
  }

  /** The settings in words, as runs keep and compare them. */
  public List<Fact> words() {
    List<Fact> out = new ArrayList<>();
    out.add(
        centreHz == 0
            ? Fact.of("centre", "middle of the record")
            : Fact.of("centre", centreHz, "Hz"));
    out.add(
        description == null
            ? Fact.of("channel", channelHz, "Hz")
            : Fact.of("described by", description.name()));
    out.add(Fact.of("searched", seconds, "s"));
    if (startSeconds > 0) {
      out.add(Fact.of("begins at", startSeconds, "s"));
    }
    out.add(Fact.of("packet", packet, ""));
    out.add(Fact.of("channel from", estimate.words));
    if (trigger != null) {
      out.add(Fact.of("trigger", trigger.words()));
    }
    out.add(Fact.of("phase", trackPhase ? "tracked by pilots" : "not tracked"));
    out.add(Fact.of("level", trackLevel ? "tracked by pilots" : "not tracked"));
    return List.copyOf(out);
  }
}
