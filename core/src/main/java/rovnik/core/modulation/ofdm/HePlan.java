package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import rovnik.core.modulation.Constellation;
import rovnik.core.modulation.ofdm.SymbolPlan.Role;

/**
 * A packet of one HE or EHT user that has a whole channel as a frame: behind SIGNAL, the same again
 * and what says more come a short training, its own training and the data.
 *
 * @param width of the channel, in 20 MHz; samples are so many times those of 20 MHz
 * @param before symbols of usual length from the repeated SIGNAL to the short training, with it; so
 *     many signs of pilots come before those of the data, too
 * @param parts how often the training repeats itself within a transform
 * @param guard of training and data, samples at 20 MS/s
 */
record HePlan(int width, int before, int parts, int guard) {
  private static final int TIMES = ChannelSamples.TIMES;

  /** Samples of a symbol without its guard, at 20 MS/s. */
  static final int USUAL_TRANSFORM = 256;

  /** Samples of the training, at 20 MS/s. */
  int ofTraining() {
    return guard + USUAL_TRANSFORM / parts;
  }

  /** Where its transform begins, from the packet's first training, in samples read of 20 MHz. */
  int training() {
    return LegacyPlan.end(before) + guard * TIMES;
  }

  /** Symbols of data that fit behind SIGNAL if it names so many of usual length. */
  int room(int usual) {
    int samples = (usual - before) * LegacyPacket.SYMBOL - ofTraining();
    return Math.max(0, samples / (USUAL_TRANSFORM + guard));
  }

  /** The packet, as if all of its training were 1. */
  FramePlan of(Coding coding, int symbols) {
    int[] tones = UserTones.of(width).all();
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
    int begin = USUAL_TRANSFORM / parts * TIMES * width;
    int each = (USUAL_TRANSFORM + guard) * TIMES * width;
    List<SymbolPlan> data = new ArrayList<>(symbols);
    Alike alike = alike(UserTones.of(width), coding);
    for (int s = 0; s < symbols; s++) {
      data.add(
          alike.symbol(UserTones.of(width), begin + s * each + guard * TIMES * width, s, before));
    }
    return new FramePlan(
        USUAL_TRANSFORM * TIMES * width,
        guard * TIMES * width / 2,
        (LegacyPlan.PREAMBLE.head() + training()) * width,
        tones,
        List.of(training),
        data);
  }

  /** What all symbols with data have alike, and where their pilots are. */
  private record Alike(Role[] roles, Constellation[] points, double[] re, int[] pilots) {
    SymbolPlan symbol(UserTones tones, int at, int number, int before) {
      double[] own = re.clone();
      for (int p = 0; p < pilots.length; p++) {
        own[pilots[p]] = tones.pilot(p, number, before);
      }
      return new SymbolPlan(at, roles, own, new double[own.length], points);
    }
  }

  private static Alike alike(UserTones tones, Coding coding) {
    int count = tones.all().length;
    int[] pilots = IntStream.range(0, count).filter(k -> tones.isPilot(tones.all()[k])).toArray();
    Role[] roles = new Role[count];
    Constellation[] points = new Constellation[count];
    double[] re = new double[count];
    Arrays.fill(roles, Role.DATA);
    Arrays.fill(points, coding.constellation());
    Arrays.fill(re, 1);
    for (int p : pilots) {
      roles[p] = Role.PILOT;
      points[p] = null;
    }
    return new Alike(roles, points, re, pilots);
  }
}
