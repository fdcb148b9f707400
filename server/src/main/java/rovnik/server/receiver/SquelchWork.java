package rovnik.server.receiver;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rovnik.core.Refusal;
import rovnik.core.receiver.LevelPoint;
import rovnik.core.receiver.Quality;
import rovnik.core.receiver.SquelchLevels;
import rovnik.core.result.Outcome;
import rovnik.server.live.Guided;
import rovnik.server.live.GuidedForm;
import rovnik.server.live.Workbench;

/** Raises the level until the squelch opens, and lowers it until it closes, some times. */
final class SquelchWork implements Guided<LevelBench> {
  /** It listens so long before the squelch is asked. */
  private static final double SETTLE_SECONDS = 0.5;

  private static final double MARGIN_DB = 3;

  /**
   * What it is told.
   *
   * @param closedDbm level at the receiver at which the squelch is surely closed
   * @param openDbm level at which it is surely open
   * @param stepDb from level to level
   * @param passages how often it goes up and down
   */
  @Schema(name = "SquelchForm")
  record Form(double closedDbm, double openDbm, double stepDb, int passages) implements GuidedForm {
    static final Form FIRST = new Form(-130, -110, 0.5, 3);

    @Override
    public Guided<?> work() {
      if (!(openDbm > closedDbm) || openDbm - closedDbm > 60) {
        throw new Refusal(
            "openDbm", "It is open at the higher level, at most 60 dB above the lower one.");
      }
      if (!(stepDb >= 0.05 && stepDb <= 5)) {
        throw new Refusal("stepDb", "Steps are 0.05 to 5 dB.");
      }
      if (passages < 1 || passages > 20) {
        throw new Refusal("passages", "It goes up and down 1 to 20 times.");
      }
      return new SquelchWork(this);
    }
  }

  private final Form form;
  private final List<Double> opened = new ArrayList<>();
  private final List<Double> closed = new ArrayList<>();
  private final List<LevelPoint> looks = new ArrayList<>();

  private SquelchWork(Form form) {
    this.form = form;
  }

  @Override
  public String id() {
    return SquelchLevels.KIND;
  }

  @Override
  public String title() {
    return SquelchLevels.TITLE;
  }

  @Override
  public Outcome run(LevelBench bench) {
    bench.refuseSilence();
    double before = bench.level();
    Workbench.Restored levelBack = () -> bench.level(before);
    try (levelBack) {
      double from = form.closedDbm();
      double to = form.openDbm();
      for (int i = 0; i < form.passages(); i++) {
        // Each passage stands on other levels: together they tell more than the step.
        double aside = form.stepDb() * i / form.passages();
        bench.say(
            String.format(Locale.ROOT, "up, passage %d", i + 1), (double) i / form.passages());
        opened.add(passed(bench, from + aside, to, form.stepDb(), true));
        bench.say(
            String.format(Locale.ROOT, "down, passage %d", i + 1), (i + 0.5) / form.passages());
        // The coarse passage says where the others can begin.
        to = Math.min(form.openDbm(), opened.get(0) + MARGIN_DB);
        closed.add(passed(bench, to - aside, form.closedDbm(), -form.stepDb(), false));
        from = Math.max(form.closedDbm(), closed.get(0) - MARGIN_DB);
        bench.partial(finding(bench));
      }
    }
    return finding(bench);
  }

  /** First level on the way at which the squelch is so. */
  private double passed(LevelBench bench, double from, double to, double step, boolean open) {
    boolean first = true;
    for (double dbm = from; (to - dbm) * step >= -1e-9; dbm += step) {
      bench.level(dbm);
      Quality q = bench.measure(SETTLE_SECONDS);
      if (q.squelchOpen() == null) {
        throw new Refusal("source", "This receiver does not say whether its squelch is open.");
      }
      looks.add(new LevelPoint(dbm, q));
      if (q.squelchOpen() == open) {
        if (first) {
          throw new Refusal(
              open ? "closedDbm" : "openDbm",
              String.format(
                  Locale.ROOT,
                  "The squelch is %s at %.1f dBm already. Begin %s.",
                  open ? "open" : "closed",
                  dbm,
                  open ? "lower" : "higher"));
        }
        return dbm;
      }
      first = false;
    }
    throw new Refusal(
        open ? "openDbm" : "closedDbm",
        String.format(
            Locale.ROOT,
            "The squelch is %s at %.1f dBm still. Go on %s.",
            open ? "closed" : "open",
            to,
            open ? "higher" : "lower"));
  }

  private Outcome finding(LevelBench bench) {
    return SquelchLevels.of(opened, closed, form.stepDb(), looks, bench.at());
  }
}
