package rovnik.instruments.iq;

import java.util.List;
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
