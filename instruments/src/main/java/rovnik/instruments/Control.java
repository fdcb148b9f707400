package rovnik.instruments;

import java.util.List;

/**
 * Something of an instrument that the Bench can switch.
 *
 * @param id stable key, such as "output"
 * @param label as shown
 * @param form how it is switched
 * @param value what it is now: "on" or "off", a choice, or a number; "" for an action
 * @param unit of a number
 * @param lowest number that it takes
 * @param highest number that it takes
 * @param choices what it can be, empty but for choices
 * @param minor true if it is out of sight until one looks for it
 * @param raisesPower true if power may flow that did not before: the level plan is asked first
 */
public record Control(
    String id,
    String label,
    Form form,
    String value,
    String unit,
    double lowest,
    double highest,
    List<String> choices,
    boolean raisesPower,
    boolean minor) {

  public static final String ON = "on";
  public static final String OFF = "off";

  /** How a control is switched. */
  public enum Form {
    SWITCH,
    CHOICE,
    NUMBER,
    /** Something that is done, and has no value. */
    ACTION
  }

  public static Control onOff(String id, String label, boolean on, boolean raisesPower) {
    return new Control(
        id, label, Form.SWITCH, on ? ON : OFF, "", 0, 0, List.of(ON, OFF), raisesPower, false);
  }

  public static Control choice(String id, String label, String now, List<String> choices) {
    return new Control(id, label, Form.CHOICE, now, "", 0, 0, List.copyOf(choices), false, false);
  }

  public static Control number(
      String id, String label, double now, String unit, double lowest, double highest) {
    return new Control(
        id,
        label,
        Form.NUMBER,
        Double.toString(now),
        unit,
        lowest,
        highest,
        List.of(),
        false,
        false);
  }

  public static Control action(String id, String label) {
    return new Control(id, label, Form.ACTION, "", "", 0, 0, List.of(), false, false);
  }

  /** The same, asking the level plan first. */
  public Control raisingPower() {
    return new Control(id, label, form, value, unit, lowest, highest, choices, true, minor);
  }

  /** The same, out of sight until one looks for it. */
  public Control further() {
    return new Control(id, label, form, value, unit, lowest, highest, choices, raisesPower, true);
  }
}
