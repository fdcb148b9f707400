package rovnik.server.receiver;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import rovnik.core.Refusal;
import rovnik.core.modulation.Format;
import rovnik.core.modulation.analog.AudioFilter;
import rovnik.core.receiver.ErrorTheory;
import rovnik.core.receiver.ReceiverModel;
import rovnik.core.result.Fact;
import rovnik.instruments.tested.TestedCapabilities;
import rovnik.server.config.Choices;
import rovnik.server.results.Nulls;

/**
 * How a receiver under test is looked at, as sent and stored.
 *
 * @param seconds length of a look
 * @param format of the data that it receives, for the theory beside: qpsk, qam16, ...
 * @param noiseFigureDb of its data sheet, null if it is not known: no theory is shown then
 * @param audioLowHz lowest frequency of the audio that is judged, 0 for all
 * @param audioHighHz highest, 0 for all
 * @param weighted psophometric weighting (ITU-T O.41)
 * @param highestErrorRatio of bits that passes, null for no limit
 * @param leastSinadDb that passes, null for no limit
 * @param sensitivityDbm sensitivity that passes, null for no limit
 */
@Schema(name = "ReceiverSettings")
public record ReceiverSettings(
    double seconds,
    String format,
    @Nullable Double noiseFigureDb,
    double audioLowHz,
    double audioHighHz,
    boolean weighted,
    @Nullable Double highestErrorRatio,
    @Nullable Double leastSinadDb,
    @Nullable Double sensitivityDbm) {
  private static final double LONGEST_SECONDS = 10;
  private static final double SHORTEST_SECONDS = 0.05;

  /** Half a second of all that there is. */
  static final ReceiverSettings FIRST =
      new ReceiverSettings(0.5, "qam16", null, 0, 0, false, null, null, null);

  ReceiverSettings checked() {
    if (!(seconds >= SHORTEST_SECONDS && seconds <= LONGEST_SECONDS)) {
      throw new Refusal("seconds", "A look lasts 50 ms to 10 s.");
    }
    filter();
    formatOf();
    if (highestErrorRatio != null && !(highestErrorRatio > 0 && highestErrorRatio <= 0.5)) {
      throw new Refusal("highestErrorRatio", "A bit error ratio is above 0 and at most 0.5.");
    }
    new ReceiverModel(java.util.Optional.empty(), 0, Nulls.orNan(noiseFigureDb));
    return this;
  }

  AudioFilter filter() {
    return new AudioFilter(audioLowHz, audioHighHz, 0, weighted);
  }

  private Format formatOf() {
    return Choices.named(Format.values(), Format::label, "format", format);
  }

  ReceiverModel model(TestedCapabilities can) {
    return new ReceiverModel(
        can.countsBits() ? ErrorTheory.of(formatOf()) : java.util.Optional.empty(),
        can.bitRate(),
        Nulls.orNan(noiseFigureDb));
  }

  List<Fact> words(TestedCapabilities can) {
    List<Fact> all = new ArrayList<>();
    all.add(Fact.of("look", seconds, "s"));
    if (can.countsBits()) {
      all.add(Fact.of("format", formatOf().label()));
      if (noiseFigureDb != null) {
        all.add(Fact.of("noise figure", noiseFigureDb, "dB"));
      }
    }
    if (can.givesAudio()) {
      String band =
          filter().none()
              ? "all"
              : String.format(Locale.ROOT, "%.0f to %.0f Hz", audioLowHz, audioHighHz)
                  + (weighted ? ", weighted" : "");
      all.add(Fact.of("audio", band));
    }
    return all;
  }
}
