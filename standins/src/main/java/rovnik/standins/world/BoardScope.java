package rovnik.standins.world;

import java.util.List;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;

/**
 * An oscilloscope with two probes at the logger board. What is captured begins a little after its
 * trigger input got a pulse, and runs on a clock of its own.
 */
public final class BoardScope {
  private static final String CLOCK = "core clock enable";
  private static final String SLEEP = "radio sleep";
  private static final String STROBE = "flash write strobe";
  private static final String WATCHDOG = "watchdog";

  /** What a probe can touch. */
  public static final List<String> NETS = List.of("nothing", CLOCK, SLEEP, STROBE, WATCHDOG);

  private static final double HIGH_VOLTS = 3.3;
  private static final int STEPS = 256;

  private final Clock board;
  private final Random random;
  private final float[] noise = new float[1 << 16];
  private final String[] touches = {CLOCK, SLEEP};
  private boolean armed;
  private boolean triggered;
  private double begins;

  /**
   * @param board time of the board
   */
  public BoardScope(Clock board, long seed) {
    this.board = board;
    this.random = new Random(seed);
    for (int i = 0; i < noise.length; i++) {
      noise[i] = (float) (Truth.SCOPE_NOISE_VOLTS * random.nextGaussian());
    }
  }

  /** A hand puts a probe on a net. */
  public synchronized void touch(int channel, String net) {
    touches[channel] = net;
  }

  public synchronized String net(int channel) {
    return touches[channel];
  }

  /** From now on the next pulse at the trigger input counts. */
  public synchronized void arm(boolean wanted) {
    armed = wanted;
    triggered = false;
  }

  public synchronized boolean waits() {
    return armed && !triggered;
  }

  public synchronized boolean triggered() {
    return triggered;
  }

  /** A pulse at the trigger input. */
  public synchronized void trigger() {
    if (armed && !triggered) {
      triggered = true;
      begins =
          board.seconds()
              + Truth.SCOPE_TRIGGER_DELAY_SECONDS
              + Truth.SCOPE_TRIGGER_JITTER_SECONDS * random.nextGaussian();
    }
  }

  /** What a channel took, as codes of its converter. */
  public synchronized byte[] codes(
      int channel, double rateHz, int samples, double rangeVolts, double middleVolts) {
    DoubleUnaryOperator net = volts(touches[channel]);
    double step = 1 / (rateHz * (1 + Truth.SCOPE_CLOCK_FAST));
    byte[] out = new byte[samples];
    int at = random.nextInt(noise.length);
    for (int n = 0; n < samples; n++) {
      double v = net.applyAsDouble(begins + n * step) * Truth.SCOPE_GAIN;
      v += noise[(at + n) & (noise.length - 1)];
      double code = Math.rint((v - middleVolts) / rangeVolts * STEPS);
      out[n] = (byte) Math.max(-STEPS / 2, Math.min(STEPS / 2 - 1, code));
    }
    return out;
  }

  private static DoubleUnaryOperator volts(String net) {
    double every = Truth.LOGGER_EVERY_SECONDS;
    return switch (net) {
      case CLOCK -> t -> pulse(t, 0.21e-3, Truth.LOGGER_CLOCK_SECONDS, 0.2e-3);
      case SLEEP -> t -> pulse(t, Truth.LOGGER_SLEEP_AFTER_STROBE_SECONDS, every, 1.2e-3);
      case STROBE -> t -> pulse(t, 0, every, 4e-6);
      case WATCHDOG -> BoardScope::watchdog;
      default -> t -> 0;
    };
  }

  private static double pulse(double t, double first, double every, double high) {
    double phase = (t - first) / every;
    return (phase - Math.floor(phase)) * every < high ? HIGH_VOLTS : 0;
  }

  /** A kick in each slot, wherever the program happens to be. */
  private static double watchdog(double t) {
    double slot = Truth.LOGGER_WATCHDOG_SLOT_SECONDS;
    long k = (long) Math.floor(t / slot);
    long mixed = (k + 1) * 0x9E3779B97F4A7C15L;
    mixed = (mixed ^ (mixed >>> 29)) * 0xBF58476D1CE4E5B9L;
    double share = ((mixed ^ (mixed >>> 32)) >>> 11) * 0x1.0p-53;
    double at = t - k * slot - 0.98 * share * slot;
    return at >= 0 && at < 10e-6 ? HIGH_VOLTS : 0;
  }
}
