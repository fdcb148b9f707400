package rovnik.server.live;

import rovnik.core.result.Outcome;

/**
 * Work of several looks, one after the other, that leads to a finding.
 *
 * @param <B> the bench that it needs
 */
public interface Guided<B extends Workbench> {
  /** Stable key, such as "harmonics". */
  String id();

  /** The name as shown. */
  String title();

  /**
   * Does the work on the instrument's thread.
   *
   * @return what was found
   */
  Outcome run(B bench);
}
