package rovnik.standins;

import java.util.Locale;
import java.util.concurrent.locks.LockSupport;
import rovnik.standins.scpi.ScpiError;
import rovnik.standins.scpi.ScpiInstrument;
import rovnik.standins.world.DataReceiver;
import rovnik.standins.world.Truth;

/**
 * The buoy's receiver in its test mode. {@code READ?} listens until so many bits are compared and
 * answers bits, errors, packets, wrong packets and whether it is in step.
 */
final class DataReceiverStandin extends ScpiInstrument {
  private static final double DAMAGE_DBM = 10;
  private final DataReceiver receiver;
  private final boolean paced;
  private int bits = 100_000;

  DataReceiverStandin(DataReceiver receiver, boolean paced) {
    super("Rovnik,Buoy receiver stand-in,1,1.0");
    this.receiver = receiver;
    this.paced = paced;
    both("[SENSe:]DATA:BITS", p -> bits = integer(p, 1024, 2_000_000), () -> "" + bits);
    both("[SENSe:]DATA:PATTern", this::pattern, () -> "PRBS" + receiver.stages());
    query("[SENSe:]FREQuency", () -> String.format(Locale.ROOT, "%.6E", Truth.BUOY_RECEIVER_HZ));
    query("READ", this::read);
  }

  @Override
  protected void reset() {
    bits = 100_000;
    receiver.choose(23);
  }

  private void pattern(String parameter) {
    switch (parameter.toUpperCase(Locale.ROOT)) {
      case "PRBS9" -> receiver.choose(9);
      case "PRBS15" -> receiver.choose(15);
      case "PRBS23" -> receiver.choose(23);
      default -> throw ScpiError.illegalValue(parameter);
    }
  }

  private String read() {
    long began = System.nanoTime();
    long[] c = receiver.count(bits);
    if (receiver.highestDbm() > DAMAGE_DBM) {
      raise(-310, "System error; the input was overloaded, lower the level");
    }
    if (paced) {
      long left = (long) (DataReceiver.seconds(bits) * 1e9) - (System.nanoTime() - began);
      if (left > 0) {
        LockSupport.parkNanos(left);
      }
    }
    return c[0] + "," + c[1] + "," + c[2] + "," + c[3] + "," + (receiver.inStep() ? 1 : 0);
  }
}
