package rovnik.server.live;

import java.util.Map;
import rovnik.core.Refusal;
import rovnik.instruments.Control;
import rovnik.instruments.InstrumentKind;
import rovnik.instruments.source.SignalSource;
import rovnik.server.bench.BenchService;
import rovnik.server.bench.InstrumentDto;
import rovnik.server.jobs.JobDto;

/** The generators of a path, as guided work turns them. */
public final class PathGenerators {
  private final BenchService bench;
  private final JobDto job;
  private final Workbench.Voice voice;

  public PathGenerators(BenchService bench, JobDto job, Workbench.Voice voice) {
    this.bench = bench;
    this.job = job;
    this.voice = voice;
  }

  /** The one that the path begins at. */
  public One source() {
    return one(
        job.path().sourceInstrument(),
        "The path does not begin at a vector generator. Click its first element and choose one.");
  }

  /** The one at the other input of a combiner. */
  public One side() {
    return one(
        job.path().sideInstrument(),
        "No second generator is in the path. Add a combiner to it, and choose the generator at its"
            + " other input.");
  }

  /** The source that the path begins at, of any kind that can be switched on and off. */
  public One anySource() {
    Long id = job.path().sourceInstrument();
    if (id != null && bench.kind(id) == InstrumentKind.SIGNAL_SOURCE) {
      return new One(id);
    }
    return one(
        id,
        "The path does not begin at a source that can be switched. Click its first element and"
            + " choose one.");
  }

  private One one(Long id, String otherwise) {
    if (id == null || bench.kind(id) != InstrumentKind.SIGNAL_GENERATOR) {
      throw new Refusal("source", otherwise);
    }
    return new One(id);
  }

  /** One of them. */
  public final class One {
    private final long id;

    private One(long id) {
      this.id = id;
    }

    /** A control as it is now. */
    public InstrumentDto.ControlDto control(String control) {
      InstrumentDto generator = bench.one(id);
      return generator.controls().stream()
          .filter(c -> c.id().equals(control))
          .findFirst()
          .orElseThrow(
              () ->
                  new Refusal("source", generator.name() + " is not connected. Connect it first."));
    }

    public double value(String control) {
      return Double.parseDouble(control(control).value());
    }

    public boolean on() {
      return control(SignalSource.OUTPUT).value().equals(Control.ON);
    }

    public void set(String control, double value) {
      voice.control(id, Map.of(control, Double.toString(value)));
    }

    /** Switches several at once. */
    public void set(Map<String, String> values) {
      voice.control(id, values);
    }

    /** Something that is done. */
    public void act(String control) {
      voice.control(id, Map.of(control, ""));
    }
  }
}
