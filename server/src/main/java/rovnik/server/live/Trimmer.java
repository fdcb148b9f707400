package rovnik.server.live;

import java.util.ArrayList;
import java.util.List;
import java.util.function.DoubleSupplier;
import rovnik.core.Refusal;
import rovnik.core.limits.Verdict;
import rovnik.core.modulation.analysis.Valley;
import rovnik.core.result.ResultTable;
import rovnik.core.result.ResultTable.Cell;
import rovnik.core.result.ResultTable.Column;
import rovnik.core.result.ResultTable.Row;
import rovnik.instruments.source.SignalGenerator;

/**
 * Turns the trims of a generator's modulator. Each is looked at on both sides of where it stands;
 * what it is for grows with the square of the distance from the best place, so that three looks
 * tell where that is, whichever way round the path turns the axes.
 */
public final class Trimmer {
  /** One trim. */
  public record Trim(String id, String label, String unit) {}

  public static final Trim LEAKAGE_I = new Trim(SignalGenerator.LEAKAGE_I, "Leakage I", "%");
  public static final Trim LEAKAGE_Q = new Trim(SignalGenerator.LEAKAGE_Q, "Leakage Q", "%");
  public static final Trim GAIN = new Trim(SignalGenerator.GAIN, "Gain of I over Q", "dB");
  public static final Trim QUADRATURE = new Trim(SignalGenerator.QUADRATURE, "Quadrature", "deg");
  public static final Trim DELAY = new Trim(SignalGenerator.DELAY, "I later than Q by", "s");

  /** The two outer looks are so many of the present errors away. */
  private static final double STEP = 1.5;

  private static final double PERCENT = 100;

  /** One line of what was done. */
  private record Done(Trim trim, double before, double after, String words) {}

  private final PathGenerators.One generator;
  private final List<Done> done = new ArrayList<>();

  public Trimmer(PathGenerators.One generator) {
    this.generator = generator;
  }

  /** A generator that is on, or a refusal. */
  public static Trimmer of(PathGenerators.One generator) {
    if (!generator.on()) {
      throw new Refusal("source", "The generator is off. Switch it on at the Bench first.");
    }
    return new Trimmer(generator);
  }

  /** Lets the generator adjust itself. */
  public void adjust() {
    generator.act(SignalGenerator.ADJUST);
  }

  /** Notes that a trim cannot be told from where it is best. */
  public void lost(Trim trim) {
    double at = generator.value(trim.id());
    done.add(new Done(trim, at, at, "what is left is lost in noise"));
  }

  /**
   * Puts a trim where a power is least.
   *
   * @param power as it is now
   * @param size how far off the trim may be, in its own unit
   * @param watched takes a look at the power
   */
  public void turn(Trim trim, double power, double size, DoubleSupplier watched) {
    done.add(turned(trim, power, size, watched));
  }

  private Done turned(Trim trim, double power, double size, DoubleSupplier watched) {
    double before = generator.value(trim.id());
    double most = generator.control(trim.id()).highest();
    double step = Math.min(STEP * size, most - Math.abs(before));
    if (!(step > 0)) {
      return new Done(trim, before, before, "at its end");
    }
    double at;
    try {
      generator.set(trim.id(), before - step);
      double below = watched.getAsDouble();
      generator.set(trim.id(), before + step);
      double above = watched.getAsDouble();
      at = Valley.of(step, below, power, above).at();
    } catch (RuntimeException e) {
      generator.set(trim.id(), before); // nothing is left half turned
      if (e instanceof Refusal r && r.field().equals("step")) {
        return new Done(trim, before, before, "turning it changes nothing");
      }
      throw e;
    }
    double after = Math.max(-most, Math.min(most, before + at));
    generator.set(trim.id(), after);
    if (watched.getAsDouble() > power) {
      generator.set(trim.id(), before);
      return new Done(trim, before, before, "was best");
    }
    return new Done(trim, before, after, Math.abs(after) == most ? "at its end" : "turned");
  }

  /** What was done, in the order of the trims given. */
  public ResultTable table(String id, List<Trim> trims) {
    List<Row> rows = new ArrayList<>();
    for (Trim t : trims) {
      List<Done> of = done.stream().filter(d -> d.trim().equals(t)).toList();
      if (of.isEmpty()) {
        continue;
      }
      double scale = t.unit().equals("%") ? PERCENT : 1;
      Done end = of.get(of.size() - 1);
      boolean turned = of.stream().anyMatch(d -> d.before() != d.after());
      rows.add(
          new Row(
              List.of(
                  Cell.of(t.label()),
                  Cell.of(scale * of.get(0).before()),
                  Cell.of(scale * end.after()),
                  Cell.of(t.unit()),
                  Cell.of(turned ? "turned" : end.words())),
              Verdict.NONE));
    }
    return new ResultTable(
        id,
        "Trims",
        List.of(
            new Column("Trim", ""),
            new Column("Was", ""),
            new Column("Is", ""),
            new Column("Unit", ""),
            new Column("", "")),
        rows);
  }
}
