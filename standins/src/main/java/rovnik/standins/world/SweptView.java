package rovnik.standins.world;

import java.util.random.RandomGenerator;

/**
 * The world as a swept analyzer shows it: a Gaussian resolution filter moves over the band, and a
 * detector makes one point of what it sees meanwhile. Powers are worked out from the truth and not
 * from samples, so that this shares nothing with the IQ receiver or with what measures it.
 */
public final class SweptView {
  /** Equivalent noise bandwidth of a Gaussian filter over its 3-dB width. */
  private static final double NOISE_OVER_RBW = 1.0645;

  private static final double NOISE_FIGURE_DB = 22;
  private static final double LEVEL_ERROR_DB = 0.1;

  /** What one point is made of. */
  public enum Detector {
    POSITIVE,
    NEGATIVE,
    SAMPLE,
    RMS,
    AVERAGE
  }

  private final World world;

  public SweptView(World world) {
    this.world = world;
  }

  /** Highest level at the mixer for an attenuation. */
  public static double highestDbm(double attenuationDb) {
    return -10 + attenuationDb;
  }

  /** Time that a sweep takes: the filter must settle on each of its widths. */
  public static double sweepSeconds(double spanHz, double rbwHz) {
    return Math.max(1e-3, 4 * spanHz / (rbwHz * rbwHz));
  }

  /** Levels in dBm from start to stop. */
  public float[] sweep(
      double startHz,
      double stopHz,
      int points,
      double rbwHz,
      Detector detector,
      double attenuationDb) {
    double[] tone = new double[points];
    double[] density = new double[points];
    double step = points > 1 ? (stopHz - startHz) / (points - 1) : 1;
    double own = Math.pow(10, (Truth.THERMAL_DBM_PER_HZ + NOISE_FIGURE_DB + attenuationDb) / 10);
    double hump = Math.pow(10, Truth.HUMP_DBM_PER_HZ / 10);
    for (int i = 0; i < points; i++) {
      double hz = startHz + i * step;
      double away = (hz - Truth.HUMP_HZ) / Truth.HUMP_HALF_WIDTH_HZ;
      density[i] = own + hump / (1 + away * away);
    }
    line(tone, startHz, step, rbwHz, Truth.PAGING_HZ, Truth.PAGING_DBM);
    if (world.transmitting()) {
      transmitter(tone, density, startHz, step, rbwHz);
    }
    double looks = Math.max(1, sweepSeconds(stopHz - startHz, rbwHz) / points * rbwHz);
    float[] level = new float[points];
    RandomGenerator random = world.random();
    for (int i = 0; i < points; i++) {
      double noise = density[i] * rbwHz * NOISE_OVER_RBW * chi(random, detector, looks);
      level[i] = (float) (10 * Math.log10(tone[i] + noise) + LEVEL_ERROR_DB);
    }
    return level;
  }

  /** True if the transmitter is above what the mixer takes. */
  public boolean overloaded(double attenuationDb) {
    return world.levelAtPortDbm() > highestDbm(attenuationDb);
  }

  private void transmitter(
      double[] tone, double[] density, double startHz, double step, double rbwHz) {
    double level = world.levelDbm();
    for (int h = 1; h <= 3; h++) {
      double hz = h * Truth.BUOY_HZ;
      double dbm = level + (h == 1 ? 0 : world.harmonicDbc(h)) - world.lossDb(hz);
      if (world.data()) {
        spread(density, startHz, step, hz, dbm, h);
      } else {
        line(tone, startHz, step, rbwHz, hz, dbm);
        skirt(density, startHz, step, hz, dbm, h);
      }
    }
    double spur = Truth.BUOY_HZ + Truth.SPUR_OFFSET_HZ;
    line(tone, startHz, step, rbwHz, spur, level + Truth.SPUR_DBC - world.lossDb(spur));
  }

  /** A line through the Gaussian filter: 3 dB down at half the RBW from its middle. */
  private static void line(
      double[] tone, double startHz, double step, double rbwHz, double hz, double dbm) {
    double power = Math.pow(10, dbm / 10);
    for (int i = 0; i < tone.length; i++) {
      double x = (startHz + i * step - hz) / rbwHz;
      tone[i] += power * Math.exp(-4 * Math.log(2) * x * x);
    }
  }

  private static void skirt(
      double[] density, double startHz, double step, double hz, double dbm, int order) {
    double corner = Truth.PHASE_NOISE_CORNER_HZ;
    double atTen = Math.pow(10, Truth.PHASE_NOISE_DBC_PER_HZ_AT_10_KHZ / 10);
    double scale = Math.pow(10, dbm / 10) * order * order * atTen * (1e8 + corner * corner);
    for (int i = 0; i < density.length; i++) {
      double away = startHz + i * step - hz;
      density[i] += scale / (away * away + corner * corner);
    }
  }

  /** Data behind a root-raised cosine: its density is the raised cosine of the symbol rate. */
  private static void spread(
      double[] density, double startHz, double step, double hz, double dbm, int order) {
    double rate = Truth.SYMBOL_RATE_HZ * order;
    double flat = rate / 2 * (1 - Truth.ROLL_OFF);
    double end = rate / 2 * (1 + Truth.ROLL_OFF);
    double top = Math.pow(10, dbm / 10) / rate;
    for (int i = 0; i < density.length; i++) {
      double away = Math.abs(startHz + i * step - hz);
      if (away < end) {
        density[i] +=
            away <= flat ? top : top / 2 * (1 + Math.cos(Math.PI * (away - flat) / (end - flat)));
      }
    }
  }

  /** Scatter of noise power in one point, with mean 1 for the rms detector. */
  private static double chi(RandomGenerator random, Detector detector, double looks) {
    int n = (int) Math.min(Math.max(1, Math.round(looks)), 200);
    double sum = 0;
    double logs = 0;
    double highest = 0;
    double lowest = Double.POSITIVE_INFINITY;
    for (int i = 0; i < n; i++) {
      double p = -Math.log(1 - random.nextDouble());
      sum += p;
      logs += Math.log(p);
      highest = Math.max(highest, p);
      lowest = Math.min(lowest, p);
      if (detector == Detector.SAMPLE) {
        return p;
      }
    }
    return switch (detector) {
      case POSITIVE -> highest;
      case NEGATIVE -> lowest;
      case AVERAGE -> Math.exp(logs / n);
      default -> sum / n;
    };
  }
}
