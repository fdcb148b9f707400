package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rovnik.core.Refusal;
import rovnik.core.modulation.CarrierReadings;
import rovnik.core.modulation.StretchMeasurement;
import rovnik.core.result.Outcome;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.units.Frequency;
import rovnik.core.units.Seconds;

/** From a record to the packets in it, and how good one of them is. */
public final class OfdmMeasurement extends StretchMeasurement {
  public static final String KIND = "ofdm";
  public static final String TITLE = "OFDM packets";

  /** Width that the tones take, of the channel's. */
  private static final double TONES_SHARE = (2 * LegacyTones.LAST + 1.0) / LegacyTones.TRANSFORM;

  /** Preamble, SIGNAL and one symbol, in symbols. */
  private static final int SHORTEST_SYMBOLS = 6;

  /** From quiet to loud, dB, that is more than noise. */
  private static final double LOUD_DB = 6;

  private static final int CELLS = 64;

  private final OfdmSettings settings;

  public OfdmMeasurement(OfdmSettings settings) {
    super(KIND, TITLE, settings.channelHz(), settings.seconds(), settings.words());
    this.settings = settings;
  }

  @Override
  public String bandField() {
    return "channelHz";
  }

  @Override
  public Outcome of(IqRecord record, MeasurementContext context) {
    double fs = record.sampleRateHz();
    double channel = settings.channelHz();
    double near = CarrierReadings.expectedHz(record, context, settings.centreHz());
    double needed = 2 * Math.abs(near) + TONES_SHARE * channel;
    if (fs < needed) {
      throw new Refusal(
          "channelHz",
          "A channel of "
              + Frequency.ofHertz(channel)
              + " there needs "
              + Frequency.ofHertz(Math.ceil(needed)).toString().replace("Hz", "S/s")
              + "; this record has "
              + Frequency.ofHertz(fs).toString().replace("Hz", "S/s")
              + ". Sample faster, or choose a narrower channel.");
    }
    int from = Math.max(0, record.sampleAt(settings.startSeconds()));
    int there = record.sampleCount() - from;
    double symbol = LegacyPacket.SYMBOL / channel;
    if (there / fs < SHORTEST_SYMBOLS * symbol) {
      throw new Refusal(
          "startSeconds",
          "The record ends at "
              + Seconds.words(record.endSeconds())
              + ", too early for a packet. Begin earlier, or take a longer one.");
    }
    ChannelSamples samples =
        new ChannelSamples(
            record.iq(), from, (int) Math.min(there, samplesWanted(fs)), fs, near, channel);
    double[] re = new double[samples.count()];
    double[] im = new double[samples.count()];
    samples.read(0, 0, re, im);
    PacketFinder finder = new PacketFinder(re, im);
    List<OfdmPacket> packets = packets(finder, new PacketReader(samples, settings));
    if (packets.isEmpty()) {
      throw new Refusal("signal", nothing(finder.others(), re, im));
    }
    if (settings.packet() > packets.size()) {
      throw new Refusal(
          "packet",
          packets.size() == 1
              ? "There is one packet. Choose 1, or search longer."
              : "There are " + packets.size() + " packets. Choose one of them, or search longer.");
    }
    return new OfdmOutcome(settings, record, context, packets, from / fs + record.startSeconds())
        .outcome();
  }

  /** All of them; within one that is read no other is looked for. */
  private List<OfdmPacket> packets(PacketFinder finder, PacketReader reader) {
    List<OfdmPacket> out = new ArrayList<>();
    PacketFinder.Found found = finder.next(0);
    while (found != null && out.size() < settings.most()) {
      OfdmPacket p = reader.read(found);
      out.add(p);
      found = finder.next(found.end(p.symbols()));
    }
    return out;
  }

  /** What is there instead of a packet. */
  private static String nothing(int others, double[] re, double[] im) {
    double quietest = Double.POSITIVE_INFINITY;
    double loudest = 0;
    int each = Math.max(1, re.length / CELLS);
    for (int from = 0; from + each <= re.length; from += each) {
      double sum = 0;
      for (int n = from; n < from + each; n++) {
        sum += re[n] * re[n] + im[n] * im[n];
      }
      quietest = Math.min(quietest, sum);
      loudest = Math.max(loudest, sum);
    }
    if (loudest == 0) {
      return "There is no signal: all samples are 0. Check the source and the connection.";
    }
    if (others > 0) {
      return "Something there repeats itself as a short training does ("
          + others
          + (others == 1 ? " time" : " times")
          + "), but no long training follows: another kind of signal, or another channel width.";
    }
    double rise = 10 * Math.log10(loudest / Math.max(quietest, 1e-30 * loudest));
    return rise > LOUD_DB
        ? String.format(
            Locale.ROOT,
            "There is power that comes and goes by %.0f dB, but nothing in it repeats itself as a"
                + " preamble does. Check the middle of the channel and its width.",
            rise)
        : "Nothing but even power is there. Search longer, check the middle of the channel, or"
            + " look at it in Time.";
  }
}
