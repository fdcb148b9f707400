package rovnik.server.runs;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.time.OffsetDateTime;
import java.time.format.DateTimeParseException;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import rovnik.core.Refusal;
import rovnik.core.result.Outcome;
import rovnik.server.config.Refusals;
import rovnik.server.networks.NetworkService;
import rovnik.server.recordings.RecordingService;
import rovnik.server.results.OutcomeDto;
import rovnik.server.results.SeriesDto;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Runs as files between two Rovniks: a zip of run.json (all but the attachments), a SigMF pair if
 * there are samples, a Touchstone file if there is a network.
 */
@Service
class RunFiles {
  private static final String FORMAT = "rovnik-run";
  private static final int VERSION = 1;
  private static final String RUN = "run.json";
  private static final String META = "samples.sigmf-meta";
  private static final String DATA = "samples.sigmf-data";
  private static final String NETWORK = "network";
  private static final long MOST_BYTES = 1L << 30;

  /** What run.json holds. */
  record Content(String format, int version, RunDtos.Detail run) {}

  private final RunService runs;
  private final RecordingService recordings;
  private final NetworkService networks;
  private final JsonMapper json;
  private final TransactionTemplate transaction;

  RunFiles(
      RunService runs,
      RecordingService recordings,
      NetworkService networks,
      JsonMapper json,
      TransactionTemplate transaction) {
    this.runs = runs;
    this.recordings = recordings;
    this.networks = networks;
    this.json = json;
    this.transaction = transaction;
  }

  byte[] write(long id) throws IOException {
    RunDtos.Detail run = runs.detail(id);
    ByteArrayOutputStream bytes = new ByteArrayOutputStream(1 << 20);
    try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
      entry(zip, RUN, json.writeValueAsBytes(new Content(FORMAT, VERSION, run)));
      Long samples = run.summary().attachments().recordingId();
      if (samples != null) {
        entry(zip, META, recordings.metaJson(samples));
        zip.putNextEntry(new ZipEntry(DATA));
        Files.copy(recordings.dataFile(samples), zip);
        zip.closeEntry();
      }
      Long network = run.summary().attachments().networkId();
      if (network != null) {
        entry(
            zip,
            NETWORK + ".s" + networks.find(network).ports() + "p",
            Files.readAllBytes(networks.file(network)));
      }
    }
    return bytes.toByteArray();
  }

  private static void entry(ZipOutputStream zip, String name, byte[] content) throws IOException {
    zip.putNextEntry(new ZipEntry(name));
    zip.write(content);
    zip.closeEntry();
  }

  RunDtos.Summary read(long job, InputStream in) throws IOException {
    Map<String, byte[]> files = unzipped(in);
    RunDtos.Detail run = run(files.get(RUN));
    Outcome outcome = outcome(run);
    OffsetDateTime keptAt;
    try {
      keptAt = OffsetDateTime.parse(run.summary().keptAt());
    } catch (DateTimeParseException e) {
      throw new Refusal("keptAt", "run.json does not say when the run was kept.");
    }
    String name = Refusals.named(run.summary().name(), "name", "run");
    Long id =
        transaction.execute(
            status ->
                runs.insert(
                    job,
                    name,
                    keptAt,
                    run.summary().keptBy(),
                    new RunDtos.Attachments(samples(name, files), network(name, files)),
                    new RunMapper.RunRow(
                        run.version(),
                        json.writeValueAsString(run.settings()),
                        run.work() == null ? null : json.writeValueAsString(run.work()),
                        json.writeValueAsString(run.words()),
                        json.writeValueAsString(run.path()),
                        json.writeValueAsString(run.limits()),
                        json.writeValueAsString(run.conditions()),
                        run.sourceName(),
                        run.identity(),
                        run.overrideReason(),
                        json.writeValueAsString(OutcomeDto.head(outcome))),
                    outcome));
    return runs.describe(id, null, run.summary().note());
  }

  private static Map<String, byte[]> unzipped(InputStream in) throws IOException {
    Map<String, byte[]> files = new LinkedHashMap<>();
    long bytes = 0;
    try (ZipInputStream zip = new ZipInputStream(in)) {
      ZipEntry entry;
      while ((entry = zip.getNextEntry()) != null) {
        byte[] content = zip.readNBytes((int) Math.min(Integer.MAX_VALUE - 8, MOST_BYTES - bytes));
        bytes += content.length;
        if (bytes >= MOST_BYTES) {
          throw new Refusal("file", "The file unpacks to more than 1 GB; it is no run.");
        }
        files.put(entry.getName(), content);
      }
    } catch (ZipException e) {
      throw new Refusal("file", "The file is damaged: " + e.getMessage() + ".");
    }
    if (!files.containsKey(RUN)) {
      throw new Refusal("file", "This is not the file of a run: there is no run.json in it.");
    }
    return files;
  }

  private RunDtos.Detail run(byte[] text) {
    try {
      JsonNode tree = json.readTree(text);
      if (!FORMAT.equals(tree.path("format").asString(""))
          || tree.path("version").asInt() != VERSION) {
        throw new Refusal(
            "format",
            "The file says it is \""
                + tree.path("format").asString("")
                + "\" "
                + tree.path("version")
                + "; this Rovnik reads \""
                + FORMAT
                + "\" "
                + VERSION
                + ".");
      }
      return json.treeToValue(tree.get("run"), RunDtos.Detail.class);
    } catch (JacksonException e) {
      throw rovnik.server.config.Json.refusal(e);
    }
  }

  private static Outcome outcome(RunDtos.Detail run) {
    try {
      return run.outcome().toCore(SeriesDto.arraysOf(run.outcome().series()));
    } catch (IllegalStateException | NullPointerException e) {
      throw new Refusal("outcome", "run.json lacks a part of the outcome.", e);
    }
  }

  private @Nullable Long samples(String name, Map<String, byte[]> files) {
    byte[] meta = files.get(META);
    byte[] data = files.get(DATA);
    return meta == null || data == null
        ? null
        : Long.valueOf(recordings.open(name, "run", meta, new ByteArrayInputStream(data)).id());
  }

  private @Nullable Long network(String name, Map<String, byte[]> files) {
    return files.entrySet().stream()
        .filter(e -> e.getKey().matches(NETWORK + "\\.s\\d{1,2}p"))
        .findFirst()
        .map(
            e ->
                networks
                    .open(
                        name + e.getKey().substring(NETWORK.length()),
                        new ByteArrayInputStream(e.getValue()))
                    .id())
        .orElse(null);
  }
}
