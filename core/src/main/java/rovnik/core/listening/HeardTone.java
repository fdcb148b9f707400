package rovnik.core.listening;

import java.util.Optional;
import org.hipparchus.special.BesselJ;
import rovnik.core.modulation.analog.SineFit;
import rovnik.core.modulation.analog.ToneFigures;
import rovnik.core.modulation.analog.ToneSquelch;

/** The tone in what is heard, and what its carrier does by it. */
final class HeardTone {
  private static final double LOWEST_HZ = 20;

  /** It is looked for in so many samples at most. */
  private static final int MOST_FITTED = 1 << 17;

  private static final int FEWEST_FITTED = 64;

  /** Places to each side of a tone that tell of the noise there. */
  private static final int BESIDE = 12;

  /** Side lines beyond the index that still count. */
  private static final int MOST_LINES = 8;

  /** Both sides, with what they do to each other. */
  private static final double LOST = 3;

  /** Share of the channel that its filter passes as it is. */
  private static final double FLAT = 0.8;

  private final ListenSettings settings;
  private final double rateHz;

  /** What it is looked for in. */
  final double[] fitted;

  final SineFit fit;

  private HeardTone(ListenSettings settings, double rateHz, double[] fitted) {
    this.settings = settings;
    this.rateHz = rateHz;
    this.fitted = fitted;
    double top = settings.highestHz();
    double low = Math.max(LOWEST_HZ, 0.8 * settings.audio().lowHz());
    this.fit = SineFit.of(fitted, rateHz, low, top, top);
  }

  /**
   * Of the longest passage, without its soft ends and what its filters ring; empty if too short.
   */
  static Optional<HeardTone> of(Heard heard) {
    return heard.longest().flatMap(p -> of(heard, p));
  }

  private static Optional<HeardTone> of(Heard heard, Gate.Passage longest) {
    double rateHz = heard.d.soundRateHz();
    double rings = Math.max(Heard.RAMP_SECONDS, heard.settings.audio().settlesSeconds());
    int ramp = (int) Math.ceil(rings * rateHz);
    int from = heard.sample(longest.from()) + ramp;
    int to = Math.min(heard.sample(longest.to()) - ramp, from + MOST_FITTED);
    if (to - from < FEWEST_FITTED) {
      return Optional.empty();
    }
    double[] out = new double[to - from];
    for (int i = 0; i < out.length; i++) {
      out[i] = heard.sound[from + i];
    }
    return Optional.of(new HeardTone(heard.settings, rateHz, out));
  }

  boolean found() {
    return fit.found();
  }

  double seconds() {
    return fitted.length / rateHz;
  }

  double independent() {
    return Math.max(2, 2 * settings.highestHz() * seconds());
  }

  ToneFigures figures() {
    return ToneFigures.of(fit, independent(), seconds());
  }

  /**
   * How the amplitude of a tone scatters, by what else there is near it: noise behind a
   * discriminator is not the same everywhere.
   */
  double beside() {
    double[] rest = fit.rest();
    double step = 2.0 * Math.PI / rest.length;
    double at = 2 * Math.PI * fit.rateHz() / rateHz;
    double sum = 0;
    for (int k = -BESIDE; k <= BESIDE; k++) {
      double turn = at + (k + Math.signum(k)) * step;
      double turnRe = Math.cos(turn);
      double turnIm = Math.sin(turn);
      double c = 1;
      double s = 0;
      double re = 0;
      double im = 0;
      for (double v : rest) {
        re += v * c;
        im += v * s;
        double next = c * turnRe - s * turnIm;
        s = c * turnIm + s * turnRe;
        c = next;
      }
      sum += k == 0 ? 0 : (re * re + im * im) / (2 * BESIDE);
    }
    return Math.sqrt(2 * sum) / rest.length;
  }

  /** As the carrier is moved, before the filter of the sound. */
  double amount() {
    return fit.amplitude()[0] / passes();
  }

  /** What the filter of the sound lets through of it. */
  double passes() {
    return Math.max(settings.audio().response(fit.rateHz()), 1e-6);
  }

  /** Side lines that the channel's filter takes a part of. */
  boolean cutOff() {
    double amount = amount();
    return settings.mode() == Mode.FM && 2 * (amount + fit.rateHz()) > FLAT * settings.bandHz();
  }

  /**
   * By how much of it the deviation may be read too small, for what the channel's filter takes of
   * its side lines (their amplitudes are Bessel functions of the index; each carries the tone by
   * its product with the one before).
   */
  double lostShare(Heard heard) {
    double index =
        (amount() + heard.squelchTone().map(ToneSquelch::amplitude).orElse(0.0)) / fit.rateHz();
    double lost = 0;
    for (int n = 1; n < index + MOST_LINES; n++) {
      double away = n * fit.rateHz() + Math.abs(heard.carrierHz());
      double gone = 1 - Demodulator.passes(away, settings.bandHz());
      double pair = BesselJ.value(n, index) * BesselJ.value(n - 1.0, index);
      lost += LOST * gone * Math.abs(pair);
    }
    return lost;
  }
}
