package rovnik.server.live;

import rovnik.core.spectrum.SpectrumLayout;
import rovnik.instruments.Instrument;

/** Turns acquisitions into looks with one setting. Lives on the instrument's own thread. */
interface Engine {
  /** Takes one acquisition; null if there is nothing to show yet. */
  Look next(Instrument instrument);

  /** Takes over what a new setting leaves as it is, such as a running average. */
  default void follow(Engine before) {}

  /** How records are cut and transformed, null if there are none. */
  default SpectrumLayout layout() {
    return null;
  }

  /** Lines of marks that a receiver gives. */
  static java.util.List<String> marks(boolean overload, boolean tripped) {
    java.util.List<String> marks = new java.util.ArrayList<>();
    if (overload) {
      marks.add("overload");
    }
    if (tripped) {
      marks.add("input protection tripped");
    }
    return marks;
  }
}
