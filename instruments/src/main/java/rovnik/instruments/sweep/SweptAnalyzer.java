package rovnik.instruments.sweep;

import rovnik.instruments.Instrument;

/** An analyzer that sweeps a filter over a band and delivers the finished trace. */
public interface SweptAnalyzer extends Instrument {
  SweepCapabilities capabilities();

  /** Sets the analyzer; only what differs from the last setup is sent. */
  void configure(SweepSetup setup);

  /** Takes one sweep with the last setup and waits for its end. */
  Sweep sweep();
}
