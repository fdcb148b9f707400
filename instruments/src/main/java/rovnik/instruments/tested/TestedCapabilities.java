package rovnik.instruments.tested;

import java.util.Locale;
import rovnik.core.Refusal;
import rovnik.instruments.dialect.Dialect;

/**
 * What a receiver under test tells of what it receives, from its dialect.
 *
 * @param countsBits it has a test mode that counts bits and errors
 * @param bitRate bits a second that it counts; 0 if it counts none
 * @param mostBits that it counts at once
 * @param packetBits bits of a packet of the test mode, 0 if it has none
 * @param givesAudio its loudspeaker's output can be had
 * @param audioRateHz samples of it a second
 * @param hasSquelch it says whether its squelch is open
 */
public record TestedCapabilities(
    boolean countsBits,
    double bitRate,
    int mostBits,
    int packetBits,
    boolean givesAudio,
    double audioRateHz,
    boolean hasSquelch) {

  public static TestedCapabilities of(Dialect d) {
    boolean bits = d.queries().containsKey("counts");
    boolean audio = d.queries().containsKey("audio");
    if (!bits && !audio) {
      throw new Refusal(
          "dialect",
          "The dialect \""
              + d.id()
              + "\" has neither \"counts\" nor \"audio\": nothing tells how well it receives.");
    }
    return new TestedCapabilities(
        bits,
        bits ? ranged(d, "bitRate", 1, 1e12) : 0,
        bits ? (int) ranged(d, "mostBits", 1000, 2e9) : 0,
        (int) (double) d.facts().getOrDefault("packetBits", 0.0),
        audio,
        audio ? ranged(d, "audioRateHz", 1000, 1e6) : 0,
        d.queries().containsKey("squelchOpen"));
  }

  private static double ranged(Dialect d, String name, double lowest, double highest) {
    double v = d.fact(name);
    if (!(v >= lowest && v <= highest)) {
      throw new Refusal(
          "dialect",
          String.format(
              Locale.ROOT,
              "The fact \"%s\" of the dialect \"%s\" must be %.6g to %.6g.",
              name,
              d.id(),
              lowest,
              highest));
    }
    return v;
  }
}
