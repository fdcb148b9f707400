package rovnik.server.modulation;

import io.swagger.v3.oas.annotations.media.Schema;
import rovnik.core.modulation.analysis.WhatIsIt;
import rovnik.core.result.Outcome;
import rovnik.server.live.Guided;
import rovnik.server.live.GuidedForm;

/** Looks at a band and tells what carrier with data is in it; nothing is changed. */
final class WhatIsItWork implements Guided<RecordBench<?>> {
  /**
   * What it is told.
   *
   * @param bandHz that is looked at around the centre; 0 for six times what is measured now
   */
  @Schema(name = "WhatIsItForm")
  record Form(double bandHz) implements GuidedForm {
    @Override
    public Guided<?> work() {
      return new WhatIsItWork(bandHz);
    }
  }

  private static final double WIDER = 6;

  /** Samples that are taken of the band, in its widths. */
  private static final double LONG = 60_000;

  private final double bandHz;

  private WhatIsItWork(double bandHz) {
    new WhatIsIt(0, bandHz); // refuses what cannot be
    this.bandHz = bandHz;
  }

  @Override
  public String id() {
    return WhatIsIt.KIND;
  }

  @Override
  public String title() {
    return WhatIsIt.TITLE;
  }

  @Override
  public Outcome run(RecordBench<?> bench) {
    double band = bandHz > 0 ? bandHz : Math.min(bench.widestHz(), WIDER * bench.bandHz());
    bench.say("a record of the band", 0.1);
    RecordBench.Taken taken = bench.record(band, LONG / band);
    bench.say("trying formats", 0.3);
    return new WhatIsIt(bench.centreHz(), band).of(taken.record(), taken.context());
  }
}
