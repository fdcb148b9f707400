package rovnik.core.time;

import java.util.Arrays;
import java.util.List;
import rovnik.core.limits.Verdict;
import rovnik.core.result.ResultTable;
import rovnik.core.result.ResultTable.Cell;
import rovnik.core.result.ResultTable.Column;
import rovnik.core.result.ResultTable.Row;
import rovnik.core.signal.Window;
import rovnik.core.spectrum.SpectrumLayout;

/**
 * What is sure to be seen with windows of a length and a step, and what would be with others.
 *
 * @param table the shortest events by what they may read low
 */
record SureEvents(
    double sampleRateHz,
    Window window,
    int length,
    int hop,
    EventCertainty certainty,
    ResultTable table) {
  /** What an event may read low by. */
  private static final double[] LOSSES_DB = {0, 1, 3, 6, 10, 20};

  private static final double MUCH_OVERLAP = 0.1;

  static SureEvents of(double sampleRateHz, Window window, int length, int hop) {
    EventCertainty certainty = new EventCertainty(sampleRateHz, window, length, hop);
    int half = Math.max(SpectrumLayout.SHORTEST_WINDOW, length / 2);
    int halfHop = Math.max(1, (int) ((long) hop * half / length));
    EventCertainty wider = new EventCertainty(sampleRateHz, window, half, halfHop);
    int closeHop = Math.min(hop, Math.max(1, (int) (length * MUCH_OVERLAP)));
    EventCertainty closer = new EventCertainty(sampleRateHz, window, length, closeHop);
    List<Row> rows =
        Arrays.stream(LOSSES_DB)
            .mapToObj(
                loss ->
                    new Row(
                        List.of(
                            Cell.of(loss),
                            Cell.of(shortest(certainty, loss)),
                            Cell.of(shortest(wider, loss)),
                            Cell.of(shortest(closer, loss))),
                        Verdict.NONE))
            .toList();
    return new SureEvents(
        sampleRateHz,
        window,
        length,
        hop,
        certainty,
        new ResultTable(
            "sure",
            "What is sure to be seen",
            List.of(
                new Column("Reads low by at most", "dB"),
                new Column("Shortest event", "s"),
                new Column("At twice the RBW", "s"),
                new Column("At 90 % overlap", "s")),
            rows));
  }

  /** This one if the windows are the same, or that of others. */
  SureEvents or(double sampleRateHz, Window window, int length, int hop) {
    return sampleRateHz == this.sampleRateHz
            && window == this.window
            && length == this.length
            && hop == this.hop
        ? this
        : of(sampleRateHz, window, length, hop);
  }

  private static double shortest(EventCertainty c, double lossDb) {
    return lossDb == 0 ? c.fullSeconds() : c.secondsAt(lossDb);
  }
}
