package rovnik.standins.world;

import java.util.Random;
import java.util.function.DoubleUnaryOperator;

/**
 * An oscilloscope with two probes at the logger board. What is captured begins a little after its
 * trigger input got a pulse, and runs on a clock of its own.
 */
public final class BoardScope {
  private static final int STEPS = 256;

  private final Clock board;
  private final Random random;
  private final float[] noise = new float[1 << 16];
  private final String[] touches = {BoardNets.CLOCK, BoardNets.SLEEP};
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
    DoubleUnaryOperator net = BoardNets.volts(touches[channel]);
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
}
