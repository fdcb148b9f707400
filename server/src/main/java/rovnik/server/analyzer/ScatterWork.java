package rovnik.server.analyzer;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rovnik.core.Refusal;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.network.NetworkData;
import rovnik.core.network.SweepScatter;
import rovnik.core.result.Axis;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.Series;
import rovnik.server.live.Guided;
import rovnik.server.live.GuidedForm;

/** How far the values of a sweep scatter from one to the next, by themselves. */
final class ScatterWork implements Guided<NetworkBench> {
  /**
   * What it is told.
   *
   * @param sweeps how many to take, 3 to 500
   */
  @Schema(name = "ScatterForm")
  record Form(int sweeps) implements GuidedForm {
    @Override
    public Guided<?> work() {
      return new ScatterWork(sweeps);
    }
  }

  private final int sweeps;

  ScatterWork(int sweeps) {
    if (sweeps < 3 || sweeps > 500) {
      throw new Refusal("sweeps", "Scatter is told from 3 to 500 sweeps.");
    }
    this.sweeps = sweeps;
  }

  @Override
  public String id() {
    return "scatter";
  }

  @Override
  public String title() {
    return "Scatter of sweeps";
  }

  @Override
  public Outcome run(NetworkBench bench) {
    SweepScatter scatter = null;
    NetworkLook look = null;
    for (int i = 0; i < sweeps; i++) {
      bench.say(String.format(Locale.ROOT, "sweep %d of %d", i + 1, sweeps), (double) i / sweeps);
      look = bench.sweep();
      if (scatter == null) {
        scatter = new SweepScatter(look.network().ports(), look.network().frequencyHz());
      }
      scatter.take(look.network());
      if (i >= 2) {
        bench.partial(outcome(scatter, look));
      }
    }
    return outcome(scatter, look);
  }

  private Outcome outcome(SweepScatter scatter, NetworkLook look) {
    List<Series> series = new ArrayList<>();
    List<Reading> readings = new ArrayList<>();
    Axis hz = Axis.own(Axis.FREQUENCY, "Hz", look.network().frequencyHz());
    int ports = look.network().ports();
    for (int row = ports; row >= 1; row--) {
      for (int column = 1; column <= ports; column++) {
        String name = NetworkData.name(row, column);
        double[] db = scatter.standardDb(row, column);
        series.add(Series.curve(name, name, hz, db, "dB").of("Standard deviation of one sweep"));
        double typical = SweepScatter.rootMeanSquare(scatter.standard(row, column));
        readings.add(
            new Reading(
                "scatter" + name,
                "Scatter of " + name + ", one standard deviation",
                20 * Math.log10(typical),
                "dB",
                look.plane(),
                20 / Math.log(10) / Math.sqrt(2.0 * (scatter.taken() - 1) * hz.points()) * 2,
                List.of(),
                Limit.NONE,
                Verdict.NONE,
                look.marks()));
      }
    }
    return new Outcome(
        id(),
        title(),
        String.format(
            Locale.ROOT,
            "%d sweeps. The readings are the scatter of the linear values below total reflection or"
                + " transmission; averaging n sweeps makes it 10 log n dB smaller.",
            scatter.taken()),
        series,
        List.of(),
        readings,
        look.marks(),
        List.of());
  }
}
