package rovnik.instruments;

import rovnik.core.Refusal;
import rovnik.instruments.dialect.Dialect;
import rovnik.instruments.iq.ScpiIqReceiver;
import rovnik.instruments.network.ScpiNetworkAnalyzer;
import rovnik.instruments.noise.NoiseSource;
import rovnik.instruments.parts.PartHolder;
import rovnik.instruments.scope.ScpiOscilloscope;
import rovnik.instruments.scpi.ScpiConnection;
import rovnik.instruments.scpi.Timeouts;
import rovnik.instruments.source.ScpiFunctionSource;
import rovnik.instruments.source.ScpiSignalGenerator;
import rovnik.instruments.source.ScpiSignalSource;
import rovnik.instruments.source.StepAttenuator;
import rovnik.instruments.sweep.ScpiSweptAnalyzer;
import rovnik.instruments.tested.ScpiTestedReceiver;

/** Makes the driver for an instrument. */
public final class Drivers {
  private Drivers() {}

  /**
   * Connects to an instrument.
   *
   * @throws InstrumentFault if it cannot be reached or does not answer sensibly
   */
  public static Instrument connect(
      String host, int port, InstrumentKind kind, Dialect dialect, Timeouts timeouts) {
    if (dialect.kind() != kind) {
      throw new Refusal(
          "dialect",
          "The dialect \""
              + dialect.id()
              + "\" is for kind \""
              + dialect.kind().label()
              + "\", not \""
              + kind.label()
              + "\".");
    }
    ScpiConnection connection = ScpiConnection.open(host, port, timeouts);
    try {
      return switch (kind) {
        case IQ_RECEIVER -> new ScpiIqReceiver(connection, dialect);
        case SWEPT_ANALYZER -> new ScpiSweptAnalyzer(connection, dialect);
        case NETWORK_ANALYZER -> new ScpiNetworkAnalyzer(connection, dialect);
        case SIGNAL_SOURCE -> new ScpiSignalSource(connection, dialect);
        case SIGNAL_GENERATOR -> new ScpiSignalGenerator(connection, dialect);
        case FUNCTION_SOURCE -> new ScpiFunctionSource(connection, dialect);
        case OSCILLOSCOPE -> new ScpiOscilloscope(connection, dialect);
        case STEP_ATTENUATOR -> StepAttenuator.over(connection, dialect);
        case NOISE_SOURCE -> NoiseSource.over(connection, dialect);
        case PART_HOLDER -> PartHolder.over(connection, dialect);
        case TESTED_RECEIVER -> new ScpiTestedReceiver(connection, dialect);
      };
    } catch (RuntimeException e) {
      connection.close();
      throw e;
    }
  }
}
