package rovnik.instruments.source;

import rovnik.instruments.Instrument;
import rovnik.instruments.ScpiInstrument;
import rovnik.instruments.dialect.Dialect;
import rovnik.instruments.scpi.ScpiConnection;

/** A switched pad. */
public interface StepAttenuator extends Instrument {
  double attenuationDb();

  void setAttenuationDb(double db);

  /** The pad in the words of a dialect. */
  static StepAttenuator over(ScpiConnection connection, Dialect dialect) {
    return new OverScpi(connection, dialect);
  }

  /** SCPI driver. */
  final class OverScpi extends ScpiInstrument implements StepAttenuator {
    private OverScpi(ScpiConnection connection, Dialect dialect) {
      super(connection, dialect);
    }

    @Override
    public double attenuationDb() {
      return dialect.number(connection, "attenuationDb");
    }

    @Override
    public void setAttenuationDb(double db) {
      dialect.send(connection, "attenuationDb", db);
    }
  }
}
