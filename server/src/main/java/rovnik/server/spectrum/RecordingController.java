package rovnik.server.spectrum;

import io.swagger.v3.oas.annotations.media.Schema;
import java.io.IOException;
import java.io.InputStream;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.FileSystemResource;
import org.springframework.core.io.Resource;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;
import rovnik.core.Refusal;
import rovnik.core.formats.WavFile;
import rovnik.core.path.PathCorrection;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.core.spectrum.Peak;
import rovnik.core.spectrum.SpectrumResult;
import rovnik.core.spectrum.SpectrumSettings;
import rovnik.core.spectrum.Trace;
import rovnik.core.uncertainty.InstrumentAccuracy;
import rovnik.server.jobs.JobDto;
import rovnik.server.jobs.JobService;
import rovnik.server.recordings.RecordingDto;
import rovnik.server.recordings.RecordingService;
import rovnik.server.results.ReadingDto;

@RestController
@RequestMapping("/api/recordings")
class RecordingController {
  private static final int MOST_META_BYTES = 4 << 20;
  private final RecordingService recordings;
  private final JobService jobs;

  RecordingController(RecordingService recordings, JobService jobs) {
    this.recordings = recordings;
    this.jobs = jobs;
  }

  /** What may be asked; whatever is left out follows from the recording. */
  @Schema(name = "SpectrumRequest")
  record SpectrumRequest(
      @Nullable Double centreHz,
      @Nullable Double spanHz,
      @Nullable Double rbwHz,
      @Nullable String window,
      @Nullable String detector,
      @Nullable Integer averages,
      @Nullable Integer referencePlane,
      @Nullable Long jobId) {}

  /** Frequencies and levels are lists of the same length. */
  @Schema(name = "SpectrumReply")
  record SpectrumReply(
      double[] frequencyHz,
      float[] levelDbm,
      String unit,
      String plane,
      double rbwHz,
      double enbwHz,
      int segments,
      List<Peak> peaks,
      List<ReadingDto> readings) {}

  @Schema(name = "Calibration")
  record Calibration(@Nullable Double fullScaleDbm, @Nullable Double levelAccuracyDb) {}

  @GetMapping
  List<RecordingDto> all() {
    return recordings.opened();
  }

  @GetMapping("/{id}")
  RecordingDto find(@PathVariable long id) {
    return recordings.find(id);
  }

  @PostMapping(consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
  @ResponseStatus(HttpStatus.CREATED)
  RecordingDto open(
      @RequestParam(name = "meta", required = false) MultipartFile meta,
      @RequestParam(name = "data", required = false) MultipartFile data)
      throws IOException {
    if (data != null && wav(data)) {
      try (InputStream in = data.getInputStream()) {
        return recordings.openWav(name(data), WavFile.read(in));
      }
    }
    if (meta == null || meta.isEmpty()) {
      throw new Refusal("meta", "Choose the .sigmf-meta file of the recording.");
    }
    if (data == null) {
      throw new Refusal("data", "Choose the .sigmf-data file that belongs to the metadata.");
    }
    if (meta.getSize() > MOST_META_BYTES) {
      throw new Refusal(
          "meta", "The metadata is larger than 4 MB: this is not a .sigmf-meta file.");
    }
    try (InputStream in = data.getInputStream()) {
      return recordings.open(name(data), meta.getBytes(), in);
    }
  }

  private static String name(MultipartFile data) {
    String original = data.getOriginalFilename();
    return original == null || original.isBlank()
        ? "recording"
        : original.replaceFirst(".*[/\\\\]", "").replaceFirst("\\.sigmf-data$", "");
  }

  private static boolean wav(MultipartFile data) {
    return name(data).toLowerCase(Locale.ROOT).endsWith(".wav");
  }

  @PutMapping("/{id}/calibration")
  RecordingDto calibrate(@PathVariable long id, @RequestBody Calibration calibration) {
    return recordings.calibrate(id, calibration.fullScaleDbm(), calibration.levelAccuracyDb());
  }

  @DeleteMapping("/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void remove(@PathVariable long id) {
    recordings.remove(id);
  }

  @PostMapping("/{id}/spectrum")
  SpectrumReply spectrum(@PathVariable long id, @RequestBody(required = false) SpectrumRequest r) {
    RecordingDto recording = recordings.find(id);
    SpectrumRequest q =
        r == null ? new SpectrumRequest(null, null, null, null, null, null, null, null) : r;
    double span = q.spanHz() == null ? recording.sampleRateHz() : q.spanHz();
    SpectrumSettings settings =
        new SpectrumSettings(
            q.centreHz() == null ? recording.centreHz() : q.centreHz(),
            span,
            q.rbwHz() == null ? 0 : q.rbwHz(),
            SettingsDto.parseWindow(q.window() == null ? "hann" : q.window()),
            SettingsDto.parseDetector(q.detector() == null ? "rms" : q.detector()),
            q.averages() == null ? SpectrumSettings.MOST_AVERAGES : q.averages(),
            0,
            span * 0.9);
    SpectrumResult result = recordings.spectrum(id, settings, context(recording, q));
    Trace t = result.trace();
    double[] frequency = new double[t.points()];
    for (int i = 0; i < frequency.length; i++) {
      frequency[i] = t.frequencyHz(i);
    }
    return new SpectrumReply(
        frequency,
        t.level(),
        t.unit(),
        t.plane(),
        t.rbwHz(),
        t.enbwHz(),
        t.segments(),
        result.peaks(),
        result.readings().stream().map(ReadingDto::of).toList());
  }

  private MeasurementContext context(RecordingDto recording, SpectrumRequest q) {
    if (q.jobId() == null) {
      if (q.referencePlane() != null) {
        throw new Refusal("referencePlane", "A plane belongs to a path: name its job with jobId.");
      }
      return MeasurementContext.BARE;
    }
    JobDto job = jobs.find(q.jobId());
    PathCorrection correction =
        new PathCorrection(
            (q.referencePlane() == null
                    ? job.path()
                    : new rovnik.server.jobs.PathDto(
                        job.path().elements(), q.referencePlane(), job.path().revision()))
                .toCore());
    return new MeasurementContext(
        correction,
        InstrumentAccuracy.UNKNOWN,
        job.limits().toCore(),
        recording.overload() ? List.of("clipped") : List.of());
  }

  @GetMapping("/{id}/sigmf-meta")
  ResponseEntity<byte[]> meta(@PathVariable long id) {
    return ResponseEntity.ok()
        .headers(download(recordings.find(id).name() + ".sigmf-meta"))
        .contentType(MediaType.APPLICATION_JSON)
        .body(recordings.metaJson(id));
  }

  @GetMapping("/{id}/sigmf-data")
  ResponseEntity<Resource> data(@PathVariable long id) {
    return ResponseEntity.ok()
        .headers(download(recordings.find(id).name() + ".sigmf-data"))
        .contentType(MediaType.APPLICATION_OCTET_STREAM)
        .body(new FileSystemResource(recordings.dataFile(id)));
  }

  private static HttpHeaders download(String name) {
    HttpHeaders headers = new HttpHeaders();
    headers.setContentDisposition(
        ContentDisposition.attachment().filename(name.replaceAll("[^\\w .+-]", "_")).build());
    return headers;
  }
}
