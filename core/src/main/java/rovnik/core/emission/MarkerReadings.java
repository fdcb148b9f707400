package rovnik.core.emission;

import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.limits.Limit;
import rovnik.core.path.PathCorrection;
import rovnik.core.result.Reading;
import rovnik.core.signal.FrequencyCounter;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.BandPower;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.Peak;
import rovnik.core.spectrum.ReadingMaker;
import rovnik.core.spectrum.Trace;
import rovnik.core.uncertainty.UncertaintyBudget;
import rovnik.core.units.Decibels;
import rovnik.core.units.Frequency;

/** Numbers read at a marker: noise density, power in a band, counted frequency. */
final class MarkerReadings {
  private MarkerReadings() {}

  /**
   * Reads one number.
   *
   * @param context with the accuracy of the instrument and the path
   * @param record the newest samples, null if there are none
   * @return a reading; one that cannot be read carries a mark that says why
   */
  static Reading read(
      String id,
      ViewPlan.ReadAt read,
      Trace trace,
      List<Peak> lines,
      ReadingMaker maker,
      MeasurementContext context,
      IqRecord record) {
    double low = read.hertz() - read.widthHz() / 2;
    double high = read.hertz() + read.widthHz() / 2;
    if (low < trace.startHz() - trace.stepHz() || high > trace.stopHz() + trace.stepHz()) {
      return unread(maker, id, "Marker reading", "", "its band lies outside the span");
    }
    String at = " at " + Frequency.ofHertz(read.hertz());
    double power = new BandPower(trace).level(low, high);
    double statistical = maker.bandDb(low, high, lines);
    return switch (read.kind()) {
      case LEVEL -> {
        double level = trace.levelAt(read.hertz());
        yield maker.level(
            id,
            "Level" + at,
            level,
            trace.unit(),
            maker.lineDb(level),
            Limit.NONE,
            maker.marks(read.hertz(), read.hertz()));
      }
      case BAND ->
          maker.level(
              id,
              "Power in " + Frequency.ofHertz(read.widthHz()) + at,
              power,
              trace.unit(),
              statistical,
              Limit.NONE,
              maker.noiseMarks(low, high));
      case DENSITY ->
          maker.level(
              id,
              "Noise density" + at,
              power - Decibels.fromPowerRatio(read.widthHz()),
              trace.unit() + "/Hz",
              statistical,
              Limit.NONE,
              maker.noiseMarks(low, high));
      case COUNT ->
          count(id, read, maker, context, trace.calibrated() ? context.correction() : null, record);
    };
  }

  private static Reading count(
      String id,
      ViewPlan.ReadAt read,
      ReadingMaker maker,
      MeasurementContext context,
      PathCorrection correction,
      IqRecord record) {
    String label = "Counted frequency";
    if (record == null) {
      return unread(maker, id, label, "Hz", "there is no record to count in");
    }
    double portHz = correction == null ? read.hertz() : correction.planeToPortHz(read.hertz());
    try {
      FrequencyCounter.Count c =
          FrequencyCounter.count(
              record.iq(),
              record.sampleCount(),
              record.sampleRateHz(),
              portHz - record.centreHz(),
              read.widthHz());
      double hz = record.centreHz() + c.offsetHz();
      return maker.reading(
          id,
          label,
          correction == null ? hz : correction.portToPlaneHz(hz),
          "Hz",
          new UncertaintyBudget()
              .rectangular(
                  "instrument reference", Math.abs(hz) * context.accuracy().frequencyRelative())
              .normal("scatter of the phase", c.standardHz()),
          Limit.NONE,
          List.of());
    } catch (Refusal shortRecord) {
      return unread(maker, id, label, "Hz", shortRecord.getMessage());
    }
  }

  private static Reading unread(
      ReadingMaker maker, String id, String label, String unit, String why) {
    return maker.reading(
        id, label, Double.NaN, unit, new UncertaintyBudget(), Limit.NONE, List.of(why));
  }
}
