package rovnik.core.modulation;

import java.util.ArrayList;
import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.limits.Limit;
import rovnik.core.path.PathCorrection;
import rovnik.core.result.Reading;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.PlaneReadings;
import rovnik.core.uncertainty.UncertaintyBudget;
import rovnik.core.units.Frequency;

/**
 * Where a carrier of a record is and how strong, at the reading plane, against the job's limits.
 */
public final class CarrierReadings {
  private final IqRecord record;
  private final MeasurementContext context;
  private final PathCorrection correction;
  private final double carrierPortHz;
  private final double carrierHz;
  private final PlaneReadings maker;

  /**
   * @param offsetHz of the carrier, from the centre of the record
   */
  public CarrierReadings(IqRecord record, MeasurementContext context, double offsetHz) {
    this.record = record;
    this.context = context;
    this.correction = context.correction();
    this.carrierPortHz = record.centreHz() + offsetHz;
    this.carrierHz = correction == null ? carrierPortHz : correction.portToPlaneHz(carrierPortHz);
    this.maker =
        new PlaneReadings(
            correction, context, correction == null ? "" : correction.planeName(), carrierHz);
  }

  /**
   * Where a carrier is expected in a record, from its centre.
   *
   * @param centreHz at the reading plane; 0 for the middle of the record
   * @throws Refusal if the record does not hold that place
   */
  public static double expectedHz(IqRecord record, MeasurementContext context, double centreHz) {
    PathCorrection c = context.correction();
    double port =
        centreHz == 0 ? record.centreHz() : c == null ? centreHz : c.planeToPortHz(centreHz);
    double half = record.sampleRateHz() / 2;
    if (Math.abs(port - record.centreHz()) > half) {
      throw new Refusal(
          "centreHz",
          "The record holds "
              + Frequency.ofHertz(record.centreHz() - half)
              + " to "
              + Frequency.ofHertz(record.centreHz() + half)
              + "; the carrier is expected outside.");
    }
    return port - record.centreHz();
  }

  /** At the reading plane. */
  public double carrierHz() {
    return carrierHz;
  }

  /** Makes further readings at the same plane. */
  public PlaneReadings maker() {
    return maker;
  }

  /**
   * Frequency of the carrier and its error.
   *
   * @param why what its standard deviation comes from
   * @param ownHz a carrier farther from the nominal frequency is another one
   * @param centreHz that was expected, where the job names none; 0 for the middle of the record
   */
  public List<Reading> frequency(
      String why, double standardHz, double ownHz, double centreHz, List<String> marks) {
    double relative = context.accuracy().frequencyRelative();
    double referenceHz = Double.isNaN(relative) ? 0 : relative * carrierPortHz;
    UncertaintyBudget budget =
        new UncertaintyBudget().rectangular("reference", referenceHz).normal(why, standardHz);
    List<Reading> out = new ArrayList<>();
    out.add(
        maker.reading(
            "carrierFrequency", "Carrier frequency", carrierHz, "Hz", budget, Limit.NONE, marks));
    double source = context.limits().nominalHz();
    boolean known = !Double.isNaN(source);
    double nominal =
        known
            ? correction == null ? source : correction.sourceToPlaneHz(source)
            : centreHz == 0 ? record.centreHz() : centreHz;
    boolean judged = known && Math.abs(carrierHz - nominal) < ownHz;
    Limit limit = judged ? context.limits().frequencyErrorHz() : Limit.NONE;
    double errorHz = carrierHz - nominal;
    out.add(
        maker.reading("frequencyError", "Frequency error", errorHz, "Hz", budget, limit, marks));
    if (known) {
      double toPpm = 1e6 / source;
      UncertaintyBudget ppm = new UncertaintyBudget();
      budget.contributions().forEach(x -> ppm.normal(x.name(), x.standard() * toPpm));
      out.add(
          maker.reading(
              "frequencyErrorPpm",
              "Frequency error",
              errorHz * toPpm,
              "ppm",
              ppm,
              new Limit(limit.lower() * toPpm, limit.upper() * toPpm),
              marks));
    }
    return out;
  }

  /** Of levels: full scale where nobody knows what it is. */
  public String levelUnit() {
    return record.calibrated() ? "dBm" : "dBFS";
  }

  /** From dB over full scale to the level at the reading plane; 0 of a record without levels. */
  public double referredDb() {
    boolean calibrated = record.calibrated();
    return (calibrated ? record.fullScaleDbm() : 0)
        - (calibrated && correction != null ? correction.gainToPortDb(carrierHz) : 0);
  }

  /** From a level at the reading plane to that of the source; not a number without levels. */
  public double ofSourceDbm(double level) {
    PathCorrection c = correction;
    return !record.calibrated()
        ? Double.NaN
        : level - (c == null ? 0 : c.gainFromSourceDb(c.planeToSourceHz(carrierHz)));
  }

  /**
   * Power of the carrier.
   *
   * @param dbfs over full scale
   */
  public Reading power(double dbfs, double statisticalDb) {
    PathCorrection c = correction;
    boolean calibrated = record.calibrated();
    double level = dbfs + referredDb();
    Limit limit = Limit.NONE;
    if (calibrated && !Double.isNaN(context.limits().nominalLevelDbm())) {
      limit =
          context
              .limits()
              .levelAt(c == null ? 0 : c.gainFromSourceDb(c.planeToSourceHz(carrierHz)));
    }
    return maker.levelOfSource(
        "carrierPower",
        "Power of the carrier",
        level,
        levelUnit(),
        statisticalDb,
        limit,
        maker.levelMarks());
  }
}
