package rovnik.standins.world;

import java.util.Random;

/**
 * The vector generator: a waveform from memory, its modulator with faults, trims and an adjustment
 * of its own, its synthesiser, its amplifier. What it puts out arrives where {@link #receive} is
 * asked. The frequency shown is that of the synthesiser; the waveform can be moved beside it.
 */
public final class GeneratorOutput {
  /** What the user turns. */
  public static final class Trims {
    public double gainDb;
    public double quadratureDegrees;
    public double leakageI;
    public double leakageQ;
    public double delaySeconds;
  }

  private static final int BITS = 14;

  /** Of I and of Q, on the way to the modulator. */
  public final Connector[] connectors = {new Connector(), new Connector()};

  private final ThirdOutput third = new ThirdOutput();
  private double rmsVolts = Connector.FULL_SCALE_VOLTS;
  public final Trims trims = new Trims();
  private final Noise noise;
  private ModulatorTruth truth;
  private boolean on;
  private double frequencyHz = 1e9;
  private double levelDbm = -30;
  private boolean playing;
  private double clockHz = 1e6;
  private double shiftHz;
  private double adjustedAtHz = Double.NaN;
  private double[] samples = {1, 0};
  private double phase;

  private double[] lines;
  private double linesCurve = Double.NaN;
  private Key key;
  private Repeated main;
  private Repeated image;

  private record Key(
      double[] lines,
      double clockHz,
      double offsetHz,
      double shiftHz,
      double rateHz,
      double gainDb,
      double quadrature,
      double delay,
      double late) {}

  GeneratorOutput(long seed) {
    this(seed, ModulatorTruth.GENERATOR);
  }

  GeneratorOutput(long seed, ModulatorTruth truth) {
    this.noise = new Noise(new Random(seed));
    this.truth = truth;
  }

  /** It is another one from now on, or its levels are against another mean. */
  synchronized void become(ModulatorTruth another) {
    truth = another;
    lines = null;
  }

  public synchronized void setOn(boolean v) {
    on = v;
  }

  public synchronized boolean on() {
    return on;
  }

  public synchronized void setFrequencyHz(double hz) {
    frequencyHz = hz;
  }

  public synchronized double frequencyHz() {
    return frequencyHz;
  }

  public synchronized void setLevelDbm(double dbm) {
    levelDbm = dbm;
  }

  public synchronized double levelDbm() {
    return levelDbm;
  }

  /** Plays a waveform in place of the plain carrier. */
  public synchronized void setPlaying(boolean v) {
    playing = v;
  }

  public synchronized boolean playing() {
    return playing;
  }

  public synchronized void setClockHz(double hz) {
    clockHz = hz;
  }

  public synchronized double clockHz() {
    return clockHz;
  }

  public synchronized void setShiftHz(double hz) {
    shiftHz = hz;
  }

  public synchronized double shiftHz() {
    return shiftHz;
  }

  /** Where it was adjusted last, NaN for never. */
  public synchronized double adjustedAtHz() {
    return adjustedAtHz;
  }

  public synchronized void adjust() {
    setAdjusted(true);
  }

  /** Adjusted where it is now, or not at all. */
  synchronized void setAdjusted(boolean done) {
    adjustedAtHz = done ? frequencyHz : Double.NaN;
  }

  /** Forgets the adjustment, the trims and the shift, and is off. */
  public synchronized void reset() {
    on = false;
    playing = false;
    frequencyHz = 1e9;
    levelDbm = -30;
    shiftHz = 0;
    adjustedAtHz = Double.NaN;
    trims.gainDb = 0;
    trims.quadratureDegrees = 0;
    trims.leakageI = 0;
    trims.leakageQ = 0;
    trims.delaySeconds = 0;
    connectors[0].reset();
    connectors[1].reset();
    third.connector.reset();
    third.setSamples(null);
  }

  public ThirdOutput third() {
    return third;
  }

  /** What the third output plays beside; null for nothing. */
  public void setThirdSamples(float[] iq) {
    third.setSamples(iq);
  }

  /** The third output as a receiver sees it: still while no waveform is played. */
  synchronized void receiveThird(
      double[] iq, int count, double startSeconds, double centreHz, double rateHz) {
    if (playing) {
      third.receive(iq, count, startSeconds, centreHz, rateHz, clockHz);
    }
  }

  /** Samples to play, full scale 1; what the converter makes of them. */
  public synchronized void setSamples(float[] iq) {
    double steps = 1 << BITS - 1;
    double[] out = new double[iq.length];
    double power = 0;
    for (int i = 0; i < iq.length; i++) {
      out[i] = Math.rint(Math.max(-1, Math.min(1, iq[i])) * steps) / steps;
      power += out[i] * out[i];
    }
    double rms = Math.sqrt(Math.max(1e-20, power / (iq.length / 2)));
    rmsVolts = Connector.FULL_SCALE_VOLTS * rms;
    double scale = 1 / rms;
    for (int i = 0; i < out.length; i++) {
      out[i] *= scale;
    }
    samples = out;
    lines = null;
  }

  /** A fault between what it is unadjusted and what the adjustment leaves near its frequency. */
  private double fault(double raw, double adjusted) {
    if (Double.isNaN(adjustedAtHz)) {
      return raw;
    }
    double away = Math.abs(frequencyHz - adjustedAtHz) / (0.02 * adjustedAtHz);
    return adjusted + (raw - adjusted) * Math.min(1, away);
  }

  private double gainDb() {
    return fault(truth.imbalanceDb(), truth.adjustedImbalanceDb())
        + trims.gainDb
        + connectors[0].gainDb
        - connectors[1].gainDb;
  }

  private double quadratureDegrees() {
    return fault(truth.quadratureDegrees(), truth.adjustedQuadratureDegrees())
        + trims.quadratureDegrees;
  }

  private double delaySeconds() {
    return truth.delaySeconds()
        + trims.delaySeconds
        + connectors[0].delaySeconds
        - connectors[1].delaySeconds;
  }

  private double leakage(int part) {
    double angle = 2.1;
    double direction = part == 0 ? Math.cos(angle) : Math.sin(angle);
    double raw = World.amplitude(truth.leakageDbc());
    double adjusted = World.amplitude(truth.adjustedLeakageDbc());
    return direction * fault(raw, adjusted)
        + (part == 0 ? trims.leakageI : trims.leakageQ)
        + connectors[part].offsetVolts / rmsVolts / meanGain();
  }

  /** Of I and Q both. */
  private double meanGain() {
    return World.amplitude((connectors[0].gainDb + connectors[1].gainDb) / 2);
  }

  /** By which I and Q both come later. */
  private double lateSeconds() {
    return (connectors[0].delaySeconds + connectors[1].delaySeconds) / 2;
  }

  /** Highest level of its peaks, dBm; -200 if it is off. */
  synchronized double peakDbm() {
    if (!on) {
      return -200;
    }
    double most = 1;
    if (playing) {
      for (int i = 0; i < samples.length; i += 2) {
        most = Math.max(most, samples[i] * samples[i] + samples[i + 1] * samples[i + 1]);
      }
    }
    return levelDbm + 10 * Math.log10(most);
  }

  /** Mean level at a frequency that is too far from a receiver to be heard, -300 if it is not. */
  synchronized double besideDbm(double centreHz, double rateHz) {
    return on && Math.abs(middleHz() - centreHz) >= rateHz / 2 ? levelDbm : -300;
  }

  /** Where the middle of its signal is. */
  synchronized double middleHz() {
    return frequencyHz + (playing ? shiftHz : 0);
  }

  /** Adds what it puts out, changed by the gain of a line, to what a receiver sees. */
  synchronized void receive(
      double[] iq, int count, double startSeconds, double centreHz, double rateHz, double gainDb) {
    if (!on) {
      return;
    }
    double carrierHz = frequencyHz * (1 + truth.referenceError());
    double offset = carrierHz - centreHz;
    double amplitude = World.amplitude(levelDbm + gainDb + 0.12 * Math.sin(frequencyHz / 61e6 + 1));
    double[] turn = phases(count, rateHz);
    if (playing) {
      modulated(iq, count, startSeconds, offset, rateHz, amplitude * meanGain(), turn);
    } else {
      Repeated cw =
          Repeated.seen(new double[] {1, 0}, 1, 1e3, offset, rateHz, GeneratorOutput::flat);
      if (cw != null) {
        cw.add(iq, count, startSeconds, rateHz, amplitude, turn);
      }
    }
    double density = Math.pow(10, (levelDbm + gainDb + truth.noiseDbc()) / 10);
    if (Math.abs(offset) < 200e6 + rateHz) {
      double sigma = Math.sqrt(density * rateHz / 2);
      noise.add(iq, 2 * count, sigma);
    }
  }

  private static void flat(double hz, double[] out) {
    out[0] = 1;
    out[1] = 0;
  }

  private void modulated(
      double[] iq,
      int count,
      double startSeconds,
      double offset,
      double rateHz,
      double amplitude,
      double[] turn) {
    bend();
    Key now =
        new Key(
            lines,
            clockHz,
            offset,
            shiftHz,
            rateHz,
            gainDb(),
            quadratureDegrees(),
            delaySeconds(),
            lateSeconds());
    int n = lines.length / 2;
    if (!now.equals(key)) {
      key = now;
      double period = clockHz / n;
      main =
          Repeated.seen(
              lines, n, period, offset + shiftHz, rateHz, (hz, r) -> wanted(hz + shiftHz, hz, r));
      image =
          Repeated.seen(
              mirrored(lines, n),
              n,
              period,
              offset - shiftHz,
              rateHz,
              (hz, r) -> mirror(-(hz - shiftHz), hz, r));
    }
    if (main != null) {
      main.add(iq, count, startSeconds, rateHz, amplitude, turn);
    }
    if (image != null) {
      image.add(iq, count, startSeconds, rateHz, amplitude, turn);
    }
    double i = leakage(0);
    double q = leakage(1);
    Repeated carrier =
        Repeated.seen(new double[] {i, q}, 1, 1e3, offset, rateHz, GeneratorOutput::flat);
    if (carrier != null) {
      carrier.add(iq, count, startSeconds, rateHz, amplitude, turn);
    }
  }

  /** What the modulator makes of a line at {@code f}: (gI e^-j + gQ e^j(phi) e^+j) / 2. */
  private void wanted(double f, double playedHz, double[] out) {
    double g = Math.pow(10, gainDb() / 40);
    double turn = Math.PI * f * delaySeconds();
    double phi = Math.toRadians(quadratureDegrees());
    double hold = hold(playedHz);
    out[0] = hold * (g * Math.cos(turn) + Math.cos(phi + turn) / g) / 2;
    out[1] = hold * (-g * Math.sin(turn) + Math.sin(phi + turn) / g) / 2;
    turn(out, -2 * Math.PI * f * lateSeconds());
  }

  private static void turn(double[] z, double angle) {
    double c = Math.cos(angle);
    double s = Math.sin(angle);
    double re = z[0] * c - z[1] * s;
    z[1] = z[0] * s + z[1] * c;
    z[0] = re;
  }

  /** What it adds on the other side, at minus {@code f}. */
  private void mirror(double f, double playedHz, double[] out) {
    double g = Math.pow(10, gainDb() / 40);
    double turn = Math.PI * f * delaySeconds();
    double phi = Math.toRadians(quadratureDegrees());
    double hold = hold(playedHz);
    out[0] = hold * (g * Math.cos(turn) - Math.cos(phi - turn) / g) / 2;
    out[1] = hold * (g * Math.sin(turn) - Math.sin(phi - turn) / g) / 2;
    turn(out, 2 * Math.PI * f * lateSeconds());
  }

  /** The converter holds each sample; its filter puts most of that right again. */
  private double hold(double hz) {
    double x = Math.PI * hz / clockHz;
    double sinc = Math.abs(x) < 1e-9 ? 1 : Math.sin(x) / x;
    return Math.pow(sinc, 0.02);
  }

  private static double[] mirrored(double[] lines, int n) {
    double[] out = new double[lines.length];
    for (int k = 0; k < n; k++) {
      int to = k == 0 ? 0 : n - k;
      out[2 * to] = lines[2 * k];
      out[2 * to + 1] = -lines[2 * k + 1];
    }
    return out;
  }

  /** The amplifier presses the peaks, more the higher the level. */
  private void bend() {
    double curve = Math.pow(10, (levelDbm - truth.oip3Dbm()) / 10);
    if (lines != null && Math.abs(linesCurve - curve) < 1e-7 + 1e-3 * curve) {
      return;
    }
    int n = samples.length / 2;
    double[] x = samples.clone();
    for (int i = 0; i < x.length; i += 2) {
      double gain = 1 / (1 + (x[i] * x[i] + x[i + 1] * x[i + 1]) * curve);
      x[i] *= gain;
      x[i + 1] *= gain;
    }
    Dft.forward(x, n);
    for (int i = 0; i < x.length; i++) {
      x[i] /= n;
    }
    lines = x;
    linesCurve = curve;
  }

  /** Phase noise of the synthesiser: flat within its loop, then falling. */
  private double[] phases(int count, double rateHz) {
    double corner = truth.cornerHz();
    double atTen = Math.pow(10, truth.phaseNoiseDbc() / 10);
    double sigma = Math.sqrt(atTen * (1e8 + corner * corner) * Math.PI / corner);
    double keep = Math.exp(-2 * Math.PI * corner / rateHz);
    double kick = sigma * Math.sqrt(1 - keep * keep);
    double[] turn = new double[2 * count];
    for (int m = 0; m < count; m++) {
      phase = keep * phase + kick * noise.next();
      double q = phase * phase;
      turn[2 * m] = q < 0.01 ? 1 - q / 2 + q * q / 24 : Math.cos(phase);
      turn[2 * m + 1] = q < 0.01 ? phase * (1 - q / 6 + q * q / 120) : Math.sin(phase);
    }
    return turn;
  }
}
