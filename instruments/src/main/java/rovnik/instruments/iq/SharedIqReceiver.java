package rovnik.instruments.iq;

import java.util.HashSet;
import java.util.Set;
import rovnik.core.signal.IqRecord;

/**
 * A receiver that several measurements look through in turns. Whoever asks for the setup that the
 * last record was taken with, and has not seen that record yet, gets it: two measurements that want
 * the same samples cost one acquisition. All calls come from the thread that owns the receiver, so
 * that the record's array is whole until the next acquisition.
 */
public final class SharedIqReceiver extends PassedOnReceiver {
  private final Set<Object> seen = new HashSet<>();
  private IqSetup taken;
  private IqRecord record;
  private IqRecord second;
  private long acquisitions;

  public SharedIqReceiver(IqReceiver receiver) {
    super(receiver);
  }

  /** The receiver as one of its measurements sees it. */
  public IqReceiver seenBy(Object who) {
    return new View(who);
  }

  /** Records taken from the instrument so far. */
  public long acquisitions() {
    return acquisitions;
  }

  private void forget() {
    taken = null;
    record = null;
    second = null;
    seen.clear();
  }

  @Override
  public void configure(IqSetup setup) {
    forget();
    receiver.configure(setup);
  }

  @Override
  public IqRecord acquire() {
    forget();
    acquisitions++;
    return receiver.acquire();
  }

  @Override
  public IqRecord streamed(IqSetup setup) {
    forget();
    return receiver.streamed(setup);
  }

  @Override
  public IqRecord acquiredOnSecond() {
    return receiver.acquiredOnSecond();
  }

  @Override
  public void reset() {
    forget();
    receiver.reset();
  }

  @Override
  public void close() {
    receiver.close();
  }

  /** One measurement's turn. */
  private final class View extends PassedOnReceiver {
    private final Object who;
    private IqSetup wanted;

    View(Object who) {
      super(SharedIqReceiver.this.receiver);
      this.who = who;
    }

    @Override
    public void configure(IqSetup setup) {
      wanted = setup;
    }

    @Override
    public IqRecord acquire() {
      if (wanted == null) {
        throw new IllegalStateException("configure() must come first");
      }
      if (!wanted.equals(taken) || record == null || seen.contains(who)) {
        forget();
        receiver.configure(wanted);
        record = receiver.acquire();
        second = wanted.second() ? receiver.acquiredOnSecond() : null;
        taken = wanted;
        acquisitions++;
      }
      seen.add(who);
      return record;
    }

    @Override
    public IqRecord acquireNow() {
      forget();
      return acquire();
    }

    @Override
    public IqRecord streamed(IqSetup setup) {
      return SharedIqReceiver.this.streamed(setup);
    }

    @Override
    public IqRecord acquiredOnSecond() {
      return second == null ? receiver.acquiredOnSecond() : second;
    }

    @Override
    public void reset() {
      SharedIqReceiver.this.reset();
    }

    @Override
    public void close() {
      // the receiver stays with its owner
    }
  }
}
