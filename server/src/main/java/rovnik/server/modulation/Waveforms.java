package rovnik.server.modulation;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Service;
import rovnik.core.Refusal;
import rovnik.core.modulation.Modulator;
import rovnik.core.modulation.SingleCarrier;
import rovnik.core.modulation.Waveform;
import rovnik.core.modulation.wave.OwnSamples;
import rovnik.core.modulation.wave.WaveSum;
import rovnik.core.signal.IqRecord;
import rovnik.core.uncertainty.InstrumentAccuracy;
import rovnik.instruments.source.KnownWaveform;
import rovnik.server.bench.BenchService;
import rovnik.server.config.Conflict;
import rovnik.server.recordings.RecordingDto;
import rovnik.server.recordings.RecordingService;

/**
 * Waveforms from descriptions. A waveform is stored as a recording with its own origin, so that
 * whatever measures recordings measures it as well.
 */
@Service
class Waveforms {
  static final String ORIGIN = "waveform";
  private static final int USUAL_SYMBOLS = 10_000;
  private static final double USUAL_SAMPLES = 10_000;
  private static final double USUAL_OVERSAMPLING = 4;
  private static final double LEAST_RATE_HZ = 1e3;
  private static final long SEED = 20_261_128;

  private final RecordingService recordings;
  private final Map<Long, KnownWaveform> known = new ConcurrentHashMap<>();

  Waveforms(RecordingService recordings, BenchService bench) {
    this.recordings = recordings;
    bench.onAskWaveforms(this::known);
    recordings.onRemove(known::remove);
  }

  /** A waveform with its description in words. */
  record Made(Waveform waveform, String words) {}

  Made make(WaveformRequest r) {
    boolean sum = "sum".equals(r.kind()) || r.kind() == null && r.parts() != null;
    if (!sum && r.kind() != null && !r.kind().equals("single-carrier")) {
      throw new Refusal(
          "kind",
          "Waveforms are of the kind \"single-carrier\" with a carrier, or \"sum\" of parts.");
    }
    Made made = sum ? sum(r) : carrier(r);
    if (r.carrierToNoiseDb() == null) {
      return made;
    }
    Waveform w = made.waveform();
    return new Made(w.withNoise(r.carrierToNoiseDb(), w.sampleRateHz(), SEED), made.words());
  }

  private Made carrier(WaveformRequest r) {
    if (r.carrier() == null) {
      throw new Refusal("carrier", "Describe the carrier: format, symbolRateHz, filter.");
    }
    SingleCarrier c = r.carrier().toCore();
    double rate = rate(r, c.symbolRateHz() * samplesPerSymbol(c) / USUAL_OVERSAMPLING);
    Waveform w = new Modulator(c, rate).make(r.symbols() == null ? USUAL_SYMBOLS : r.symbols());
    if (r.ebN0Db() != null) {
      double esN0 = r.ebN0Db() + 10 * Math.log10(c.constellation().bitsPerSymbol());
      w = w.withNoise(esN0, c.symbolRateHz(), SEED);
    }
    return new Made(w, c.words());
  }

  /** Four, or as many times that as a keyed frequency is wide. */
  private static double samplesPerSymbol(SingleCarrier c) {
    double needs = c.format().keyed() ? 2 * c.halfBandHz() / c.symbolRateHz() : 0;
    double samples = USUAL_OVERSAMPLING;
    while (samples < 2 * needs) {
      samples *= 2;
    }
    return samples;
  }

  private Made sum(WaveformRequest r) {
    if (r.parts() == null) {
      throw new Refusal("parts", "Give the parts of the sum, such as [{\"kind\": \"carrier\"}].");
    }
    if (r.ebN0Db() != null) {
      throw new Refusal(
          "ebN0Db", "Only a single carrier has bits; use carrierToNoiseDb, or a part of noise.");
    }
    List<WaveSum.Placed> placed = new ArrayList<>();
    for (WaveformPartDto p : r.parts()) {
      placed.add(p.toCore(SEED + placed.size(), this::samplesOf));
    }
    WaveSum sum = new WaveSum(placed);
    double rate = rate(r, usualRate(r, sum));
    double seconds = r.seconds() == null ? usualSeconds(r, rate) : r.seconds();
    return new Made(sum.make(rate, seconds), sum.words());
  }

  /** A quarter of the usual rate: that of its own samples, or a round one above what it needs. */
  private double usualRate(WaveformRequest r, WaveSum sum) {
    for (WaveformPartDto p : r.parts()) {
      if (p.recordingId() != null) {
        double own = recordings.find(p.recordingId()).sampleRateHz();
        // Sound comes round without a seam at a multiple of its own rate.
        return "recording".equals(p.kind())
            ? own / USUAL_OVERSAMPLING
            : own * Math.max(1, Math.ceil(sum.leastRateHz() / own / 2));
      }
      if (p.description() != null) {
        return p.description().told().rateHz() / 2;
      }
      if (p.carrier() != null) {
        double perSymbol = Math.ceil(sum.leastRateHz() / p.carrier().symbolRateHz());
        return Math.max(1, perSymbol / 2) * p.carrier().symbolRateHz();
      }
    }
    double wanted = Math.max(LEAST_RATE_HZ, sum.leastRateHz());
    double decade = Math.pow(10, Math.floor(Math.log10(wanted)));
    return 2 * Math.ceil(wanted / decade) * decade;
  }

  /** As long as what was recorded, or so many samples. */
  private double usualSeconds(WaveformRequest r, double rate) {
    for (WaveformPartDto p : r.parts()) {
      if (p.recordingId() != null) {
        RecordingDto own = recordings.find(p.recordingId());
        return Math.min(WaveSum.LONGEST / rate, own.samples() / own.sampleRateHz());
      }
    }
    return USUAL_SAMPLES / rate;
  }

  private OwnSamples samplesOf(long id) {
    RecordingDto r = recordings.find(id);
    return new OwnSamples(recordings.record(id, WaveSum.LONGEST).iq(), r.sampleRateHz(), r.name());
  }

  private static double rate(WaveformRequest r, double quarterHz) {
    double rate = r.sampleRateHz() == null ? USUAL_OVERSAMPLING * quarterHz : r.sampleRateHz();
    if (!(rate > 0 && rate <= 100e9)) {
      throw new Refusal("sampleRateHz", "The sample rate is more than 0 and at most 100 GHz.");
    }
    return rate;
  }

  /** Stores a waveform, its highest sample at full scale. */
  RecordingDto keep(WaveformRequest r, Made made) {
    Waveform w = made.waveform();
    float scale = (float) Math.pow(10, -w.crestDb() / 20);
    float[] iq = w.iq().clone();
    for (int i = 0; i < iq.length; i++) {
      iq[i] *= scale;
    }
    double centre = r.centreHz() == null ? 0 : r.centreHz();
    return recordings.keep(
        r.name() == null || r.name().isBlank() ? made.words() : r.name(),
        ORIGIN,
        new IqRecord(iq, w.sampleRateHz(), centre, Double.NaN, false),
        InstrumentAccuracy.UNKNOWN,
        "",
        Instant.now());
  }

  List<RecordingDto> all() {
    return recordings.allOfOrigin(ORIGIN);
  }

  RecordingDto find(long id) {
    return recordings.ofOrigin(id, ORIGIN);
  }

  void remove(long id) {
    find(id);
    recordings.remove(id);
  }

  /** Its samples, all of them. */
  float[] samples(long id) {
    return recordings.record(id, Long.MAX_VALUE).iq();
  }

  /** What is known of a waveform; empty if there is none. */
  Optional<KnownWaveform> known(long id) {
    KnownWaveform there = known.get(id);
    if (there != null) {
      return Optional.of(there);
    }
    try {
      RecordingDto r = find(id);
      Waveform w = new Waveform(samples(id), r.sampleRateHz(), true, "");
      KnownWaveform found = new KnownWaveform(id, r.name(), r.sampleRateHz(), w.crestDb());
      known.put(id, found);
      return Optional.of(found);
    } catch (Conflict gone) {
      return Optional.empty();
    }
  }
}
