package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;

/**
 * One of several users of a packet, as it is looked at: whose unit it is comes from the packet, or
 * from a description.
 *
 * @param key of what is told of it, 1 for the first
 * @param coding null if it is not known, or if the data are not read
 * @param part its data, by symbol and tone
 * @param tones of the plan that it has in any symbol, by their place in it
 * @param words on its bits, "" for none
 */
record PacketUser(
    int key, String name, Coding coding, OfdmPacket.Part part, int[] tones, String words) {

  /**
   * The users of a packet; none if all of it is of one.
   *
   * @param frame that is described; null for packets that say what they are
   */
  static List<PacketUser> of(OfdmPacket p, DescribedFrame frame) {
    List<PacketUser> out = new ArrayList<>();
    FramePlan plan = p.plan();
    if (p.said() != null) {
      for (OfdmPacket.User u : p.said().users()) {
        int[] tones =
            IntStream.range(0, plan.tones().length).filter(k -> u.has(plan.tones()[k])).toArray();
        out.add(
            new PacketUser(
                out.size() + 1,
                u.name(),
                u.coding(),
                (s, k) -> u.has(plan.tones()[k]),
                tones,
                u.words()));
      }
      return out;
    }
    for (int u = 0; u < frame.users().size(); u++) {
      int user = u;
      int[] tones =
          IntStream.range(0, plan.tones().length)
              .filter(k -> frame.of().stream().anyMatch(of -> of[k] == user))
              .toArray();
      String name = frame.users().get(u);
      out.add(
          new PacketUser(
              u + 1,
              name.isEmpty() ? "all data" : name,
              null,
              (s, k) -> frame.of().get(s)[k] == user,
              tones,
              ""));
    }
    return out;
  }

  boolean read(OfdmPacket p) {
    for (SymbolPlan s : p.plan().data()) {
      for (int k : tones) {
        if (s.roles()[k] == SymbolPlan.Role.DATA) {
          return true;
        }
      }
    }
    return false;
  }

  /** Root mean square of the error vector of its data, over that of what they should be. */
  double evm(OfdmPacket p) {
    return p.evm(OfdmPacket.Which.DATA, part);
  }

  /** Its values in all symbols. */
  double values(OfdmPacket p) {
    double out = 0;
    for (SymbolPlan s : p.plan().data()) {
      for (int k : tones) {
        out += s.roles()[k] == SymbolPlan.Role.DATA ? 1 : 0;
      }
    }
    return out;
  }

  /** Mean power of its tones as they came, over the mean of all that are in use. */
  double power(OfdmPacket p) {
    return mean(p, tones) / mean(p, all(p));
  }

  /** The same of one of them. */
  double powerOf(OfdmPacket p, int tone) {
    return mean(p, new int[] {tone}) / mean(p, all(p));
  }

  private static int[] all(OfdmPacket p) {
    return IntStream.range(0, p.tones().length).toArray();
  }

  private static double mean(OfdmPacket p, int[] of) {
    double sum = 0;
    int count = 0;
    for (int k : of) {
      double through = p.channelRe()[k] * p.channelRe()[k] + p.channelIm()[k] * p.channelIm()[k];
      for (SymbolPlan s : p.plan().data()) {
        if (s.used(k)) {
          sum += through * s.power(k);
          count++;
        }
      }
    }
    return sum / count;
  }

  /** "106: -122 to -17", how many, and from where to where, in one line. */
  String tonesOf(OfdmPacket p) {
    int[] all = p.tones();
    int last = tones.length - 1;
    return (tones.length + ": " + all[tones[0]] + " to " + all[tones[last]])
        .replace('-', '\u2212')
        .replace(' ', '\u00a0');
  }
}
