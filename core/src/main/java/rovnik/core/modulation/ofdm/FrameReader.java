package rovnik.core.modulation.ofdm;

import java.util.List;

/** Reads frames that are described. */
final class FrameReader {
  private final ChannelSamples samples;
  private final DescribedFrame frame;
  private final SymbolReader symbols;

  FrameReader(ChannelSamples samples, OfdmSettings settings, DescribedFrame frame) {
    this.samples = samples;
    this.frame = frame;
    this.symbols = new SymbolReader(samples, settings, frame.plan());
  }

  /** Reads a frame; what there is of it if it is cut off. */
  OfdmPacket read(PacketFinder.Found found) {
    FramePlan whole = frame.plan();
    int there = samples.count() - found.training() - whole.transform();
    List<SymbolPlan> data = whole.data().stream().filter(s -> s.at() <= there).toList();
    String check =
        data.size() == whole.data().size()
            ? ""
            : "cut off: " + data.size() + " of " + whole.data().size() + " symbols are there";
    FramePlan plan = whole.with(data);
    symbols.begin(plan, found, plan.length());
    if (frame.learned() && !data.isEmpty()) {
      plan = new LearnedTraining(symbols, plan).asTold();
      symbols.trainAgain(plan);
    }
    SymbolReader.Round round =
        data.isEmpty() ? new SymbolReader.Round(0, plan.tones().length) : symbols.data(plan);
    return OfdmPacket.of(symbols, plan, round, check, fieldPower(plan), null);
  }

  /** Of each field, then of all symbols with data. */
  private double[] fieldPower(FramePlan plan) {
    int fields = frame.fields().size();
    double[] sum = new double[fields + 1];
    int[] count = new int[fields + 1];
    for (int s = 0; s < frame.at().length; s++) {
      int at = frame.at()[s];
      if (at + plan.transform() <= plan.length()) {
        int f = frame.fieldOf()[s] < 0 ? fields : frame.fieldOf()[s];
        sum[f] += symbols.power(at, at + plan.transform());
        count[f]++;
      }
    }
    for (int f = 0; f <= fields; f++) {
      sum[f] /= count[f];
    }
    return sum;
  }
}
