package rovnik.server.live;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import rovnik.core.Refusal;
import rovnik.core.emission.CisprBand;
import rovnik.core.spectrum.Detector;

/**
 * What guided work is asked for; what a kind does not use is null.
 *
 * @param kind auto-frame, whose-line, harmonics, drive-sweep, phase-noise, survey, weighted,
 *     noise-figure
 * @param stepDb of attenuation for whose-line, 3 or 10
 * @param highest order of harmonics
 * @param limitDbm highest level of a harmonic
 * @param limitDbc highest ratio of a harmonic
 * @param limitDb highest noise figure
 * @param fromDbm first level of a drive sweep
 * @param toDbm last level of a drive sweep
 * @param steps of a drive sweep
 * @param toHz farthest offset of phase noise
 * @param ranges of a survey
 * @param hertz where weighted looks, the strongest line if it is null
 * @param band of weighted, from the frequency if it is null
 * @param seconds that weighted watches
 * @param receiverAlone noise figure: the source is straight at the receiver
 * @param excessNoiseDb of the noise source, null to take what its label says
 * @param coldKelvin temperature of the cold noise source, 290 if it is null
 * @param excludeFromHz the wanted emission, left out of a survey's table
 */
@Schema(name = "GuidedRequest")
record GuidedRequest(
    String kind,
    Double stepDb,
    Integer highest,
    Double limitDbm,
    Double limitDbc,
    Double limitDb,
    Double fromDbm,
    Double toDbm,
    Integer steps,
    Double toHz,
    List<RangeDto> ranges,
    Double excludeFromHz,
    Double excludeToHz,
    Double hertz,
    CisprBand band,
    Double seconds,
    Boolean receiverAlone,
    Double excessNoiseDb,
    Double coldKelvin) {

  /** One range of a survey; the detector is RMS if it is null. */
  @Schema(name = "SurveyRange")
  record RangeDto(
      double startHz, double stopHz, double rbwHz, double limitDbm, Detector detector) {}

  private static double orNan(Double v) {
    return v == null ? Double.NaN : v;
  }

  private static double or(Double v, double otherwise) {
    return v == null ? otherwise : v;
  }

  Guided toWork() {
    return switch (kind == null ? "" : kind) {
      case "auto-frame" -> new AutoFrame();
      case "whose-line" -> new WhoseLine(or(stepDb, 10));
      case "harmonics" ->
          new Harmonics(highest == null ? 5 : highest, orNan(limitDbm), orNan(limitDbc));
      case "drive-sweep" -> new DriveSweep(orNan(fromDbm), orNan(toDbm), steps == null ? 8 : steps);
      case "phase-noise" -> new PhaseNoiseWork(or(toHz, 1e6));
      case "weighted" -> new WeightedLevels(orNan(hertz), band, or(seconds, 2), orNan(limitDbm));
      case "noise-figure" ->
          new YFactor(
              Boolean.TRUE.equals(receiverAlone),
              orNan(excessNoiseDb),
              or(coldKelvin, 290),
              orNan(limitDb));
      case "survey" ->
          new Survey(
              ranges == null
                  ? List.of()
                  : ranges.stream()
                      .map(
                          r ->
                              new Survey.Range(
                                  r.startHz(), r.stopHz(), r.rbwHz(), r.limitDbm(), r.detector()))
                      .toList(),
              orNan(excludeFromHz),
              orNan(excludeToHz));
      default ->
          throw new Refusal(
              "kind",
              "There is no guided work \""
                  + kind
                  + "\"; use auto-frame, whose-line, harmonics, drive-sweep, phase-noise, survey,"
                  + " weighted or noise-figure.");
    };
  }
}
