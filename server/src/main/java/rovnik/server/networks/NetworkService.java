package rovnik.server.networks;

import java.io.BufferedWriter;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.lang.ref.SoftReference;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Service;
import rovnik.core.Refusal;
import rovnik.core.formats.TouchstoneFile;
import rovnik.core.formats.TouchstoneReader;
import rovnik.core.formats.TouchstoneWriter;
import rovnik.core.network.NetworkData;
import rovnik.core.network.NoiseParameters;
import rovnik.core.path.Gain;
import rovnik.server.config.Conflict;
import rovnik.server.config.DataFolder;
import rovnik.server.config.ServerSettings;
import rovnik.server.config.Space;
import rovnik.server.networks.NetworkMapper.NetworkRow;

/** Touchstone files that the user opened: the file as it came, and a row that says what it is. */
@Service
public class NetworkService {
  /** A gain table from a file is thinned to this accuracy. */
  private static final double GAIN_TABLE_WITHIN_DB = 0.001;

  /** A file above this is gone through twice, so that its numbers need be held but once. */
  private static final long LARGE_BYTES = 20_000_000;

  private final NetworkMapper mapper;
  private final DataFolder folder;
  private final Map<Long, SoftReference<NetworkData>> read = new ConcurrentHashMap<>();
  private final Map<Long, NoiseParameters> noise = new ConcurrentHashMap<>();

  NetworkService(NetworkMapper mapper, ServerSettings settings, Space space) {
    this.mapper = mapper;
    this.folder =
        new DataFolder(
            settings.data(),
            "networks",
            mapper.all().stream().map(NetworkRow::fileName).toList(),
            space);
  }

  public List<NetworkDto> all() {
    return mapper.all().stream().map(NetworkService::dto).toList();
  }

  public NetworkDto find(long id) {
    return dto(row(id));
  }

  private NetworkRow row(long id) {
    NetworkRow row = mapper.find(id);
    if (row == null) {
      throw Conflict.notFound("network", id);
    }
    return row;
  }

  private static NetworkDto dto(NetworkRow r) {
    return new NetworkDto(
        r.id(),
        r.name(),
        r.ports(),
        r.points(),
        r.startHz(),
        r.stopHz(),
        r.version(),
        r.comments());
  }

  /** Opens a file; a bad one changes nothing. */
  public NetworkDto open(String name, InputStream data) {
    String extension = name.matches("(?i).*\\.s\\d{1,3}p") ? name.replaceFirst(".*\\.", ".") : "";
    String fileName = UUID.randomUUID() + extension;
    try {
      folder.store(fileName, data);
      TouchstoneFile file = read(fileName);
      if (!file.portModes().isEmpty()) {
        throw new Refusal(
            "file",
            "This file holds mixed-mode parameters ([Mixed-Mode Order] "
                + String.join(" ", file.portModes())
                + "), which would be shown as those of single ports. Write single-ended ones.");
      }
      NetworkData n = file.network();
      NetworkMapper.NewNetwork added =
          new NetworkMapper.NewNetwork(
              new NetworkRow(
                  0,
                  name.length() > 300 ? name.substring(0, 300) : name,
                  n.ports(),
                  n.points(),
                  n.frequencyHz()[0],
                  n.frequencyHz()[n.points() - 1],
                  file.version(),
                  String.join("\n", file.comments()),
                  fileName));
      mapper.insert(added);
      folder.claim(fileName);
      remember(added.id, file);
      return find(added.id);
    } catch (IOException e) {
      folder.drop(fileName);
      throw new Refusal("file", "The file could not be stored: " + e.getMessage(), e);
    } catch (RuntimeException | OutOfMemoryError e) {
      folder.drop(fileName);
      throw e;
    }
  }

  /** Keeps a network that was measured as a file of its own. */
  public NetworkDto keep(String name, NetworkData n, String comment) {
    java.io.StringWriter text = new java.io.StringWriter();
    try {
      TouchstoneWriter.writeVersion1(n, comment, text);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return open(
        name.replaceAll("[/\\\\]", " ") + ".s" + n.ports() + "p",
        new java.io.ByteArrayInputStream(
            text.toString().getBytes(java.nio.charset.StandardCharsets.UTF_8)));
  }

  /** Return loss at port 1: at a frequency, or the worst if the file does not reach it; dB. */
  public double returnLossDb(long id, double hertz) {
    NetworkData n = data(id);
    double worst = Double.POSITIVE_INFINITY;
    int near = 0;
    for (int i = 0; i < n.points(); i++) {
      worst = Math.min(worst, -n.magnitudeDb(i, 1, 1));
      near =
          Math.abs(n.frequencyHz()[i] - hertz) < Math.abs(n.frequencyHz()[near] - hertz) ? i : near;
    }
    boolean reaches = hertz >= n.frequencyHz()[0] && hertz <= n.frequencyHz()[n.points() - 1];
    return Math.min(200, Math.max(0, reaches ? -n.magnitudeDb(near, 1, 1) : worst));
  }

  private TouchstoneFile read(String fileName) throws IOException {
    int points = 0;
    if (Files.size(folder.file(fileName)) > LARGE_BYTES) {
      try (InputStream in = Files.newInputStream(folder.file(fileName))) {
        points = TouchstoneReader.points(in, fileName);
      }
    }
    try (InputStream in = Files.newInputStream(folder.file(fileName))) {
      return TouchstoneReader.read(in, fileName, points);
    }
  }

  /** S-parameters of a file. */
  public NetworkData data(long id) {
    NetworkRow row = row(id);
    SoftReference<NetworkData> kept = read.get(id);
    NetworkData n = kept == null ? null : kept.get();
    if (n == null) {
      try {
        TouchstoneFile file = read(row.fileName());
        n = file.network();
        remember(id, file);
      } catch (IOException e) {
        throw new UncheckedIOException(e);
      }
    }
    return n;
  }

  private void remember(long id, TouchstoneFile file) {
    read.put(id, new SoftReference<>(file.network())); // files never change
    if (file.noise() != null) {
      // Version 2.0 has the noise resistance in ohm, version 1 over the reference.
      boolean ohm = file.version().startsWith("2");
      noise.put(id, ohm ? file.noise().over(file.network().referenceOhm()[0]) : file.noise());
    }
  }

  /** Noise parameters of a file, if it has any. */
  public Optional<NoiseParameters> noise(long id) {
    data(id); // reads the file if it was not read yet
    return Optional.ofNullable(noise.get(id));
  }

  /** The file as it came. */
  public Path file(long id) {
    return folder.file(row(id).fileName());
  }

  /** Gain from port 1 to port 2 as a table for a path. */
  public Gain.Table gain(long id) {
    return data(id).gain(1, 2, GAIN_TABLE_WITHIN_DB);
  }

  /** The network as a Touchstone file of version 1 or 2, in a file that the caller removes. */
  Path export(long id, int version) {
    NetworkData n = data(id);
    String comment = find(id).comments();
    try {
      Path out = Files.createTempFile("network", ".touchstone");
      try (BufferedWriter writer = Files.newBufferedWriter(out, StandardOpenOption.WRITE)) {
        if (version == 2) {
          TouchstoneWriter.writeVersion2(n, noise(id).orElse(null), comment, writer);
        } else {
          TouchstoneWriter.writeVersion1(n, noise(id).orElse(null), comment, writer);
        }
      } catch (RuntimeException e) {
        Files.delete(out);
        throw e;
      }
      return out;
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** Removes a file that no path and no run stands on. */
  public void remove(long id) {
    NetworkRow r = row(id);
    if (mapper.usesOf(id) > 0) {
      throw Conflict.state("A path takes its gain from this file. Change that element first.");
    }
    if (mapper.runsOf(id) > 0) {
      throw Conflict.state("Runs were kept with this network; it stays with them.");
    }
    mapper.delete(id);
    read.remove(id);
    noise.remove(id);
    folder.delete(r.fileName());
  }
}
