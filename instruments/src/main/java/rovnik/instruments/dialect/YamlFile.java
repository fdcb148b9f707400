package rovnik.instruments.dialect;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.yaml.snakeyaml.LoaderOptions;
import org.yaml.snakeyaml.Yaml;
import org.yaml.snakeyaml.constructor.SafeConstructor;
import org.yaml.snakeyaml.error.MarkedYAMLException;
import org.yaml.snakeyaml.error.YAMLException;
import rovnik.core.Refusal;

/**
 * A YAML file of the user's: names and values. What is wrong in it is said with its line, and
 * shortly, whatever the file holds; a file that refers to itself is refused.
 */
public final class YamlFile {
  private static final int LONGEST = 200;

  /** A file that cannot be used, and why. */
  public record Broken(String file, String sentence) {}

  private final String name;
  private final String field;
  private final String text;
  private final Map<?, ?> root;

  private YamlFile(String name, String field, String text, Map<?, ?> root) {
    this.name = name;
    this.field = field;
    this.text = text;
    this.root = root;
  }

  /**
   * Reads a file.
   *
   * @param field of the refusals: what the file is
   */
  public static YamlFile read(String name, String field, String text) {
    LoaderOptions options = new LoaderOptions();
    options.setMaxAliasesForCollections(0); // nothing repeats, so nothing can hold itself
    try {
      Object root = new Yaml(new SafeConstructor(options)).load(text);
      if (root instanceof Map<?, ?> map) {
        return new YamlFile(name, field, text, map);
      }
    } catch (MarkedYAMLException e) {
      int line = e.getProblemMark() == null ? 0 : e.getProblemMark().getLine() + 1;
      throw new Refusal(field, at(name, line) + "this is no YAML: " + cut(e.getProblem()) + ".");
    } catch (YAMLException | StackOverflowError e) {
      throw new Refusal(field, name + ": this is no YAML: " + cut(e.getMessage()) + ".");
    }
    throw new Refusal(field, name + " is empty. It must hold names and values, as \"label: ...\".");
  }

  public Map<?, ?> root() {
    return root;
  }

  /** A part of it by name; empty if it is not there. */
  public Map<?, ?> section(String key) {
    Object value = root.get(key);
    if (value == null) {
      return Map.of();
    }
    if (!(value instanceof Map<?, ?> map)) {
      throw wrong(key, "\"" + key + "\" must be a list of names and values");
    }
    return map;
  }

  /** A number under this name. */
  public double number(String key, Object value) {
    try {
      return Double.parseDouble(String.valueOf(value));
    } catch (NumberFormatException e) {
      throw wrong(
          key, "\"" + key + "\" must be a number, not \"" + cut(String.valueOf(value)) + '"');
    }
  }

  /** The refusal of what stands under a name. */
  public Refusal wrong(String key, String what) {
    Matcher m =
        Pattern.compile("(?:^|[{,\\s])([\"']?" + Pattern.quote(key) + "[\"']?)\\s*:").matcher(text);
    int line =
        m.find()
            ? (int) text.substring(0, m.start(1)).chars().filter(c -> c == '\n').count() + 1
            : 0;
    return new Refusal(field, at(name, line) + what + ".");
  }

  private static String at(String name, int line) {
    return name + (line > 0 ? ", line " + line : "") + ": ";
  }

  private static String cut(String words) {
    List<String> kept = new ArrayList<>();
    String.valueOf(words).lines().limit(2).forEach(kept::add);
    String one = String.join(" ", kept);
    return one.length() <= LONGEST ? one : one.substring(0, LONGEST) + " ...";
  }
}
