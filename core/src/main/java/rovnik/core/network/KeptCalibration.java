package rovnik.core.network;

import java.util.Arrays;
import java.util.Locale;
import rovnik.core.units.Frequency;

/**
 * A finished calibration.
 *
 * @param madeAtMillis since 1970
 * @param sweep what it was measured with
 * @param identity of the analyzer
 */
public record KeptCalibration(
    long id,
    String name,
    CalibrationMethod method,
    String kit,
    long madeAtMillis,
    SweepSettings sweep,
    String identity,
    ErrorTerms terms) {

  /** How far a number put right with it can be trusted. */
  public enum Trust {
    /** Nothing is put right. */
    NONE("not calibrated"),
    VALID("calibrated"),
    INTERPOLATED("calibrated, interpolated"),
    EXTRAPOLATED("calibrated, but not over the whole sweep"),
    STALE("calibrated, but stale");

    private final String label;

    Trust(String label) {
      this.label = label;
    }

    public String label() {
      return label;
    }
  }

  /** The trust, and the sentence that says why it is not better; "" if it is the best. */
  public record State(Trust trust, String why) {
    public static final State NONE =
        new State(Trust.NONE, "No calibration is used: these are the receivers' raw ratios.");
  }

  /** Another power changes the receivers' compression, common practice is to calibrate anew. */
  private static final double POWER_WITHIN_DB = 10;

  /** What holds for a sweep; the worst of all reasons. */
  public State state(SweepSettings now, String nowIdentity, long nowMillis, long freshMillis) {
    if (!nowIdentity.equals(identity)) {
      return new State(Trust.STALE, "It was made with another analyzer (" + identity + ").");
    }
    if (nowMillis - madeAtMillis > freshMillis) {
      return new State(
          Trust.STALE,
          String.format(
              Locale.ROOT,
              "It is %.1f hours old; the analyzer drifts. Calibrate anew or verify it.",
              (nowMillis - madeAtMillis) / 3.6e6));
    }
    if (Math.abs(now.powerDbm() - sweep.powerDbm()) > POWER_WITHIN_DB) {
      return new State(
          Trust.STALE,
          String.format(Locale.ROOT, "It was made at %+.1f dBm port power.", sweep.powerDbm()));
    }
    double slack = 1e-9 * sweep.highestHz();
    if (now.lowestHz() < sweep.lowestHz() - slack || now.highestHz() > sweep.highestHz() + slack) {
      return new State(
          Trust.EXTRAPOLATED,
          "It reaches from "
              + Frequency.ofHertz(sweep.lowestHz())
              + " to "
              + Frequency.ofHertz(sweep.highestHz())
              + " only.");
    }
    return sweep.sameGrid(now)
        ? new State(Trust.VALID, "")
        : new State(
            Trust.INTERPOLATED, "Its points lie elsewhere: terms between them are straight.");
  }

  /** Puts a raw sweep right as far as the method goes; one port comes back with one port. */
  public NetworkData correct(NetworkData raw) {
    NetworkData from = raw;
    if (method == CalibrationMethod.ONE_PORT && raw.ports() == 2) {
      from =
          new NetworkData(
              1,
              new double[] {raw.referenceOhm()[0]},
              raw.frequencyHz(),
              new RawSweep(raw, new double[0], new double[0]).parameter(1, 1));
    }
    ErrorTerms t =
        Arrays.equals(terms.frequencyHz(), raw.frequencyHz())
            ? terms
            : terms.stretchedOn(raw.frequencyHz());
    return t.correct(from);
  }
}
