package rovnik.server.live;

import java.util.function.BiFunction;
import rovnik.core.Refusal;
import rovnik.core.result.Outcome;
import rovnik.instruments.Instrument;
import rovnik.server.bench.InstrumentLoop;
import rovnik.server.config.Conflict;

/** Runs guided work on the instrument's thread, from its beginning to its end or its stop. */
final class GuidedRun implements InstrumentLoop.Continuous {
  /** What the session is told when the work has ended, whichever way. */
  interface Ending {
    /**
     * @param finding null if there is nothing to show
     * @param trouble "" if all went well
     */
    void ended(GuidedRun run, Outcome finding, String trouble, String field);
  }

  private final Guided<Workbench> work;
  private final BiFunction<GuidedRun, Instrument, Workbench> benches;
  private final Ending ending;
  private final long beganNanos = System.nanoTime();
  private volatile boolean stop;
  private volatile String words = "";
  private volatile double progress;
  private volatile Outcome partial;

  @SuppressWarnings("unchecked") // a kind of measurement offers only work for its own bench
  GuidedRun(Guided<?> work, BiFunction<GuidedRun, Instrument, Workbench> benches, Ending ending) {
    this.work = (Guided<Workbench>) work;
    this.benches = benches;
    this.ending = ending;
  }

  void stop() {
    stop = true;
  }

  boolean stopping() {
    return stop;
  }

  void say(String what, double done) {
    words = what;
    progress = done;
  }

  void partial(Outcome outcome) {
    partial = outcome;
  }

  GuidedProgress progress() {
    double spent = (System.nanoTime() - beganNanos) / 1e9;
    double left = progress > 0.02 ? spent / progress * (1 - progress) : 0;
    return new GuidedProgress(work.id(), work.title(), words, progress, left);
  }

  @Override
  public boolean step(Instrument instrument) {
    Outcome finding;
    try {
      finding = work.run(benches.apply(this, instrument));
    } catch (Workbench.Stopped stopped) {
      finding = partial("Stopped before its end. ");
    } catch (Conflict c) {
      throw new Refusal(c.field(), c.getMessage()); // a gate, or something that is no more
    }
    ending.ended(this, finding, "", "");
    return false;
  }

  private Outcome partial(String why) {
    Outcome p = partial;
    return p == null ? null : p.withSummary(why + p.summary());
  }

  @Override
  public void failed(String sentence, boolean connectionLost) {
    ending.ended(this, partial("The instrument failed. "), sentence, "instrument");
  }

  @Override
  public void refused(Refusal refusal) {
    ending.ended(this, partial(""), refusal.getMessage(), refusal.field());
  }
}
