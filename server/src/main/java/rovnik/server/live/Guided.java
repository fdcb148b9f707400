package rovnik.server.live;

/** Work of several acquisitions, one after the other, that leads to a finding. */
interface Guided {
  /** Stable key, such as "harmonics". */
  String id();

  /** The name as shown. */
  String title();

  /**
   * Does the work on the instrument's thread.
   *
   * @return what was found, or null if there is nothing to show
   */
  Finding run(GuidedBench bench);
}
