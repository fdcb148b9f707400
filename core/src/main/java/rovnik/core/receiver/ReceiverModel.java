package rovnik.core.receiver;

import java.util.Locale;
import java.util.Optional;
import rovnik.core.Refusal;

/**
 * What is known of a receiver, for the theory beside what is measured.
 *
 * @param theory of its format; nothing if its format has none, or none is known
 * @param bitRate bits a second, 0 if it receives no data
 * @param noiseFigureDb as its data sheet says, NaN if it is not known
 */
public record ReceiverModel(Optional<ErrorTheory> theory, double bitRate, double noiseFigureDb) {
  /** kT at 290 K, k = 1.380649e-23 J/K (SI 2019), in dBm of one hertz. */
  private static final double THERMAL_DBM = 10 * Math.log10(1.380649e-23 * 290 * 1000);

  public ReceiverModel {
    if (noiseFigureDb < 0 || noiseFigureDb > 60) {
      throw new Refusal("noiseFigureDb", "A noise figure is 0 to 60 dB.");
    }
  }

  /** Whether theory can be laid beside what is measured. */
  public boolean comparable() {
    return theory.isPresent() && bitRate > 0 && !Double.isNaN(noiseFigureDb);
  }

  /** Energy of a bit over the noise density: level less kT, noise figure and bit rate. */
  public double ebN0Db(double dbm) {
    return dbm - THERMAL_DBM - noiseFigureDb - 10 * Math.log10(bitRate);
  }

  public double levelDbm(double ebN0Db) {
    return ebN0Db + THERMAL_DBM + noiseFigureDb + 10 * Math.log10(bitRate);
  }

  /** What the distance from theory is called. */
  String lossLabel() {
    return String.format(
        Locale.ROOT, "Loss against theory with a noise figure of %.1f dB", noiseFigureDb);
  }

  /** Level at which theory has so many bits wrong. */
  public double theoryDbm(double ratio) {
    return levelDbm(theory.orElseThrow().ebN0Db(ratio));
  }
}
