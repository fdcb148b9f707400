package rovnik.core.modulation.ofdm;

import java.util.List;
import rovnik.core.Refusal;

/**
 * What a trigger asked for: an HE packet that answers one does not say it again.
 *
 * @param training its kind and the guard: 0 for 1x and 1.6 us, 1 for 2x and 1.6, 2 for 4x and 3.2
 * @param users which units are filled; their levels do not count
 * @param lowDensity true if their bits are in the code of low density
 */
public record Trigger(int training, List<SentUser> users, boolean lowDensity) {
  /** How often a training repeats itself within a transform, and guards. */
  private static final int[] PARTS = {4, 2, 1};

  private static final int[] GUARDS = {32, 32, 64};

  /** Symbols of usual length from the repeated SIGNAL to the short training, which is double. */
  private static final int BEFORE = 5;

  /** Of these have pilots. */
  private static final int SIGNS = 4;

  private static final int MOST_USERS = 74;

  public Trigger {
    users = List.copyOf(users);
    if (training < 0 || training >= PARTS.length) {
      throw new Refusal("trigger", "A trigger asks for one of three trainings, 0 to 2.");
    }
    if (users.isEmpty() || users.size() > MOST_USERS) {
      throw new Refusal("trigger", "A trigger names 1 to 74 users.");
    }
  }

  /** The same in words, as runs keep it. */
  String words() {
    StringBuilder out = new StringBuilder();
    for (SentUser u : users) {
      out.append(out.length() == 0 ? "" : "; ")
          .append(u.tones())
          .append(" tones number ")
          .append(u.place())
          .append(", MCS ")
          .append(u.mcs());
    }
    return out.toString();
  }

  /** The packet in a channel of a width, in 20 MHz. */
  HePlan layout(int width) {
    return new HePlan(width, BEFORE, SIGNS, PARTS[training], GUARDS[training]);
  }

  /** Its users in such a channel; refused if it has no such units. */
  List<SharedUser> in(int width) {
    return SentDivision.owners(width, users, "trigger").stream()
        .map(
            o ->
                new SharedUser(
                    o.user().station(),
                    o.unit(),
                    "",
                    HeCodings.coding(o.user().mcs()),
                    lowDensity || UserPacket.lowDensity(o.unit(), o.user().mcs()),
                    0))
        .toList();
  }
}
