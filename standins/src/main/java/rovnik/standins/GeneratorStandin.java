package rovnik.standins;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import rovnik.standins.scpi.ScpiError;
import rovnik.standins.scpi.ScpiInstrument;
import rovnik.standins.world.Connector;
import rovnik.standins.world.GeneratorOutput;

/**
 * Vector generator, 10 MHz to 8 GHz. Waveforms come as blocks (SCPI-99's MEMory:DATA) of
 * interleaved 32-bit floats, full scale 1.0; modulator trims follow SCPI-99's SOURce:DM.
 */
final class GeneratorStandin extends ScpiInstrument {
  private static final double NOT_A_NUMBER = 9.91e37;

  /** The process has no room for all of the real one. */
  private static final long MEMORY = 4L << 20;

  private final Map<String, float[]> memory = new LinkedHashMap<>();
  private final GeneratorOutput out;
  private String selected = "";
  private String third = "";

  GeneratorStandin(String identity, GeneratorOutput out) {
    super(identity);
    this.out = out;
    both("OUTPut[:STATe]", p -> out.setOn(onOff(p)), () -> out.on() ? "1" : "0");
    both(
        "[SOURce:]FREQuency[:CW]",
        p -> out.setFrequencyHz(number(p, 10e6, 8e9)),
        () -> text(out.frequencyHz()));
    both(
        "[SOURce:]POWer[:LEVel]",
        p -> out.setLevelDbm(number(p, -110, 12)),
        () -> text(out.levelDbm()));
    both("[SOURce:]DM:STATe", p -> setPlaying(onOff(p)), () -> out.playing() ? "1" : "0");
    both(
        "[SOURce:]DM:CLOCk", p -> out.setClockHz(number(p, 1e3, 400e6)), () -> text(out.clockHz()));
    both(
        "[SOURce:]DM:SHIFt",
        p -> out.setShiftHz(number(p, -200e6, 200e6)),
        () -> text(out.shiftHz()));
    GeneratorOutput.Trims t = out.trims;
    both("[SOURce:]DM:IQRatio", p -> t.gainDb = number(p, -3, 3), () -> text(t.gainDb));
    both(
        "[SOURce:]DM:QUADrature:ANGLe",
        p -> t.quadratureDegrees = number(p, -10, 10),
        () -> text(t.quadratureDegrees));
    both("[SOURce:]DM:LEAKage:I", p -> t.leakageI = number(p, -0.2, 0.2), () -> text(t.leakageI));
    both("[SOURce:]DM:LEAKage:Q", p -> t.leakageQ = number(p, -0.2, 0.2), () -> text(t.leakageQ));
    both(
        "[SOURce:]DM:DELay",
        p -> t.delaySeconds = number(p, -1e-9, 1e-9),
        () -> text(t.delaySeconds));
    connector(1, out.connectors[0]);
    connector(2, out.connectors[1]);
    connector(3, out.third().connector);
    both("[SOURce:]DM:OUTPut3:WAVeform", this::selectThird, () -> '"' + third + '"');
    set("CALibration:DM", p -> out.adjust());
    query(
        "CALibration:DM:FREQuency",
        () -> text(Double.isNaN(out.adjustedAtHz()) ? NOT_A_NUMBER : out.adjustedAtHz()));
    set("MEMory:DATA", this::load);
    set("MEMory:DELete:ALL", p -> forget());
    query("MEMory:FREE", () -> "" + (MEMORY - used()));
    query("MEMory:CATalog", () -> '"' + String.join(",", memory.keySet()) + '"');
    both("[SOURce:]FUNCtion:USER", this::select, () -> '"' + selected + '"');
  }

  @Override
  protected void reset() {
    out.reset();
    third = "";
  }

  private void connector(int number, Connector c) {
    String at = "[SOURce:]DM:OUTPut" + number;
    both(at + ":GAIN", p -> c.gainDb = number(p, -6, 0), () -> text(c.gainDb));
    both(at + ":DELay", p -> c.delaySeconds = number(p, 0, 1e-3), () -> text(c.delaySeconds));
    both(at + ":OFFSet", p -> c.offsetVolts = number(p, -0.1, 0.1), () -> text(c.offsetVolts));
  }

  /** An empty name is nothing. */
  private void selectThird(String parameter) {
    if (parameter.strip().equals("\"\"")) {
      third = "";
      out.setThirdSamples(null);
      return;
    }
    String name = name(parameter);
    float[] iq = memory.get(name);
    if (iq == null) {
      throw new ScpiError(-256, "File name not found; " + name);
    }
    third = name;
    out.setThirdSamples(iq);
  }

  private static String text(double value) {
    return String.format(Locale.ROOT, "%.12E", value);
  }

  private long used() {
    return memory.values().stream().mapToLong(w -> w.length / 2).sum();
  }

  private void forget() {
    out.setPlaying(false);
    memory.clear();
    selected = "";
    third = "";
    out.setThirdSamples(null);
  }

  private static String name(String quoted) {
    String name = quoted.strip().replaceAll("^[\"']|[\"']$", "");
    if (!name.matches("[A-Za-z0-9_]{1,32}")) {
      throw ScpiError.illegalValue(quoted);
    }
    return name;
  }

  private void load(String parameter) {
    byte[] bytes = block();
    if (bytes.length == 0 || bytes.length % 8 != 0) {
      throw new ScpiError(-161, "Invalid block data; pairs of 32-bit floats are wanted");
    }
    String name = name(parameter.split(",", 2)[0]);
    if (used() + bytes.length / 8 > MEMORY) {
      throw new ScpiError(-225, "Out of memory");
    }
    float[] iq = new float[bytes.length / 4];
    ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN).asFloatBuffer().get(iq);
    for (float v : iq) {
      if (!(Math.abs(v) <= 1.0001f)) {
        throw new ScpiError(-161, "Invalid block data; a sample is beyond full scale");
      }
    }
    memory.put(name, iq);
    if (name.equals(selected)) {
      out.setSamples(iq);
    }
  }

  private void select(String parameter) {
    String name = name(parameter);
    float[] iq = memory.get(name);
    if (iq == null) {
      throw new ScpiError(-256, "File name not found; " + name);
    }
    selected = name;
    out.setSamples(iq);
  }

  private void setPlaying(boolean on) {
    if (on && selected.isEmpty()) {
      throw new ScpiError(-221, "Settings conflict; no waveform is selected");
    }
    out.setPlaying(on);
  }
}
