package rovnik.instruments.dialect;

import java.util.Locale;
import java.util.Map;
import rovnik.core.Refusal;
import rovnik.core.uncertainty.InstrumentAccuracy;
import rovnik.instruments.InstrumentFault;
import rovnik.instruments.InstrumentKind;
import rovnik.instruments.scpi.ScpiConnection;
import rovnik.instruments.scpi.ScpiNumber;

/**
 * How one family of instruments words its commands, read from a YAML file.
 *
 * @param id file name without its ending
 * @param label as shown
 * @param kind what the instrument is
 * @param identity a regular expression that its answer to *IDN? matches, "" if that is not known
 * @param facts numbers from its data sheet, by name
 * @param commands templates by capability; {value} stands for the number or word
 * @param queries what to ask by capability, and how to read the answer
 */
public record Dialect(
    String id,
    String label,
    InstrumentKind kind,
    String identity,
    Map<String, Double> facts,
    Map<String, String> commands,
    Map<String, Query> queries) {

  /**
   * One query.
   *
   * @param ask the message
   * @param as "number", "text", "flag", "bit N", "word X" (true if the answer is X), "float32-le"
   *     or "float64-le" for a block, "switched-le" for one of a network analyzer that tells of its
   *     switch, "int64-float32-le" for samples behind the number of the first
   */
  public record Query(String ask, String as) {}

  /** A number from the data sheet; refused if the file lacks it. */
  public double fact(String name) {
    Double value = facts.get(name);
    if (value == null) {
      throw new Refusal(
          "dialect",
          "The dialect \"" + id + "\" lacks the fact \"" + name + "\". Add it to its file.");
    }
    return value;
  }

  /** What the data sheet promises; linearityDb and errorFloorDb may be left out. */
  public InstrumentAccuracy accuracy() {
    double levelDb = fact("levelAccuracyDb");
    double frequency = fact("frequencyAccuracy");
    Double linearityDb = facts.get("linearityDb");
    InstrumentAccuracy promised =
        linearityDb == null
            ? new InstrumentAccuracy(levelDb, frequency)
            : new InstrumentAccuracy(levelDb, frequency, linearityDb);
    return promised.withErrorFloor(facts.getOrDefault("errorFloorDb", Double.NaN));
  }

  public boolean can(String capability) {
    return commands.containsKey(capability) || queries.containsKey(capability);
  }

  /** Sends a command with a number. */
  public void send(ScpiConnection connection, String capability, double value) {
    send(connection, capability, String.format(Locale.ROOT, "%.12G", value));
  }

  /** Sends a command with a word, or one without a parameter. */
  public void send(ScpiConnection connection, String capability, String value) {
    String template = commands.get(capability);
    if (template == null) {
      throw lacks(capability);
    }
    connection.set(template.replace("{value}", value));
  }

  /**
   * Asks for a number.
   *
   * @param lowest what it can be at least; anything else makes no sense, and nobody may compute
   *     with it
   */
  public double number(
      ScpiConnection connection, String capability, double lowest, double highest) {
    String answer = connection.ask(query(capability).ask());
    double value;
    try {
      value = ScpiNumber.parse(answer);
    } catch (NumberFormatException e) {
      throw notUnderstood(capability, answer);
    }
    if (!Double.isFinite(value)) {
      throw new InstrumentFault(
          InstrumentFault.Kind.REPORTED,
          "The instrument has no number for " + capability + ": it answered " + cut(answer) + ".");
    }
    if (value < lowest || value > highest) {
      throw new InstrumentFault(
          InstrumentFault.Kind.BAD_REPLY,
          String.format(
              Locale.ROOT,
              "The answer %s for %s makes no sense: it can be %.6g to %.6g. Check the dialect.",
              cut(answer),
              capability,
              lowest,
              highest));
    }
    return value;
  }

  /** Asks for a row of numbers; the first says how many follow. */
  public double[] numbers(
      ScpiConnection connection, String capability, double lowest, double highest) {
    String answer = connection.ask(query(capability).ask());
    String[] parts = answer.split(",");
    double[] out = new double[parts.length - 1];
    try {
      if (ScpiNumber.parse(parts[0]) != out.length) {
        throw notUnderstood(capability, answer);
      }
      for (int i = 0; i < out.length; i++) {
        out[i] = ScpiNumber.parse(parts[i + 1]);
        if (!(out[i] >= lowest && out[i] <= highest)) {
          throw notUnderstood(capability, parts[i + 1]);
        }
      }
    } catch (NumberFormatException e) {
      throw notUnderstood(capability, answer);
    }
    return out;
  }

  private static String cut(String answer) {
    return answer.length() > 40 ? answer.substring(0, 40) + "..." : answer;
  }

  public boolean flag(ScpiConnection connection, String capability) {
    Query query = query(capability);
    String answer = connection.ask(query.ask()).strip();
    if (query.as().startsWith("word ")) {
      return answer.equalsIgnoreCase(query.as().substring(5).strip());
    }
    try {
      double sent = ScpiNumber.parse(answer);
      if (!(sent >= 0 && sent <= 1L << 32)) {
        throw notUnderstood(capability, answer);
      }
      long value = Math.round(sent);
      return query.as().startsWith("bit ")
          ? (value >> Integer.parseInt(query.as().substring(4).strip()) & 1) == 1
          : value != 0;
    } catch (NumberFormatException e) {
      throw notUnderstood(capability, answer);
    }
  }

  /** The query behind a capability. */
  public Query query(String capability) {
    Query query = queries.get(capability);
    if (query == null) {
      throw lacks(capability);
    }
    return query;
  }

  private Refusal lacks(String capability) {
    return new Refusal(
        "dialect",
        "The dialect \""
            + id
            + "\" has no words for \""
            + capability
            + "\". Add them to its file.");
  }

  private InstrumentFault notUnderstood(String capability, String answer) {
    return new InstrumentFault(
        InstrumentFault.Kind.BAD_REPLY,
        "The answer \""
            + cut(answer)
            + "\" for "
            + capability
            + " is not a number. Check the dialect.");
  }
}
