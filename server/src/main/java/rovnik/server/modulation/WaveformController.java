package rovnik.server.modulation;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.FileSystemResource;
import org.springframework.core.io.Resource;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import rovnik.core.Refusal;
import rovnik.core.modulation.Modulator;
import rovnik.core.modulation.SingleCarrier;
import rovnik.core.modulation.Waveform;
import rovnik.core.signal.IqRecord;
import rovnik.core.uncertainty.InstrumentAccuracy;
import rovnik.server.recordings.RecordingDto;
import rovnik.server.recordings.RecordingService;

/**
 * Waveforms from descriptions. A waveform is stored as a recording with its own origin, so that
 * whatever measures recordings measures it as well.
 */
@RestController
@RequestMapping("/api/waveforms")
class WaveformController {
  static final String ORIGIN = "waveform";
  private static final int USUAL_SYMBOLS = 10_000;
  private static final double USUAL_SAMPLES_PER_SYMBOL = 4;
  private static final long SEED = 20_261_128;

  private final RecordingService recordings;

  WaveformController(RecordingService recordings) {
    this.recordings = recordings;
  }

  /**
   * What to make.
   *
   * @param kind "single-carrier"; null for that
   * @param carrier what it is
   * @param sampleRateHz null for four samples a symbol
   * @param symbols at least; as many more as it takes to repeat without a seam
   * @param centreHz where it is meant to be sent, null for 0
   * @param ebN0Db energy of a bit over the density of white noise that is added, null for none
   * @param name null for its description
   */
  @Schema(name = "WaveformRequest")
  record Request(
      @Nullable String kind,
      CarrierDto carrier,
      @Nullable Double sampleRateHz,
      @Nullable Integer symbols,
      @Nullable Double centreHz,
      @Nullable Double ebN0Db,
      @Nullable String name) {}

  /**
   * A waveform that was made. Its samples are scaled so that the highest is 1.
   *
   * @param id of the waveform; its samples can be measured as those of the recording with this id
   * @param crestDb highest over mean power
   * @param meanDbfs mean power of the scaled samples
   * @param seamless true if its end goes on with its beginning
   * @param note what must be said of it, "" for nothing
   */
  @Schema(name = "Waveform")
  record Made(
      long id,
      String name,
      double sampleRateHz,
      long samples,
      double seconds,
      double crestDb,
      double meanDbfs,
      boolean seamless,
      String note) {}

  @PostMapping
  @ResponseStatus(HttpStatus.CREATED)
  Made make(@RequestBody Request r) {
    if (r.kind() != null && !r.kind().equals("single-carrier")) {
      throw new Refusal("kind", "Waveforms are made of the kind \"single-carrier\".");
    }
    if (r.carrier() == null) {
      throw new Refusal("carrier", "Describe the carrier: format, symbolRateHz, filter.");
    }
    SingleCarrier c = r.carrier().toCore();
    double rate =
        r.sampleRateHz() == null ? USUAL_SAMPLES_PER_SYMBOL * c.symbolRateHz() : r.sampleRateHz();
    if (!(rate > 0 && rate <= 100e9)) {
      throw new Refusal("sampleRateHz", "The sample rate is more than 0 and at most 100 GHz.");
    }
    Waveform w = new Modulator(c, rate).make(r.symbols() == null ? USUAL_SYMBOLS : r.symbols());
    if (r.ebN0Db() != null) {
      double esN0 = r.ebN0Db() + 10 * Math.log10(c.constellation().bitsPerSymbol());
      w = w.withNoise(esN0, c.symbolRateHz(), SEED);
    }
    double crest = w.crestDb();
    float scale = (float) Math.pow(10, -crest / 20);
    float[] iq = w.iq();
    double power = 0;
    for (int i = 0; i < iq.length; i++) {
      iq[i] *= scale;
      power += (double) iq[i] * iq[i];
    }
    RecordingDto kept =
        recordings.keep(
            r.name() == null || r.name().isBlank() ? c.words() : r.name(),
            ORIGIN,
            new IqRecord(iq, rate, r.centreHz() == null ? 0 : r.centreHz(), Double.NaN, false),
            InstrumentAccuracy.UNKNOWN,
            "",
            Instant.now());
    return new Made(
        kept.id(),
        kept.name(),
        rate,
        kept.samples(),
        kept.seconds(),
        crest,
        10 * Math.log10(power / w.samples()),
        w.seamless() && r.ebN0Db() == null,
        w.note());
  }

  @GetMapping("/{id}/sigmf-meta")
  ResponseEntity<byte[]> meta(@PathVariable long id) {
    return file(id, ".sigmf-meta", MediaType.APPLICATION_JSON).body(recordings.metaJson(id));
  }

  @GetMapping("/{id}/sigmf-data")
  ResponseEntity<Resource> data(@PathVariable long id) {
    return file(id, ".sigmf-data", MediaType.APPLICATION_OCTET_STREAM)
        .body(new FileSystemResource(recordings.dataFile(id)));
  }

  private ResponseEntity.BodyBuilder file(long id, String ending, MediaType type) {
    String name = recordings.ofOrigin(id, ORIGIN).name().replaceAll("[^\\w .+-]", "_");
    return ResponseEntity.ok()
        .headers(
            h ->
                h.setContentDisposition(
                    ContentDisposition.attachment().filename(name + ending).build()))
        .contentType(type);
  }
}
