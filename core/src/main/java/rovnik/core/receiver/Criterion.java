package rovnik.core.receiver;

import java.util.Locale;
import rovnik.core.Refusal;

/**
 * What a receiver must reach to be good enough.
 *
 * @param of which quality
 * @param target a share of bits or packets, or SINAD in dB
 */
public record Criterion(Of of, double target) {
  /** Which quality. */
  public enum Of {
    BER("ber", "bit error ratio"),
    PER("per", "packet error ratio"),
    SINAD("sinad", "SINAD");

    private final String key;
    private final String label;

    Of(String key, String label) {
      this.key = key;
      this.label = label;
    }

    public static Of parse(String key) {
      for (Of o : values()) {
        if (o.key.equals(key)) {
          return o;
        }
      }
      throw new Refusal("quality", "Choose ber, per or sinad; not \"" + key + "\".");
    }
  }

  public Criterion {
    boolean fits =
        switch (of) {
          case BER -> target > 0 && target < 0.2;
          case PER -> target > 0 && target < 0.9;
          case SINAD -> target >= 3 && target <= 40;
        };
    if (!fits) {
      throw new Refusal(
          "target",
          switch (of) {
            case BER -> "A bit error ratio is above 0 and below 0.2, such as 1e-3.";
            case PER -> "A packet error ratio is above 0 and below 0.9, such as 0.1.";
            case SINAD -> "SINAD to look for is 3 to 40 dB; 12 dB and 20 dB are common.";
          });
    }
  }

  /**
   * What is reached, on a scale that rises with quality: SINAD, or the share that is wrong in dB.
   */
  double valueOf(Quality q) {
    if (of == Of.SINAD) {
      return Double.isNaN(q.sinadDb()) ? 0 : q.sinadDb();
    }
    long all = of == Of.BER ? q.bits() : q.packets();
    long wrong = of == Of.BER ? q.errors() : q.wrongPackets();
    return all == 0 ? 0 : -10 * Math.log10(Math.max(0.5, wrong) / all);
  }

  double targetValue() {
    return of == Of.SINAD ? target : -10 * Math.log10(target);
  }

  /** What was seen, in words. */
  String seen(Quality q) {
    if (of == Of.SINAD) {
      return Double.isNaN(q.sinadDb())
          ? "no tone is heard"
          : String.format(Locale.ROOT, "SINAD is %.1f dB", q.sinadDb());
    }
    long all = of == Of.BER ? q.bits() : q.packets();
    long wrong = of == Of.BER ? q.errors() : q.wrongPackets();
    return all == 0
        ? "nothing is received"
        : String.format(Locale.ROOT, "the %s is %.2g", of.label, (double) wrong / all);
  }

  /**
   * Seconds of one look at which chance says little against what is sought.
   *
   * @param bitRate of the receiver
   */
  public double seconds(double bitRate, int packetBits, double audioSeconds) {
    if (of == Of.SINAD) {
      return audioSeconds;
    }
    double perSecond = of == Of.BER ? bitRate : bitRate / packetBits;
    return Math.max(0.3, Math.min(10, 100 / (target * perSecond)));
  }

  /** "a bit error ratio of 1e-3". */
  public String words() {
    return of == Of.SINAD
        ? String.format(Locale.ROOT, "%.4g dB SINAD", target)
        : "a " + of.label + " of " + share(target);
  }

  /** "0.1", "1e-3". */
  private static String share(double v) {
    return v >= 0.01
        ? String.format(Locale.ROOT, "%.3g", v).replaceAll("0+$", "")
        : String.format(Locale.ROOT, "%.2e", v).replaceAll("\\.?0*e-0?", "e-");
  }

  /**
   * The search for it.
   *
   * @param packetBits bits of a packet of the receiver
   */
  public LevelSearch search(
      ReceiverModel model,
      int packetBits,
      double audioSeconds,
      double startDbm,
      double lowestDbm,
      double highestDbm,
      double wantedDb) {
    if (of == Of.SINAD) {
      return new LineSearch(this, audioSeconds, startDbm, lowestDbm, highestDbm, wantedDb, false);
    }
    if (of == Of.PER && packetBits < 2) {
      throw new Refusal("quality", "This receiver counts no packets. Choose bits.");
    }
    return new CountSearch(
        model.theory().orElseGet(ErrorTheory::plain),
        of == Of.BER ? 1 : packetBits,
        target,
        model.bitRate(),
        startDbm,
        lowestDbm,
        highestDbm,
        wantedDb);
  }
}
