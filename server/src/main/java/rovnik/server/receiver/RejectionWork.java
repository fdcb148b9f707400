package rovnik.server.receiver;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import rovnik.core.Refusal;
import rovnik.core.receiver.Criterion;
import rovnik.core.receiver.LevelEstimate;
import rovnik.core.receiver.LevelSearch;
import rovnik.core.receiver.LineSearch;
import rovnik.core.receiver.Quality;
import rovnik.core.receiver.Rejection;
import rovnik.core.result.Outcome;
import rovnik.core.units.Frequency;
import rovnik.instruments.source.SignalSource;
import rovnik.server.bench.InstrumentDto;
import rovnik.server.live.Guided;
import rovnik.server.live.GuidedForm;
import rovnik.server.live.PathGenerators;
import rovnik.server.live.Workbench;

/** Raises a second generator beside the wanted signal until quality is just reached. */
final class RejectionWork implements Guided<LevelBench> {
  private static final int MOST = 100;

  /** It begins so far above the wanted signal at least; beside it that disturbs nothing. */
  private static final double BELOW_DB = 20;

  /**
   * What it is told.
   *
   * @param quality ber, per or sinad; null for what the receiver tells
   * @param target share that is wrong, or SINAD in dB; null for what is common
   * @param wantedDbm level of the wanted signal at the receiver; null for the sensitivity found
   *     last and {@code aboveDb} more
   * @param aboveDb how far the wanted signal is above the sensitivity
   * @param offsetsHz of the other signal from the wanted one; 0 is the same channel
   * @param wantedDb done when chance leaves no more than plus or minus this (k = 2)
   */
  @Schema(name = "RejectionForm")
  record Form(
      @Nullable String quality,
      @Nullable Double target,
      @Nullable Double wantedDbm,
      double aboveDb,
      List<Double> offsetsHz,
      double wantedDb)
      implements GuidedForm {
    static final Form FIRST = new Form(null, null, null, 3, List.of(-25e3, 0.0, 25e3), 0.5);

    @Override
    public Guided<?> work() {
      if (offsetsHz == null || offsetsHz.isEmpty() || offsetsHz.size() > MOST) {
        throw new Refusal("offsetsHz", "Give 1 to " + MOST + " offsets, such as -25 kHz, 25 kHz.");
      }
      offsetsHz.forEach(o -> Refusal.finite("offsetsHz", o == null ? Double.NaN : o));
      if (!(aboveDb >= 0 && aboveDb <= 60)) {
        throw new Refusal("aboveDb", "The wanted signal is 0 to 60 dB above the sensitivity.");
      }
      if (quality != null && target != null) {
        SensitivityWork.criterion(quality, target);
      }
      return new RejectionWork(this);
    }
  }

  private final Form form;
  private final List<Rejection.Place> places = new ArrayList<>();

  private RejectionWork(Form form) {
    this.form = form;
  }

  @Override
  public String id() {
    return Rejection.KIND;
  }

  @Override
  public String title() {
    return Rejection.TITLE;
  }

  @Override
  public Outcome run(LevelBench bench) {
    bench.refuseSilence();
    Criterion criterion = SensitivityWork.criterion(bench, form.quality(), form.target());
    PathGenerators.One other = bench.generators().side();
    double wanted = wanted(bench);
    double before = bench.level();
    Map<String, String> otherBefore =
        Map.of(
            SignalSource.LEVEL,
            other.control(SignalSource.LEVEL).value(),
            "frequency",
            other.control("frequency").value(),
            SignalSource.OUTPUT,
            other.control(SignalSource.OUTPUT).value());
    Workbench.Restored otherBack = () -> other.set(otherBefore);
    Workbench.Restored wantedBack = () -> bench.level(before);
    try (wantedBack;
        otherBack) {
      bench.level(wanted);
      int n = form.offsetsHz().size();
      for (int i = 0; i < n; i++) {
        double offset = form.offsetsHz().get(i);
        bench.say((offset >= 0 ? "+" : "") + Frequency.ofHertz(offset), (double) i / n);
        places.add(place(bench, criterion, other, wanted, offset));
        bench.partial(Rejection.of(criterion, wanted, places, bench.at()));
      }
    }
    return Rejection.of(criterion, wanted, places, bench.at());
  }

  private double wanted(LevelBench bench) {
    if (form.wantedDbm() != null) {
      return form.wantedDbm();
    }
    if (bench.voice().recalled(SensitivityWork.FOUND) instanceof Double found) {
      return found + form.aboveDb();
    }
    throw new Refusal(
        "wantedDbm", "Find the sensitivity first, or say how strong the wanted signal is.");
  }

  private Rejection.Place place(
      LevelBench bench,
      Criterion criterion,
      PathGenerators.One other,
      double wanted,
      double offset) {
    InstrumentDto.ControlDto level = other.control(SignalSource.LEVEL);
    double gain = bench.at().sideGainDb();
    double hz = bench.at().sourceHz() + offset;
    LineSearch search =
        new LineSearch(
            criterion,
            criterion.seconds(
                bench.model().bitRate(), bench.packetBits(), SensitivityWork.AUDIO_SECONDS),
            wanted - BELOW_DB,
            level.lowest() + gain,
            level.highest() + gain,
            form.wantedDb(),
            true);
    try {
      for (Optional<LevelSearch.Step> s = search.next(); s.isPresent(); s = search.next()) {
        bench.disturb(s.get().dbm(), hz);
        Quality seen = bench.measure(s.get().seconds());
        search.add(s.get().dbm(), seen);
      }
      return new Rejection.Place(offset, search.estimate(), "");
    } catch (Refusal r) {
      return new Rejection.Place(offset, LevelEstimate.NONE, r.getMessage());
    }
  }
}
