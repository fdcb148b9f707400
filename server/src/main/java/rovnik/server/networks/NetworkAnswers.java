package rovnik.server.networks;

import java.util.ArrayList;
import java.util.List;
import org.hipparchus.complex.Complex;
import rovnik.core.Refusal;
import rovnik.core.limits.Verdict;
import rovnik.core.network.CableFigures;
import rovnik.core.network.FixtureWindow;
import rovnik.core.network.NetworkData;
import rovnik.core.network.NetworkFigures;
import rovnik.core.network.NetworkLimit;
import rovnik.core.network.Residuals;
import rovnik.core.network.Resonance;
import rovnik.core.network.TwoPort;
import rovnik.core.units.Decibels;
import rovnik.server.networks.NetworkViewDto.Band;
import rovnik.server.networks.NetworkViewDto.BandReply;
import rovnik.server.networks.NetworkViewDto.CableReply;
import rovnik.server.networks.NetworkViewDto.Detail;
import rovnik.server.networks.NetworkViewDto.Fixture;
import rovnik.server.networks.NetworkViewDto.Gamma;
import rovnik.server.networks.NetworkViewDto.LimitDto;
import rovnik.server.networks.NetworkViewDto.OutcomeDto;
import rovnik.server.networks.NetworkViewDto.ResonanceAsk;
import rovnik.server.networks.NetworkViewDto.ResonanceReply;
import rovnik.server.networks.NetworkViewDto.Window;
import rovnik.server.results.Nulls;

/** What is read from one network as it is shown. A question that cannot be answered is a note. */
final class NetworkAnswers {
  private static final double USUAL_VSWR = 1.5;
  private static final int MOST = 40;

  private final NetworkService networks;
  private final NetworkData n;
  private final Residuals trust;
  private final boolean invalid;
  private final List<String> notes = new ArrayList<>();
  private Verdict verdict = Verdict.NONE;

  NetworkAnswers(NetworkService networks, NetworkData n, Residuals trust, boolean invalid) {
    this.networks = networks;
    this.n = n;
    this.trust = trust;
    this.invalid = invalid;
  }

  List<String> notes() {
    return List.copyOf(notes);
  }

  void note(String sentence) {
    if (!notes.contains(sentence)) {
      notes.add(sentence);
    }
  }

  Verdict verdict() {
    return verdict;
  }

  private static <T> List<T> few(List<T> asked, String field) {
    List<T> all = asked == null ? List.of() : asked;
    if (all.size() > MOST) {
      throw new Refusal(field, "At most " + MOST + " " + field + " at once.");
    }
    return all;
  }

  /** Holds the network to the limits that are for it; the others are told as not judged. */
  List<OutcomeDto> outcomes(List<LimitDto> limits, String subject, String device) {
    List<OutcomeDto> all = new ArrayList<>();
    List<Verdict> verdicts = new ArrayList<>();
    for (LimitDto dto : few(limits, "limits")) {
      NetworkLimit l = dto.toCore();
      if (!l.isFor(subject, device)) {
        String part = l.part().isEmpty() ? device : l.part();
        all.add(
            new OutcomeDto(
                l.name(),
                null,
                null,
                null,
                null,
                l.upper(),
                l.format().unit(),
                Verdict.NONE,
                "for " + part + " only"));
        continue;
      }
      NetworkLimit.Outcome o = l.of(n, trust, invalid);
      verdicts.add(o.verdict());
      all.add(
          new OutcomeDto(
              l.name(),
              Nulls.orNull(o.worst()),
              Nulls.orNull(o.atHz()),
              Nulls.orNull(o.margin()),
              Double.isNaN(o.atHz()) ? null : Nulls.orNull(l.valueAt(o.atHz())),
              l.upper(),
              l.format().unit(),
              o.verdict(),
              o.verdict().label()));
    }
    verdict = Verdict.worst(verdicts);
    return all;
  }

  List<BandReply> bands(List<Band> bands, Double otherVswr) {
    double vswr = otherVswr == null ? USUAL_VSWR : otherVswr;
    List<BandReply> replies = new ArrayList<>();
    for (Band b : few(bands, "bands")) {
      try {
        replies.add(
            new BandReply(
                b.name(),
                NetworkFigures.of(n, b.fromHz(), b.toHz(), vswr, trust).stream()
                    .map(NetworkDetail.NetworkReading::of)
                    .toList()));
      } catch (Refusal r) {
        // What is laid over the first file may lie elsewhere: it has no figures there.
        note((b.name().isEmpty() ? "Worst values" : b.name()) + ": " + r.getMessage());
        replies.add(new BandReply(b.name(), List.of()));
      }
    }
    return replies;
  }

  List<Detail> details(List<Double> hertz) {
    if (n.ports() != 2) {
      return List.of();
    }
    List<Detail> all = new ArrayList<>();
    for (double hz : few(hertz, "detailHz")) {
      int near = 0;
      for (int i = 1; i < n.points(); i++) {
        if (Math.abs(n.frequencyHz()[i] - hz) < Math.abs(n.frequencyHz()[near] - hz)) {
          near = i;
        }
      }
      all.add(detail(TwoPort.of(n, near), n.frequencyHz()[near]));
    }
    return all;
  }

  private static Detail detail(TwoPort t, double hz) {
    boolean stable = t.unconditionallyStable();
    boolean both = t.s12().norm() > 0 && t.s21().norm() > 0;
    TwoPort.Circle load = t.loadCircle();
    TwoPort.Circle source = t.sourceCircle();
    return new Detail(
        hz,
        Nulls.orNull(t.rollettK()),
        t.mu(),
        stable ? Nulls.orNull(t.maximumGainDb()) : null,
        both ? Nulls.orNull(Decibels.fromAmplitudeRatio(t.s21().norm() / t.s12().norm())) : null,
        gamma(load.centre()),
        finite(load.radius()),
        gamma(source.centre()),
        finite(source.radius()),
        stable ? gamma(t.matchedSource()) : null,
        stable ? gamma(t.matchedLoad()) : null);
  }

  private static double finite(double v) {
    return Double.isFinite(v) ? v : 0;
  }

  private static Gamma gamma(Complex c) {
    return new Gamma(finite(c.getReal()), finite(c.getImaginary()));
  }

  ResonanceReply resonance(ResonanceAsk ask) {
    if (ask == null) {
      return null;
    }
    try {
      Resonance r = Resonance.of(n, ask.connection(), ask.series(), ask.fromHz(), ask.toHz());
      return new ResonanceReply(
          r.hertz(), r.quality(), r.henry(), r.farad(), r.ohm(), r.seriesCircuit());
    } catch (Refusal refused) {
      note(refused.getMessage());
      return null;
    }
  }

  CableReply cable(Double metres) {
    if (metres == null) {
      return null;
    }
    try {
      double[] f = n.frequencyHz();
      CableFigures c = CableFigures.of(n, metres, (f[0] + f[f.length - 1]) / 2);
      return new CableReply(c.velocityFactor(), c.lossDbPerMetre(), c.atHz());
    } catch (Refusal refused) {
      note(refused.getMessage());
      return null;
    }
  }

  /** The window at the points that are drawn; what lies too near is said of all. */
  Window window(Fixture f, NetworkData drawn) {
    if (f == null || f.empty() == null || f.shorted() == null || n.ports() != 2) {
      return null;
    }
    try {
      FixtureWindow w = new FixtureWindow(networks.data(f.empty()), networks.data(f.shorted()));
      FixtureWindow.Finding found = w.of(n);
      if (found.share() > 0) {
        notes.add(
            String.format(
                java.util.Locale.ROOT,
                "%.0f %% of the points lie too near to what the fixture itself does.",
                Math.max(1, 100 * found.share())));
      }
      List<Window.Near> near =
          found.near().stream().map(s -> new Window.Near(s.fromHz(), s.toHz())).toList();
      return new Window(w.lowestDb(drawn), w.highestDb(drawn), near);
    } catch (Refusal refused) {
      note(refused.getMessage());
      return null;
    }
  }
}
