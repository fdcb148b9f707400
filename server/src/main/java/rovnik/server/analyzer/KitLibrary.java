package rovnik.server.analyzer;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.yaml.snakeyaml.LoaderOptions;
import org.yaml.snakeyaml.Yaml;
import org.yaml.snakeyaml.constructor.SafeConstructor;
import org.yaml.snakeyaml.error.YAMLException;
import rovnik.core.Refusal;
import rovnik.core.network.CalibrationKit;
import rovnik.core.network.CalibrationStandard;
import rovnik.core.network.CalibrationStandard.Kind;
import rovnik.core.network.KnownReflection;
import rovnik.server.config.DataFolder;
import rovnik.server.config.ServerSettings;

/** Calibration kits: the ideal one, the one that ships, and the user's files in kits/. */
@Component
class KitLibrary {
  private static final String SHIPPED = "bench-box";
  private final Path folder;

  KitLibrary(ServerSettings settings) {
    folder = settings.data().resolve("kits");
  }

  List<CalibrationKit> all() {
    List<CalibrationKit> kits = new ArrayList<>();
    kits.add(CalibrationKit.ideal());
    kits.add(shipped());
    if (Files.isDirectory(folder)) {
      try (Stream<Path> files = Files.list(folder)) {
        files.filter(f -> f.toString().endsWith(".yaml")).sorted().forEach(f -> kits.add(read(f)));
      } catch (IOException e) {
        throw new UncheckedIOException(e);
      }
    }
    return kits;
  }

  private static CalibrationKit read(Path f) {
    try {
      return parse(f.getFileName().toString().replace(".yaml", ""), Files.readString(f));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static CalibrationKit shipped() {
    try (InputStream in = KitLibrary.class.getResourceAsStream("/kits/" + SHIPPED + ".yaml")) {
      return parse(SHIPPED, new String(in.readAllBytes(), StandardCharsets.UTF_8));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  CalibrationKit find(String id) {
    return all().stream()
        .filter(k -> k.id().equals(id))
        .findFirst()
        .orElseThrow(
            () ->
                new Refusal(
                    "kit",
                    "There is no kit \""
                        + id
                        + "\"; known are "
                        + all().stream().map(CalibrationKit::id).toList()
                        + "."));
  }

  /** Stores a kit of the user's; a bad file changes nothing. */
  CalibrationKit add(String id, String yaml) {
    if (id == null || !id.matches("[A-Za-z0-9_-]{1,60}")) {
      throw new Refusal("id", "Name the kit with letters, digits, - and _ only.");
    }
    CalibrationKit kit = parse(id, yaml);
    try {
      Files.createDirectories(folder);
      DataFolder.replace(folder.resolve(id + ".yaml"), yaml.getBytes(StandardCharsets.UTF_8));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return kit;
  }

  static CalibrationKit parse(String id, String yaml) {
    Object root;
    try {
      root = new Yaml(new SafeConstructor(new LoaderOptions())).load(yaml);
    } catch (YAMLException e) {
      throw new Refusal("kit", "The kit \"" + id + "\" is no YAML: " + e.getMessage());
    }
    if (!(root instanceof Map<?, ?> map)) {
      throw new Refusal("kit", "The kit \"" + id + "\" must begin with \"label:\".");
    }
    Map<Kind, KnownReflection> standards = new EnumMap<>(Kind.class);
    for (Kind k : Kind.values()) {
      Object entry = map.get(k.name().toLowerCase(Locale.ROOT));
      if (entry instanceof Map<?, ?> m) {
        standards.put(k, standard(id, k, m));
      }
    }
    Object through = map.get("through");
    Map<?, ?> line = through instanceof Map<?, ?> m ? m : Map.of();
    return new CalibrationKit(
        id,
        String.valueOf(map.get("label") == null ? id : map.get("label")),
        standards,
        number(id, line, "delaySeconds", 0),
        number(id, line, "lossOhmPerSecond", 0));
  }

  private static CalibrationStandard standard(String id, Kind kind, Map<?, ?> m) {
    String list = kind == Kind.OPEN ? "farad" : "henry";
    double[] coefficients = new double[0];
    if (m.get(list) instanceof List<?> values) {
      coefficients = values.stream().mapToDouble(v -> toNumber(id, list, v)).toArray();
    }
    return new CalibrationStandard(
        kind,
        number(id, m, "delaySeconds", 0),
        number(id, m, "lossOhmPerSecond", 0),
        number(id, m, "lineOhm", 50),
        coefficients,
        number(id, m, "ohm", 50));
  }

  private static double number(String id, Map<?, ?> m, String key, double otherwise) {
    return m.get(key) == null ? otherwise : toNumber(id, key, m.get(key));
  }

  private static double toNumber(String id, String key, Object value) {
    try {
      return Double.parseDouble(String.valueOf(value));
    } catch (NumberFormatException e) {
      throw new Refusal("kit", "In kit \"" + id + "\" " + key + " is no number: " + value + ".");
    }
  }
}
