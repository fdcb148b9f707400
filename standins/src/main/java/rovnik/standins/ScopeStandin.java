package rovnik.standins;

import java.nio.charset.StandardCharsets;
import java.util.Locale;
import rovnik.standins.scpi.ScpiError;
import rovnik.standins.scpi.ScpiInstrument;
import rovnik.standins.world.BoardScope;
import rovnik.standins.world.Truth;

/**
 * Oscilloscope with two channels of eight bits and one range for both. INITiate arms it; bit 5 of
 * STATus:OPERation:CONDition says that it waits for its trigger (SCPI-99 volume 1, 9.3). Its
 * trigger output gives a pulse whenever the channel of OUTPut:TTLTrg:SOURce rises over
 * OUTPut:TTLTrg:LEVel.
 */
final class ScopeStandin extends ScpiInstrument {
  private static final int MOST_POINTS = 1 << 22;
  private static final int HALVINGS = 12;
  private static final double WIDEST_VOLTS = 40;
  private static final int WAITING = 32;

  private final BoardScope scope;
  private double rateHz;
  private int points;
  private double rangeVolts;
  private double middleVolts;
  private boolean out;
  private int outChannel;
  private double outLevelVolts;

  ScopeStandin(BoardScope scope) {
    super("Rovnik,Oscilloscope stand-in,1,1.0");
    this.scope = scope;
    initial();
    both("FORMat[:DATA]", ScopeStandin::checkFormat, () -> "INT,8");
    both("[SENSe:]SWEep:TINTerval", p -> rateHz = rate(p), () -> text(1 / rateHz));
    both("[SENSe:]SWEep:POINts", p -> points = integer(p, 1, MOST_POINTS), () -> "" + points);
    both(
        "[SENSe:]VOLTage:RANGe:PTPeak",
        p -> rangeVolts = number(p, 0.01, WIDEST_VOLTS),
        () -> text(rangeVolts));
    both(
        "[SENSe:]VOLTage:RANGe:OFFSet",
        p -> middleVolts = number(p, -WIDEST_VOLTS / 2, WIDEST_VOLTS / 2),
        () -> text(middleVolts));
    both("TRIGger:SOURce", ScopeStandin::checkSource, () -> "EXT");
    both("OUTPut:TTLTrg[:STATe]", p -> output(onOff(p)), () -> out ? "1" : "0");
    both("OUTPut:TTLTrg:SOURce", this::outputOf, () -> "INT" + (outChannel + 1));
    both("OUTPut:TTLTrg:LEVel", this::outputFrom, () -> text(outLevelVolts));
    set("INITiate[:IMMediate]", p -> scope.arm(true));
    set("ABORt", p -> scope.arm(false));
    queryBytes("FETCh:CHANnel1", () -> fetch(0));
    queryBytes("FETCh:CHANnel2", () -> fetch(1));
  }

  @Override
  protected void reset() {
    initial();
    scope.arm(false);
  }

  private void initial() {
    rateHz = Truth.SCOPE_RATE_HZ;
    points = 4096;
    rangeVolts = 8;
    middleVolts = 2;
    outChannel = 0;
    outLevelVolts = 1.5;
    output(false);
  }

  private void output(boolean on) {
    out = on;
    scope.output(on ? outChannel : BoardScope.NO_CHANNEL, outLevelVolts);
  }

  private void outputOf(String source) {
    outChannel =
        switch (source.toUpperCase(Locale.ROOT)) {
          case "INT1", "INTERNAL1" -> 0;
          case "INT2", "INTERNAL2" -> 1;
          default -> throw ScpiError.illegalValue(source);
        };
    output(out);
  }

  private void outputFrom(String level) {
    outLevelVolts = number(level, -WIDEST_VOLTS, WIDEST_VOLTS);
    output(out);
  }

  @Override
  protected int operation() {
    return scope.waits() ? WAITING : 0;
  }

  private static String text(double value) {
    return String.format(Locale.ROOT, "%.12E", value);
  }

  private static double rate(String interval) {
    double fastest = Truth.SCOPE_RATE_HZ;
    double wanted = 1 / number(interval, 0.99 / fastest, 1.01 * (1 << HALVINGS) / fastest);
    double k = Math.rint(Math.log(fastest / wanted) / Math.log(2));
    return fastest / Math.pow(2, Math.max(0, Math.min(HALVINGS, k)));
  }

  private static void checkFormat(String parameter) {
    if (!parameter.toUpperCase(Locale.ROOT).replace(" ", "").startsWith("INT")) {
      throw ScpiError.illegalValue(parameter);
    }
  }

  private static void checkSource(String parameter) {
    if (!parameter.toUpperCase(Locale.ROOT).startsWith("EXT")) {
      throw ScpiError.illegalValue(parameter);
    }
  }

  private byte[] fetch(int channel) {
    if (!scope.triggered()) {
      throw new ScpiError(-230, "Data corrupt or stale; no trigger came");
    }
    byte[] codes = scope.codes(channel, rateHz, points, rangeVolts, middleVolts);
    String length = Integer.toString(codes.length);
    byte[] head = ("#" + length.length() + length).getBytes(StandardCharsets.ISO_8859_1);
    byte[] out = new byte[head.length + codes.length];
    System.arraycopy(head, 0, out, 0, head.length);
    System.arraycopy(codes, 0, out, head.length, codes.length);
    return out;
  }
}
