package rovnik.core.nets;

import java.util.Optional;
import rovnik.core.modulation.StretchMeasurement;
import rovnik.core.result.Outcome;
import rovnik.core.signal.IqRecord;
import rovnik.core.signal.TracesBeside;
import rovnik.core.spectrum.MeasurementContext;

/** Compares the bursts of a band with what nets of a board do at the same time. */
public final class NetMeasurement extends StretchMeasurement {
  public static final String KIND = "nets";
  public static final String TITLE = "Which net is it?";

  private final NetSettings settings;

  public NetMeasurement(NetSettings settings) {
    super(KIND, TITLE, 2 * settings.bandHz(), settings.seconds(), settings.words());
    this.settings = settings;
    settings.bursts(); // refuses what cannot be
  }

  @Override
  public Optional<TracesBeside.Wanted> beside() {
    return Optional.of(new TracesBeside.Wanted(settings.nets().size(), settings.seconds()));
  }

  @Override
  public Outcome of(IqRecord record, MeasurementContext context) {
    return gathering().add(record, context);
  }

  @Override
  public Gathering gathering() {
    return new NetRanking(settings, null);
  }

  @Override
  public Gathering gathering(Gathering before) {
    return new NetRanking(settings, before instanceof NetRanking r ? r : null);
  }
}
