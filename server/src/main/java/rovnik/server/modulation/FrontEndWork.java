package rovnik.server.modulation;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rovnik.core.Refusal;
import rovnik.core.limits.Verdict;
import rovnik.core.result.Axis;
import rovnik.core.result.Outcome;
import rovnik.core.result.ResultTable;
import rovnik.core.result.ResultTable.Cell;
import rovnik.core.result.ResultTable.Column;
import rovnik.core.result.ResultTable.Row;
import rovnik.core.result.Series;
import rovnik.core.uncertainty.UncertaintyBudget;
import rovnik.server.live.Guided;
import rovnik.server.live.GuidedForm;

/**
 * Finds the reference level at which the receiver adds the least to the errors of the carrier that
 * is there: too much attenuation is noise, too little is distortion, and then overload.
 */
final class FrontEndWork implements Guided<RecordBench<?>> {
  /**
   * What it is told.
   *
   * @param aboveDb how far above the carrier's mean power it begins
   * @param stepDb from look to look
   */
  @Schema(name = "FrontEndForm")
  record Form(double aboveDb, double stepDb) implements GuidedForm {
    @Override
    public Guided<?> work() {
      return new FrontEndWork(aboveDb, stepDb);
    }
  }

  private static final int MOST_LOOKS = 60;

  /** It has looked far enough below the carrier when the records clip, and so many times more. */
  private static final int CLIPPED = 2;

  private static final int LOOKS_EACH = 3;
  private static final double SIGMAS = 2;
  private final double aboveDb;
  private final double stepDb;

  private FrontEndWork(double aboveDb, double stepDb) {
    if (!(aboveDb >= 3 && aboveDb <= 60 && stepDb >= 0.5 && stepDb <= 10)) {
      throw new Refusal(
          "aboveDb", "It begins 3 to 60 dB above the carrier and goes by 0.5 to 10 dB.");
    }
    this.aboveDb = aboveDb;
    this.stepDb = stepDb;
  }

  @Override
  public String id() {
    return "front-end";
  }

  @Override
  public String title() {
    return "Front end at its best";
  }

  /**
   * What one reference level gives.
   *
   * @param standard standard deviation of its EVM
   */
  private record Place(
      double referenceDbm, double evm, double standard, Double attenuationDb, String trouble) {}

  @Override
  public Outcome run(RecordBench<?> bench) {
    RecordLook first = bench.look();
    double power = RecordBench.reading(first.outcome(), "carrierPower");
    boolean calibrated =
        first.outcome().reading("carrierPower").map(r -> r.unit().equals("dBm")).orElse(false);
    if (!calibrated) {
      throw new Refusal("signal", "The level of the carrier is not known here.");
    }
    double start = Math.rint(power + aboveDb);
    int all = (int) Math.min(MOST_LOOKS, Math.ceil((aboveDb + 12) / stepDb));
    List<Place> places = new ArrayList<>();
    int clipped = 0;
    Double lastAttenuation = null;
    for (int i = 0; i < all && clipped < CLIPPED; i++) {
      double reference = start - i * stepDb;
      bench.say(
          String.format(Locale.ROOT, "reference level %.1f dBm", reference), (double) i / all);
      Place p = place(bench, reference);
      clipped += p.trouble().isEmpty() ? 0 : 1;
      if (p.attenuationDb() == null || !p.attenuationDb().equals(lastAttenuation)) {
        places.add(p); // steps that the attenuator does not make tell nothing new
      }
      lastAttenuation = p.attenuationDb();
      bench.partial(finding(places, first));
    }
    Place best = best(places);
    bench.frame(best.referenceDbm());
    bench.lookAt(best.referenceDbm());
    return finding(places, first);
  }

  private static Place place(RecordBench<?> bench, double reference) {
    double sum = 0;
    RecordLook look = null;
    for (int i = 0; i < LOOKS_EACH; i++) {
      look = bench.tryLook(reference);
      if (!look.refused().isEmpty() || !look.outcome().marks().isEmpty()) {
        String trouble =
            look.refused().isEmpty() ? String.join(", ", look.outcome().marks()) : look.refused();
        double evm =
            look.refused().isEmpty() ? RecordBench.reading(look.outcome(), "evm") : Double.NaN;
        return new Place(reference, evm, 0, look.facts().attenuationDb(), trouble);
      }
      double evm = RecordBench.reading(look.outcome(), "evm");
      sum += evm * evm / LOOKS_EACH;
    }
    double standard =
        look.outcome().reading("evm").map(r -> r.uncertainty() / UncertaintyBudget.K).orElse(0.0);
    return new Place(
        reference,
        Math.sqrt(sum),
        standard / Math.sqrt(LOOKS_EACH),
        look.facts().attenuationDb(),
        "");
  }

  /** The middle of those that cannot be told from the least. */
  private static Place best(List<Place> places) {
    Place least = null;
    for (Place p : places) {
      if (p.trouble().isEmpty() && (least == null || p.evm() < least.evm())) {
        least = p;
      }
    }
    if (least == null) {
      throw new Refusal(
          "signal", "No reference level gave a result without overload. Lower the level.");
    }
    double most = least.evm() + SIGMAS * Math.sqrt(2) * least.standard();
    List<Place> alike =
        places.stream().filter(p -> p.trouble().isEmpty() && p.evm() <= most).toList();
    return alike.get(alike.size() / 2);
  }

  private Outcome finding(List<Place> places, RecordLook first) {
    boolean any = places.stream().anyMatch(p -> p.trouble().isEmpty());
    Place best = any ? best(places) : null;
    List<Place> good = places.stream().filter(p -> !Double.isNaN(p.evm())).toList();
    double[] x = new double[good.size()];
    double[] y = new double[good.size()];
    for (int i = 0; i < x.length; i++) {
      Place p = good.get(x.length - 1 - i); // rising
      x[i] = p.referenceDbm();
      y[i] = p.evm();
    }
    List<Row> rows = new ArrayList<>();
    for (Place p : places) {
      rows.add(
          new Row(
              List.of(
                  Cell.of(p.referenceDbm()),
                  Cell.of(p.attenuationDb() == null ? Double.NaN : p.attenuationDb()),
                  Cell.of(p.evm()),
                  Cell.of(p == best ? "best" : p.trouble())),
              Verdict.NONE));
    }
    String words =
        best == null
            ? "Nothing yet."
            : String.format(
                Locale.ROOT,
                "Best at a reference level of %.1f dBm: EVM %.3g %%, %.3g %% as it was set.",
                best.referenceDbm(),
                best.evm(),
                RecordBench.reading(first.outcome(), "evm"));
    return new Outcome(
        id(),
        title(),
        words,
        List.of(
            Series.curve(
                    "evm", "EVM over the front end", Axis.own("Reference level", "dBm", x), y, "%")
                .of("EVM rms")),
        List.of(
            new ResultTable(
                id(),
                "Front end",
                List.of(
                    new Column("Reference level", "dBm"),
                    new Column("Attenuator", "dB"),
                    new Column("EVM rms", "%"),
                    new Column("", "")),
                rows)),
        List.of(),
        List.of(),
        List.of());
  }
}
