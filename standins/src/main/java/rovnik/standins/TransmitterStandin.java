package rovnik.standins;

import java.util.Locale;
import rovnik.standins.scpi.ScpiError;
import rovnik.standins.scpi.ScpiInstrument;
import rovnik.standins.world.Truth;
import rovnik.standins.world.World;

/** The service port of the outer buoy transmitter: on and off, carrier or data, drive. */
final class TransmitterStandin extends ScpiInstrument {
  private final World world;

  TransmitterStandin(World world) {
    super("Rovnik,Buoy transmitter stand-in,1,1.0");
    this.world = world;
    both(
        "OUTPut[:STATe]",
        p -> world.setTransmitting(onOff(p)),
        () -> world.transmitting() ? "1" : "0");
    both("[SOURce:]MODulation:STATe", p -> world.setData(onOff(p)), () -> world.data() ? "1" : "0");
    both(
        "[SOURce:]POWer:MODE",
        p -> world.setDriveDb(high(p) ? Truth.HIGH_DRIVE_DB : 0),
        () -> world.driveDb() == Truth.HIGH_DRIVE_DB ? "HIGH" : "NORM");
    query(
        "[SOURce:]FREQuency[:CW]", () -> String.format(Locale.ROOT, "%.9E", Truth.BUOY_NOMINAL_HZ));
    both(
        "[SOURce:]POWer[:LEVel]",
        p ->
            world.setDriveDb(
                number(
                        p,
                        Truth.BUOY_LEVEL_DBM + Truth.LOWEST_DRIVE_DB,
                        Truth.BUOY_LEVEL_DBM + Truth.HIGH_DRIVE_DB)
                    - Truth.BUOY_LEVEL_DBM),
        () -> String.format(Locale.ROOT, "%.2f", world.levelDbm()));
  }

  @Override
  protected void reset() {
    world.setTransmitting(false);
    world.setData(false);
    world.setDriveDb(0);
  }

  private static boolean high(String parameter) {
    return switch (parameter.toUpperCase(Locale.ROOT)) {
      case "HIGH" -> true;
      case "NORM", "NORMAL" -> false;
      default -> throw ScpiError.illegalValue(parameter);
    };
  }
}
