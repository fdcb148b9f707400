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
import rovnik.core.Refusal;
import rovnik.core.network.CalibrationKit;
import rovnik.core.network.CalibrationStandard;
import rovnik.core.network.CalibrationStandard.Kind;
import rovnik.core.network.KnownReflection;
import rovnik.instruments.dialect.YamlFile;
import rovnik.server.config.DataFolder;
import rovnik.server.config.ServerSettings;
import rovnik.server.config.UserFiles;

/** Calibration kits: the ideal one, the one that ships, and the user's files in kits/. */
@Component
class KitLibrary implements UserFiles {
  private static final String SHIPPED = "bench-box";
  private final Path folder;

  KitLibrary(ServerSettings settings) {
    folder = settings.data().resolve("kits");
  }

  List<CalibrationKit> all() {
    List<CalibrationKit> kits = new ArrayList<>();
    kits.add(CalibrationKit.ideal());
    kits.add(shipped());
    userKits(kits, new ArrayList<>());
    return kits;
  }

  @Override
  public List<YamlFile.Broken> broken() {
    List<YamlFile.Broken> broken = new ArrayList<>();
    userKits(new ArrayList<>(), broken);
    return broken;
  }

  private void userKits(List<CalibrationKit> good, List<YamlFile.Broken> broken) {
    if (!Files.isDirectory(folder)) {
      return;
    }
    try (Stream<Path> files = Files.list(folder)) {
      for (Path f :
          (Iterable<Path>) files.filter(f -> f.toString().endsWith(".yaml")).sorted()::iterator) {
        String name = f.getFileName().toString();
        try {
          good.add(parse(name.replace(".yaml", ""), Files.readString(f)));
        } catch (Refusal r) {
          broken.add(new YamlFile.Broken("kits/" + name, r.getMessage()));
        } catch (IOException e) {
          broken.add(
              new YamlFile.Broken("kits/" + name, name + " cannot be read as text (UTF-8)."));
        }
      }
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
    YamlFile file = YamlFile.read(id + ".yaml", "kit", yaml);
    Map<?, ?> map = file.root();
    Map<Kind, KnownReflection> standards = new EnumMap<>(Kind.class);
    for (Kind k : Kind.values()) {
      String name = k.name().toLowerCase(Locale.ROOT);
      if (map.get(name) != null) {
        standards.put(k, standard(file, k, file.section(name)));
      }
    }
    Map<?, ?> line = file.section("through");
    return new CalibrationKit(
        id,
        String.valueOf(map.get("label") == null ? id : map.get("label")),
        standards,
        number(file, line, "delaySeconds", 0),
        number(file, line, "lossOhmPerSecond", 0));
  }

  private static CalibrationStandard standard(YamlFile file, Kind kind, Map<?, ?> m) {
    String list = kind == Kind.OPEN ? "farad" : "henry";
    double[] coefficients = new double[0];
    if (m.get(list) instanceof List<?> values) {
      coefficients = values.stream().mapToDouble(v -> file.number(list, v)).toArray();
    }
    return new CalibrationStandard(
        kind,
        number(file, m, "delaySeconds", 0),
        number(file, m, "lossOhmPerSecond", 0),
        number(file, m, "lineOhm", 50),
        coefficients,
        number(file, m, "ohm", 50));
  }

  private static double number(YamlFile file, Map<?, ?> m, String key, double otherwise) {
    return m.get(key) == null ? otherwise : file.number(key, m.get(key));
  }
}
