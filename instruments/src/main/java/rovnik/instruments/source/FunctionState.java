package rovnik.instruments.source;

import java.util.Map;
import rovnik.instruments.Values;

/**
 * What a function source is doing.
 *
 * @param on output switched on
 * @param shape "sine", "triangle", "square" or "steady"
 * @param frequencyHz of the shape
 * @param amplitudeVolts from the mean to the crest
 * @param offsetVolts mean
 */
public record FunctionState(
    boolean on, String shape, double frequencyHz, double amplitudeVolts, double offsetVolts) {
  public static final String STEADY = "steady";

  /** What it really swings by. */
  public double swingVolts() {
    return shape.equals(STEADY) ? 0 : amplitudeVolts;
  }

  /** What it would be with these controls set. */
  public FunctionState with(Map<String, String> values) {
    String output = values.get(FunctionSource.OUTPUT);
    String frequency = values.get(FunctionSource.FREQUENCY);
    String amplitude = values.get(FunctionSource.AMPLITUDE);
    String offset = values.get(FunctionSource.OFFSET);
    return new FunctionState(
        output == null ? on : Values.onOff(output),
        values.getOrDefault(FunctionSource.SHAPE, shape),
        frequency == null ? frequencyHz : Values.number(frequency),
        amplitude == null ? amplitudeVolts : Values.number(amplitude),
        offset == null ? offsetVolts : Values.number(offset));
  }

  /** The state in words, as kept with a run. */
  public String text() {
    if (!on) {
      return "off";
    }
    return swingVolts() == 0
        ? String.format(java.util.Locale.ROOT, "on, %.3f V", offsetVolts)
        : String.format(
            java.util.Locale.ROOT,
            "on, %s %.6g Hz, %.3f V +- %.3f V",
            shape,
            frequencyHz,
            offsetVolts,
            amplitudeVolts);
  }
}
