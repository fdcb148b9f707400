package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import rovnik.core.modulation.Constellation;
import rovnik.core.modulation.ofdm.SymbolPlan.Role;

/** The packets of IEEE 802.11-2020 clause 17 as frames. */
final class LegacyPlan {
  private static final int TIMES = ChannelSamples.TIMES;
  private static final int[] TONES = tones();

  /** Where SIGNAL's transform begins. */
  static final int SIGNAL = (2 * LegacyTones.TRANSFORM + LegacyTones.GUARD) * TIMES;

  static final int SYMBOL = LegacyPacket.SYMBOL * TIMES;

  /** The long training, and nothing behind it. */
  static final FramePlan PREAMBLE =
      new FramePlan(
          LegacyTones.TRANSFORM * TIMES,
          LegacyTones.GUARD * TIMES / 2,
          (LegacyPacket.TRAINING + 2 * LegacyTones.GUARD) * TIMES,
          TONES,
          List.of(training(0), training(1)),
          List.of());

  private LegacyPlan() {}

  private static int[] tones() {
    int[] out = new int[2 * LegacyTones.LAST];
    for (int i = 0; i < out.length; i++) {
      out[i] = i < LegacyTones.LAST ? i - LegacyTones.LAST : i - LegacyTones.LAST + 1;
    }
    return out;
  }

  private static SymbolPlan training(int which) {
    Role[] roles = new Role[TONES.length];
    double[] re = new double[TONES.length];
    Arrays.fill(roles, Role.KNOWN);
    Arrays.setAll(re, k -> LegacyTones.longTraining(TONES[k]));
    int at = which * LegacyTones.TRANSFORM * TIMES;
    return new SymbolPlan(at, roles, re, new double[TONES.length], new Constellation[0]);
  }

  /** A packet with so many symbols of data. */
  static FramePlan of(LegacyRate rate, int symbols) {
    Role[] roles = new Role[TONES.length];
    Constellation[] points = new Constellation[TONES.length];
    double[] straight = new double[TONES.length];
    double[] turned = new double[TONES.length];
    int pilot = 0;
    for (int k = 0; k < TONES.length; k++) {
      if (LegacyTones.isPilot(TONES[k])) {
        roles[k] = Role.PILOT;
        straight[k] = LegacyTones.pilot(pilot++, 0);
        turned[k] = -straight[k];
      } else {
        roles[k] = Role.DATA;
        points[k] = rate.coding().constellation();
        straight[k] = 1;
        turned[k] = 1;
      }
    }
    double[] zero = new double[TONES.length];
    List<SymbolPlan> data = new ArrayList<>(symbols);
    for (int s = 1; s <= symbols; s++) {
      boolean same = LegacyTones.pilot(0, s) == LegacyTones.pilot(0, 0);
      data.add(new SymbolPlan(SIGNAL + s * SYMBOL, roles, same ? straight : turned, zero, points));
    }
    return PREAMBLE.with(data);
  }

  /** A symbol of a header, on the tones of a plan: what each carries is not known before. */
  static SymbolPlan header(FramePlan plan, int at, int number) {
    int count = plan.tones().length;
    Role[] roles = new Role[count];
    double[] re = new double[count];
    Arrays.fill(roles, Role.DATA);
    Arrays.fill(re, 1);
    for (int p = 0; p < LegacyTones.PILOTS.length; p++) {
      int k = plan.indexOf(LegacyTones.PILOTS[p]);
      roles[k] = Role.PILOT;
      re[k] = LegacyTones.pilot(p, number);
    }
    return new SymbolPlan(at, roles, re, new double[count], new Constellation[0]);
  }

  /** Where a packet ends, whatever of it could be read. */
  static int end(int symbols) {
    return SIGNAL + PREAMBLE.transform() + symbols * SYMBOL;
  }
}
