package rovnik.server.receiver;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rovnik.core.Refusal;
import rovnik.core.receiver.LevelPoint;
import rovnik.core.receiver.LevelRun;
import rovnik.core.result.Outcome;
import rovnik.server.live.Guided;
import rovnik.server.live.GuidedForm;
import rovnik.server.live.Workbench;

/** Quality at one level after the other, from above. */
public final class LevelRunWork implements Guided<LevelBench> {
  private static final int MOST = 200;

  /**
   * What it is told.
   *
   * @param fromDbm highest level at the receiver
   * @param toDbm lowest
   * @param stepDb from level to level
   * @param seconds of listening at each
   */
  @Schema(name = "LevelRunForm")
  public record Form(double fromDbm, double toDbm, double stepDb, double seconds)
      implements GuidedForm {
    static final Form FIRST = new Form(-90, -110, 1, 0.5);

    @Override
    public Guided<?> work() {
      if (!(stepDb >= 0.1 && stepDb <= 20)
          || !(fromDbm > toDbm)
          || (fromDbm - toDbm) / stepDb > MOST) {
        throw new Refusal(
            "stepDb",
            "Levels go down from the first to the second in steps of 0.1 to 20 dB, "
                + MOST
                + " at most.");
      }
      if (!(seconds >= 0.05 && seconds <= 60)) {
        throw new Refusal("seconds", "It listens 50 ms to 60 s at each level.");
      }
      return new LevelRunWork(this);
    }
  }

  private final Form form;

  private LevelRunWork(Form form) {
    this.form = form;
  }

  @Override
  public String id() {
    return LevelRun.KIND;
  }

  @Override
  public String title() {
    return LevelRun.TITLE;
  }

  @Override
  public Outcome run(LevelBench bench) {
    bench.refuseSilence();
    double before = bench.level();
    List<LevelPoint> looks = new ArrayList<>();
    Workbench.Restored levelBack = () -> bench.level(before);
    try (levelBack) {
      int steps = (int) Math.floor((form.fromDbm() - form.toDbm()) / form.stepDb() + 1e-9);
      for (int i = 0; i <= steps; i++) {
        double dbm = form.fromDbm() - i * form.stepDb();
        bench.say(String.format(Locale.ROOT, "%.1f dBm", dbm), i / (steps + 1.0));
        bench.level(dbm);
        looks.add(new LevelPoint(dbm, bench.measure(form.seconds())));
        bench.partial(LevelRun.of(looks, bench.model(), bench.at()));
      }
    }
    return LevelRun.of(looks, bench.model(), bench.at());
  }
}
