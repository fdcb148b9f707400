package rovnik.instruments.source;

import rovnik.instruments.Instrument;

/** A generator or transmitter that can be switched. */
public interface SignalSource extends Instrument {
  SourceState state();

  void setOn(boolean on);

  void setModulated(boolean modulated);

  void setDriveHigh(boolean high);

  /** Sets the level at its output; refused if it cannot. */
  void setLevelDbm(double levelDbm);
}
