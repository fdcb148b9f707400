package rovnik.core.limits;

import java.util.Collection;

/** What a limit says of a reading. */
public enum Verdict {
  PASS("pass"),
  /** Inside the limit, but by less than the expanded uncertainty. */
  PASS_UNSURE("pass, within uncertainty"),
  /** Outside the limit, but by less than the expanded uncertainty. */
  FAIL_UNSURE("fail, within uncertainty"),
  FAIL("fail"),
  /** There is a limit, but the number cannot be judged. */
  INVALID("not judged"),
  /** No limit applies. */
  NONE("");

  private final String label;

  Verdict(String label) {
    this.label = label;
  }

  public String label() {
    return label;
  }

  private static final Verdict[] WORST_FIRST = {FAIL, FAIL_UNSURE, INVALID, PASS_UNSURE, PASS};

  /** The worst of several, NONE if none of them judges. */
  public static Verdict worst(Collection<Verdict> all) {
    for (Verdict v : WORST_FIRST) {
      if (all.contains(v)) {
        return v;
      }
    }
    return NONE;
  }

  public boolean judged() {
    return this != NONE && this != INVALID;
  }

  public boolean passed() {
    return this == PASS || this == PASS_UNSURE;
  }
}
