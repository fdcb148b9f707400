package rovnik.core.modulation.analysis;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import rovnik.core.Refusal;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Verdict;
import rovnik.core.modulation.Format;
import rovnik.core.result.Outcome;
import rovnik.core.result.Reading;
import rovnik.core.result.ResultTable;
import rovnik.core.result.ResultTable.Cell;
import rovnik.core.result.ResultTable.Column;
import rovnik.core.result.ResultTable.Row;
import rovnik.core.uncertainty.SquareScatter;
import rovnik.core.uncertainty.UncertaintyBudget;

/**
 * How much of an EVM is the receiver's own. Its noise is what is left in its filter when the source
 * is off; what repeats with the data is of source and receiver together, and of the source alone as
 * far as another receiver sees the same.
 */
public final class OwnShare {
  public static final String KIND = "own-share";
  public static final String TITLE = "The receiver's own share";

  /**
   * What another receiver saw of the same source.
   *
   * @param name of the receiver, or of the run
   */
  public record Other(String name, Outcome outcome) {}

  /** One part of the error's mean square, and its standard uncertainty. */
  private record Part(String label, double meanSquare, double standard, String toldBy) {
    boolean none() {
      return !(meanSquare > 0);
    }
  }

  private final List<RepeatedErrors.Look> looks = new ArrayList<>();
  private final List<Double> quiet;
  private final double scale;
  private final double total;
  private final double alike;
  private final boolean comesBack;
  private final Optional<RepeatedErrors.Common> repeats;
  private final Optional<Other> other;
  private Optional<RepeatedErrors.Common> ofSource = Optional.empty();
  private double ofOther = Double.NaN;

  private OwnShare(
      List<Outcome> outcomes, List<Double> quiet, Optional<Other> other, Format format) {
    // The same data come with another phase where that goes on from symbol to symbol.
    this.comesBack = !format.keyed() && !format.differential();
    for (Outcome o : outcomes) {
      looks.add(
          RepeatedErrors.Look.of(o)
              .orElseThrow(() -> new Refusal("signal", "A look without symbols tells nothing.")));
    }
    this.quiet = quiet;
    this.other = other;
    this.scale = evm(outcomes.get(0)) / Math.sqrt(looks.get(0).meanSquare());
    this.total = RepeatedErrors.mean(looks);
    this.alike = RepeatedErrors.alike(looks);
    this.repeats = comesBack ? RepeatedErrors.within(looks) : Optional.empty();
    other.ifPresent(
        o -> {
          RepeatedErrors.Look look =
              RepeatedErrors.Look.of(o.outcome())
                  .orElseThrow(
                      () ->
                          new Refusal(
                              "runId", o.name() + " holds no symbols. Choose a run of a carrier."));
          ofSource = comesBack ? RepeatedErrors.between(looks, look) : Optional.empty();
          ofOther = look.meanSquare();
        });
  }

  /**
   * Takes an EVM apart.
   *
   * @param looks at the carrier, all with the same settings
   * @param quiet mean squares of what was in the filter with the source off, for symbols of 1
   * @param other what another receiver saw, if there is one
   * @param format of the carrier
   */
  public static Outcome of(
      List<Outcome> looks, List<Double> quiet, Optional<Other> other, Format format) {
    return new OwnShare(looks, quiet, other, format).outcome();
  }

  private static double evm(Outcome o) {
    return o.reading("evm").map(Reading::value).orElse(Double.NaN);
  }

  private Part noise() {
    double mean = quiet.stream().mapToDouble(v -> v).average().orElse(0);
    double symbols = quiet.size() * (double) looks.get(0).count();
    return new Part(
        "Noise of this receiver",
        mean,
        mean / Math.sqrt(symbols),
        "what was in the filter with the source off");
  }

  /** Mean square of what differs from look to look; all of it, if that is not known. */
  private double random() {
    return Math.max(0, total - repeats.map(RepeatedErrors.Common::meanSquare).orElse(0.0));
  }

  /** That of the mean square of what is random. */
  private double ofRandom() {
    double symbols = looks.stream().mapToInt(RepeatedErrors.Look::count).sum();
    return random() * SquareScatter.widened(alike, symbols);
  }

  /**
   * That of the mean square of all looks: what repeats does not scatter, but it beats with noise.
   */
  private double ofTotal() {
    double symbols = looks.stream().mapToInt(RepeatedErrors.Look::count).sum();
    return Math.hypot(ofRandom(), Math.sqrt(2 * random() * (total - random()) / symbols));
  }

  private List<Part> parts() {
    List<Part> out = new ArrayList<>();
    Part noise = noise();
    out.add(noise);
    if (repeats.isEmpty()) {
      out.add(
          new Part(
              "All else",
              Math.max(0, total - noise.meanSquare()),
              Math.hypot(ofTotal(), noise.standard()),
              comesBack
                  ? "no two looks held the same data: what repeats is not known"
                  : "the same data come with another phase: what repeats is not known"));
      return out;
    }
    RepeatedErrors.Common both = repeats.get();
    double common = Math.max(0, both.meanSquare());
    if (ofSource.isPresent()) {
      RepeatedErrors.Common source = ofSource.get();
      double of = Math.min(common, Math.max(0, source.meanSquare()));
      double standard = norm(source.standard(), beside(common - of, of));
      out.add(
          new Part(
              "Distortion of this receiver",
              common - of,
              Math.hypot(both.chance(), standard),
              "repeats with the data, and " + other.get().name() + " does not see it"));
      out.add(
          new Part(
              "Distortion of the source", of, standard, "repeats with the data at both receivers"));
    } else {
      out.add(
          new Part(
              "Distortion of source and receiver",
              common,
              both.standard(),
              "repeats with the data"));
    }
    out.add(
        new Part(
            "Noise of the source",
            Math.max(0, total - noise.meanSquare() - common),
            norm(ofRandom(), noise.standard(), both.chance()),
            "differs from look to look beyond the receiver's noise; phase noise of the receiver is"
                + " in it"));
    return out;
  }

  /** Distortions of different instruments are not quite at right angles over so few symbols. */
  private double beside(double here, double source) {
    double there = Math.max(0, ofOther - source);
    double products = here * source + source * there + here * there;
    return Math.sqrt(products / 2 / RepeatedErrors.different(looks.get(0)));
  }

  private Outcome outcome() {
    List<Part> parts = parts();
    Part own = parts.get(0);
    boolean distortion = ofSource.isPresent() && repeats.isPresent();
    if (distortion) {
      Part more = parts.get(1);
      own =
          new Part(
              "",
              own.meanSquare() + more.meanSquare(),
              Math.hypot(own.standard(), more.standard()),
              "");
    }
    double ofRest =
        distortion
            ? norm(ofRandom(), parts.get(0).standard(), parts.get(2).standard())
            : Math.hypot(ofTotal(), own.standard());
    Part rest = new Part("", Math.max(0, total - own.meanSquare()), ofRest, "");
    List<Reading> readings = new ArrayList<>();
    readings.add(reading("evm", "EVM rms", new Part("", total, ofTotal(), "")));
    readings.add(
        reading(
            "ownEvm", distortion ? "EVM by this receiver" : "EVM by this receiver's noise", own));
    readings.add(
        reading(
            "sourceEvm",
            distortion ? "EVM of the source" : "EVM without this receiver's noise",
            rest));
    return new Outcome(
        KIND,
        TITLE,
        words(own, rest, distortion),
        List.of(),
        List.of(table(parts)),
        readings,
        List.of(),
        List.of());
  }

  private static double norm(double... standards) {
    return Math.sqrt(Arrays.stream(standards).map(v -> v * v).sum());
  }

  private double percent(double meanSquare) {
    return scale * Math.sqrt(Math.max(0, meanSquare));
  }

  /** Of a root; near 0 the square alone says how much it can be. */
  private double standardPercent(Part p) {
    return p.none()
        ? percent(p.standard())
        : Math.min(
            percent(p.standard()), percent(p.meanSquare()) * p.standard() / 2 / p.meanSquare());
  }

  private Reading reading(String id, String label, Part p) {
    UncertaintyBudget budget = new UncertaintyBudget().normal("symbols", standardPercent(p));
    return new Reading(
        id,
        label,
        percent(p.meanSquare()),
        "%",
        "",
        budget.expanded(),
        budget.contributions(),
        Limit.NONE,
        Verdict.NONE,
        List.of());
  }

  private String words(Part own, Part rest, boolean distortion) {
    StringBuilder out = new StringBuilder();
    out.append(
        String.format(
            Locale.ROOT,
            "%.0f %% of the error's power is this receiver's%s: EVM %.3g %% with it, %.3g %% without.",
            100 * own.meanSquare() / total,
            distortion ? "" : " noise",
            percent(total),
            percent(rest.meanSquare())));
    if (!comesBack) {
      out.append(
          " Of this format only noise is told apart: its phase goes on from symbol to symbol.");
    } else if (repeats.isEmpty()) {
      out.append(
          " No two looks held the same data. Choose a result at least as long as the waveform, or a"
              + " shorter pattern, to tell apart what repeats.");
    }
    other.ifPresent(
        o -> {
          out.append(String.format(Locale.ROOT, " %s sees %.3g %%", o.name(), percent(ofOther)));
          double less = total - ofOther;
          if (ofSource.isPresent()) {
            out.append(" of the same data.");
          } else if (less > 2 * ofTotal()) {
            out.append(
                String.format(
                    Locale.ROOT,
                    ", of other data: at least %.3g %% is this receiver's.",
                    percent(less)));
          } else {
            out.append(", of other data: it does not tell what is whose.");
          }
        });
    return out.toString();
  }

  private ResultTable table(List<Part> parts) {
    List<Row> rows = new ArrayList<>();
    for (Part p : parts) {
      rows.add(
          new Row(
              List.of(
                  Cell.of(p.label()),
                  Cell.of(100 * p.meanSquare() / total),
                  Cell.of(percent(p.meanSquare())),
                  Cell.of(2 * standardPercent(p)),
                  Cell.of(p.toldBy())),
              Verdict.NONE));
    }
    return new ResultTable(
        KIND,
        "Whose error it is",
        List.of(
            new Column("Part", ""),
            new Column("Share of power", "%"),
            new Column("EVM by it", "%"),
            new Column("Uncertain by", "%"),
            new Column("Told by", "")),
        rows);
  }
}
