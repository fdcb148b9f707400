package rovnik.server.analyzer;

import java.util.concurrent.locks.LockSupport;
import rovnik.instruments.Instrument;
import rovnik.server.jobs.JobDto;
import rovnik.server.live.Look;
import rovnik.server.live.Workbench;

/** What guided work on networks has at hand: sweeps as they are set. */
final class NetworkBench implements Workbench {
  private final NetworkMeasuring measuring;
  private final Instrument analyzer;
  private final NetworkSettings settings;
  private final JobDto job;
  private final Voice voice;

  NetworkBench(
      NetworkMeasuring measuring,
      Instrument analyzer,
      NetworkSettings settings,
      JobDto job,
      Voice voice) {
    this.measuring = measuring;
    this.analyzer = analyzer;
    this.settings = settings;
    this.job = job;
    this.voice = voice;
    measuring.prepare(settings, job, true);
  }

  @Override
  public JobDto job() {
    return job;
  }

  @Override
  public Voice voice() {
    return voice;
  }

  /**
   * One finished sweep; the screen follows.
   *
   * @throws Stopped if the user stopped the work
   */
  NetworkLook sweep() {
    while (true) {
      voice.breathe();
      Look look = measuring.step(analyzer);
      if (look instanceof NetworkLook n) {
        voice.show(n, settings);
        return n;
      }
      LockSupport.parkNanos(measuring.dueNanos() - System.nanoTime());
    }
  }
}
