package rovnik.instruments.scope;

import java.util.List;
import rovnik.core.signal.VoltageRecord;
import rovnik.instruments.Instrument;

/**
 * An oscilloscope that waits for its external trigger, such as the trigger output of a receiver,
 * and takes all channels from then on. Its own trigger output tells others when a channel rises.
 */
public interface Oscilloscope extends Instrument {
  String RANGE = "range";
  String MIDDLE = "middle";

  /** Which channel's edges its trigger output gives away: "off", "channel 1" or "channel 2". */
  String TRIGGER_OUT = "triggerOut";

  /** Over which a channel rises for a pulse, V. */
  String TRIGGER_OUT_LEVEL = "triggerOutLevel";

  ScopeCapabilities capabilities();

  /** From now on it waits for the trigger. */
  void arm(ScopeSetup setup);

  /** True if no trigger came since it was armed. */
  boolean waits();

  /** It waits no longer. */
  void disarm();

  /**
   * What the channels took since the trigger; it must not wait any more.
   *
   * @return one record a channel; their times count from the trigger at its source
   */
  List<VoltageRecord> taken();
}
