package rovnik.server.bench;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Consumer;
import rovnik.core.path.Supply;
import rovnik.instruments.Hint;
import rovnik.instruments.source.FunctionSource;
import rovnik.instruments.source.FunctionState;
import rovnik.server.gate.Flow;
import rovnik.server.jobs.JobDto;
import rovnik.server.jobs.JobService;
import rovnik.server.jobs.PathElementDto;

/** Sources that feed a part: what is at their output at the crest and the trough is the part's. */
final class Supplies {
  private static final double NEAR = 0.002;

  private final JobService jobs;

  Supplies(JobService jobs) {
    this.jobs = jobs;
  }

  /** A part and what its supply may be. */
  private record Fed(JobDto job, String part, Supply supply) {}

  /** Whatever a job says is fed by an instrument hangs on it, whichever job is looked at. */
  private List<Fed> fedBy(long instrument) {
    List<Fed> out = new ArrayList<>();
    for (JobDto job : jobs.all()) {
      for (PathElementDto e : job.path().elements()) {
        if (Long.valueOf(instrument).equals(e.instrumentId())) {
          e.supply().ifPresent(s -> out.add(new Fed(job, e.name(), s)));
        }
      }
    }
    return out;
  }

  private static Supply.Drive drive(FunctionState s, Supply.Accuracy accuracy) {
    return accuracy.of(s.offsetVolts(), s.swingVolts());
  }

  /** What would flow: nothing while it is off. */
  private Flow flow(long instrument, FunctionState s, Supply.Accuracy accuracy) {
    if (s.on()) {
      for (Fed f : fedBy(instrument)) {
        Supply.Drive d = drive(s, accuracy);
        String harm = f.supply().harm(f.part(), d);
        if (!harm.isEmpty()) {
          return new Flow(f.job().pathVersion(), harm, f.supply().stressVolts(d));
        }
      }
    }
    return Flow.NONE;
  }

  /**
   * Sets controls once the gate lets what they lead to flow. On the way no crest is higher and no
   * trough lower than before or after.
   *
   * @param ask the gate; throws what it refuses
   */
  void turn(
      long instrument, FunctionSource source, Map<String, String> values, Consumer<Flow> ask) {
    FunctionState before = source.state();
    FunctionState after = before.with(values);
    ask.accept(flow(instrument, after, source.accuracy()));
    Map<String, String> rest = new LinkedHashMap<>(values);
    String output = rest.remove(FunctionSource.OUTPUT);
    if (!after.on() && before.on()) {
      source.set(FunctionSource.OUTPUT, output);
    }
    // What makes the swing smaller comes first, what makes it larger last.
    boolean grows = after.swingVolts() > before.swingVolts();
    List<String> order =
        grows
            ? List.of(
                FunctionSource.FREQUENCY,
                FunctionSource.OFFSET,
                FunctionSource.AMPLITUDE,
                FunctionSource.SHAPE)
            : List.of(
                FunctionSource.SHAPE,
                FunctionSource.AMPLITUDE,
                FunctionSource.OFFSET,
                FunctionSource.FREQUENCY);
    for (String control : order) {
      String value = rest.remove(control);
      if (value != null) {
        source.set(control, value);
      }
    }
    rest.forEach(source::set);
    if (after.on() && output != null) {
      source.set(FunctionSource.OUTPUT, output);
    }
  }

  /** What should be known of a source that feeds something, and the drive that uses it best. */
  List<Hint> hints(long instrument, FunctionState s, Supply.Accuracy accuracy) {
    List<Hint> out = new ArrayList<>();
    for (Fed f : fedBy(instrument)) {
      Supply.Drive best = f.supply().best(accuracy);
      String trouble = f.supply().trouble(f.part(), drive(s, accuracy));
      boolean there =
          Math.abs(best.offsetVolts() - s.offsetVolts()) < NEAR
              && Math.abs(best.amplitudeVolts() - s.swingVolts()) < NEAR;
      if (there || s.on() && trouble.isEmpty()) {
        continue;
      }
      out.add(
          new Hint(
              s.on()
                  ? trouble
                  : String.format(
                      Locale.ROOT,
                      "%s works from %s to %s.",
                      f.part(),
                      Supply.volts(f.supply().lowestVolts()),
                      Supply.volts(f.supply().highestVolts())),
              String.format(
                  Locale.ROOT,
                  "Use all of it: %s \u00b1 %s",
                  Supply.volts(best.offsetVolts()),
                  Supply.volts(best.amplitudeVolts())),
              Map.of(
                  FunctionSource.OFFSET,
                  Double.toString(best.offsetVolts()),
                  FunctionSource.AMPLITUDE,
                  Double.toString(best.amplitudeVolts()))));
    }
    return out;
  }
}
