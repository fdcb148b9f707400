package rovnik.server.modulation;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.ToDoubleFunction;
import rovnik.core.Refusal;
import rovnik.core.result.Axis;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.Series;
import rovnik.server.live.Guided;
import rovnik.server.live.GuidedForm;
import rovnik.server.live.Trimmer;

/** Turns the trims of the generator until the carrier is best. */
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

  /** One trim, and the reading that it is for. */
  private record Aim(Trimmer.Trim trim, String reading, ToDoubleFunction<Double> size) {
    double power(Outcome o) {
      double v = size.applyAsDouble(RecordBench.reading(o, reading));
      return v * v;
    }
  }

  private static final List<Aim> AIMS =
      List.of(
          new Aim(Trimmer.LEAKAGE_I, "iqOffset", TrimWork::amplitude),
          new Aim(Trimmer.LEAKAGE_Q, "iqOffset", TrimWork::amplitude),
          new Aim(Trimmer.GAIN, "gainImbalance", v -> v),
          new Aim(Trimmer.QUADRATURE, "quadratureError", v -> v),
          new Aim(Trimmer.DELAY, "iqDelay", v -> v));

  private static final Set<String> SHOWN =
      Set.of("evm", "mer", "iqOffset", "gainImbalance", "quadratureError", "iqDelay");

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

  @Override
  public Outcome run(RecordBench<?> bench) {
    Trimmer trimmer = Trimmer.of(bench.generators().source());
    RecordLook first = bench.look();
    RecordBench.refuseSpoiled(first.outcome().marks());
    bench.keep(first, "before trimming");
    evm.add(RecordBench.reading(first.outcome(), "evm"));
    if (adjustFirst) {
      bench.say("the generator adjusts itself", 0.05);
      trimmer.adjust();
    }
    int steps = rounds * AIMS.size();
    RecordLook last = first;
    for (int i = 0; i < steps; i++) {
      Aim aim = AIMS.get(i % AIMS.size());
      bench.say(aim.trim().label().toLowerCase(Locale.ROOT), 0.1 + 0.85 * i / steps);
      turn(bench, trimmer, aim);
      last = bench.look();
      evm.add(RecordBench.reading(last.outcome(), "evm"));
      bench.partial(finding(first, last, trimmer));
    }
    bench.keep(last, "trimmed");
    return finding(first, last, trimmer);
  }

  private static void turn(RecordBench<?> bench, Trimmer trimmer, Aim aim) {
    Outcome middle = bench.look().outcome();
    double power = aim.power(middle);
    double standing = Math.sqrt(power);
    Optional<Reading> reading = middle.reading(aim.reading());
    boolean leakage = aim.reading().equals("iqOffset");
    double uncertainty = leakage ? 0 : reading.map(Reading::uncertainty).orElse(Double.NaN);
    boolean lost =
        reading.map(r -> r.marks().stream().anyMatch(m -> m.startsWith("lost"))).orElse(true);
    if (lost || standing < uncertainty) {
      trimmer.lost(aim.trim());
      return;
    }
    trimmer.turn(aim.trim(), power, standing, () -> aim.power(bench.look().outcome()));
  }

  private Outcome finding(RecordLook first, RecordLook last, Trimmer trimmer) {
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
        List.of(trimmer.table(id(), AIMS.stream().map(Aim::trim).toList())),
        last.outcome().readings().stream().filter(r -> SHOWN.contains(r.id())).toList(),
        last.outcome().marks(),
        List.of());
  }
}
