package rovnik.standins.world;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;

/**
 * An oscilloscope with two probes at the logger board. What is captured begins a little after its
 * trigger input got a pulse, and runs on a clock of its own.
 */
public final class BoardScope {
  /** Nothing comes out of its trigger output. */
  public static final int NO_CHANNEL = -1;

  private static final int STEPS = 256;

  /** So much over the noise a level must be, or under what a net reaches, to be crossed once. */
  private static final double CLEAR_VOLTS = 4 * Truth.SCOPE_NOISE_VOLTS;

  /** A level within the noise is crossed as often as the output can follow. */
  private static final double FOLLOWS_SECONDS = 50e-6;

  private final Clock board;
  private final Random random;
  private final float[] noise = new float[1 << 16];
  private final String[] touches = {BoardNets.CLOCK, BoardNets.SLEEP};
  private boolean armed;
  private boolean triggered;
  private double begins;
  private int outChannel = NO_CHANNEL;
  private double outLevelVolts;

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

  /** From now on its output gives a pulse whenever a channel rises over a level. */
  public synchronized void output(int channel, double levelVolts) {
    outChannel = channel;
    outLevelVolts = levelVolts;
  }

  /** When its output rose, in the time of the board. */
  public synchronized List<Double> pulses(double from, double to) {
    if (outChannel == NO_CHANNEL) {
      return List.of();
    }
    double high = BoardNets.highVolts(touches[outChannel]) * Truth.SCOPE_GAIN;
    boolean noise =
        Math.abs(outLevelVolts) < CLEAR_VOLTS || Math.abs(outLevelVolts - high) < CLEAR_VOLTS;
    List<Double> out = new ArrayList<>();
    if (noise) {
      for (double k = Math.ceil(from / FOLLOWS_SECONDS); k * FOLLOWS_SECONDS < to; k++) {
        out.add(k * FOLLOWS_SECONDS);
      }
    } else if (outLevelVolts > 0 && outLevelVolts < high) {
      double later = Truth.SCOPE_OUT_DELAY_SECONDS;
      for (double t : BoardNets.rises(touches[outChannel], from - later, to - later)) {
        out.add(t + later);
      }
    }
    return out;
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
