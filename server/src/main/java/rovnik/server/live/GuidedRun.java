package rovnik.server.live;

import rovnik.core.Refusal;
import rovnik.instruments.Instrument;
import rovnik.server.bench.InstrumentLoop;

/** Runs guided work on the instrument's thread, from its beginning to its end or its stop. */
final class GuidedRun implements InstrumentLoop.Continuous {
  /** What the session is told when the work has ended, whichever way. */
  interface Ending {
    /**
     * @param finding null if there is nothing to show
     * @param trouble "" if all went well
     */
    void ended(GuidedRun run, Finding finding, String trouble, String field);
  }

  private final Guided work;
  private final java.util.function.Function<Instrument, GuidedBench> benches;
  private final Ending ending;
  private volatile boolean stop;
  private volatile GuidedBench bench;

  GuidedRun(
      Guided work, java.util.function.Function<Instrument, GuidedBench> benches, Ending ending) {
    this.work = work;
    this.benches = benches;
    this.ending = ending;
  }

  void stop() {
    stop = true;
  }

  boolean stopping() {
    return stop;
  }

  GuidedProgress progress() {
    GuidedBench b = bench;
    return b == null ? new GuidedProgress(work.id(), work.title(), "", 0, 0) : b.state(work);
  }

  @Override
  public boolean step(Instrument instrument) {
    GuidedBench b = benches.apply(instrument);
    bench = b;
    Finding finding;
    try {
      finding = work.run(b);
    } catch (GuidedBench.Stopped stopped) {
      finding = partial(b, "Stopped before its end. ");
    }
    ending.ended(this, finding, "", "");
    return false;
  }

  private static Finding partial(GuidedBench b, String why) {
    Finding p = b == null ? null : b.partial();
    return p == null ? null : p.withSummary(why + p.summary());
  }

  @Override
  public void failed(String sentence, boolean connectionLost) {
    ending.ended(this, partial(bench, "The instrument failed. "), sentence, "instrument");
  }

  @Override
  public void refused(Refusal refusal) {
    ending.ended(this, partial(bench, ""), refusal.getMessage(), refusal.field());
  }
}
