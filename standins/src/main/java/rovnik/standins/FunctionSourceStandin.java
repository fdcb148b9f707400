package rovnik.standins;

import java.util.Locale;
import rovnik.standins.scpi.ScpiError;
import rovnik.standins.scpi.ScpiInstrument;
import rovnik.standins.world.FunctionOutput;

/** Function source, 1 mHz to 1 MHz, 10 V: shape, frequency, amplitude to the crest, offset. */
final class FunctionSourceStandin extends ScpiInstrument {
  private final FunctionOutput out;

  FunctionSourceStandin(FunctionOutput out) {
    super("Rovnik,Function source stand-in,1,1.0");
    this.out = out;
    both("OUTPut[:STATe]", p -> out.setOn(onOff(p)), () -> out.on() ? "1" : "0");
    both("[SOURce:]FUNCtion[:SHAPe]", p -> out.setShape(shape(p)), () -> out.shape().name());
    both(
        "[SOURce:]FREQuency[:CW]",
        p -> out.setFrequencyHz(number(p, 1e-3, 1e6)),
        () -> text(out.frequencyHz()));
    both(
        "[SOURce:]VOLTage[:AMPLitude]",
        p -> out.setAmplitudeVolts(number(p, 0, 10)),
        () -> text(out.amplitudeVolts()));
    both(
        "[SOURce:]VOLTage:OFFSet",
        p -> out.setOffsetVolts(number(p, -10, 10)),
        () -> text(out.offsetVolts()));
  }

  private static String text(double value) {
    return String.format(Locale.ROOT, "%.9E", value);
  }

  private static FunctionOutput.Shape shape(String parameter) {
    String p = parameter.toUpperCase(Locale.ROOT);
    for (FunctionOutput.Shape s : FunctionOutput.Shape.values()) {
      if (p.startsWith(s.name())) {
        return s;
      }
    }
    throw ScpiError.illegalValue(parameter);
  }

  @Override
  protected void reset() {
    out.reset();
  }
}
