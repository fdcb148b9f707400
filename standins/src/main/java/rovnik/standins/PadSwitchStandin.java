package rovnik.standins;

import java.util.Locale;
import rovnik.standins.scpi.ScpiInstrument;
import rovnik.standins.world.World;

/** A switched pad between transmitter and feeder: 0, 10, 20, 30 or 40 dB. */
final class PadSwitchStandin extends ScpiInstrument {
  private final World world;

  PadSwitchStandin(World world) {
    super("Rovnik,Switched pad stand-in,1,1.0");
    this.world = world;
    both(
        "INPut:ATTenuation",
        p -> world.setPadDb(10 * Math.rint(number(p, 0, 40) / 10)),
        () -> String.format(Locale.ROOT, "%.0f", world.padDb()));
  }

  @Override
  protected void reset() {
    world.setPadDb(30);
  }
}
