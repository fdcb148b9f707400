package rovnik.server.live;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rovnik.core.Refusal;
import rovnik.core.emission.EmissionResult;
import rovnik.core.emission.PhaseNoise;
import rovnik.core.limits.Limit;
import rovnik.core.limits.Reading;
import rovnik.core.limits.Verdict;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.Curve;
import rovnik.core.spectrum.Detector;
import rovnik.core.spectrum.LineSearch;
import rovnik.core.spectrum.ReadingMaker;
import rovnik.core.spectrum.ResultTable;
import rovnik.core.spectrum.ResultTable.Cell;
import rovnik.core.spectrum.ResultTable.Column;
import rovnik.core.spectrum.ResultTable.Row;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.spectrum.Trace;
import rovnik.core.uncertainty.UncertaintyBudget;
import rovnik.core.units.Frequency;

/** Phase noise of the strongest line in view: one spectrum a decade of offsets. */
final class PhaseNoiseWork implements Guided {
  private static final double RBWS_A_REACH = 500;
  private static final int AVERAGES = 160;
  private final double toHz;

  /**
   * @param toHz farthest offset, 10 kHz to 10 MHz
   */
  PhaseNoiseWork(double toHz) {
    if (!(toHz >= 1e4 && toHz <= 1e7)) {
      throw new Refusal("toHz", "Phase noise is measured out to an offset of 10 kHz to 10 MHz.");
    }
    this.toHz = toHz;
  }

  @Override
  public String id() {
    return "phase-noise";
  }

  @Override
  public String title() {
    return "Phase noise";
  }

  @Override
  public Finding run(GuidedBench bench) {
    bench.say("carrier", 0);
    Look first = bench.look(bench.settings());
    if (first.result().base().peaks().isEmpty()) {
      throw new Refusal("phaseNoise", "There is no line in view. Frame the carrier first.");
    }
    double f0 = first.result().base().peaks().get(0).frequencyHz();
    List<Trace> traces = new ArrayList<>();
    EmissionResult widest = null;
    Look carrier = null;
    for (double reach = toHz; reach >= 0.99e4; reach /= 10) {
      bench.say("offsets to " + Frequency.ofHertz(reach), 0.1 + 0.3 * Math.log10(toHz / reach));
      carrier = bench.look(settings(bench, f0, reach));
      traces.add(carrier.result().base().trace());
      widest = widest == null ? carrier.result() : widest;
      if (!carrier.result().base().peaks().isEmpty()) {
        f0 = carrier.result().base().peaks().get(0).frequencyHz();
      }
    }
    double level = carrier.result().base().peaks().get(0).level();
    PhaseNoise noise = PhaseNoise.of(traces, f0, level);
    return finding(bench, noise, f0, level, widest, carrier);
  }

  private static SpectrumSettings settings(GuidedBench bench, double f0, double reach) {
    SpectrumSettings s = bench.settings();
    return new SpectrumSettings(
        f0,
        2.2 * reach,
        reach / RBWS_A_REACH,
        Window.BLACKMAN_HARRIS,
        Detector.RMS,
        AVERAGES,
        s.referenceLevelDbm(),
        s.channelWidthHz(),
        0,
        LineSearch.AUTO);
  }

  private Finding finding(
      GuidedBench bench,
      PhaseNoise n,
      double f0,
      double level,
      EmissionResult widest,
      Look carrier) {
    Setting s = bench.setting(bench.settings());
    Trace trace = widest.base().trace();
    ReadingMaker maker =
        new ReadingMaker(
            trace, s.settings(), s.correction(), s.context(carrier.marks(), List.of()));
    List<Reading> readings = new ArrayList<>();
    List<Row> rows = new ArrayList<>();
    for (double at = 100; at <= toHz * 1.001; at *= 10) {
      double dbc = n.at(at);
      if (Double.isNaN(dbc)) {
        continue;
      }
      rows.add(new Row(List.of(Cell.of(at), Cell.of(dbc)), Verdict.NONE));
      if (Math.abs(at - 1e4) < 1) {
        readings.add(
            maker.reading(
                "phaseNoise10k",
                "Phase noise at 10 kHz",
                dbc,
                "dBc/Hz",
                new UncertaintyBudget()
                    .rectangular("instrument linearity", s.accuracy().linearityDb())
                    .normal("average", maker.noiseDb(trace.enbwHz())),
                Limit.NONE,
                carrier.marks()));
      }
    }
    double from = n.offsetHz()[0];
    double to = n.offsetHz()[n.offsetHz().length - 1];
    double jitter = n.jitterSeconds(from, to, f0);
    double fm = n.residualFmHz(from, to);
    // An error of the curve goes into the root of its integral with half of its decibels.
    double share = s.accuracy().linearityShare();
    String band = Frequency.ofHertz(round(from)) + " to " + Frequency.ofHertz(round(to));
    readings.add(integrated(maker, "jitter", "Jitter, " + band, jitter, "s", share, carrier));
    readings.add(integrated(maker, "residualFm", "Residual FM, " + band, fm, "Hz", share, carrier));
    List<Row> spurs =
        n.spurs().stream()
            .map(p -> new Row(List.of(Cell.of(p.offsetHz()), Cell.of(p.dbc())), Verdict.NONE))
            .toList();
    List<ResultTable> tables = new ArrayList<>();
    tables.add(
        new ResultTable(
            "decades",
            "Phase noise by decade",
            List.of(new Column("Offset", "Hz"), new Column("L", "dBc/Hz")),
            rows));
    if (!spurs.isEmpty()) {
      tables.add(
          new ResultTable(
              "spurs",
              "Lines beside the carrier",
              List.of(new Column("Offset", "Hz"), new Column("Level", "dBc")),
              spurs));
    }
    return new Finding(
        id(),
        title(),
        String.format(
            Locale.ROOT,
            "Carrier %s, %.1f dBm; jitter %.3g ps and residual FM %.3g Hz from %s.",
            Frequency.ofHertz(Math.rint(f0)),
            level,
            jitter * 1e12,
            fm,
            band),
        List.of(new Curve("phaseNoise", "L(f)", n.offsetHz(), n.dbcPerHz(), "Hz", "dBc/Hz")),
        true,
        tables,
        readings,
        widest);
  }

  private static double round(double hz) {
    double decade = Math.pow(10, Math.floor(Math.log10(hz)) - 1);
    return Math.rint(hz / decade) * decade;
  }

  private static Reading integrated(
      ReadingMaker maker,
      String id,
      String label,
      double value,
      String unit,
      double share,
      Look look) {
    return maker.reading(
        id,
        label,
        value,
        unit,
        new UncertaintyBudget().rectangular("instrument linearity", share * value),
        Limit.NONE,
        look.marks());
  }
}
