package rovnik.instruments.source;

import java.util.List;

/**
 * What a vector generator is doing.
 *
 * @param centreHz centre of the signal; its synthesiser stands at {@code centreHz - shiftHz}
 * @param waveform name of what is selected in its memory, "" for nothing
 * @param playing the waveform is played; false for a plain carrier
 * @param rateHz samples a second that are played
 * @param adjustedHz where its modulator was adjusted last, NaN for never
 * @param outputs baseband outputs that can be set, empty if there are none
 * @param third name of what the third output plays beside, "" for nothing
 */
public record GeneratorState(
    boolean on,
    double centreHz,
    double levelDbm,
    String waveform,
    boolean playing,
    double rateHz,
    double shiftHz,
    Trims trims,
    double adjustedHz,
    List<BasebandOutput> outputs,
    String third) {

  /** Frequency of the synthesiser, where leakage shows. */
  public double synthesiserHz() {
    return centreHz - (playing ? shiftHz : 0);
  }

  /**
   * What can be turned at the modulator, each added to what it does by itself.
   *
   * @param gainDb gain of I over that of Q
   * @param quadratureDegrees angle of Q beyond 90 degrees
   * @param leakageI carrier added, as a share of the rms voltage of the signal
   * @param leakageQ the same, a quarter turn later
   * @param delaySeconds of I after Q
   */
  public record Trims(
      double gainDb,
      double quadratureDegrees,
      double leakageI,
      double leakageQ,
      double delaySeconds) {
    public static final Trims NONE = new Trims(0, 0, 0, 0, 0);
  }
}
