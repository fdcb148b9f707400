package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import rovnik.core.modulation.Constellation;
import rovnik.core.modulation.ofdm.SymbolPlan.Role;

/**
 * A packet of one HE or EHT user that has all of 20 MHz as a frame: behind SIGNAL, the same again
 * and what says more come a short training, its own training and the data.
 *
 * @param before symbols of usual length from the repeated SIGNAL to the short training, with it; so
 *     many signs of pilots come before those of the data, too
 * @param parts how often the training repeats itself within a transform
 * @param guard of training and data, samples at the rate of the channel
 */
record HePlan(int before, int parts, int guard) {
  private static final int TIMES = ChannelSamples.TIMES;

  /** Samples of the training at the rate of the channel. */
  int ofTraining() {
    return guard + HeTones.TRANSFORM / parts;
  }

  /** Where its transform begins, from the packet's first training, in samples that are read. */
  int training() {
    return LegacyPlan.end(before) + guard * TIMES;
  }

  /** Symbols of data that fit behind SIGNAL if it names so many of usual length. */
  int room(int usual) {
    int samples = (usual - before) * LegacyPacket.SYMBOL - ofTraining();
    return Math.max(0, samples / (HeTones.TRANSFORM + guard));
  }

  /** The packet, as if all of its training were 1. */
  FramePlan of(Coding coding, int symbols) {
    int[] tones = HeTones.all();
    double[] re = new double[tones.length];
    Role[] roles = new Role[tones.length];
    int used = 0;
    for (int k = 0; k < tones.length; k++) {
      boolean has = tones[k] % parts == 0;
      roles[k] = has ? Role.KNOWN : Role.NONE;
      used += has ? 1 : 0;
    }
    // Fewer tones have the power of all.
    double level = Math.sqrt((double) tones.length / used);
    Arrays.setAll(re, k -> roles[k] == Role.KNOWN ? level : 0);
    SymbolPlan training =
        new SymbolPlan(0, parts, roles, re, new double[tones.length], new Constellation[0]);
    int begin = HeTones.TRANSFORM / parts * TIMES;
    int each = (HeTones.TRANSFORM + guard) * TIMES;
    List<SymbolPlan> data = new ArrayList<>(symbols);
    for (int s = 0; s < symbols; s++) {
      data.add(symbol(begin + s * each + guard * TIMES, coding, s));
    }
    return new FramePlan(
        HeTones.TRANSFORM * TIMES,
        guard * TIMES / 2,
        LegacyPlan.PREAMBLE.head() + training(),
        tones,
        List.of(training),
        data);
  }

  private SymbolPlan symbol(int at, Coding coding, int number) {
    int[] tones = HeTones.all();
    Role[] roles = new Role[tones.length];
    Constellation[] points = new Constellation[tones.length];
    double[] re = new double[tones.length];
    int pilot = 0;
    for (int k = 0; k < tones.length; k++) {
      boolean isPilot = HeTones.isPilot(tones[k]);
      roles[k] = isPilot ? Role.PILOT : Role.DATA;
      points[k] = isPilot ? null : coding.constellation();
      re[k] = isPilot ? HeTones.pilot(pilot++, number, before) : 1;
    }
    return new SymbolPlan(at, roles, re, new double[tones.length], points);
  }
}
