package rovnik.core.modulation.analysis;

import java.util.ArrayList;
import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.modulation.PulseShape;
import rovnik.core.modulation.SingleCarrier;
import rovnik.core.result.Fact;

/**
 * What one carrier is measured with.
 *
 * @param carrier what it is
 * @param centreHz where it is expected, at the reading plane; 0 for anywhere in the record
 * @param searchHz how far it may be from there, at most half of the symbol rate; 0 for a quarter
 * @param symbols result length; 0 for as many as there are, up to {@link #MOST_SYMBOLS}
 * @param startSeconds where in the record it begins
 * @param measuringFilter that the receiver has; null for the one that matches the transmitter's
 * @param toPeak errors in percent of the outermost point instead of the root mean square
 * @param knownData errors from what was sent instead of from decisions, where that is found
 * @param evmLimitPercent highest EVM that passes, NaN for none
 * @param equalizer of the receiver
 * @param trackSymbols the carrier's phase is followed, as the mean over so many symbols; 0 for not
 */
public record SingleCarrierSettings(
    SingleCarrier carrier,
    double centreHz,
    double searchHz,
    int symbols,
    double startSeconds,
    PulseShape measuringFilter,
    boolean toPeak,
    boolean knownData,
    double evmLimitPercent,
    Equalizer equalizer,
    int trackSymbols) {

  private static final int LEAST_TRACK = 8;

  /** Most symbols that are taken of a record. */
  public static final int MOST_SYMBOLS = 100_000;

  /** As many as there are means at most so many. */
  public static final int USUAL_SYMBOLS = 10_000;

  /** Without an equalizer, at the phase of the whole result. */
  public SingleCarrierSettings(
      SingleCarrier carrier,
      double centreHz,
      double searchHz,
      int symbols,
      double startSeconds,
      PulseShape measuringFilter,
      boolean toPeak,
      boolean knownData,
      double evmLimitPercent) {
    this(
        carrier,
        centreHz,
        searchHz,
        symbols,
        startSeconds,
        measuringFilter,
        toPeak,
        knownData,
        evmLimitPercent,
        Equalizer.OFF,
        0);
  }

  public SingleCarrierSettings {
    equalizer.fits(carrier);
    if (trackSymbols != 0
        && (trackSymbols < LEAST_TRACK
            || trackSymbols > MOST_SYMBOLS
            || carrier.format().keyed())) {
      throw new Refusal(
          "trackSymbols",
          carrier.format().keyed()
              ? "The phase of a keyed frequency is not followed. Take 0 symbols."
              : "The phase is followed over "
                  + LEAST_TRACK
                  + " symbols or more; 0 for the phase of the whole result.");
    }
    if (symbols < 0 || symbols > MOST_SYMBOLS || symbols > 0 && symbols < 16) {
      throw new Refusal(
          "symbols", "The result is 16 to " + MOST_SYMBOLS + " symbols long; 0 for all there are.");
    }
    if (!(startSeconds >= 0)) {
      throw new Refusal("startSeconds", "The result begins at 0 s or later in the record.");
    }
    if (!(searchHz >= 0 && searchHz <= carrier.symbolRateHz() / 2)) {
      throw new Refusal(
          "searchHz", "The carrier is looked for at most half a symbol rate to each side.");
    }
    if (evmLimitPercent <= 0) {
      throw new Refusal("evmLimitPercent", "The highest EVM is more than 0 %.");
    }
  }

  /** The settings in words, as runs keep and compare them. */
  public List<Fact> words() {
    List<Fact> out = new ArrayList<>();
    out.add(Fact.of("carrier", carrier.words()));
    out.add(Fact.of("data", carrier.payload().words()));
    if (!carrier.framing().none()) {
      int bits = carrier.constellation().bitsPerSymbol();
      out.add(Fact.of("known word", carrier.framing().symbols(bits), "symbols"));
      out.add(Fact.of("word every", carrier.framing().everySymbols(), "symbols"));
    }
    if (centreHz == 0) {
      out.add(Fact.of("centre", "wherever it is"));
    } else {
      out.add(Fact.of("centre", centreHz, "Hz"));
      out.add(Fact.of("search", reachHz(), "Hz"));
    }
    out.add(
        symbols == 0 ? Fact.of("result", "all symbols") : Fact.of("result", symbols, "symbols"));
    if (startSeconds > 0) {
      out.add(Fact.of("begins at", startSeconds, "s"));
    }
    out.add(Fact.of("measuring filter", measured().words()));
    out.add(Fact.of("errors in percent of", toPeak ? "the outermost point" : "the mean power"));
    out.add(Fact.of("errors from", knownData ? "what was sent" : "decisions"));
    out.add(Fact.of("equalizer", equalizer.words()));
    if (trackSymbols > 0) {
      out.add(Fact.of("phase followed over", trackSymbols, "symbols"));
    }
    if (!Double.isNaN(evmLimitPercent)) {
      out.add(Fact.of("EVM at most", evmLimitPercent, "%"));
    }
    return List.copyOf(out);
  }

  PulseShape measured() {
    return measuringFilter == null ? carrier.matched() : measuringFilter;
  }

  double reachHz() {
    return searchHz == 0 ? carrier.symbolRateHz() / 4 : searchHz;
  }

  int most() {
    return symbols == 0 ? USUAL_SYMBOLS : symbols;
  }
}
