package rovnik.standins.world;

import java.util.random.RandomGenerator;
import java.util.random.RandomGeneratorFactory;

/**
 * The radio world on the bench: the buoy transmitter, the switched pad and the feeder behind it,
 * and the room around the receiver. Complex samples have |x|^2 in milliwatts at the receiver's
 * port. Time passes only while samples are made, so a seed repeats everything.
 */
public final class World implements PortSignal {
  private static final DataModulator MODULATOR = new DataModulator();
  private final RandomGenerator random;
  private final Noise noise;
  private final Symbols symbols;
  private final GeneratorOutput generator;
  private final GeneratorOutput secondGenerator;
  private boolean transmitting = true;
  private boolean data;
  private double driveDb;
  private double padDb = 30;
  private final Clock clock = new Clock();
  private double phase;

  public World(long seed) {
    this.random = RandomGeneratorFactory.of("L64X128MixRandom").create(seed);
    this.noise = new Noise(random);
    this.symbols = new Symbols(Truth.ROLL_OFF, seed);
    this.generator = new GeneratorOutput(seed + 31);
    this.secondGenerator = new GeneratorOutput(seed + 37, ModulatorTruth.QUIET_GENERATOR);
    this.phase = phaseSigma() * random.nextGaussian();
  }

  public synchronized void setTransmitting(boolean on) {
    transmitting = on;
  }

  public synchronized boolean transmitting() {
    return transmitting;
  }

  public synchronized void setData(boolean on) {
    data = on;
  }

  public synchronized boolean data() {
    return data;
  }

  /** Level above the licensed one, dB. */
  public synchronized void setDriveDb(double db) {
    driveDb = db;
  }

  public synchronized double driveDb() {
    return driveDb;
  }

  public synchronized void setPadDb(double db) {
    padDb = db;
  }

  public synchronized double padDb() {
    return padDb;
  }

  public synchronized double levelDbm() {
    return Truth.BUOY_LEVEL_DBM + driveDb;
  }

  @Override
  public synchronized double levelAtPortDbm() {
    return transmitting ? levelDbm() - lossDb(Truth.BUOY_HZ) : -200;
  }

  /** True loss from the transmitter's output to the receiver's port. */
  public synchronized double lossDb(double hz) {
    double pad = padDb == 0 ? 0 : padDb + Truth.PAD_EXCESS_DB;
    return pad + Truth.FEEDER_LOSS_DB_AT_458_MHZ * Math.sqrt(hz / 458e6);
  }

  RandomGenerator random() {
    return random;
  }

  Noise noise() {
    return noise;
  }

  public double timeSeconds() {
    return clock.seconds();
  }

  @Override
  public Clock clock() {
    return clock;
  }

  public GeneratorOutput generator() {
    return generator;
  }

  public GeneratorOutput secondGenerator() {
    return secondGenerator;
  }

  Symbols symbols() {
    return symbols;
  }

  /** Lets time pass for signals that are made elsewhere. */
  public void pass(double seconds) {
    clock.pass(seconds);
  }

  @Override
  public synchronized void receive(double[] iq, int samples, double centreHz, double rateHz) {
    if (transmitting) {
      transmitter(iq, samples, centreHz, rateHz);
    }
    tone(iq, samples, rateHz, Truth.PAGING_HZ - centreHz, Truth.PAGING_DBM);
    hump(iq, samples, centreHz, rateHz);
    clock.pass(samples / rateHz);
  }

  private void transmitter(double[] iq, int samples, double centreHz, double rateHz) {
    double level = levelDbm();
    double[] amplitude = new double[4];
    Rotor[] rotors = new Rotor[4];
    boolean any = false;
    for (int h = 1; h <= 3; h++) {
      double dbc = h == 1 ? 0 : harmonicDbc(h);
      double hz = h * Truth.BUOY_HZ;
      amplitude[h] = amplitude(level + dbc - lossDb(hz)) * bandShape(hz - centreHz, rateHz);
      rotors[h] = new Rotor(0, 2 * Math.PI * ((hz - centreHz) / rateHz));
      any |= amplitude[h] > 0;
    }
    double spurHz = Truth.BUOY_HZ + Truth.SPUR_OFFSET_HZ;
    tone(iq, samples, rateHz, spurHz - centreHz, level + Truth.SPUR_DBC - lossDb(spurHz));
    if (!any) {
      return;
    }
    double keep = Math.exp(-2 * Math.PI * Truth.PHASE_NOISE_CORNER_HZ / rateHz);
    double kick = phaseSigma() * Math.sqrt(1 - keep * keep);
    double[] b = {1, 0};
    double start = timeSeconds() * Truth.SYMBOL_RATE_HZ;
    for (int n = 0; n < samples; n++) {
      phase = keep * phase + kick * noise.next();
      double wobbleCos = smallCos(phase);
      double wobbleSin = smallSin(phase);
      double turnedCos = 1;
      double turnedSin = 0;
      if (data) {
        symbols.at(start + n * Truth.SYMBOL_RATE_HZ / rateHz, b);
        MODULATOR.spoil(b);
        if (driveDb > 0) {
          compress(b, driveDb / Truth.HIGH_DRIVE_DB);
        }
      }
      double re = b[0];
      double im = b[1];
      for (int h = 1; h <= 3; h++) {
        double t = turnedCos * wobbleCos - turnedSin * wobbleSin;
        turnedSin = turnedSin * wobbleCos + turnedCos * wobbleSin;
        turnedCos = t;
        if (amplitude[h] > 0) {
          Rotor r = rotors[h];
          double c = (r.cos * turnedCos - r.sin * turnedSin) * amplitude[h];
          double s = (r.sin * turnedCos + r.cos * turnedSin) * amplitude[h];
          r.turn();
          iq[2 * n] += re * c - im * s;
          iq[2 * n + 1] += re * s + im * c;
        }
        double next = re * b[0] - im * b[1];
        im = re * b[1] + im * b[0];
        re = next;
      }
    }
  }

  /**
   * Harmonics relative to the carrier. Below the licensed level they follow the powers of a weak
   * curve, h - 1 dB for each dB; above it the amplifier saturates and they rise much faster.
   */
  public synchronized double harmonicDbc(int h) {
    double licensed = h == 2 ? Truth.SECOND_HARMONIC_DBC : Truth.THIRD_HARMONIC_DBC;
    double slope = driveDb > 0 ? Truth.HIGH_DRIVE_HARMONICS_DB / Truth.HIGH_DRIVE_DB : h - 1;
    return licensed + slope * driveDb;
  }

  /** A saturating amplifier: mean power stays, the peaks are pressed, the spectrum grows again. */
  private static void compress(double[] b, double how) {
    double power = b[0] * b[0] + b[1] * b[1];
    double gain = 1 + how * (1.27 / Math.sqrt(1 + 0.7 * power) - 1);
    double turn = how * Math.toRadians(Truth.HIGH_DRIVE_TURN_DEGREES) * (power - 1);
    double re = gain * (b[0] * Math.cos(turn) - b[1] * Math.sin(turn));
    b[1] = gain * (b[0] * Math.sin(turn) + b[1] * Math.cos(turn));
    b[0] = re;
  }

  void tone(double[] iq, int samples, double rateHz, double offsetHz, double levelDbm) {
    tone(iq, samples, rateHz, offsetHz, levelDbm, timeSeconds());
  }

  /** A tone, at a time of its own. */
  static void tone(
      double[] iq, int samples, double rateHz, double offsetHz, double levelDbm, double seconds) {
    double a = amplitude(levelDbm) * bandShape(offsetHz, rateHz);
    if (a == 0) {
      return;
    }
    Rotor r =
        new Rotor(2 * Math.PI * ((offsetHz * seconds) % 1.0), 2 * Math.PI * offsetHz / rateHz);
    for (int n = 0; n < samples; n++) {
      iq[2 * n] += a * r.cos;
      iq[2 * n + 1] += a * r.sin;
      r.turn();
    }
  }

  private void hump(double[] iq, int samples, double centreHz, double rateHz) {
    double offset = Truth.HUMP_HZ - centreHz;
    double w = Truth.HUMP_HALF_WIDTH_HZ;
    if (Math.abs(offset) - rateHz / 2 > 12 * w) {
      return;
    }
    double peak = Math.pow(10, Truth.HUMP_DBM_PER_HZ / 10);
    if (rateHz < 8 * w) {
      // The receiver sees a small part of the hump: white noise of the density there.
      double density = peak / (1 + offset * offset / (w * w));
      double sigma = Math.sqrt(density * rateHz / 2);
      noise.add(iq, 2 * samples, sigma);
      return;
    }
    // Noise through one pole, moved to its place: density peak / (1 + (f / w)^2).
    double keep = Math.exp(-2 * Math.PI * w / rateHz);
    double sigma = (1 - keep) * Math.sqrt(peak * rateHz / 2);
    double re = 0;
    double im = 0;
    Rotor r = new Rotor(0, 2 * Math.PI * offset / rateHz);
    int settle = (int) (8 / (1 - keep));
    for (int n = -settle; n < samples; n++) {
      re = keep * re + sigma * noise.next();
      im = keep * im + sigma * noise.next();
      if (n >= 0) {
        iq[2 * n] += re * r.cos - im * r.sin;
        iq[2 * n + 1] += re * r.sin + im * r.cos;
        r.turn();
      }
    }
  }

  /** Phase noise is small nearly always: its series is exact to 1e-10 there. */
  private static double smallCos(double x) {
    double q = x * x;
    return q < 0.06 ? 1 - q / 2 * (1 - q / 12 * (1 - q / 30 * (1 - q / 56))) : Math.cos(x);
  }

  private static double smallSin(double x) {
    double q = x * x;
    return q < 0.06 ? x * (1 - q / 6 * (1 - q / 20 * (1 - q / 42 * (1 - q / 72)))) : Math.sin(x);
  }

  private static double phaseSigma() {
    double atTen = Math.pow(10, Truth.PHASE_NOISE_DBC_PER_HZ_AT_10_KHZ / 10);
    double k = atTen * (1e8 + Truth.PHASE_NOISE_CORNER_HZ * Truth.PHASE_NOISE_CORNER_HZ);
    return Math.sqrt(k * Math.PI / Truth.PHASE_NOISE_CORNER_HZ);
  }

  static double amplitude(double levelDbm) {
    return Math.pow(10, levelDbm / 20);
  }

  /** The receiver's decimation filter: flat to 0.42 of the rate, nothing beyond the half. */
  static double bandShape(double offsetHz, double rateHz) {
    double x = Math.abs(offsetHz) / rateHz;
    if (x >= 0.5) {
      return 0;
    }
    return x <= 0.42 ? 1 : Math.pow(Math.cos((x - 0.42) / 0.08 * Math.PI / 2), 2);
  }
}
