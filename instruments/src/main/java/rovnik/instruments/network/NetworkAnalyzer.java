package rovnik.instruments.network;

import rovnik.core.network.RawSweep;
import rovnik.core.network.SweepSettings;
import rovnik.instruments.Instrument;

/** An analyzer that measures the S-parameters of what is between its two ports, not corrected. */
public interface NetworkAnalyzer extends Instrument {
  NetworkCapabilities capabilities();

  /** Sets the analyzer; nothing is sent if nothing changed. */
  void configure(SweepSettings settings);

  /** Begins a sweep with the last settings; returns at once. */
  void begin();

  /** How far the sweep is, 0 to 1; 1 says that it can be read. */
  double progress();

  /** Seconds until the sweep is ready, as far as the analyzer tells. */
  double remainingSeconds();

  /** The finished sweep. */
  RawSweep read();

  /** What makes the sweep doubtful, "" if nothing: an overload, dc at a port. */
  String trouble();
}
