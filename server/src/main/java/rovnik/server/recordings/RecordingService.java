package rovnik.server.recordings;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.time.Instant;
import java.time.format.DateTimeParseException;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.LongConsumer;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import rovnik.core.Refusal;
import rovnik.core.emission.EmissionMeasurement;
import rovnik.core.emission.EmissionResult;
import rovnik.core.emission.RecordLooks;
import rovnik.core.emission.ViewPlan;
import rovnik.core.formats.SampleFormat;
import rovnik.core.formats.SigMf;
import rovnik.core.formats.WavFile;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.RecordSpectrum;
import rovnik.core.spectrum.SpectrumEstimator;
import rovnik.core.spectrum.SpectrumLayout;
import rovnik.core.spectrum.SpectrumMeasurement;
import rovnik.core.spectrum.SpectrumResult;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.spectrum.TraceStack;
import rovnik.core.uncertainty.InstrumentAccuracy;
import rovnik.server.config.Conflict;
import rovnik.server.config.DataFolder;
import rovnik.server.config.ServerSettings;
import rovnik.server.config.Space;
import rovnik.server.recordings.AcquisitionMapper.AcquisitionRow;
import rovnik.server.results.Nulls;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/**
 * Acquisitions on disk: recordings that the user opened and the samples of kept runs. The samples
 * lie in files of their own; a row is written only after its file is whole and synced.
 */
@Service
public class RecordingService {
  /** Blocks looked at for clipping and bad samples when a file is opened. */
  private static final int CHECK_BLOCK = 1 << 16;

  /** A weighted trace of a recording has seen enough after so long. */
  private static final double LONGEST_WATCH_SECONDS = 15;

  /** Samples from which phases are read, at most. */
  private static final int MOST_HEAD = 1 << 21;

  /** Samples of one record, at most. */
  private static final int MOST_RECORD = 1 << 24;

  /** So many show whether an oscillator's phase walks. */
  private static final int SHORT_HEAD = 1 << 17;

  private final AcquisitionMapper mapper;
  private final JsonMapper json;
  private final DataFolder folder;
  private final List<LongConsumer> removals = new CopyOnWriteArrayList<>();

  RecordingService(
      AcquisitionMapper mapper, JsonMapper json, ServerSettings settings, Space space) {
    this.mapper = mapper;
    this.json = json;
    this.folder =
        new DataFolder(
            settings.data(),
            "acquisitions",
            mapper.fileNames().stream().flatMap(name -> Stream.of(name, metaName(name))).toList(),
            space);
  }

  /** The metadata lie beside the samples, so that these can be read again without the database. */
  private static String metaName(String dataName) {
    return dataName.replaceFirst("-data$", "-meta");
  }

  public List<RecordingDto> opened() {
    return mapper.ofOrigin("file").stream().map(RecordingService::dto).toList();
  }

  public RecordingDto find(long id) {
    return dto(row(id));
  }

  private AcquisitionRow row(long id) {
    AcquisitionRow row = mapper.find(id);
    if (row == null) {
      throw Conflict.notFound("recording", id);
    }
    return row;
  }

  private static RecordingDto dto(AcquisitionRow r) {
    return new RecordingDto(
        r.id(),
        r.name(),
        r.datatype(),
        r.sampleRateHz(),
        r.centreHz(),
        r.fullScaleDbm(),
        r.samples(),
        r.samples() / r.sampleRateHz(),
        r.fullScaleDbm() == null ? "dBFS" : "dBm",
        r.overload(),
        r.description(),
        r.recordedAt(),
        r.levelAccuracyDb());
  }

  /** Opens a SigMF pair; a bad file changes nothing. */
  public RecordingDto open(String name, byte[] metaJson, InputStream data) {
    return open(name, "file", metaJson, data);
  }

  /**
   * Opens a SigMF pair.
   *
   * @param origin "file" if it is listed among the recordings, "run" if it belongs to a run
   */
  public RecordingDto open(String name, String origin, byte[] metaJson, InputStream data) {
    Map<?, ?> tree;
    try {
      tree = json.readValue(metaJson, Map.class);
    } catch (JacksonException e) {
      throw new Refusal(
          "meta",
          "The metadata is not JSON (line "
              + (e.getLocation() == null ? "?" : e.getLocation().getLineNr())
              + "). Choose the .sigmf-meta file.");
    }
    SigMf meta = SigMf.fromTree(tree == null ? Map.of() : tree);
    String fileName = UUID.randomUUID() + ".sigmf-data";
    try {
      String sha256 = folder.store(fileName, data);
      Path target = folder.file(fileName);
      checkHash(tree, target);
      long samples = meta.samplesIn(Files.size(target));
      boolean clipped = check(target, meta.format());
      return insert(name, origin, meta, samples, clipped, fileName, sha256);
    } catch (IOException e) {
      folder.drop(fileName);
      throw new Refusal("data", "The data file could not be stored: " + e.getMessage(), e);
    } catch (RuntimeException e) {
      folder.drop(fileName);
      throw e;
    }
  }

  private static void checkHash(Map<?, ?> tree, Path target) throws IOException {
    if (tree.get("global") instanceof Map<?, ?> g
        && g.get("core:sha512") instanceof String wanted) {
      try (InputStream in = Files.newInputStream(target)) {
        MessageDigest digest = DataFolder.digest("SHA-512");
        in.transferTo(
            new java.security.DigestOutputStream(OutputStream.nullOutputStream(), digest));
        if (!HexFormat.of().formatHex(digest.digest()).equalsIgnoreCase(wanted)) {
          throw new Refusal(
              "core:sha512",
              "The data file does not match the checksum in the metadata: it is damaged or belongs"
                  + " to another recording.");
        }
      }
    }
  }

  /** Opens a WAV file: its samples around 0 Hz. */
  public RecordingDto openWav(String name, WavFile wav) {
    return keep(
        name,
        "file",
        new IqRecord(wav.iq(), wav.rateHz(), 0, Double.NaN, false),
        InstrumentAccuracy.UNKNOWN,
        "",
        Instant.now());
  }

  /** Keeps the samples of a live record. */
  public RecordingDto keep(
      String name,
      String origin,
      IqRecord record,
      InstrumentAccuracy accuracy,
      String hardware,
      Instant at) {
    ByteBuffer bytes = ByteBuffer.allocate(4 * record.iq().length).order(ByteOrder.LITTLE_ENDIAN);
    bytes.asFloatBuffer().put(record.iq());
    return keep(
        name,
        origin,
        record,
        record.sampleCount(),
        new java.io.ByteArrayInputStream(bytes.array()),
        accuracy,
        hardware,
        at);
  }

  /**
   * Keeps samples that go on longer than one record.
   *
   * @param like a record of them: all but its samples holds for the rest
   * @param data the samples, interleaved 32-bit floats, lowest byte first
   */
  public RecordingDto keep(
      String name,
      String origin,
      IqRecord like,
      long samples,
      InputStream data,
      InstrumentAccuracy accuracy,
      String hardware,
      Instant at) {
    SigMf meta =
        new SigMf(
            SampleFormat.CF32_LE,
            like.sampleRateHz(),
            like.centreHz(),
            like.fullScaleDbm(),
            name,
            at.toString(),
            hardware,
            accuracy);
    String fileName = UUID.randomUUID() + ".sigmf-data";
    try {
      String sha256 = folder.store(fileName, data);
      return insert(name, origin, meta, samples, like.overload(), fileName, sha256);
    } catch (IOException e) {
      folder.drop(fileName);
      throw new UncheckedIOException(e);
    }
  }

  /**
   * A stretch of a recording as another one, with all that is known of the first.
   *
   * @param seconds at most
   */
  public RecordingDto cut(long id, String name, double fromSeconds, double seconds) {
    AcquisitionRow r = row(id);
    double rate = r.sampleRateHz();
    long first = Math.round(fromSeconds * rate);
    long samples = Math.min(Math.round(seconds * rate), r.samples() - first);
    if (!(fromSeconds >= 0) || samples < 1) {
      throw new Refusal(
          "fromSeconds",
          "The recording is " + r.samples() / rate + " s long; the stretch lies outside of it.");
    }
    SampleFormat format = SampleFormat.parse(r.datatype());
    SigMf meta =
        new SigMf(
            format,
            rate,
            r.centreHz(),
            r.fullScaleDbm() == null ? Double.NaN : r.fullScaleDbm(),
            name,
            later(r.recordedAt(), first / rate),
            r.hardware(),
            accuracy(r));
    String fileName = UUID.randomUUID() + ".sigmf-data";
    try (InputStream in = Files.newInputStream(folder.file(r.fileName()))) {
      in.skipNBytes(first * format.bytesPerSample());
      String sha256 = folder.store(fileName, new Bounded(in, samples * format.bytesPerSample()));
      return insert(name, "file", meta, samples, r.overload(), fileName, sha256);
    } catch (IOException e) {
      folder.drop(fileName);
      throw new UncheckedIOException(e);
    }
  }

  /** So many seconds after an instant, if that is one. */
  private static String later(@Nullable String instant, double seconds) {
    try {
      return Instant.parse(instant == null ? "" : instant)
          .plusNanos(Math.round(seconds * 1e9))
          .toString();
    } catch (DateTimeParseException unknown) {
      return "";
    }
  }

  /** The first bytes of another stream. */
  private static final class Bounded extends FilterInputStream {
    private long left;

    Bounded(InputStream in, long bytes) {
      super(in);
      left = bytes;
    }

    @Override
    public int read() throws IOException {
      return left-- > 0 ? super.read() : -1;
    }

    @Override
    public int read(byte[] into, int from, int length) throws IOException {
      if (left <= 0) {
        return -1;
      }
      int got = super.read(into, from, (int) Math.min(length, left));
      left -= Math.max(0, got);
      return got;
    }
  }

  private RecordingDto insert(
      String name,
      String origin,
      SigMf meta,
      long samples,
      boolean overload,
      String fileName,
      String sha256) {
    AcquisitionMapper.NewAcquisition added =
        new AcquisitionMapper.NewAcquisition(
            new AcquisitionRow(
                0,
                cut(name, 300),
                origin,
                meta.format().datatype(),
                meta.sampleRateHz(),
                meta.centreHz(),
                Double.isNaN(meta.fullScaleDbm()) ? null : meta.fullScaleDbm(),
                samples,
                overload,
                cut(meta.description(), 4000),
                cut(meta.recordedAt(), 40),
                cut(meta.hardware(), 400),
                fileName,
                sha256,
                Nulls.orNull(meta.accuracy().levelDb()),
                Nulls.orNull(meta.accuracy().frequencyRelative()),
                Nulls.orNull(meta.accuracy().linearityDb()),
                Nulls.orNull(meta.accuracy().errorFloorDb())));
    mapper.insert(added);
    try {
      folder.store(metaName(fileName), new java.io.ByteArrayInputStream(metaJson(added.id)));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    folder.claim(fileName);
    folder.claim(metaName(fileName));
    return find(added.id);
  }

  private void deleteFiles(AcquisitionRow r) {
    folder.delete(r.fileName());
    folder.delete(metaName(r.fileName()));
  }

  private static String cut(String text, int most) {
    String t = text == null ? "" : text;
    return t.length() <= most ? t : t.substring(0, most);
  }

  /** Refuses samples that are not numbers; true if the samples clip. */
  private static boolean check(Path file, SampleFormat format) {
    float[] iq = new float[2 * CHECK_BLOCK];
    long position = 0;
    boolean clipped = false;
    boolean integer = !format.datatype().contains("f");
    try (SampleFile samples = new SampleFile(file, format)) {
      int got;
      while ((got = samples.read(iq, CHECK_BLOCK)) > 0) {
        for (int i = 0; i < 2 * got; i++) {
          if (!Float.isFinite(iq[i])) {
            throw new Refusal(
                "data",
                "Sample "
                    + (position + i / 2)
                    + " is not a finite number. Cut the recording before it, or check that the"
                    + " sample type is right.");
          }
        }
        clipped |= integer && SampleFormat.clipped(iq, got);
        position += got;
      }
    }
    return clipped;
  }

  /** Spectrum and readings of a recording. */
  public SpectrumResult spectrum(long id, SpectrumSettings settings, MeasurementContext context) {
    return emission(id, settings, ViewPlan.PLAIN, context).result().base();
  }

  /**
   * A recording with all that a view asks for; the rows' powers are relative to full scale.
   *
   * @param unsettled what must be said of weighted rows, "" for nothing
   */
  public record Analysis(EmissionResult result, TraceStack rows, String unsettled) {}

  /** Spectrum of a recording with all that a view asks for. */
  public Analysis emission(
      long id, SpectrumSettings settings, ViewPlan view, MeasurementContext context) {
    AcquisitionRow row = row(id);
    double fullScale = row.fullScaleDbm() == null ? Double.NaN : row.fullScaleDbm();
    boolean atPlane = context.correction() != null && row.fullScaleDbm() != null;
    SpectrumSettings atPort =
        atPlane
            ? settings.withCentre(context.correction().planeToPortHz(settings.centreHz()))
            : settings;
    SpectrumLayout layout =
        RecordSpectrum.plan(row.samples(), row.sampleRateHz(), row.centreHz(), atPort);
    RecordLooks looks = new RecordLooks(view.traces(), layout, atPort, row.centreHz(), List.of());
    SpectrumEstimator estimator = estimate(row, layout, settings, view, looks);
    double[] power = new double[layout.points()];
    estimator.powerInto(power);
    SpectrumResult base =
        SpectrumMeasurement.of(
            power,
            layout,
            estimator.outside(),
            row.centreHz(),
            fullScale,
            estimator.segments(),
            settings,
            context);
    IqRecord record = head(row, fullScale, view.wantsRecord() ? MOST_HEAD : SHORT_HEAD);
    return new Analysis(
        EmissionMeasurement.of(base, settings, view, context, layout, record),
        looks.stack(),
        looks.unsettled());
  }

  /** All recordings that came about in one way, newest first. */
  public List<RecordingDto> allOfOrigin(String origin) {
    return mapper.ofOrigin(origin).stream().map(RecordingService::dto).toList();
  }

  /** A recording that came about in one way, or a {@link Conflict} if it did not. */
  public RecordingDto ofOrigin(long id, String origin) {
    AcquisitionRow row = mapper.find(id);
    if (row == null || !row.origin().equals(origin)) {
      throw Conflict.notFound(origin, id);
    }
    return dto(row);
  }

  /** The samples at the beginning of a recording, at most so many, as one record. */
  public IqRecord record(long id, long most) {
    return record(id, 0, most);
  }

  /**
   * A stretch of a recording as one record.
   *
   * @param first sample of it; where the recording has ended by then, the record is empty
   * @param most samples
   */
  public IqRecord record(long id, long first, long most) {
    AcquisitionRow row = row(id);
    long samples = Math.max(0, Math.min(most, row.samples() - first));
    if (samples > MOST_RECORD) {
      throw new Refusal(
          "seconds",
          "At most " + MOST_RECORD + " samples are measured at once. Take a shorter result.");
    }
    double fullScale = row.fullScaleDbm() == null ? Double.NaN : row.fullScaleDbm();
    return stretch(row, fullScale, first, (int) samples);
  }

  private IqRecord head(AcquisitionRow row, double fullScale, int most) {
    return stretch(row, fullScale, 0, (int) Math.min(most, row.samples()));
  }

  private IqRecord stretch(AcquisitionRow row, double fullScale, long first, int samples) {
    float[] iq = new float[2 * samples];
    try (SampleFile file =
        new SampleFile(folder.file(row.fileName()), SampleFormat.parse(row.datatype()), first)) {
      file.read(iq, samples);
    }
    double start = first / row.sampleRateHz();
    return new IqRecord(iq, row.sampleRateHz(), row.centreHz(), fullScale, false, start);
  }

  /** On all cores, unless further traces must see the samples in their order. */
  private SpectrumEstimator estimate(
      AcquisitionRow row,
      SpectrumLayout layout,
      SpectrumSettings settings,
      ViewPlan view,
      RecordLooks looks) {
    Path file = folder.file(row.fileName());
    SampleFormat format = SampleFormat.parse(row.datatype());
    if (view.traces().isEmpty()) {
      return RecordSpectrum.estimate(
          first -> new SampleFile(file, format, first),
          row.samples(),
          layout,
          settings,
          Runtime.getRuntime().availableProcessors());
    }
    try (SampleFile samples = new SampleFile(file, format)) {
      SpectrumEstimator estimator = RecordSpectrum.estimate(samples, layout, settings, looks);
      if (looks.watches()) {
        watch(samples, looks, row.sampleRateHz());
      }
      return estimator;
    }
  }

  /** A meter watches beyond the averages, as far as the recording goes or it has long settled. */
  private static void watch(SampleFile samples, RecordLooks looks, double sampleRateHz) {
    float[] block = new float[2 * CHECK_BLOCK];
    long left = (long) (LONGEST_WATCH_SECONDS * sampleRateHz);
    int got;
    while (left > 0 && (got = samples.read(block, (int) Math.min(left, CHECK_BLOCK))) > 0) {
      looks.watch(block, got);
      left -= got;
    }
    looks.watched();
  }

  /** Gives a recording a calibration, or takes it away with null. */
  public RecordingDto calibrate(
      long id, @Nullable Double fullScaleDbm, @Nullable Double levelAccuracyDb) {
    row(id);
    if (levelAccuracyDb != null && !(levelAccuracyDb >= 0 && levelAccuracyDb <= 100)) {
      throw new Refusal(
          "levelAccuracyDb", "How far off the full-scale level may be, in dB: 0 to 100.");
    }
    if (fullScaleDbm != null && !(Math.abs(fullScaleDbm) < 300)) {
      throw new Refusal(
          "fullScaleDbm", "The full-scale level must be a number of dBm, such as -12.5.");
    }
    mapper.calibrate(id, fullScaleDbm, fullScaleDbm == null ? null : levelAccuracyDb);
    try {
      folder.write(metaName(row(id).fileName()), metaJson(id));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return find(id);
  }

  /** What is known of how far off its levels and frequencies may be. */
  public InstrumentAccuracy accuracy(long id) {
    return accuracy(row(id));
  }

  private static InstrumentAccuracy accuracy(AcquisitionRow r) {
    double level = Nulls.orNan(r.levelAccuracyDb());
    double frequency = Nulls.orNan(r.frequencyAccuracy());
    InstrumentAccuracy known =
        r.linearityDb() == null
            ? new InstrumentAccuracy(level, frequency)
            : new InstrumentAccuracy(level, frequency, r.linearityDb());
    return known.withErrorFloor(Nulls.orNan(r.errorFloorDb()));
  }

  /** Metadata of the recording as SigMF JSON. */
  public byte[] metaJson(long id) {
    AcquisitionRow r = row(id);
    SigMf meta =
        new SigMf(
            SampleFormat.parse(r.datatype()),
            r.sampleRateHz(),
            r.centreHz(),
            r.fullScaleDbm() == null ? Double.NaN : r.fullScaleDbm(),
            r.description(),
            r.recordedAt(),
            r.hardware(),
            accuracy(r));
    return json.writerWithDefaultPrettyPrinter().writeValueAsBytes(meta.toTree());
  }

  public Path dataFile(long id) {
    return folder.file(row(id).fileName());
  }

  /** Removes the samples that were kept with a run which is no more. */
  public void removeKept(long id) {
    AcquisitionRow r = row(id);
    if (r.origin().equals("run")) {
      mapper.delete(id);
      deleteFiles(r);
    }
  }

  /** Removes an opened recording that no run stands on. */
  public void remove(long id) {
    AcquisitionRow r = row(id);
    if (mapper.runsOf(id) > 0) {
      throw Conflict.state("Runs were kept from this recording; it stays with them.");
    }
    mapper.delete(id);
    deleteFiles(r);
    removals.forEach(l -> l.accept(id));
  }

  /** Calls back with the id of each opened recording that was removed. */
  public void onRemove(LongConsumer listener) {
    removals.add(listener);
  }
}
