package rovnik.standins.rf;

import java.util.List;
import rovnik.standins.world.Truth;

/** What is plugged between the two ports of the network analyzer. */
public final class PartBench {
  public static final List<String> PADS =
      List.of("None", "Pad 10 dB", "Pad 20 dB", "Pad 20 dB with dc block");

  private final Parts parts = new Parts();
  private volatile String part = Parts.THROUGH;
  private volatile String padAt1 = PADS.get(0);
  private volatile String padAt2 = PADS.get(0);
  private volatile boolean broken;
  private volatile int change;

  public Parts parts() {
    return parts;
  }

  public String part() {
    return part;
  }

  public String padAt1() {
    return padAt1;
  }

  public String padAt2() {
    return padAt2;
  }

  public void plug(String name) {
    part = name;
    broken = false; // a new one from the drawer
    change++;
  }

  public void plugAt1(String name) {
    padAt1 = name;
    change++;
  }

  public void plugAt2(String name) {
    padAt2 = name;
    change++;
  }

  /** Grows with every plug. */
  int change() {
    return change;
  }

  /** Whether dc of the part reaches a port. */
  public boolean dcAtPort() {
    return parts.amplifies(part) && !padAt2.endsWith("dc block");
  }

  private static Scatter pad(String name, double hz) {
    return switch (name) {
      case "Pad 10 dB" -> Parts.pad(hz, 10);
      case "Pad 20 dB", "Pad 20 dB with dc block" -> Parts.pad(hz, 20);
      default -> Scatter.THROUGH;
    };
  }

  /** All between the connectors, with so much power sent from port 1. */
  Scatter at(double hz, double powerDbm) {
    Scatter before = pad(padAt1, hz);
    Scatter itself = parts.at(part, hz);
    if (parts.amplifies(part)) {
      double inDbm = powerDbm + 20 * Math.log10(before.s21().norm());
      itself = itself.withGain(compression(inDbm, itself.s21()));
    }
    return before.then(itself).then(pad(padAt2, hz));
  }

  /** What the gain loses at a level: a smooth limiter with its 1 dB point where the truth says. */
  private double compression(double inDbm, Complex gain) {
    if (inDbm > Truth.PREAMP_DAMAGE_DBM) {
      broken = true;
    }
    double outDbm = inDbm + 20 * Math.log10(gain.norm());
    // (1 + x^4)^(-1/4) is -1 dB at x^4 = 10^0.2 - 1; there the output would be 1 dB higher.
    double x4 = (Math.pow(10, 0.2) - 1) * Math.pow(10, (outDbm - Truth.PREAMP_P1DB_DBM - 1) / 5);
    return (broken ? Math.pow(10, -1.5) : 1) * Math.pow(1 + x4, -0.25);
  }
}
