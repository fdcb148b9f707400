package rovnik.standins.world;

import java.util.ArrayList;
import java.util.List;
import java.util.function.DoubleUnaryOperator;

/** Nets of the logger board: their voltage over the time of the board, and when it rises. */
public final class BoardNets {
  static final String CLOCK = "core clock enable";
  static final String SLEEP = "radio sleep";
  private static final String STROBE = "flash write strobe";
  private static final String WATCHDOG = "watchdog";

  /** What a probe can touch. */
  public static final List<String> NAMES = List.of("nothing", CLOCK, SLEEP, STROBE, WATCHDOG);

  private static final double HIGH_VOLTS = 3.3;
  private static final double CLOCK_FIRST_SECONDS = 0.21e-3;

  private BoardNets() {}

  static DoubleUnaryOperator volts(String net) {
    double every = Truth.LOGGER_EVERY_SECONDS;
    return switch (net) {
      case CLOCK -> t -> pulse(t, CLOCK_FIRST_SECONDS, Truth.LOGGER_CLOCK_SECONDS, 0.2e-3);
      case SLEEP -> t -> pulse(t, Truth.LOGGER_SLEEP_AFTER_STROBE_SECONDS, every, 1.2e-3);
      case STROBE -> t -> pulse(t, 0, every, 4e-6);
      case WATCHDOG -> BoardNets::watchdog;
      default -> t -> 0;
    };
  }

  /** Where a net is while it is not at 0. */
  static double highVolts(String net) {
    return net.equals(NAMES.get(0)) ? 0 : HIGH_VOLTS;
  }

  /** When a net rises, from one time of the board to another. */
  static List<Double> rises(String net, double from, double to) {
    List<Double> out = new ArrayList<>();
    switch (net) {
      case CLOCK -> every(Truth.LOGGER_CLOCK_SECONDS, k -> CLOCK_FIRST_SECONDS, from, to, out);
      case SLEEP ->
          every(
              Truth.LOGGER_EVERY_SECONDS,
              k -> Truth.LOGGER_SLEEP_AFTER_STROBE_SECONDS,
              from,
              to,
              out);
      case STROBE -> every(Truth.LOGGER_EVERY_SECONDS, k -> 0, from, to, out);
      case WATCHDOG -> every(Truth.LOGGER_WATCHDOG_SLOT_SECONDS, BoardNets::kick, from, to, out);
      default -> {}
    }
    return out;
  }

  private static void every(
      double seconds, DoubleUnaryOperator into, double from, double to, List<Double> out) {
    for (double k = Math.floor(from / seconds) - 1; k * seconds < to; k++) {
      double at = k * seconds + into.applyAsDouble(k);
      if (at >= from && at < to) {
        out.add(at);
      }
    }
  }

  private static double pulse(double t, double first, double every, double high) {
    double phase = (t - first) / every;
    return (phase - Math.floor(phase)) * every < high ? HIGH_VOLTS : 0;
  }

  /** A kick in each slot, wherever the program happens to be. */
  private static double watchdog(double t) {
    double slot = Truth.LOGGER_WATCHDOG_SLOT_SECONDS;
    double k = Math.floor(t / slot);
    double at = t - k * slot - kick(k);
    return at >= 0 && at < 10e-6 ? HIGH_VOLTS : 0;
  }

  private static double kick(double slot) {
    long mixed = ((long) slot + 1) * 0x9E3779B97F4A7C15L;
    mixed = (mixed ^ (mixed >>> 29)) * 0xBF58476D1CE4E5B9L;
    double share = ((mixed ^ (mixed >>> 32)) >>> 11) * 0x1.0p-53;
    return 0.98 * share * Truth.LOGGER_WATCHDOG_SLOT_SECONDS;
  }
}
