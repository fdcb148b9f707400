package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.IntToDoubleFunction;
import rovnik.core.modulation.Constellation;
import rovnik.core.modulation.ofdm.SymbolPlan.Role;

/**
 * Packets of one HT or VHT stream as frames: behind SIGNAL two symbols say what follows, then come
 * a short training, the training of these tones, in VHT a symbol more, and the data.
 */
final class MixedPlan {
  private static final int TIMES = ChannelSamples.TIMES;

  /** Symbols of usual length behind SIGNAL before that training. */
  private static final int BEFORE = 3;

  /** Where its transform begins, from the first training of the preamble. */
  static final int TRAINING = LegacyPlan.SIGNAL + (BEFORE + 1) * LegacyPlan.SYMBOL;

  /** Where the transform of VHT-SIG-B begins, from this training, in samples of 20 MHz. */
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
   * @param guard of the data, samples at 20 MS/s
   */
  static FramePlan of(
      PacketFormat format, StreamTones tones, Coding coding, int guard, int symbols) {
    int times = TIMES * tones.width();
    int transform = LegacyTones.TRANSFORM * times;
    boolean vht = format == PacketFormat.VHT;
    // From the end of the training's transform, or of SIG-B's.
    int begin = transform + (vht ? SIGNAL_B * tones.width() : 0);
    int each = (LegacyTones.TRANSFORM + guard) * times;
    List<SymbolPlan> data = new ArrayList<>(symbols);
    for (int s = 0; s < symbols; s++) {
      data.add(symbol(tones, begin + s * each + guard * times, coding, s, vht ? 4 : 3));
    }
    return new FramePlan(
        transform,
        guard * times / 2,
        (LegacyPlan.PREAMBLE.head() + TRAINING) * tones.width(),
        tones.all(),
        new int[tones.all().length],
        tones.quarters(),
        List.of(trainingOf(tones)),
        data);
  }

  private static SymbolPlan trainingOf(StreamTones tones) {
    int count = tones.all().length;
    Role[] roles = new Role[count];
    double[] re = new double[count];
    double[] im = new double[count];
    for (int k = 0; k < count; k++) {
      roles[k] = Role.KNOWN;
      turn(tones.quarters()[k], tones.training()[k], re, im, k);
    }
    return new SymbolPlan(0, roles, re, im, new Constellation[0]);
  }

  /** VHT-SIG-B, from the training. */
  static SymbolPlan signalB(StreamTones tones) {
    return symbol(tones, SIGNAL_B * tones.width(), LegacyRate.R6.coding(), 0, 3);
  }

  private static SymbolPlan symbol(
      StreamTones tones, int at, Coding coding, int number, int before) {
    int[] all = tones.all();
    Role[] roles = new Role[all.length];
    Constellation[] points = new Constellation[all.length];
    double[] re = new double[all.length];
    double[] im = new double[all.length];
    int pilot = 0;
    for (int k = 0; k < all.length; k++) {
      boolean isPilot = pilot < tones.pilots().length && tones.pilots()[pilot] == all[k];
      roles[k] = isPilot ? Role.PILOT : Role.DATA;
      points[k] = isPilot ? null : coding.constellation();
      turn(tones.quarters()[k], isPilot ? tones.pilot(pilot++, number, before) : 1, re, im, k);
    }
    return new SymbolPlan(at, roles, re, im, points);
  }

  private static void turn(int quarters, double value, double[] re, double[] im, int k) {
    re[k] = quarters == 0 ? value : quarters == 2 ? -value : 0;
    im[k] = quarters == 1 ? value : quarters == 3 ? -value : 0;
  }
}
