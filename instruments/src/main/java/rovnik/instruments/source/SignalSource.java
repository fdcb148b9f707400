package rovnik.instruments.source;

import rovnik.instruments.Instrument;

/** A generator or transmitter that can be switched. */
public interface SignalSource extends Instrument {
  SourceState state();

  void setOn(boolean on);

  void setModulated(boolean modulated);

  void setDriveHigh(boolean high);
}
