package rovnik.server.modulation;

import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import org.springframework.stereotype.Service;
import rovnik.core.modulation.Digesting;
import rovnik.core.modulation.RecordMeasurement;
import rovnik.core.path.PathCorrection;
import rovnik.core.signal.IqRecord;
import rovnik.core.spectrum.MeasurementContext;
import rovnik.server.jobs.JobDto;
import rovnik.server.live.Cut;
import rovnik.server.recordings.RecordingDto;
import rovnik.server.recordings.RecordingService;

/** Stretches of recordings, ready to be measured. */
@Service
public class RecordedStretches {
  private static final long BEGINNING = 1 << 17;
  private static final long BESIDE = 1 << 22;
  private final RecordingService recordings;
  private final Digests digests;

  RecordedStretches(RecordingService recordings, Digests digests) {
    this.recordings = recordings;
    this.digests = digests;
  }

  /**
   * Measures as many samples as the measurement takes, from where it begins; what gathers takes one
   * stretch after the other.
   *
   * @return what the last stretch, with all before, led to
   */
  <T> T each(
      RecordingDto r,
      RecordSettings<?> settings,
      MeasurementContext context,
      Function<Stretch, T> measured) {
    RecordMeasurement m = settings.measurement();
    double fs = r.sampleRateHz();
    long first = Math.min(r.samples(), Math.round(settings.startSeconds() * fs));
    long end = first + Math.min(r.samples() - first, m.samplesWanted(fs));
    long samples = end - first;
    Optional<Digesting> quick = m.digesting(recordings.record(r.id(), first, 0), context, samples);
    if (quick.isPresent()) {
      digests.gather(r.id(), quick.get(), first, end);
      IqRecord nothing = recordings.record(r.id(), end, 0);
      return measured.apply(new Stretch(m, quick.get().gathering(), nothing, samples));
    }
    RecordMeasurement.Gathering gathering = m.gathering();
    while (end - first > m.blockSamples()) {
      gathering.take(recordings.record(r.id(), first, m.blockSamples()), context);
      first += m.blockSamples();
    }
    IqRecord last = recordings.record(r.id(), first, end - first);
    return measured.apply(new Stretch(m, gathering, last, samples));
  }

  /**
   * A stretch of a recording, and what it goes into.
   *
   * @param gathering with all before it
   * @param record the last of it
   * @param samples of all of it
   */
  record Stretch(
      RecordMeasurement measurement,
      RecordMeasurement.Gathering gathering,
      IqRecord record,
      long samples) {}

  /** The beginning of a recording, long enough to tell what it is. */
  IqRecord beginning(RecordingDto r) {
    return recordings.record(r.id(), BEGINNING);
  }

  /** A stretch of a recording, at most as long as is looked at in other ways. */
  IqRecord stretch(RecordingDto r, double startSeconds, long samples) {
    long first = Math.min(r.samples(), Math.round(startSeconds * r.sampleRateHz()));
    return recordings.record(
        r.id(), first, Math.min(Math.min(samples, r.samples() - first), BESIDE));
  }

  MeasurementContext context(RecordingDto r, JobDto job) {
    boolean calibrated = r.fullScaleDbm() != null;
    return new MeasurementContext(
            calibrated && !job.isNone() ? new PathCorrection(job.path().toCore()) : null,
            recordings.accuracy(r.id()),
            job.limits().toCore(),
            r.overload() ? List.of("clipped") : List.of())
        .with(job.knownRates());
  }

  /** A stretch of a recording as another one. */
  RecordingDto cut(long recording, Cut wanted) {
    RecordingDto r = recordings.find(recording);
    Double from = wanted.fromSeconds();
    return recordings.cut(
        recording,
        wanted.name(),
        from == null ? Math.max(0, r.seconds() - wanted.seconds()) : from,
        wanted.seconds());
  }

  RecordingDto find(long recording) {
    return recordings.find(recording);
  }
}
