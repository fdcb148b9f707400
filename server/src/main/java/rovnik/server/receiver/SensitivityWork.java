package rovnik.server.receiver;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import rovnik.core.Refusal;
import rovnik.core.receiver.Criterion;
import rovnik.core.receiver.LevelEstimate;
import rovnik.core.receiver.LevelPoint;
import rovnik.core.receiver.LevelSearch;
import rovnik.core.receiver.Quality;
import rovnik.core.receiver.Sensitivity;
import rovnik.core.result.Outcome;
import rovnik.server.live.Guided;
import rovnik.server.live.GuidedForm;
import rovnik.server.live.Workbench;
import rovnik.server.results.Nulls;

/** Seeks the level at which a receiver is just good enough. */
final class SensitivityWork implements Guided<LevelBench> {
  /** What was found stays known to the session under this. */
  static final String FOUND = "sensitivityDbm";

  static final double AUDIO_SECONDS = 0.5;

  /** Levels higher than this are not tried. */
  private static final double HIGHEST_DBM = -10;

  /**
   * What it is told.
   *
   * @param quality ber, per or sinad; null for what the receiver tells
   * @param target share that is wrong, or SINAD in dB; null for what is common: 1e-3, 0.1, 12 dB
   * @param fromDbm level at the receiver at which it surely works
   * @param wantedDb done when chance leaves no more than plus or minus this (k = 2)
   * @param mostSeconds it ends after this, however far it is
   * @param highestDbm sensitivity that passes, null for no limit
   */
  @Schema(name = "SensitivityForm")
  record Form(
      @Nullable String quality,
      @Nullable Double target,
      double fromDbm,
      double wantedDb,
      double mostSeconds,
      @Nullable Double highestDbm)
      implements GuidedForm {
    static final Form FIRST = new Form(null, null, -70, 0.2, 600, null);

    @Override
    public Guided<?> work() {
      if (quality != null && target != null) {
        criterion(quality, target);
      }
      if (!(mostSeconds >= 1 && mostSeconds <= 86_400)) {
        throw new Refusal("mostSeconds", "It may take 1 s to a day.");
      }
      return new SensitivityWork(this);
    }
  }

  private final Form form;

  private SensitivityWork(Form form) {
    this.form = form;
  }

  /** What is asked of the receiver; where nothing is said, what is common for what it tells. */
  static Criterion criterion(@Nullable String quality, @Nullable Double target) {
    Criterion.Of of = Criterion.Of.parse(quality == null ? "" : quality);
    double common =
        switch (of) {
          case BER -> 1e-3;
          case PER -> 0.1;
          case SINAD -> 12;
        };
    return new Criterion(of, target == null ? common : target);
  }

  static Criterion criterion(LevelBench bench, @Nullable String quality, @Nullable Double target) {
    boolean bits = bench.model().bitRate() > 0;
    Criterion c = criterion(quality == null ? bits ? "ber" : "sinad" : quality, target);
    if (bits == (c.of() == Criterion.Of.SINAD)) {
      throw new Refusal(
          "quality",
          bits
              ? "This receiver counts bits and gives no audio. Choose bit or packet errors."
              : "This receiver gives audio and counts no bits. Choose SINAD.");
    }
    return c;
  }

  @Override
  public String id() {
    return Sensitivity.KIND;
  }

  @Override
  public String title() {
    return Sensitivity.TITLE;
  }

  @Override
  public Outcome run(LevelBench bench) {
    bench.refuseSilence();
    Criterion criterion = criterion(bench, form.quality(), form.target());
    double before = bench.level();
    double[] range = bench.range();
    LevelSearch search =
        criterion.search(
            bench.model(),
            bench.packetBits(),
            AUDIO_SECONDS,
            form.fromDbm(),
            range[0],
            Math.min(HIGHEST_DBM, range[1]),
            form.wantedDb());
    List<LevelPoint> looks = new ArrayList<>();
    double spent = 0;
    Workbench.Restored levelBack = () -> bench.level(before);
    try (levelBack) {
      Optional<LevelSearch.Step> step = search.next();
      while (step.isPresent() && spent < form.mostSeconds()) {
        LevelSearch.Step s = step.get();
        bench.say(words(s.dbm(), search), done(search, spent));
        bench.level(s.dbm());
        long began = System.nanoTime();
        Quality seen = bench.measure(s.seconds());
        spent += Math.max(s.seconds(), (System.nanoTime() - began) / 1e9);
        looks.add(new LevelPoint(s.dbm(), seen));
        search.add(s.dbm(), seen);
        bench.partial(finding(criterion, search, looks, bench));
        step = search.next();
      }
    }
    LevelEstimate found = search.estimate();
    if (found.known()) {
      bench.voice().remember(FOUND, found.dbm());
    }
    return finding(criterion, search, looks, bench);
  }

  private Outcome finding(
      Criterion criterion, LevelSearch search, List<LevelPoint> looks, LevelBench bench) {
    return Sensitivity.of(
        criterion,
        search.estimate(),
        looks,
        search.fit(),
        bench.model(),
        bench.at(),
        Nulls.orNan(form.highestDbm()));
  }

  private static String words(double dbm, LevelSearch search) {
    LevelEstimate e = search.estimate();
    return e.known()
        ? String.format(
            Locale.ROOT, "at %.2f dBm; %.2f ± %.2f dBm", dbm, e.dbm(), 2 * e.standardDb())
        : String.format(Locale.ROOT, "at %.1f dBm", dbm);
  }

  private double done(LevelSearch search, double spent) {
    double left = search.secondsLeft();
    double byTime = spent / form.mostSeconds();
    return Double.isNaN(left) ? Math.min(0.1, byTime) : Math.max(byTime, spent / (spent + left));
  }
}
