package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.Function;
import java.util.function.IntFunction;
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

  /**
   * What must be there.
   *
   * @param share width that the tones take, of the rate of the transform
   * @param symbol samples of one with its guard, at that rate
   * @param shortestSymbols of which there must be so many
   */
  private record Layout(double share, double symbol, int shortestSymbols) {
    static Layout of(OfdmDescription d) {
      FramePlan plan = d.frame().plan();
      double all = plan.trainingEnd() / ChannelSamples.TIMES;
      return new Layout((2 * plan.farthest() + 1.0) / d.transform(), all, 1);
    }
  }

  /** Preamble, SIGNAL and one symbol. */
  private static final Layout LEGACY =
      new Layout((2 * LegacyTones.LAST + 1.0) / LegacyTones.TRANSFORM, LegacyPacket.SYMBOL, 6);

  /** Newer packets that begin so have more tones, which are taken where the record has them. */
  private static final double NEWER_SHARE = (2 * MixedTones.LAST + 1.0) / LegacyTones.TRANSFORM;

  /** Of the width of the tones, with some offset. */
  private static final double BESIDE = 1.1;

  /** From quiet to loud, dB, that is more than noise. */
  private static final double LOUD_DB = 6;

  private static final int CELLS = 64;

  private final OfdmSettings settings;
  private final DescribedFrame frame;
  private final Layout layout;

  public OfdmMeasurement(OfdmSettings settings) {
    super(KIND, TITLE, widthHz(settings), settings.seconds(), settings.words());
    this.settings = settings;
    this.frame = settings.described().map(OfdmDescription::frame).orElse(null);
    this.layout = layoutOf(settings);
  }

  /** That a record must hold: the channel, or the tones that are described and a little more. */
  private static double widthHz(OfdmSettings s) {
    double share = s.described().isPresent() ? BESIDE * layoutOf(s).share() : 1;
    return Math.min(1, share) * s.rateHz();
  }

  private static Layout layoutOf(OfdmSettings s) {
    return s.described()
        .map(Layout::of)
        .orElseGet(
            () ->
                s.width() == 1
                    ? LEGACY
                    : new Layout(
                        2 * ResourceUnit.whole(s.width()).reach(s.width()),
                        s.width() * LegacyPacket.SYMBOL,
                        LEGACY.shortestSymbols()));
  }

  @Override
  public String bandField() {
    return settings.described().isPresent() ? "description" : "channelHz";
  }

  @Override
  public Outcome of(IqRecord record, MeasurementContext context) {
    double fs = record.sampleRateHz();
    double channel = settings.rateHz();
    double near = CarrierReadings.expectedHz(record, context, settings.centreHz());
    double needed = 2 * Math.abs(near) + layout.share() * channel;
    if (fs < needed) {
      throw new Refusal(
          bandField(),
          (settings.described().isPresent() ? "Tones over " : "A channel of ")
              + Frequency.ofHertz(
                  settings.described().isPresent() ? layout.share() * channel : channel)
              + " there need"
              + (settings.described().isPresent() ? " " : "s ")
              + Frequency.ofHertz(Math.ceil(needed)).toString().replace("Hz", "S/s")
              + "; this record has "
              + Frequency.ofHertz(fs).toString().replace("Hz", "S/s")
              + ". Sample faster, or choose "
              + (settings.described().isPresent()
                  ? "another description."
                  : "a narrower channel."));
    }
    int from = Math.max(0, record.sampleAt(settings.startSeconds()));
    int there = record.sampleCount() - from;
    double symbol = layout.symbol() / channel;
    if (there / fs < layout.shortestSymbols() * symbol) {
      throw new Refusal(
          "startSeconds",
          "The record ends at "
              + Seconds.words(record.endSeconds())
              + ", too early for a packet. Begin earlier, or take a longer one.");
    }
    ChannelSamples samples =
        new ChannelSamples(
            record.iq(),
            from,
            (int) Math.min(there, samplesWanted(fs)),
            fs,
            near,
            channel,
            settings.described().isPresent()
                ? layout.share()
                : Math.max(NEWER_SHARE, layout.share()));
    List<OfdmPacket> packets =
        settings.described().isEmpty()
            ? packets(channels(record, from, samples, near))
            : described(samples);
    if (settings.packet() > packets.size()) {
      throw new Refusal(
          "packet",
          packets.size() == 1
              ? "There is one packet. Choose 1, or search longer."
              : "There are " + packets.size() + " packets. Choose one of them, or search longer.");
    }
    return new OfdmOutcome(settings, frame, record, context, packets, samples, from).outcome();
  }

  /** With the parts of a wide channel in which packets say what they are. */
  private Channels channels(IqRecord record, int from, ChannelSamples samples, double near) {
    if (settings.width() == 1) {
      return new Channels(samples, part -> samples);
    }
    double fs = record.sampleRateHz();
    int there = record.sampleCount() - from;
    return new Channels(
        samples,
        part ->
            new ChannelSamples(
                record.iq(),
                from,
                (int) Math.min(there, samplesWanted(fs)),
                fs,
                near + settings.toLowestHz() + part * settings.preambleHz(),
                settings.preambleHz(),
                NEWER_SHARE));
  }

  private List<OfdmPacket> packets(Channels channels) {
    ChannelSamples preambles = channels.preamble(0);
    double[] re = new double[preambles.count()];
    double[] im = new double[preambles.count()];
    preambles.read(0, 0, re, im);
    PacketFinder finder = new PacketFinder(re, im);
    PacketReader reader = new PacketReader(channels, settings);
    List<OfdmPacket> out = all(finder::next, reader::read);
    if (out.isEmpty()) {
      throw new Refusal("signal", nothing(repeated(finder.others()), re, im));
    }
    return out;
  }

  private List<OfdmPacket> described(ChannelSamples samples) {
    double[] re = new double[samples.count()];
    double[] im = new double[samples.count()];
    samples.read(0, 0, re, im);
    FrameFinder finder = new FrameFinder(re, im, frame, samples, settings);
    FrameReader reader = new FrameReader(samples, settings, frame);
    List<OfdmPacket> out = all(finder::next, reader::read);
    if (out.isEmpty()) {
      throw new Refusal("signal", nothing(guarded(finder.others()), re, im));
    }
    return out;
  }

  /** All packets; within one that is read no other is looked for. */
  private List<OfdmPacket> all(
      IntFunction<PacketFinder.Found> next, Function<PacketFinder.Found, OfdmPacket> read) {
    List<OfdmPacket> out = new ArrayList<>();
    PacketFinder.Found found = next.apply(0);
    while (found != null && out.size() < settings.most()) {
      OfdmPacket p = read.apply(found);
      out.add(p);
      found = next.apply(found.training() + p.end());
    }
    return out;
  }

  private static String repeated(int others) {
    return others == 0
        ? ""
        : "Something there repeats itself as a short training does ("
            + others
            + (others == 1 ? " time" : " times")
            + "), but no long training follows: another kind of signal, or another channel width.";
  }

  private static String guarded(int others) {
    return others == 0
        ? ""
        : "Something repeats itself as such guards do (a plain carrier does, too), but there are no"
            + " known tones as the description has them."
            + " Check its known values, which symbols come first, and the middle of the channel, or"
            + " search longer: a frame must be there from its beginning.";
  }

  /** What is there instead of a packet. */
  private static String nothing(String others, double[] re, double[] im) {
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
    if (!others.isEmpty()) {
      return others;
    }
    double rise = 10 * Math.log10(loudest / Math.max(quietest, 1e-30 * loudest));
    return rise > LOUD_DB
        ? String.format(
            Locale.ROOT,
            "There is power that comes and goes by %.0f dB, but nothing in it repeats itself as it"
                + " should. Check the middle of the channel and its width.",
            rise)
        : "Nothing but even power is there. Search longer, check the middle of the channel, or"
            + " look at it in Time.";
  }
}
