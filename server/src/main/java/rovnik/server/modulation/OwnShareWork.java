package rovnik.server.modulation;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import rovnik.core.Refusal;
import rovnik.core.modulation.analysis.OwnShare;
import rovnik.core.modulation.analysis.SingleCarrierMeasurement;
import rovnik.core.result.Outcome;
import rovnik.instruments.Control;
import rovnik.instruments.source.SignalSource;
import rovnik.server.live.Guided;
import rovnik.server.live.GuidedForm;
import rovnik.server.live.PathGenerators;
import rovnik.server.live.Workbench;
import rovnik.server.runs.KeptRun;

/**
 * Takes the receiver's own share of the error apart: looks at the carrier, then at what the
 * receiver has in its filter with the source off, and at what another receiver saw of it.
 */
final class OwnShareWork implements Guided<RecordBench<?>> {
  /**
   * What it is told.
   *
   * @param looks with the source on, and as many with it off
   * @param runId a run of the same carrier that another receiver saw, null for none
   */
  @Schema(name = "OwnShareForm")
  record Form(int looks, @Nullable Long runId) implements GuidedForm {
    static final Form FIRST = new Form(8, null);

    @Override
    public Guided<?> work() {
      return new OwnShareWork(this);
    }
  }

  private static final int FEWEST = 2;
  private static final int MOST = 100;

  private final Form form;

  private OwnShareWork(Form form) {
    if (form.looks() < FEWEST || form.looks() > MOST) {
      throw new Refusal("looks", "It takes 2 to 100 looks.");
    }
    this.form = form;
  }

  @Override
  public String id() {
    return OwnShare.KIND;
  }

  @Override
  public String title() {
    return OwnShare.TITLE;
  }

  @Override
  public Outcome run(RecordBench<?> bench) {
    if (!(bench.measurement() instanceof SingleCarrierMeasurement measurement)) {
      throw new Refusal(
          "kind", "Only carriers with data have an EVM. Choose Modulation with data.");
    }
    PathGenerators.One source = bench.generators().anySource();
    if (!source.on()) {
      throw new Refusal("source", "The source is off. Switch it on first.");
    }
    Optional<OwnShare.Other> other = Optional.ofNullable(form.runId()).map(id -> other(bench, id));
    List<Outcome> loud = new ArrayList<>();
    RecordLook look = null;
    for (int i = 0; i < form.looks(); i++) {
      say(bench, "look %d of %d at the carrier", i, 0);
      look = bench.look();
      RecordBench.refuseSpoiled(look.outcome().marks());
      loud.add(look.outcome());
    }
    List<Double> quiet = new ArrayList<>();
    source.set(Map.of(SignalSource.OUTPUT, Control.OFF));
    Workbench.Restored onAgain = () -> source.set(Map.of(SignalSource.OUTPUT, Control.ON));
    try (onAgain) {
      for (int i = 0; i < form.looks(); i++) {
        say(bench, "look %d of %d with the source off", i, form.looks());
        RecordBench.Taken taken = bench.record(measurement.bandHz(), measurement.secondsWanted());
        RecordBench.refuseSpoiled(taken.context().marks());
        quiet.add(measurement.ownNoise(look.record(), taken.record(), taken.context()));
      }
    }
    return OwnShare.of(loud, quiet, other, measurement.carrier().format());
  }

  private void say(RecordBench<?> bench, String words, int look, int before) {
    bench.voice().breathe();
    bench.say(
        String.format(Locale.ROOT, words, look + 1, form.looks()),
        (before + look) / (2.0 * form.looks()));
  }

  private static OwnShare.Other other(RecordBench<?> bench, long run) {
    KeptRun kept = bench.voice().kept(run);
    return new OwnShare.Other(kept.source() + " (" + kept.name() + ")", kept.outcome());
  }
}
