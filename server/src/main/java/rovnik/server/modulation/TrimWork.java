package rovnik.server.modulation;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.function.ToDoubleFunction;
import rovnik.core.Refusal;
import rovnik.core.limits.Verdict;
import rovnik.core.modulation.analysis.Valley;
import rovnik.core.result.Axis;
import rovnik.core.result.Outcome;
import rovnik.core.result.ResultTable;
import rovnik.core.result.ResultTable.Cell;
import rovnik.core.result.ResultTable.Column;
import rovnik.core.result.ResultTable.Row;
import rovnik.core.result.Series;
import rovnik.instruments.source.SignalGenerator;
import rovnik.server.live.Guided;
import rovnik.server.live.GuidedForm;

/**
 * Turns the trims of the generator until the carrier is best. Each trim is looked at on both sides
 * of where it stands; what it is for grows with the square of the distance from the best place, so
 * that three looks tell where that is, whichever way round the path turns the axes.
 */
final class TrimWork implements Guided<RecordBench<?>> {
  /**
   * What it is told.
   *
   * @param adjustFirst let the generator adjust itself before
   * @param rounds how often all trims are gone through
   */
  @Schema(name = "TrimForm")
  record Form(boolean adjustFirst, int rounds) implements GuidedForm {
    @Override
    public Guided<?> work() {
      return new TrimWork(adjustFirst, rounds);
    }
  }

  /** One trim, and what it is for. */
  private record Trim(
      String id, String label, String unit, String reading, ToDoubleFunction<Double> size) {
    double power(Outcome o) {
      double v = size.applyAsDouble(RecordBench.reading(o, reading));
      return v * v;
    }
  }

  private static final List<Trim> TRIMS =
      List.of(
          new Trim(SignalGenerator.LEAKAGE_I, "Leakage I", "%", "iqOffset", TrimWork::amplitude),
          new Trim(SignalGenerator.LEAKAGE_Q, "Leakage Q", "%", "iqOffset", TrimWork::amplitude),
          new Trim(SignalGenerator.GAIN, "Gain of I over Q", "dB", "gainImbalance", v -> v),
          new Trim(SignalGenerator.QUADRATURE, "Quadrature", "deg", "quadratureError", v -> v),
          new Trim(SignalGenerator.DELAY, "I later than Q by", "s", "iqDelay", v -> v));

  private static final Set<String> SHOWN =
      Set.of("evm", "mer", "iqOffset", "gainImbalance", "quadratureError", "iqDelay");

  private static final double PERCENT = 100;

  /** The two outer looks are so many of its present errors away. */
  private static final double STEP = 1.5;

  private final boolean adjustFirst;
  private final int rounds;
  private final List<Double> evm = new ArrayList<>();

  private TrimWork(boolean adjustFirst, int rounds) {
    if (rounds < 1 || rounds > 5) {
      throw new Refusal("rounds", "Trims are gone through 1 to 5 times.");
    }
    this.adjustFirst = adjustFirst;
    this.rounds = rounds;
  }

  private static double amplitude(double dbc) {
    return Math.pow(10, dbc / 20);
  }

  @Override
  public String id() {
    return "trim";
  }

  @Override
  public String title() {
    return "Trim until it is best";
  }

  /** One line of what was done. */
  private record Done(Trim trim, double before, double after, String words) {}

  @Override
  public Outcome run(RecordBench<?> bench) {
    if (!bench.generator().on()) {
      throw new Refusal("source", "The generator is off. Switch it on at the Bench first.");
    }
    RecordLook first = bench.look();
    RecordBench.refuseSpoiled(first.outcome().marks());
    bench.keep(first, "before trimming");
    evm.add(RecordBench.reading(first.outcome(), "evm"));
    if (adjustFirst) {
      bench.say("the generator adjusts itself", 0.05);
      bench.generator().act(SignalGenerator.ADJUST);
    }
    List<Done> done = new ArrayList<>();
    int steps = rounds * TRIMS.size();
    RecordLook last = first;
    for (int i = 0; i < steps; i++) {
      Trim trim = TRIMS.get(i % TRIMS.size());
      bench.say(trim.label().toLowerCase(Locale.ROOT), 0.1 + 0.85 * i / steps);
      done.add(turn(bench, trim));
      last = bench.look();
      evm.add(RecordBench.reading(last.outcome(), "evm"));
      bench.partial(finding(first, last, done));
    }
    bench.keep(last, "trimmed");
    return finding(first, last, done);
  }

  /** Looks on both sides of where it stands, and puts it where it is best. */
  private Done turn(RecordBench<?> bench, Trim trim) {
    double before = bench.generator().value(trim.id());
    Outcome middle = bench.look().outcome();
    double power = trim.power(middle);
    boolean leakage = trim.reading().equals("iqOffset");
    double standing = Math.sqrt(power);
    double uncertainty =
        leakage ? 0 : middle.reading(trim.reading()).map(r -> r.uncertainty()).orElse(Double.NaN);
    boolean lost =
        middle
            .reading(trim.reading())
            .map(r -> r.marks().stream().anyMatch(m -> m.startsWith("lost")))
            .orElse(true);
    if (lost || standing < uncertainty) {
      return new Done(trim, before, before, "what is left is lost in noise");
    }
    double most = bench.generator().control(trim.id()).highest();
    double room = most - Math.abs(before);
    double step = Math.min(STEP * standing, room);
    if (!(step > 0)) {
      return new Done(trim, before, before, "at its end");
    }
    double at;
    try {
      bench.generator().set(trim.id(), before - step);
      double below = trim.power(bench.look().outcome());
      bench.generator().set(trim.id(), before + step);
      double above = trim.power(bench.look().outcome());
      at = Valley.of(step, below, power, above).at();
    } catch (RuntimeException e) {
      bench.generator().set(trim.id(), before); // nothing is left half turned
      if (e instanceof Refusal r && r.field().equals("step")) {
        return new Done(trim, before, before, "turning it changes nothing");
      }
      throw e;
    }
    double after = Math.max(-most, Math.min(most, before + at));
    bench.generator().set(trim.id(), after);
    if (trim.power(bench.look().outcome()) > power) {
      bench.generator().set(trim.id(), before);
      return new Done(trim, before, before, "was best");
    }
    return new Done(trim, before, after, Math.abs(after) == most ? "at its end" : "turned");
  }

  private Outcome finding(RecordLook first, RecordLook last, List<Done> done) {
    List<Row> rows = new ArrayList<>();
    for (Trim t : TRIMS) {
      List<Done> of = done.stream().filter(d -> d.trim() == t).toList();
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
    double[] y = evm.stream().mapToDouble(v -> v).toArray();
    double before = RecordBench.reading(first.outcome(), "evm");
    double after = RecordBench.reading(last.outcome(), "evm");
    return new Outcome(
        id(),
        title(),
        String.format(
            Locale.ROOT,
            "EVM %.3g %% to %.3g %%%s; carrier leakage %.1f to %.1f dBc. Both are kept as runs.",
            before,
            after,
            adjustFirst ? ", adjusted and trimmed" : ", trimmed",
            RecordBench.reading(first.outcome(), "iqOffset"),
            RecordBench.reading(last.outcome(), "iqOffset")),
        List.of(
            Series.curve(
                    "evm", "EVM after each turn", Axis.even("Turn", "", 0, 1, y.length), y, "%")
                .of("EVM rms")),
        List.of(
            new ResultTable(
                id(),
                "Trims",
                List.of(
                    new Column("Trim", ""),
                    new Column("Was", ""),
                    new Column("Is", ""),
                    new Column("Unit", ""),
                    new Column("", "")),
                rows)),
        last.outcome().readings().stream().filter(r -> SHOWN.contains(r.id())).toList(),
        last.outcome().marks(),
        List.of());
  }
}
