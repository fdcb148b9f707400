package rovnik.server.modulation;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.jspecify.annotations.Nullable;
import rovnik.core.modulation.Format;
import rovnik.core.modulation.Framing;
import rovnik.core.modulation.Payload;
import rovnik.core.modulation.Prbs;
import rovnik.core.modulation.PulseShape;
import rovnik.core.modulation.SingleCarrier;
import rovnik.server.config.Choices;

/**
 * Description of one carrier with data.
 *
 * @param format ook, bpsk, qpsk, offset-qpsk, pi4-dqpsk, psk8, d8psk, apsk16, apsk32, qam16, qam32,
 *     qam64, qam128, qam256, qam512, qam1024, qam4096, fsk2, fsk4, fsk8, msk or gmsk
 * @param filter of the transmitter: root-raised-cosine, raised-cosine, gaussian, half-sine,
 *     rectangular or none
 * @param filterParameter roll-off of the cosines, B T of the Gaussian
 * @param mapping points in the order of their values, each [I, Q]; null for the format's own (Gray)
 * @param prbs order of a test sequence of ITU-T O.150: 9, 11, 15, 20, 23 or 31; null with own bits
 * @param bits own data, zeros and ones; null with a test sequence
 * @param word bits of a known word that begins each frame, null for none
 * @param wordEverySymbols length of a frame, null for none
 * @param deviationHz of fsk2, fsk4 and fsk8: how far the outermost symbol, again and again, moves
 *     the frequency; null of the others
 */
@Schema(name = "CarrierDescription")
public record CarrierDto(
    String format,
    double symbolRateHz,
    String filter,
    double filterParameter,
    @Nullable List<List<Double>> mapping,
    @Nullable Integer prbs,
    @Nullable String bits,
    @Nullable String word,
    @Nullable Integer wordEverySymbols,
    @Nullable Double deviationHz) {

  /** A common one. */
  static final CarrierDto FIRST =
      new CarrierDto("qpsk", 48e3, "root-raised-cosine", 0.35, null, 9, null, null, null, null);

  SingleCarrier toCore() {
    String own = bits == null ? "" : bits;
    return new SingleCarrier(
        Choices.named(Format.values(), Format::label, "format", format),
        symbolRateHz,
        shape(filter, filterParameter),
        mapping == null ? List.of() : mapping,
        own.isEmpty() ? Payload.of(Prbs.ofOrder(prbs == null ? 9 : prbs)) : new Payload(null, own),
        word == null || word.isEmpty()
            ? Framing.NONE
            : new Framing(word, wordEverySymbols == null ? 0 : wordEverySymbols),
        deviationHz == null ? 0 : deviationHz);
  }

  static PulseShape shape(String filter, double parameter) {
    PulseShape.Kind kind =
        Choices.named(PulseShape.Kind.values(), PulseShape.Kind::label, "filter", filter);
    return new PulseShape(kind, parameter);
  }
}
