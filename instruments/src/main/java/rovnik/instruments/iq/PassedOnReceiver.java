package rovnik.instruments.iq;

import java.util.List;
import rovnik.core.result.Fact;
import rovnik.core.signal.IqRecord;
import rovnik.instruments.Control;

/** A receiver that stands before another one, and passes on what it does not change. */
abstract class PassedOnReceiver implements IqReceiver {
  protected final IqReceiver receiver;

  PassedOnReceiver(IqReceiver receiver) {
    this.receiver = receiver;
  }

  @Override
  public IqCapabilities capabilities() {
    return receiver.capabilities();
  }

  @Override
  public IqRecord streamed(IqSetup setup) {
    return receiver.streamed(setup);
  }

  @Override
  public boolean protectionTripped() {
    return receiver.protectionTripped();
  }

  @Override
  public void clearProtection() {
    receiver.clearProtection();
  }

  @Override
  public String identity() {
    return receiver.identity();
  }

  @Override
  public List<String> errors() {
    return receiver.errors();
  }

  @Override
  public List<Control> controls() {
    return receiver.controls();
  }

  @Override
  public void set(String control, String value) {
    receiver.set(control, value);
  }

  @Override
  public List<Fact> facts() {
    return receiver.facts();
  }

  @Override
  public String condition() {
    return receiver.condition();
  }
}
