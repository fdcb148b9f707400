package rovnik.core.emission;

import rovnik.core.Refusal;
import rovnik.core.result.Reading;
import rovnik.core.signal.FrequencyCounter;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.NoiseStatistics;

/** What the walk of an oscillator's phase adds to the uncertainty of its line. */
final class PhaseWalk extends EmissionPart {
  private static final String WALK = "phase noise";

  /** So many samples tell enough of the walk. */
  private static final int MOST_COUNTED = 1 << 17;

  /** Width around the carrier in which its phase is read. */
  private static final double COUNTED_RBW = 12;

  /** Levels beside the top follow a walk a little more than its mean does (by trials). */
  private static final double POINTS_WANDER = 1.2;

  /**
   * A window weighs its middle: a walk costs this part of its variance over the window's length.
   */
  private static final double WALK_TO_LEVEL = 9;

  PhaseWalk(EmissionPart look) {
    super(look);
  }

  /**
   * An oscillator's phase walks: its mean frequency over the time that was looked is not that over
   * a long time, and within one resolution its line is a little lower. The spectrum hides this
   * below the window's side lobes; the phases of the record show it.
   */
  void walk(IqRecord record) {
    Reading carrier =
        readings.stream().filter(r -> r.id().equals("carrierFrequency")).findFirst().orElse(null);
    if (carrier == null || Double.isNaN(carrier.value())) {
      return;
    }
    double portHz =
        correction == null ? carrier.value() : correction.planeToPortHz(carrier.value());
    try {
      FrequencyCounter.Count c =
          FrequencyCounter.count(
              record.iq(),
              Math.min(MOST_COUNTED, record.sampleCount()),
              record.sampleRateHz(),
              portHz - record.centreHz(),
              COUNTED_RBW * trace.rbwHz());
      NoiseStatistics looked = new NoiseStatistics(trace);
      double hertz = POINTS_WANDER * c.walkHz(Math.max(c.seconds(), looked.seconds()));
      double levelDb = 10 / Math.log(10) * c.walk() * looked.windowSeconds() / WALK_TO_LEVEL;
      readings.replaceAll(
          r ->
              switch (r.id()) {
                case "carrierFrequency", "frequencyError" -> r.widened(WALK, hertz);
                case "frequencyErrorPpm" ->
                    r.widened(WALK, hertz * 1e6 / context.limits().nominalHz());
                case "carrierPower" -> r.widened(WALK, levelDb);
                default -> r;
              });
    } catch (Refusal tooShort) {
      // a record of a few windows tells nothing of it
    }
  }
}
