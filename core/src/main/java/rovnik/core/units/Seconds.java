package rovnik.core.units;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.Locale;

/** How a stretch of time is written. */
public final class Seconds {
  private static final String[] UNITS = {"s", "ms", "\u00b5s", "ns", "ps"};

  private Seconds() {}

  /** Four digits and a unit that suits: "3.1 ms", "14 \u00b5s". */
  public static String words(double seconds) {
    if (seconds == 0 || !Double.isFinite(seconds)) {
      return String.format(Locale.ROOT, "%.0f s", seconds);
    }
    double value = seconds;
    int unit = 0;
    while (Math.abs(value) < 0.99995 && unit < UNITS.length - 1) {
      value *= 1000;
      unit++;
    }
    return new BigDecimal(value, new MathContext(4)).stripTrailingZeros().toPlainString()
        + " "
        + UNITS[unit];
  }
}
