package rovnik.instruments.iq;

import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.signal.IqRecord;
import rovnik.instruments.Control;
import rovnik.instruments.Instrument;

/** A receiver that delivers blocks of complex samples. */
public interface IqReceiver extends Instrument {
  IqCapabilities capabilities();

  /** Sets the receiver; only what differs from the last setup is sent. */
  void configure(IqSetup setup);

  /**
   * Takes one record with the last setup.
   *
   * @return a record whose sample array is reused by the next call
   */
  IqRecord acquire();

  /**
   * The same, begun now: never what was taken a moment ago for another. What waits for the
   * receiver's trigger output gets it.
   */
  default IqRecord acquireNow() {
    return acquire();
  }

  /**
   * The next samples of a stream: blocks that follow one another without a gap, as long as they are
   * asked for in time. The first call with a setup begins the stream; {@link #configure} and {@link
   * #acquire} end it.
   *
   * @param setup whose samples are the length of one block
   * @return a block whose sample array is reused by the next call; where it begins counts from when
   *     the receiver was switched on, so that what is missing shows
   * @throws rovnik.core.Refusal if the receiver takes single records only
   */
  default IqRecord streamed(IqSetup setup) {
    throw new Refusal(
        "source",
        "This receiver takes single records only, with pauses between them. Choose one that"
            + " streams, or open a recording.");
  }

  /**
   * The record that the second input took together with the last one of {@link #acquire}; its array
   * is reused by the next call.
   *
   * @throws rovnik.core.Refusal if the setup did not ask for it
   */
  IqRecord acquiredOnSecond();

  /** True if its input protection has switched the input off. */
  boolean protectionTripped();

  /** Switches the input on again after its protection tripped. */
  void clearProtection();

  @Override
  default List<Control> controls() {
    return List.of(Control.action("clearProtection", "Clear input protection"));
  }

  @Override
  default void set(String control, String value) {
    if (!control.equals("clearProtection")) {
      Instrument.super.set(control, value);
    }
    clearProtection();
  }
}
