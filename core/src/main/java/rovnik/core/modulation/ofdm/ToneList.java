package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.List;
import rovnik.core.Refusal;

/** Tones in words: "-26..26 not -21, -7, 0, 7, 21", "0..1196/4". */
final class ToneList {
  private static final String NOT = "not";
  private static final int MOST = 1 << 15;

  private ToneList() {}

  /**
   * The tones, as they are listed.
   *
   * @param where the description names them, for what is told of them
   */
  static int[] of(String words, String where) {
    String[] parts = words.replace('\u2212', '-').split(NOT, -1);
    if (parts.length > 2) {
      throw wrong(words, where);
    }
    List<Integer> out = listed(parts[0], words, where);
    if (parts.length == 2) {
      out.removeAll(listed(parts[1], words, where));
    }
    if (out.isEmpty()) {
      throw new Refusal("description", where + " has no tones. List them, such as -26..26 not 0.");
    }
    return out.stream().mapToInt(Integer::intValue).toArray();
  }

  private static List<Integer> listed(String part, String words, String where) {
    List<Integer> out = new ArrayList<>();
    for (String one : part.split(",")) {
      String s = one.strip();
      try {
        int dots = s.indexOf("..");
        int slash = s.indexOf('/');
        if (dots < 0) {
          out.add(Integer.parseInt(s));
          continue;
        }
        int from = Integer.parseInt(s.substring(0, dots).strip());
        int to = Integer.parseInt(s.substring(dots + 2, slash < 0 ? s.length() : slash).strip());
        int step = slash < 0 ? 1 : Integer.parseInt(s.substring(slash + 1).strip());
        if (step < 1 || to < from || to - from > MOST) {
          throw wrong(words, where);
        }
        for (int k = from; k <= to; k += step) {
          out.add(k);
        }
      } catch (NumberFormatException e) {
        throw wrong(words, where);
      }
    }
    return out;
  }

  private static Refusal wrong(String words, String where) {
    String cut = words.length() > 40 ? words.substring(0, 40) + "..." : words;
    return new Refusal(
        "description",
        where
            + ": the tones \""
            + cut
            + "\" cannot be read. List them, such as -26..26 not -7, 0, 7, or 0..1196/4.");
  }
}
