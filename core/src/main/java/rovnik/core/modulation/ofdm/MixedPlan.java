package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.IntToDoubleFunction;
import rovnik.core.modulation.Constellation;
import rovnik.core.modulation.ofdm.SymbolPlan.Role;

/**
 * Packets of one HT or VHT stream in 20 MHz as frames: behind SIGNAL two symbols say what follows,
 * then come a short training, the training of these tones, in VHT a symbol more, and the data.
 */
final class MixedPlan {
  private static final int TIMES = ChannelSamples.TIMES;

  /** Symbols of usual length behind SIGNAL before that training. */
  private static final int BEFORE = 3;

  /** Where its transform begins, from the first training of the preamble. */
  static final int TRAINING = LegacyPlan.SIGNAL + (BEFORE + 1) * LegacyPlan.SYMBOL;

  /** Where the transform of VHT-SIG-B begins, from this training. */
  static final int SIGNAL_B = LegacyPlan.SYMBOL;

  /** Where the repeated SIGNAL and the four symbols behind it may be, from SIGNAL on. */
  static final int MOST_HEADERS = 5;

  /** The preamble of clause 17 with the tones that a repeated SIGNAL has besides. */
  static final FramePlan REPEATED = repeated();

  private MixedPlan() {}

  /** Symbols of usual length between SIGNAL and the data. */
  private static int before(PacketFormat format) {
    return format == PacketFormat.VHT ? BEFORE + 2 : BEFORE + 1;
  }

  /** Symbols of data that fit behind so many of usual length. */
  static int room(PacketFormat format, int usual, int guard) {
    int samples = (usual - before(format)) * LegacyPacket.SYMBOL;
    return Math.max(0, samples / (LegacyTones.TRANSFORM + guard));
  }

  private static FramePlan repeated() {
    int[] tones = MixedTones.all();
    List<SymbolPlan> training = new ArrayList<>();
    for (int i = 0; i < 2; i++) {
      training.add(
          known(i * LegacyTones.TRANSFORM * TIMES, k -> LegacyTones.longTraining(tones[k])));
    }
    for (int i = 0; i < 2; i++) {
      training.add(
          known(LegacyPlan.SIGNAL + i * LegacyPlan.SYMBOL, k -> MixedTones.ofSignal(tones[k])));
    }
    FramePlan p = LegacyPlan.PREAMBLE;
    return new FramePlan(p.transform(), p.early(), p.head(), tones, training, List.of());
  }

  private static SymbolPlan known(int at, IntToDoubleFunction value) {
    int count = MixedTones.all().length;
    double[] re = new double[count];
    Arrays.setAll(re, value);
    Role[] roles = new Role[count];
    Arrays.setAll(roles, k -> re[k] == 0 ? Role.NONE : Role.KNOWN);
    return new SymbolPlan(at, roles, re, new double[count], new Constellation[0]);
  }

  /**
   * A packet with so many symbols of data, as a frame that begins with its own training.
   *
   * @param guard of the data, samples at the rate of the channel
   */
  static FramePlan of(PacketFormat format, Coding coding, int guard, int symbols) {
    int[] tones = MixedTones.all();
    SymbolPlan training = known(0, k -> MixedTones.training(tones[k]));
    boolean vht = format == PacketFormat.VHT;
    // From the end of the training's transform, or of SIG-B's.
    int begin = LegacyPlan.PREAMBLE.transform() + (vht ? SIGNAL_B : 0);
    int each = (LegacyTones.TRANSFORM + guard) * TIMES;
    List<SymbolPlan> data = new ArrayList<>(symbols);
    for (int s = 0; s < symbols; s++) {
      data.add(symbol(begin + s * each + guard * TIMES, coding, s, vht ? 4 : 3));
    }
    FramePlan p = LegacyPlan.PREAMBLE;
    return new FramePlan(
        p.transform(), guard * TIMES / 2, p.head() + TRAINING, tones, List.of(training), data);
  }

  private static SymbolPlan symbol(int at, Coding coding, int number, int before) {
    int[] tones = MixedTones.all();
    Role[] roles = new Role[tones.length];
    Constellation[] points = new Constellation[tones.length];
    double[] re = new double[tones.length];
    int pilot = 0;
    for (int k = 0; k < tones.length; k++) {
      boolean isPilot = LegacyTones.isPilot(tones[k]);
      roles[k] = isPilot ? Role.PILOT : Role.DATA;
      points[k] = isPilot ? null : coding.constellation();
      re[k] = isPilot ? MixedTones.pilot(pilot++, number, before) : 1;
    }
    return new SymbolPlan(at, roles, re, new double[tones.length], points);
  }
}
