package rovnik.instruments.dialect;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Pattern;
import java.util.regex.PatternSyntaxException;
import org.yaml.snakeyaml.LoaderOptions;
import org.yaml.snakeyaml.Yaml;
import org.yaml.snakeyaml.constructor.SafeConstructor;
import org.yaml.snakeyaml.error.YAMLException;
import rovnik.core.Refusal;
import rovnik.instruments.InstrumentKind;

/** The dialects that ship with Rovnik and those in the user's folder, which win. */
public final class DialectLibrary {
  private static final List<String> SHIPPED =
      List.of(
          "scpi-iq",
          "scpi-iq-two",
          "scpi-sweep",
          "scpi-sweep-ascii",
          "scpi-source",
          "scpi-pad",
          "scpi-noise",
          "scpi-parts",
          "scpi-network");
  private final Path folder;

  /**
   * @param folder the user's dialect files (*.yaml); need not exist
   */
  public DialectLibrary(Path folder) {
    this.folder = folder;
  }

  /** The dialect with this id, read anew so that an edited file works at the next connection. */
  public Dialect find(String id) {
    Dialect dialect = all().get(id);
    if (dialect == null) {
      throw new Refusal(
          "dialect",
          "There is no dialect \"" + id + "\". Known ones: " + String.join(", ", all().keySet()));
    }
    return dialect;
  }

  /** All dialects by id; files of the user that cannot be read are left out. */
  public Map<String, Dialect> all() {
    Map<String, Dialect> dialects = new TreeMap<>();
    for (String id : SHIPPED) {
      try (InputStream in = DialectLibrary.class.getResourceAsStream("/dialects/" + id + ".yaml")) {
        dialects.put(id, parse(id, new String(in.readAllBytes(), StandardCharsets.UTF_8)));
      } catch (IOException e) {
        throw new IllegalStateException(e);
      }
    }
    if (Files.isDirectory(folder)) {
      try (DirectoryStream<Path> files = Files.newDirectoryStream(folder, "*.yaml")) {
        for (Path file : files) {
          String id = file.getFileName().toString().replaceFirst("\\.yaml$", "");
          dialects.put(id, parse(id, Files.readString(file)));
        }
      } catch (IOException e) {
        throw new Refusal("dialect", "The folder " + folder + " cannot be read: " + e.getMessage());
      }
    }
    return dialects;
  }

  /** Dialects that know an instrument by its answer to *IDN?, the user's own first. */
  public List<Dialect> thatKnow(String identity) {
    return all().values().stream()
        .filter(d -> !d.identity().isEmpty())
        .filter(d -> Pattern.compile(d.identity()).matcher(identity).find())
        .sorted(Comparator.comparing(d -> SHIPPED.contains(d.id())))
        .toList();
  }

  /**
   * Reads a dialect file.
   *
   * @throws Refusal naming the file and what is wrong in it
   */
  static Dialect parse(String id, String yaml) {
    try {
      Object root = new Yaml(new SafeConstructor(new LoaderOptions())).load(yaml);
      if (!(root instanceof Map<?, ?> map)) {
        throw new Refusal("dialect", "The dialect file " + id + ".yaml is empty.");
      }
      Map<String, Double> facts = new LinkedHashMap<>();
      section(id, map, "facts").forEach((k, v) -> facts.put(k, number(id, k, v)));
      Map<String, String> commands = new LinkedHashMap<>();
      section(id, map, "commands").forEach((k, v) -> commands.put(k, String.valueOf(v)));
      Map<String, Dialect.Query> queries = new LinkedHashMap<>();
      section(id, map, "queries").forEach((k, v) -> queries.put(k, query(id, k, v)));
      return new Dialect(
          id,
          String.valueOf(map.get("label")),
          InstrumentKind.parse(String.valueOf(map.get("kind"))),
          identity(id, map.get("identity")),
          facts,
          commands,
          queries);
    } catch (YAMLException e) {
      throw new Refusal("dialect", "The dialect file " + id + ".yaml is broken: " + e.getMessage());
    }
  }

  private static String identity(String id, Object value) {
    String regex = value == null ? "" : String.valueOf(value);
    try {
      Pattern.compile(regex);
    } catch (PatternSyntaxException e) {
      throw new Refusal(
          "dialect", id + ".yaml: \"identity\" is no regular expression: " + e.getDescription());
    }
    return regex;
  }

  private static Map<String, Object> section(String id, Map<?, ?> root, String name) {
    Map<String, Object> section = new LinkedHashMap<>();
    Object value = root.get(name);
    if (value == null) {
      return section;
    }
    if (!(value instanceof Map<?, ?> map)) {
      throw new Refusal(
          "dialect", id + ".yaml: \"" + name + "\" must be a list of names and values.");
    }
    map.forEach((k, v) -> section.put(String.valueOf(k), v));
    return section;
  }

  private static double number(String id, String name, Object value) {
    try {
      return Double.parseDouble(String.valueOf(value));
    } catch (NumberFormatException e) {
      throw new Refusal("dialect", id + ".yaml: the fact \"" + name + "\" must be a number.");
    }
  }

  private static Dialect.Query query(String id, String name, Object value) {
    if (value instanceof Map<?, ?> map && map.get("ask") != null && map.get("as") != null) {
      return new Dialect.Query(String.valueOf(map.get("ask")), String.valueOf(map.get("as")));
    }
    throw new Refusal(
        "dialect", id + ".yaml: the query \"" + name + "\" needs \"ask\" and \"as\".");
  }
}
