package rovnik.server.access;

import java.util.Locale;

/** What an account may do; each may do what those before it may. */
public enum Role {
  /** See what is measured and kept, and compute from it. */
  VIEW("looks"),
  /** Measure, and change jobs, paths, runs and instruments. */
  MEASURE("measures"),
  /** Change accounts, and decide over files that the database does not know. */
  ADMINISTER("administers");

  private final String label;

  Role(String label) {
    this.label = label;
  }

  public String label() {
    return label;
  }

  /** Name of the right in Spring's terms. */
  String authority() {
    return "ROLE_" + name();
  }

  boolean may(Role needed) {
    return ordinal() >= needed.ordinal();
  }

  /** What a request needs. Whatever is not known to change nothing is taken to change something. */
  static Role neededFor(String method, String path) {
    boolean looks = method.equals("GET") || method.equals("HEAD");
    if (path.equals("/api/accounts/me") || path.startsWith("/api/accounts/me/")) {
      return VIEW;
    }
    if (path.equals("/api/accounts") || path.startsWith("/api/accounts/")) {
      return ADMINISTER;
    }
    if (path.startsWith("/api/found/") && !looks) {
      return ADMINISTER;
    }
    boolean computes =
        path.matches("/api/(recordings|runs|networks)/\\d+/(measure|spectrum)")
            || path.equals("/api/networks/view")
            || path.equals("/api/waveforms/preview")
            || path.matches("/api/settings-file/(read|write)");
    return looks || computes || !path.toLowerCase(Locale.ROOT).startsWith("/api/") ? VIEW : MEASURE;
  }
}
