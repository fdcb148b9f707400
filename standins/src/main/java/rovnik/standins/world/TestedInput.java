package rovnik.standins.world;

import java.util.Random;

/**
 * The input of a receiver under test: two generators through a pad and a combiner, its own noise,
 * its curvature, and the phase noise of its local oscillator, which turns strong neighbours into
 * noise. Its time passes only while it listens.
 */
final class TestedInput {
  /** Beyond this its filters let nothing in. */
  private static final double PRESELECTOR_HZ = 12e6;

  private static final double LO_CORNER_HZ = 2e3;
  private static final double LO_FLOOR_DBC_PER_HZ = -158;

  private final GeneratorOutput wanted;
  private final GeneratorOutput other;
  private final double centreHz;
  private final double rateHz;
  private final double iip3Dbm;
  private final double loDbcPerHzAt10KHz;
  private final double noiseSigma;
  private final Noise noise;
  private double seconds;
  private double loPhase;
  private double highestDbm = -300;

  /**
   * @param centreHz where it is tuned, as it thinks
   * @param referenceError of its own clock
   * @param noiseFigureDb of all of it
   */
  TestedInput(
      World world,
      long seed,
      double centreHz,
      double referenceError,
      double rateHz,
      double noiseFigureDb,
      double iip3Dbm,
      double loDbcPerHzAt10KHz) {
    this.wanted = world.generator();
    this.other = world.secondGenerator();
    this.centreHz = centreHz * (1 + referenceError);
    this.rateHz = rateHz;
    this.iip3Dbm = iip3Dbm;
    this.loDbcPerHzAt10KHz = loDbcPerHzAt10KHz;
    this.noise = new Noise(new Random(seed));
    double density = Math.pow(10, (Truth.THERMAL_DBM_PER_HZ + noiseFigureDb) / 10);
    this.noiseSigma = Math.sqrt(density * rateHz / 2);
  }

  private static double cableDb(double hz) {
    return Truth.TESTED_CABLE_DB_AT_1_GHZ * Math.sqrt(hz / 1e9);
  }

  /** Highest level that ever stood at its connector. */
  double highestDbm() {
    return highestDbm;
  }

  void forgetHighest() {
    highestDbm = -300;
  }

  /** The next samples; |x|^2 in milliwatts at its connector. */
  void next(double[] iq, int samples) {
    java.util.Arrays.fill(iq, 0, 2 * samples, 0);
    double mainDb = -Truth.TESTED_PAD_DB - Truth.COMBINER_DB - cableDb(centreHz);
    double sideDb = -Truth.COMBINER_SIDE_DB - cableDb(centreHz);
    highestDbm =
        Math.max(highestDbm, Math.max(wanted.peakDbm() + mainDb, other.peakDbm() + sideDb));
    wanted.receive(iq, samples, seconds, centreHz, rateHz, mainDb);
    other.receive(iq, samples, seconds, centreHz, rateHz, sideDb);
    seconds += samples / rateHz;
    double besides = besideDensity(wanted, mainDb) + besideDensity(other, sideDb);
    double sigma = Math.sqrt(noiseSigma * noiseSigma + besides * rateHz / 2);
    double press = pressed(wanted, mainDb) * pressed(other, sideDb);
    double curve = Math.pow(10, -iip3Dbm / 10);
    double atTen = Math.pow(10, loDbcPerHzAt10KHz / 10);
    double lo = Math.sqrt(atTen * (1e8 + LO_CORNER_HZ * LO_CORNER_HZ) * Math.PI / LO_CORNER_HZ);
    double keep = Math.exp(-2 * Math.PI * LO_CORNER_HZ / rateHz);
    double kick = lo * Math.sqrt(1 - keep * keep);
    for (int i = 0; i < samples; i++) {
      double re = iq[2 * i];
      double im = iq[2 * i + 1];
      double bend = press / (1 + (re * re + im * im) * curve);
      loPhase = keep * loPhase + kick * noise.next();
      double c = bend * (1 - loPhase * loPhase / 2);
      double s = bend * loPhase;
      iq[2 * i] = re * c - im * s + sigma * noise.next();
      iq[2 * i + 1] = re * s + im * c + sigma * noise.next();
    }
  }

  /** What a strong signal beside the band is turned into, in milliwatts a hertz. */
  private double besideDensity(GeneratorOutput g, double gainDb) {
    double away = Math.abs(g.middleHz() - centreHz);
    if (away > PRESELECTOR_HZ) {
      return 0;
    }
    double l =
        Math.max(
            loDbcPerHzAt10KHz - 20 * Math.log10(Math.max(away, 1) / 10e3), LO_FLOOR_DBC_PER_HZ);
    return Math.pow(10, (g.besideDbm(centreHz, rateHz) + gainDb + l) / 10);
  }

  /** How a strong signal beside the band presses the wanted one. */
  private double pressed(GeneratorOutput g, double gainDb) {
    if (Math.abs(g.middleHz() - centreHz) > PRESELECTOR_HZ) {
      return 1;
    }
    double power = Math.pow(10, (g.besideDbm(centreHz, rateHz) + gainDb - iip3Dbm) / 10);
    return 1 / (1 + 2 * power);
  }
}
