package rovnik.instruments.dialect;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Pattern;
import java.util.regex.PatternSyntaxException;
import rovnik.core.Refusal;
import rovnik.instruments.InstrumentKind;

/** The dialects that ship with Rovnik and those in the user's folder, which win. */
public final class DialectLibrary {
  private static final List<String> SHIPPED =
      List.of(
          "scpi-iq",
          "scpi-iq-two",
          "scpi-iq-fast",
          "scpi-iq-wide",
          "scpi-link",
          "scpi-sweep",
          "scpi-sweep-ascii",
          "scpi-source",
          "scpi-pad",
          "scpi-noise",
          "scpi-generator",
          "scpi-parts",
          "scpi-network",
          "scpi-data-receiver",
          "scpi-voice-receiver",
          "scpi-function",
          "scpi-oscilloscope");

  /** Those that come with the application do not change. */
  private static final Map<String, Dialect> OF_THE_APPLICATION = shipped();

  private final Path folder;
  private final Map<Path, Read> read = new ConcurrentHashMap<>();

  /**
   * A file of the user as it was read last; it is read again once it has changed.
   *
   * @param dialect null if it cannot be used
   * @param trouble why not
   */
  private record Read(FileTime changed, long bytes, Dialect dialect, String trouble) {}

  /**
   * @param folder the user's dialect files (*.yaml); need not exist
   */
  public DialectLibrary(Path folder) {
    this.folder = folder;
  }

  /** The dialect with this id; an edited file works at the next connection. */
  public Dialect find(String id) {
    Map<String, Dialect> all = new TreeMap<>(OF_THE_APPLICATION);
    List<YamlFile.Broken> broken = new ArrayList<>();
    userFiles(all, broken);
    for (YamlFile.Broken b : broken) {
      if (b.file().equals("dialects/" + id + ".yaml")) {
        throw new Refusal("dialect", b.sentence());
      }
    }
    Dialect dialect = all.get(id);
    if (dialect == null) {
      throw new Refusal(
          "dialect",
          "There is no dialect \"" + id + "\". Known ones: " + String.join(", ", all.keySet()));
    }
    return dialect;
  }

  /** All dialects by id; files of the user that cannot be read are left out. */
  public Map<String, Dialect> all() {
    Map<String, Dialect> dialects = new TreeMap<>(OF_THE_APPLICATION);
    userFiles(dialects, new ArrayList<>());
    return dialects;
  }

  private static Map<String, Dialect> shipped() {
    Map<String, Dialect> all = new TreeMap<>();
    for (String id : SHIPPED) {
      try (InputStream in = DialectLibrary.class.getResourceAsStream("/dialects/" + id + ".yaml")) {
        all.put(id, parse(id, new String(in.readAllBytes(), StandardCharsets.UTF_8)));
      } catch (IOException e) {
        throw new IllegalStateException(e);
      }
    }
    return Collections.unmodifiableMap(all);
  }

  /** Files of the user that cannot be used; the others work all the same. */
  public List<YamlFile.Broken> broken() {
    List<YamlFile.Broken> broken = new ArrayList<>();
    userFiles(new TreeMap<>(), broken);
    return broken;
  }

  private void userFiles(Map<String, Dialect> good, List<YamlFile.Broken> broken) {
    if (!Files.isDirectory(folder)) {
      return;
    }
    try (DirectoryStream<Path> files = Files.newDirectoryStream(folder, "*.yaml")) {
      for (Path file : files) {
        String id = file.getFileName().toString().replaceFirst("\\.yaml$", "");
        Read r = read(file, id);
        if (r.dialect() == null) {
          broken.add(new YamlFile.Broken("dialects/" + id + ".yaml", r.trouble()));
        } else {
          good.put(id, r.dialect());
        }
      }
    } catch (IOException e) {
      broken.add(new YamlFile.Broken("dialects", "The folder cannot be read: " + e.getMessage()));
    }
  }

  private Read read(Path file, String id) throws IOException {
    FileTime changed = Files.getLastModifiedTime(file);
    long bytes = Files.size(file);
    Read before = read.get(file);
    if (before != null && before.changed().equals(changed) && before.bytes() == bytes) {
      return before;
    }
    Read now;
    try {
      now = new Read(changed, bytes, parse(id, Files.readString(file)), "");
    } catch (Refusal r) {
      now = new Read(changed, bytes, null, r.getMessage());
    } catch (IOException e) {
      now = new Read(changed, bytes, null, id + ".yaml cannot be read as text (UTF-8).");
    }
    read.put(file, now);
    return now;
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
    YamlFile file = YamlFile.read(id + ".yaml", "dialect", yaml);
    Map<String, Double> facts = new LinkedHashMap<>();
    file.section("facts")
        .forEach((k, v) -> facts.put(String.valueOf(k), file.number(String.valueOf(k), v)));
    Map<String, String> commands = new LinkedHashMap<>();
    file.section("commands").forEach((k, v) -> commands.put(String.valueOf(k), String.valueOf(v)));
    Map<String, Dialect.Query> queries = new LinkedHashMap<>();
    file.section("queries")
        .forEach((k, v) -> queries.put(String.valueOf(k), query(file, String.valueOf(k), v)));
    return new Dialect(
        id,
        String.valueOf(file.root().get("label")),
        kind(file),
        identity(file),
        facts,
        commands,
        queries);
  }

  private static InstrumentKind kind(YamlFile file) {
    try {
      return InstrumentKind.parse(String.valueOf(file.root().get("kind")));
    } catch (Refusal r) {
      throw file.wrong("kind", r.getMessage().replaceFirst("\\.$", ""));
    }
  }

  private static String identity(YamlFile file) {
    Object value = file.root().get("identity");
    String regex = value == null ? "" : String.valueOf(value);
    try {
      Pattern.compile(regex);
    } catch (PatternSyntaxException e) {
      throw file.wrong("identity", "\"identity\" is no regular expression: " + e.getDescription());
    }
    return regex;
  }

  private static Dialect.Query query(YamlFile file, String name, Object value) {
    if (value instanceof Map<?, ?> map && map.get("ask") != null && map.get("as") != null) {
      return new Dialect.Query(String.valueOf(map.get("ask")), String.valueOf(map.get("as")));
    }
    throw file.wrong(name, "the query \"" + name + "\" needs \"ask\" and \"as\"");
  }
}
