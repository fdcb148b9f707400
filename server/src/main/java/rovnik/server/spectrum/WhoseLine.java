package rovnik.server.spectrum;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rovnik.core.emission.LineOrigin;
import rovnik.core.emission.ViewPlan;
import rovnik.core.limits.Verdict;
import rovnik.core.result.Outcome;
import rovnik.core.result.ResultTable;
import rovnik.core.result.ResultTable.Cell;
import rovnik.core.result.ResultTable.Column;
import rovnik.core.result.ResultTable.Row;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.spectrum.Trace;
import rovnik.server.live.Guided;
import rovnik.server.live.GuidedForm;
import rovnik.server.live.Workbench;

/**
 * Whose line is it? The same span as it is, with more attenuation in the receiver, with the
 * receiver tuned elsewhere, and with the source off; every line is labelled by what it did.
 */
final class WhoseLine implements Guided<SpectrumBench> {
  /**
   * What it is told.
   *
   * @param stepDb how much more attenuation, 3 or 10 dB
   */
  @Schema(name = "WhoseLineForm")
  record Form(double stepDb) implements GuidedForm {
    @Override
    public Guided<?> work() {
      return new WhoseLine(stepDb);
    }
  }

  private static final double MOVED_SPANS = 0.11;
  private static final int FEWEST_AVERAGES = 64;
  private final double stepDb;

  /**
   * @param stepDb how much more attenuation, 3 or 10 dB
   */
  WhoseLine(double stepDb) {
    this.stepDb = stepDb;
  }

  @Override
  public String id() {
    return "whose-line";
  }

  @Override
  public String title() {
    return "Whose line is it?";
  }

  @Override
  public Outcome run(SpectrumBench bench) {
    SpectrumSettings s = bench.settings();
    SpectrumSettings averaged = AutoFrame.withAverages(s, Math.max(s.averages(), FEWEST_AVERAGES));
    bench.say("as it is", 0.05);
    SpectrumLook asIs = bench.look(averaged);
    double attenuation = asIs.facts().attenuationDb();
    boolean room = attenuation + stepDb <= bench.receiver().highestAttenuationDb();
    SpectrumLook attenuated = null;
    if (room) {
      bench.say(String.format(Locale.ROOT, "with %.0f dB more attenuation", stepDb), 0.3);
      attenuated = bench.look(averaged, ViewPlan.PLAIN, new SpectrumBench.Way(0, stepDb));
    }
    double stepped = room ? attenuated.facts().attenuationDb() - attenuation : 0;
    bench.say("with the receiver tuned elsewhere", 0.5);
    boolean single = asIs.record() != null;
    SpectrumLook moved =
        single ? bench.look(averaged, ViewPlan.PLAIN, new SpectrumBench.Way(MOVED_SPANS, 0)) : null;
    boolean on = bench.sourceOn();
    Trace off = null;
    if (on) {
      bench.say("with " + bench.sourceName() + " off", 0.75);
      bench.switchSource(false);
      Workbench.Restored onAgain = () -> bench.switchSource(true);
      try (onAgain) {
        off = bench.look(averaged).result().base().trace();
      }
    }
    double tuned =
        single
            ? bench.correction().portToPlaneHz(asIs.record().centreHz())
            : Double.NEGATIVE_INFINITY;
    List<LineOrigin.Line> lines =
        LineOrigin.label(
            new LineOrigin.Looks(
                asIs.result().base().trace(),
                asIs.result().base().peaks(),
                off,
                attenuated == null ? null : attenuated.result().base().trace(),
                stepped,
                moved == null ? null : moved.result().base().trace(),
                tuned));
    return finding(bench, asIs, lines, on, stepped);
  }

  private Outcome finding(
      SpectrumBench bench,
      SpectrumLook asIs,
      List<LineOrigin.Line> lines,
      boolean on,
      double stepped) {
    List<Row> rows = new ArrayList<>();
    for (LineOrigin.Line l : lines) {
      String maker = l.maker().label() + (l.kind().isEmpty() ? "" : ": " + l.kind());
      rows.add(
          new Row(
              List.of(
                  Cell.of(l.frequencyHz()),
                  Cell.of(l.level()),
                  Cell.of(maker),
                  Cell.of(l.evidence())),
              Verdict.NONE));
    }
    Trace t = asIs.result().base().trace();
    long dut = lines.stream().filter(l -> l.maker() == LineOrigin.Maker.SOURCE).count();
    long room = lines.stream().filter(l -> l.maker() == LineOrigin.Maker.ROOM).count();
    long own = lines.stream().filter(l -> l.maker() == LineOrigin.Maker.RECEIVER).count();
    long unsure = lines.size() - dut - room - own;
    String summary =
        "Of "
            + lines.size()
            + " lines "
            + dut
            + " from "
            + bench.sourceName()
            + ", "
            + room
            + " from the room, "
            + own
            + " made in the receiver, "
            + unsure
            + " unsure."
            + (on ? "" : " The source was off or cannot be switched: who sends was not asked.")
            + (stepped > 0 ? "" : " There was no room for more attenuation.");
    return SpectrumBench.found(
        this,
        summary,
        List.of(SpectrumBench.curve("trace", "as it is", t)),
        false,
        List.of(
            new ResultTable(
                id(),
                "Lines and who makes them",
                List.of(
                    new Column("Line", "Hz"),
                    new Column("Level", t.unit()),
                    new Column("Made by", ""),
                    new Column("Evidence", "")),
                rows)),
        List.of(),
        asIs.result());
  }
}
